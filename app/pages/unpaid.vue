<script setup lang="ts">
// What is unpaid on a date: ageing that agrees with the books, the worklist with reasons, and beside it the customer's papers and words.
import { computed, reactive, ref, watch } from 'vue'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { SHOWS } from '~/lib/live'
import { useLoad } from '~/lib/useLoad'
import type { Column } from '~/base/columns'
import type { Answer } from '~~/shared/api'
import { useSession } from '~/stores/session'
import PaySheet from '~/components/payments/PaySheet.vue'
import ActButton from '~/base/ActButton.vue'
import DateInput from '~/base/DateInput.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'
import DataTable from '~/base/DataTable.vue'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'
import MailFields from '~/base/MailFields.vue'

definePageMeta({ layout: 'office' })
const session = useSession()
const on = ref(session.today)
const view = ref<'list' | 'ageing'>('list')
const chosen = ref('')
const { data, problem, refresh } = useLoad(
  () => call('unpaid', { query: { on: on.value } }),
  0,
  SHOWS.money,
)
const {
  data: found,
  problem: away,
  refresh: refreshOwing,
} = useLoad(
  async () =>
    chosen.value ? call('owing', { params: { id: chosen.value }, query: { on: on.value } }) : null,
  0,
  SHOWS.money,
)
type Owing = Answer<'owing'>
/** Whose papers are shown: never those of the one before, while the answer is on its way. */
const owing = computed(() => (found.value?.customerId === chosen.value ? found.value : null))
watch(on, () => {
  void refresh()
  void refreshOwing()
})
watch(chosen, () => void refreshOwing())
watch(data, (d) => {
  if (d && !chosen.value)
    chosen.value = d.worklist[0]?.customerId ?? d.customers[0]?.customerId ?? ''
})
const { busy, problem: failed, act } = useAct()
// What acts is about the customer it was opened from, and is sent with the sum that it showed; the row behind it may change meanwhile.
const said = reactive({
  open: '' as '' | 'promise' | 'dispute' | 'settled' | 'note',
  about: null as Owing | null,
  id: '',
  amount: '',
  onDate: '',
  text: '',
})
const mail = reactive({
  about: null as Owing | null,
  id: '',
  first: '',
  second: '',
  subject: '',
  body: '',
})
const paying = ref<Owing | null>(null)
const BUCKETS = [
  ['current', 'Not yet due', 'var(--green-2)'],
  ['d1_30', '1–30 days late', '#d9a53c'],
  ['d31_60', '31–60', '#cf7a2a'],
  ['d61_90', '61–90', 'var(--brick)'],
  ['over90', 'over 90', '#7d2010'],
  ['credits', 'Credits', 'var(--steel)'],
] as const
const most = computed(() =>
  Math.max(1, ...BUCKETS.map(([k]) => Number(data.value?.totals[k].amount ?? 0))),
)
const again = () => Promise.all([refresh(), refreshOwing()])
function openSaid(kind: Exclude<typeof said.open, ''>, about: Owing) {
  failed.value = null
  Object.assign(said, {
    open: kind,
    about,
    id: newId(),
    amount: about.owed.amount,
    onDate: '',
    text: '',
  })
}
const note = () =>
  act(async () => {
    const { open: kind, about, id, amount, onDate, text } = said
    if (!kind || !about) return
    await call('collectionNote', {
      params: { id: about.customerId },
      key: `note-${id}`,
      body: {
        id,
        kind,
        amount: kind === 'promise' ? amount : null,
        onDate: kind === 'promise' ? onDate : null,
        text,
      },
    })
    Object.assign(said, { open: '', about: null, text: '' })
    await again()
  })
const noAnswer = (about: Owing) =>
  act(async () => {
    await call('collectionNote', {
      params: { id: about.customerId },
      body: { id: newId(), kind: 'no_answer', amount: null, onDate: null, text: '' },
    })
    await again()
  })
function openReminder(about: Owing) {
  failed.value = null
  Object.assign(mail, {
    about,
    id: newId(),
    first: about.email,
    second: about.email2,
    subject: about.reminder.subject,
    body: about.reminder.body,
  })
}
const remind = () =>
  act(async () => {
    const { about, id, first, second, subject, body } = mail
    if (!about) return
    await call('remind', {
      params: { id: about.customerId },
      key: `reminder-${id}`,
      body: {
        id,
        to: [first, second].filter(Boolean),
        subject,
        body,
        shownOwed: about.owed.amount,
      },
    })
    mail.about = null
    await again()
  })
