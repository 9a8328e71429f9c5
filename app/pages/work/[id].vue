<script setup lang="ts">
// The four-column account of a work order: promised, done, billed, paid; its gaps can be acted on where they stand.
import { sayWorkKind, type FreeKind } from '~~/core/visits/workKinds'
import { computed, onMounted, reactive, ref } from 'vue'
import type { Answer } from '~~/shared/api'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import BillSheet from '~/invoices/BillSheet.vue'
import PaySheet from '~/components/payments/PaySheet.vue'
import OwnLineForm, { type OwnLine } from '~/components/pricebook/OwnLine.vue'
import PriceSearch from '~/components/pricebook/PriceSearch.vue'
import SupplierSheet, { type BasketLine } from '~/components/pricebook/SupplierSheet.vue'
import WorkAccount, { type LineChange } from '~/components/visits/WorkAccount.vue'
import WorkRates from '~/components/visits/WorkRates.vue'
import WorkWords from '~/components/visits/WorkWords.vue'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import type { Found } from '~/lib/book'
import { useLoad } from '~/lib/useLoad'
import { useSession } from '~/stores/session'
import { INVOICE_STATES } from '~/invoices/words'
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'
import DataTable from '~/base/DataTable.vue'
import HistoryTimeline from '~/base/HistoryTimeline.vue'
import Pending from '~/base/Pending.vue'

definePageMeta({ layout: 'office' })
type Work = Answer<'workOrder'>
const session = useSession()
const route = useRoute()
const id = String(route.params.id)
const {
  data: work,
  problem,
  refresh,
} = useLoad(() => call('workOrder', { params: { id } }), 0, { about: () => [id] })
const { busy, problem: failed, act } = useAct()
const billing = ref(false)
const paying = ref<Work['invoices'][number] | null>(null)
const adding = ref(false)
const explaining = ref(false)
const why = ref('')
onMounted(() => {
  if (route.query.bill) billing.value = true
})
const edits = computed(() => session.may('visits.write'))
const bills = computed(() => session.may('invoices.make'))
const zero = (m: { amount: string }) => Number(m.amount) === 0
const change = (line: Work['lines'][number], values: LineChange, done: () => void) =>
  act(async () => {
    work.value = await call('changeLine', {
      params: { id: line.id },
      body: { version: line.version, ...values },
    })
    done()
  })
const add = (entries: Found[]) =>
  act(async () => {
    work.value = await call('addLines', {
      params: { id },
      body: {
        lines: entries.map((e) => ({
          id: newId(),
          entryId: e.id,
          quantity: '1',
          kind: 'other' as const,
          done: true,
          name: undefined,
          unitPrice: undefined,
        })),
      },
    })
  }, 'wait')
const writing = ref(false)
const addOwn = (line: OwnLine) =>
  act(async () => {
    work.value = await call('addLines', {
      params: { id },
      body: { lines: [{ ...line, done: true }] },
    })
    writing.value = false
  }, 'wait')
const off = reactive({ open: false, text: '' })
const discountAll = () =>
  act(async () => {
    work.value = await call('discountLines', { params: { id }, body: { discount: off.text } })
    Object.assign(off, { open: false, text: '' })
  })
const buying = ref(false)
const basket = (items: BasketLine[]) =>
  act(async () => {
    work.value = await call('addBasket', { params: { id }, body: { items } })
    buying.value = false
  })
const charge = () =>
  act(async () => {
    work.value = await call('chargeTime', { params: { id }, body: { lineId: newId() } })
  })
const explain = () =>
  act(async () => {
    work.value = await call('explainTime', {
      params: { id },
      body: { seconds: work.value!.time.uncoveredSeconds, reason: why.value },
    })
    explaining.value = false
  })
const quote = () =>
  act(async () => {
    const made = await call('beginQuote', { body: { id: newId(), workOrderId: id } })
    await navigateTo(`/quotes/${made.id}`)
  })
const closing = ref(false)
const back = reactive({
  open: false,
  kind: 'call_back' as FreeKind,
  problem: '',
  workOrderId: newId(),
  visitId: newId(),
})
const comeBack = () =>
  act(async () => {
    const made = await call('callBack', {
      params: { id },
      body: {
        workOrderId: back.workOrderId,
        visitId: back.visitId,
        kind: back.kind,
        problem: back.problem,
      },
    })
    back.open = false
    await navigateTo(`/work/${made.workOrderId}`)
  })