const ACTS: Record<string, string> = {
  call: 'Call',
  remind: 'Send reminder',
  settle: 'Settle dispute',
  wait: 'Wait',
}
/** What is open before credits: what a payment can pay. */
const dueOf = (about: Owing) => about.open
/** Two sums where they differ: what the words ask for, and what is owed in all. */
function reminderTitle({ name, owed, reminder: { step, asked } }: Owing): string {
  const all = asked.amount === owed.amount ? '' : `; ${session.money(owed)} is owed in all`
  return `Reminder ${step} to ${name}: ${session.money(asked)}${all}`
}
/** The act of a row waits for the papers of that very row. */
const next = (entry: { customerId: string; act: string }) =>
  act(async () => {
    chosen.value = entry.customerId
    if (entry.act !== 'remind' && entry.act !== 'settle') return
    const about = await call('owing', { params: { id: entry.customerId }, query: { on: on.value } })
    if (chosen.value !== entry.customerId) return
    if (entry.act === 'remind') openReminder(about)
    else openSaid('settled', about)
  })
type Debtor = Answer<'unpaid'>['customers'][number]
const AGEING: Column<Debtor>[] = [
  { key: 'customer', label: 'Customer' },
  ...BUCKETS.map(([key, label]) => ({
    key,
    label,
    figures: true,
    text: (c: Debtor) => (Number(c[key].amount) ? session.money(c[key], false) : '–'),
  })),
  {
    key: 'owed',
    label: 'Owes',
    figures: true,
    look: 'strong',
    text: (c) => session.money(c.owed, false),
  },
]
const sums = computed(() => {
  const totals = data.value?.totals
  if (!totals) return {}
  const bucketSums = BUCKETS.map(([key]) => [key, session.money(totals[key], false)])
  return {
    customer: 'All',
    owed: session.money(totals.owed, false),
    ...Object.fromEntries(bucketSums),
  }
})
</script>

<template>
  <div
    v-if="data"
    class="unpaid"
  >
    <div class="left">
      <div class="buckets">
        <div
          v-for="[k, name, colour] in BUCKETS"
          :key="k"
        >
          <span class="quiet small">{{ name }}</span><b class="num"
            >{{ k === 'credits' && Number(data.totals[k].amount) ? '−' : ''
            }}{{ session.money(data.totals[k], false) }}</b
          ><i
            :style="{
              width: `${(Number(data.totals[k].amount) / most) * 100}%`,
              background: colour,
            }"
          />
        </div>
        <div>
          <span class="quiet small"
            >Owed on
            <DateInput
              v-model="on"
              aria-label="Owed on which day" /></span
          ><b class="num"
            ><span class="double">{{ session.money(data.totals.owed) }}</span></b
          ><span
            class="small"
            :class="data.agrees ? 'good' : 'late'"
            >{{
              data.agrees ? 'agrees with the books' : `the books say ${session.money(data.ledger)}`
            }}</span
          >
        </div>
      </div>
      <Notice :of="problem" />
      <p
        v-if="failed && !said.open && !mail.about"
        class="note bad"
        role="alert"
      >
        {{ failed.message }}
      </p>
      <ul
        v-if="data.notices.length"
        class="notices"
        aria-label="Given back"
      >
        <li
          v-for="n in data.notices"
          :key="n.id"
          class="note"
          :class="n.done ? '' : 'warn'"
        >
          <NuxtLink :to="`/invoices/${n.invoiceId}`">{{ n.name }}</NuxtLink>: {{ n.text }}
          <span class="quiet small">{{ session.dayTime(n.at) }}</span>
        </li>
      </ul>
      <div class="row head">
        <div
          role="tablist"
          class="row"
        >
          <ActButton
            role="tab"
            :on="view === 'list'"
            :aria-selected="view === 'list'"
            @click="view = 'list'"
          >
            Whom to act on</ActButton
          ><ActButton
            role="tab"
            :on="view === 'ageing'"
            :aria-selected="view === 'ageing'"
            @click="view = 'ageing'"
          >
            Ageing by customer
          </ActButton>
        </div>
        <span class="quiet">{{
          view === 'list'
            ? `${data.worklist.length - data.resting} to act on, first where a call helps most; ` +
              `${data.resting} at rest`
            : `${data.customers.length} customers`
        }}</span>
      </div>
      <DataTable
        v-if="view === 'list' && data.worklist.length"
        :rows="data.worklist"
        :row-key="(e) => e.customerId"
        picks
        :tone="(e) => ({ chosen: e.customerId === chosen, rest: e.resting })"
        :columns="[
          { key: 'customer', label: 'Customer' },
          {
            key: 'overdue',
            label: 'Overdue',
            figures: true,
            text: (e) => session.money(e.overdue, false),
          },
          { key: 'late', label: 'Late', figures: true, tone: (e) => ({ late: e.late > 30 }) },
          { key: 'whyNow', label: 'Why now', text: (e) => e.reason },
          { key: 'expected', label: 'Expected', look: 'small num' },
          { key: 'nextAct', label: 'Next act' },
        ]"
        @pick="(e) => (chosen = e.customerId)"
        ><template #customer="{ row: e }"
          ><button
            class="link"
            @click.stop="chosen = e.customerId"
          >
            {{ e.name }}</button
          ><br /><span class="quiet small">{{ e.phone || e.email }}</span></template
        >

        <template #late="{ row: e }">{{ e.late }} d </template>

        <template #expected="{ row: e }"
          >{{ e.expectedOn ? session.day(e.expectedOn) : '–' }}<br v-if="e.spreadDays" /><span
            v-if="e.spreadDays"
            class="quiet"
            >± {{ e.spreadDays }} days</span
          ></template
        >
        <template #nextAct="{ row: e }"
          ><ActButton
            :primary="e.customerId === chosen && !e.resting"
            @click.stop="next(e)"
          >
            {{ ACTS[e.act] }}
          </ActButton></template
        ></DataTable
      >
      <DataTable
        v-else-if="view === 'ageing' && data.customers.length"
        :rows="data.customers"
        :row-key="(c) => c.customerId"
        :tone="(c) => ({ chosen: c.customerId === chosen })"
        :columns="AGEING"
        :sums="sums"
        picks
        @pick="(c) => (chosen = c.customerId)"
      >
        <template #customer="{ row: c }"
          ><ActButton
            quiet
            class="link"
            @click.stop="chosen = c.customerId"
          >
            {{ c.name }}
          </ActButton></template
        >
      </DataTable>
      <p
        v-else
        class="empty sheet"
      >
        {{ view === 'list' ? 'Nothing is late on this day.' : 'Nobody owes anything on this day.' }}
      </p>
    </div>
    <aside
      v-if="!owing"
      aria-label="The customer"
    >
      <p
        class="empty"
        role="status"
      >
        {{ away?.message ?? (chosen ? 'Opening…' : 'Choose a customer.') }}
      </p>
    </aside>
    <aside
      v-else
      :aria-label="owing.name"
    >
      <h2>
        <NuxtLink :to="`/customers/${owing.customerId}`">{{ owing.name }}</NuxtLink>
      </h2>
      <p class="quiet">
        {{ owing.phone }} · {{ owing.sites }} {{ owing.sites === 1 ? 'site' : 'sites' }} · terms
        {{ owing.terms }}<br />{{ owing.habit }}
      </p>
      <DataTable
        :rows="[
          ...owing.invoices,
          ...(Number(owing.credits.amount) ? [{ id: 'credits' as const }] : []),
        ]"
        :row-key="(i) => i.id"
        :columns="[
          { key: 'invoice', label: 'Invoice' },
          { key: 'due', label: 'Due', look: 'nowrap' },
          {
            key: 'open',
            label: 'Open',
            figures: true,
            text: (i) =>
              'number' in i
                ? session.money(i.open, false)
                : `−${session.money(owing!.credits, false)}`,
          },
        ]"
        :sums="{ invoice: 'Owes', open: session.money(owing.owed, false) }"
      >
        <template #invoice="{ row: i }"
          ><template v-if="'number' in i"
            ><NuxtLink
              class="num"
              :to="`/invoices/${i.id}`"
              >{{ i.number }}</NuxtLink
            ><br /><span class="quiet small">{{ i.work }}</span></template
          ><template v-else>Credits</template></template
        >
        <template #due="{ row: i }"
          ><template v-if="'number' in i"
            >{{ session.day(i.dueOn).slice(4) }}<br /><span
              v-if="i.late"
              class="late small"
              >{{ i.late }} d late</span
            ></template
          ></template
        >
      </DataTable>
      <h3>After the call</h3>
      <div class="row wrap">
        <ActButton @click="openSaid('promise', owing)"> Promised…</ActButton
        ><ActButton
          :disabled="!owing.invoices.length"
          @click="paying = owing"
        >
          Paid now…</ActButton
        ><ActButton @click="openSaid('dispute', owing)"> Disputes…</ActButton
        ><ActButton
          :disabled="busy"
          @click="noAnswer(owing)"
        >
          No answer</ActButton
        ><ActButton @click="openSaid('note', owing)"> Said…</ActButton
        ><ActButton
          :disabled="!owing.invoices.length"
          @click="openReminder(owing)"
        >
          Reminder {{ owing.reminder.step }}…
        </ActButton>
      </div>
      <h3>What was said</h3>
      <ol>
        <li
          v-for="s in owing.said"
          :key="s.id"
        >
          {{ s.text }}<br /><span class="quiet small"
            >{{ session.dayTime(s.on) }} · {{ s.who }}</span
          >
        </li>
        <li
          v-if="!owing.said.length"
          class="quiet"
        >
          Nothing yet.
        </li>
      </ol>
    </aside>
    <Dialog
      :model-value="said.open !== ''"
      :title="`${{ promise: 'Promised to pay', dispute: 'Disputes it', settled: 'Dispute settled', note: 'What was said', '': '' }[said.open]}: ${said.about?.name ?? ''}`"
      width="420"
      @close="said.open = ''"
    >
      <form
        class="stack"
        @submit.prevent="note"
      >
        <div
          v-if="said.open === 'promise'"
          class="row"
        >
          <Field
            class="grow"
            label="Amount"
            :error="failed?.at('amount') ? failed.at('amount') : ''"
            ><TextInput
              v-model="said.amount"
              class="num" /></Field
          ><Field
            class="grow"
            label="By"
            :error="failed?.at('onDate') ? failed.at('onDate') : ''"
            ><DateInput v-model="said.onDate"
          /></Field>
        </div>
        <Field
          label="In their words"
          :error="failed?.at('text') ? failed.at('text') : ''"
          ><TextInput v-model="said.text"
        /></Field>
        <Notice
          :of="failed"
          unplaced
        />
        <ActButton
          primary
          submit
          :disabled="busy"
        >
          Note it
        </ActButton>
      </form>
    </Dialog>
    <Dialog
      :model-value="mail.about !== null"
      :title="mail.about ? reminderTitle(mail.about) : ''"
      width="600"
      @close="mail.about = null"
    >
      <form
        class="stack"
        @submit.prevent="remind"
      >
        <MailFields
          :model-value="mail"
          :rows="10"
        />
        <Notice :of="failed" />
        <ActButton
          primary
          submit
          :disabled="busy || !mail.first"
        >
          Send this reminder
        </ActButton>
      </form>
    </Dialog>
    <PaySheet
      v-if="paying"
      :model-value="true"
      :customer-id="paying.customerId"
      :number="paying.name"
      :due="dueOf(paying)"
      :mails="[paying.email].filter(Boolean)"
      @update:model-value="paying = null"
      @paid="again"
    />
  </div>
  <Pending
    v-else
    :problem="problem"
    says="Adding up…"
  />