const close = () =>
  act(async () => {
    work.value = await call('closeWorkOrder', { params: { id }, body: { reason: why.value } })
    closing.value = false
  })
const printPage = () => window.print()
const mails = computed(() =>
  [work.value?.customer.email, work.value?.customer.email2].filter((m): m is string => Boolean(m)),
)
</script>

<template>
  <div
    v-if="work"
    class="paper"
  >
    <div class="body">
      <div class="row top">
        <div class="grow">
          <h1>
            <span class="quiet num">{{ work.number }}</span> {{ work.title }}
            <span
              class="chip"
              :class="{
                late: work.state === 'to_bill',
                good: work.state === 'on_site' || work.state === 'closed',
              }"
              >{{ session.state(work.state) }}</span
            >
          </h1>
          <p class="quiet">
            {{ [work.site.name, work.site.line1, work.site.town].filter(Boolean).join(', ') }} ·
            bill to
            <NuxtLink :to="`/customers/${work.customer.id}`">{{ work.customer.name }}</NuxtLink> ·
            terms {{ work.customer.terms
            }}<template v-if="work.orderNumber"> · their order {{ work.orderNumber }}</template
            ><template v-if="work.source"> · heard of us by {{ work.source }}</template
            ><template v-if="work.customer.level"> · {{ work.customer.level }}</template
            ><template v-if="work.customer.exempt"> · tax exempt</template
            ><template v-if="work.contact.name">
              · speak to <b>{{ work.contact.name }}</b> {{ work.contact.phone }}</template
            >{{ ' '
            }}<span
              v-for="t in work.customer.tags"
              :key="t"
              class="chip"
              >{{ t }}</span
            >
          </p>
        </div>
        <NuxtLink
          v-for="q in work.quotes"
          :key="q.id"
          class="btn no-print"
          :to="`/quotes/${q.id}`"
          >{{ q.number }} · {{ q.state }} {{ session.money(q.total) }}</NuxtLink
        >
        <ActButton
          v-if="edits && !work.quotes.length && work.state !== 'cancelled'"
          class="no-print"
          :primary="work.kind === 'quote_visit'"
          :disabled="busy"
          @click="quote"
        >
          Begin a quote
        </ActButton>
        <ActButton
          v-if="edits && !work.callbackOf && ['to_bill', 'billed', 'closed'].includes(work.state)"
          class="no-print"
          @click="back.open = true"
        >
          Call-back…
        </ActButton>
        <ActButton
          v-if="edits"
          class="no-print"
          @click="adding = !adding"
        >
          Add line</ActButton
        ><ActButton
          v-if="session.may('visits.rates') && work.lines.some((l) => zero(l.billed))"
          class="no-print"
          @click="off.open = !off.open"
        >
          Discount…</ActButton
        ><ActButton
          class="no-print"
          @click="printPage"
        >
          Print
        </ActButton>
        <ActButton
          v-if="bills && !zero(work.totals.toBill)"
          primary
          class="no-print"
          @click="billing = true"
        >
          Bill what is open {{ session.money(work.totals.toBill) }}
        </ActButton>
      </div>
      <p
        v-if="work.customer.stopWork"
        class="note bad"
      >
        <b>Stop work.</b> {{ work.customer.stopWork }}
      </p>
      <p
        v-if="work.callbackOf"
        class="note"
      >
        Without charge: comes back to
        <NuxtLink
          :to="`/work/${work.callbackOf.id}`"
          class="num"
          >{{ work.callbackOf.number }}</NuxtLink>. What it costs counts there.
      </p>
      <p
        v-if="work.callBacks.length"
        class="note warn"
      >
        Had to be looked at again:
        <template
          v-for="(b, i) in work.callBacks"
          :key="b.id"
          ><template v-if="i">, </template
          ><NuxtLink
            :to="`/work/${b.id}`"
            class="num"
            >{{ b.number }}</NuxtLink
          >
          ({{ sayWorkKind(b.kind) }}, {{ session.state(b.state)
          }}<template v-if="b.siteSeconds">, {{ hoursMinutes(b.siteSeconds) }} h</template
          ><template v-if="b.cost"
            >, cost {{ session.money(b.cost) }}, counted in the margin here</template
          >)</template
        >
      </p>
      <p
        v-if="problem || failed"
        class="note bad"
        role="alert"
      >
        {{ (failed ?? problem)?.message }}
      </p>
      <p class="sheet asked">
        <span class="quiet small">Asked for</span><br />{{ work.problem
        }}<template
          v-for="v in work.visits"
          :key="v.id"
          ><template v-if="v.findings"
            ><br /><span class="quiet small">Found by {{ v.technician }}</span
            ><br />{{ v.findings }}</template
          ></template
        >
      </p>
      <WorkWords
        :work="work"
        :edits="edits"
        @changed="(got) => (work = got)"
      />
      <div
        v-if="adding"
        class="sheet pad no-print stack"
      >
        <PriceSearch
          label="Add from the price book"
          at-hand
          @choose="add"
        />
        <div class="row">
          <ActButton
            class="side"
            @click="buying = true"
          >
            From a supplier…</ActButton
          ><ActButton
            class="side"
            @click="writing = !writing"
          >
            Not in the book…
          </ActButton>
        </div>
        <OwnLineForm
          v-if="writing"
          :busy="busy"
          @add="addOwn"
          @close="writing = false"
        />
      </div>
      <form
        v-if="off.open"
        class="sheet pad no-print row off"
        @submit.prevent="discountAll"
      >
        <Field
          label="Take off all that is not billed, besides the price level"
          :error="failed?.at('discount') ? failed.at('discount') : ''"
          ><TextInput
            v-model="off.text"
            class="num"
            autofocus
            placeholder="25.00 or 10 %" /></Field
        ><ActButton
          primary
          submit
          :disabled="busy || !off.text.trim()"
        >
          Take it off
        </ActButton>
      </form>
      <SupplierSheet
        v-if="buying"
        :busy="busy"
        :problem="failed"
        @take="basket"
        @close="buying = false"
      />
      <WorkRates
        :work="work"
        :may="session.may('visits.rates')"
        @changed="(got) => (work = got)"
      />
      <WorkAccount
        :work="work"
        :edits="edits"
        :busy="busy"
        @change="change"
      />
      <div
        v-if="work.time.uncoveredSeconds"
        class="note warn row"
      >
        <span class="grow"
          ><b
            >{{ Math.round(work.time.uncoveredSeconds / 60) }} minutes were worked that no line
            charges for.</b
          >
          The clock shows {{ hoursMinutes(work.time.siteSeconds) }} h on site; lines cover
          {{ hoursMinutes(work.time.coveredSeconds) }} h.</span
        ><ActButton
          :disabled="busy"
          @click="charge"
        >
          Charge {{ session.money(work.time.charge) }}</ActButton
        ><ActButton
          @click="
            () => {
              explaining = true
              why = ''
            }
          "
        >
          Leave out, say why
        </ActButton>
      </div>
      <p
        v-if="bills && work.state === 'to_bill' && zero(work.totals.toBill)"
        class="note warn row"
      >
        <span class="grow"
          ><b>Finished, and nothing is priced.</b> Add what was done, or close it and say why
          nothing is billed.</span
        ><ActButton
          @click="
            () => {
              closing = true
              why = ''
            }
          "
        >
          Close without a bill…
        </ActButton>
      </p>
      <DataTable
        v-if="work.invoices.length"
        :rows="work.invoices"
        :row-key="(i) => i.id"
        :columns="[
          { key: 'invoice', label: 'Invoice' },
          { key: 'issued', label: 'Issued', text: (i) => session.day(i.issueOn) },
          { key: 'due', label: 'Due', text: (i) => session.day(i.dueOn) },
          { key: 'total', label: 'Total', figures: true, text: (i) => session.money(i.total) },
          {
            key: 'open',
            label: 'Open',
            figures: true,
            tone: (i) => ({ soon: !zero(i.open) }),
            text: (i) => session.money(i.open),
          },
          {
            key: 'state',
            label: 'State',
            text: (i) => INVOICE_STATES[i.state],
          },
          { key: 'act', right: true },
        ]"
        ><template #invoice="{ row: i }"
          ><NuxtLink
            class="num"
            :to="`/invoices/${i.id}`"
            >{{ i.number }}</NuxtLink
          ></template
        >

        <template #act="{ row: i }"
          ><ActButton
            v-if="bills && !zero(i.open)"
            @click="paying = i"
          >
            Take payment…
          </ActButton></template
        ></DataTable
      >
      <div
        v-if="work.signatures.length || work.photos.length"
        class="row kept"
      >
        <figure
          v-for="s in work.signatures"
          :key="s.id"
          class="sheet"
        >
          <img
            :src="`/api/v1/signatures/${s.id}`"
            :alt="`Signature of ${s.name}`"
          />
          <figcaption>
            <b>{{ s.name }}</b> for <span class="num">{{ session.money(s.total) }}</span><br /><span
              class="quiet small"
              >{{ session.dayTime(s.signedAt) }}, on {{ s.takenBy }}’s phone</span
            >
          </figcaption>
        </figure>
        <figure
          v-for="p in work.photos"
          :key="p.id"
          class="sheet"
        >
          <img
            :src="`/api/v1/photos/${p.id}`"
            alt="Photo from the visit"
          />
          <figcaption class="quiet small">{{ session.dayTime(p.takenAt) }}</figcaption>
        </figure>
      </div>
    </div>
    <aside class="no-print">
      <h2>History</h2>
      <HistoryTimeline :entries="work.history" />
    </aside>
    <Dialog
      v-model="back.open"
      title="Come back without charge"
      width="460"
    >
      <form
        class="stack"
        @submit.prevent="comeBack"
      >
        <Field label="It is"
          ><Choice
            v-model="back.kind"
            :options="[
              { value: 'call_back', label: 'a call-back: our work did not hold' },
              { value: 'warranty', label: 'a warranty visit: the part did not' },
            ]" /></Field
        ><Field
          label="What is wrong again"
          :error="failed?.at('problem') ? failed.at('problem') : ''"
          ><TextInput
            v-model="back.problem"
            rows="3" /></Field
        ><ActButton
          primary
          submit
          :disabled="busy"
        >
          Put it among what needs a slot
        </ActButton>
      </form>
    </Dialog>
    <BillSheet
      v-if="bills"
      v-model="billing"
      :work="work"
      @made="refresh"
    />
    <PaySheet
      v-if="paying"
      :model-value="true"
      :customer-id="work.customer.id"
      :invoice-id="paying.id"
      :number="paying.number"
      :due="paying.open"
      :mails="mails"
      @update:model-value="paying = null"
      @paid="refresh"
    />
    <Dialog
      :model-value="explaining || closing"
      :title="closing ? 'Close without a bill' : 'Leave these minutes out'"
      width="420"
      @close="explaining = closing = false"
    >
      <form
        class="stack"
        @submit.prevent="closing ? close() : explain()"
      >
        <Field
          label="Why"
          :error="failed?.at('reason') ? failed.at('reason') : ''"
          ><TextInput v-model="why" /></Field
        ><ActButton
          primary
          submit
          :disabled="busy"
        >
          {{ closing ? 'Close it' : 'Leave them out' }}
        </ActButton>
      </form>
    </Dialog>
  </div>
  <Pending
    v-else
    :problem="problem"
    says="Opening the account…"
  />
</template>

<style scoped>
.side {
  align-self: flex-start;
}
.paper {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 290px;
  min-height: 100%;
}
.body {
  padding: 16px 20px;
  display: flex;
  flex-direction: column;
  gap: 12px;
  min-width: 0;
}
.top {
  align-items: flex-start;
  flex-wrap: wrap;
}
.top > .grow {
  flex: 1 0 100%;
}
.pad {
  padding: 12px;
}
.asked {
  padding: 9px 12px;
  white-space: pre-line;
}
aside {
  border-left: 1px solid var(--rule-2);
  background: #fbfcfb;
  padding: 16px;
}
.off {
  align-items: flex-end;
}
.off .field {
  width: 200px;
}
.kept {
  flex-wrap: wrap;
  align-items: stretch;
}
figure {
  margin: 0;
  padding: 8px;
}
figure img {
  display: block;
  height: 70px;
  max-width: 200px;
  object-fit: contain;
}
@media print {
  .paper {
    display: block;
  }
}
</style>