</template>

<style scoped>
.unpaid {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 312px;
  min-height: 100%;
}
.left {
  min-width: 0;
}
.buckets {
  display: grid;
  grid-template-columns: repeat(6, 1fr) 1.5fr;
  background: var(--sheet);
  border-bottom: 1px solid var(--rule-2);
}
.buckets > div {
  padding: 10px 12px;
  border-right: 1px solid var(--rule);
  display: flex;
  flex-direction: column;
  gap: 3px;
  min-width: 0;
}
.buckets b {
  font-size: 15px;
}
.buckets i {
  height: 6px;
  min-width: 1px;
}
.notices {
  list-style: none;
  margin: 12px 12px 0;
  padding: 0;
  display: flex;
  flex-direction: column;
  gap: 6px;
}
.date {
  width: 140px;
}
.head {
  padding: 12px;
  gap: 14px;
}
.link {
  border: 0;
  background: none;
  padding: 0;
  font-weight: 650;
  text-align: left;
  cursor: pointer;
}
.rest td {
  color: var(--ink-2);
}
aside {
  border-left: 1px solid var(--rule-2);
  background: #fbfcfb;
  padding: 14px;
  display: flex;
  flex-direction: column;
  gap: 10px;
  overflow: auto;
}
.wrap {
  flex-wrap: wrap;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0 0 0 12px;
  border-left: 2px solid var(--green-2);
}
li {
  margin-bottom: 9px;
}
</style>
