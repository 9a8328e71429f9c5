<script setup lang="ts">
// What is unpaid on a date: ageing that agrees with the books, the worklist with reasons, and beside it the customer's papers and words.
import { computed, ref, shallowRef, watch } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'
import AgeingBand from '~/collections/AgeingBand.vue'
import AgeingTable from '~/collections/AgeingTable.vue'
import OwingBeside from '~/collections/OwingBeside.vue'
import ReminderForm from '~/collections/ReminderForm.vue'
import SaidForm, { type SaidKind } from '~/collections/SaidForm.vue'
import { askOwing, useOwing, type Owing } from '~/collections/useOwing'
import Worklist from '~/collections/Worklist.vue'
import PaySheet from '~/components/payments/PaySheet.vue'
import { call, newId } from '~/lib/api'
import { SHOWS } from '~/lib/live'
import { useAct } from '~/lib/useAct'
import { useAnswer } from '~/lib/useAnswer'
import { useToday } from '~/lib/useToday'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
const session = useSession()
const on = useToday()
/** the day that is shown, where it has passed: acts belong to today */
const past = computed(() => (on.value < session.today ? on.value : ''))
const view = ref<'list' | 'ageing'>('list')
const chosen = ref('')
const { data, problem, refresh } = useAnswer(
  'unpaid',
  () => ({ query: { on: on.value } }),
  SHOWS.money,
)
watch(data, (d) => {
  if (d && !chosen.value)
    chosen.value = d.worklist[0]?.customerId ?? d.customers[0]?.customerId ?? ''
})
const { owing, problem: away, refresh: refreshOwing } = useOwing(chosen, on)
const { busy, problem: failed, act } = useAct()
const again = () => Promise.all([refresh(), refreshOwing()])
// What acts is about the customer it was opened from; the row behind it may change meanwhile.
const saying = shallowRef<{ kind: SaidKind; about: Owing } | null>(null)
const reminding = shallowRef<Owing | null>(null)
const paying = shallowRef<Owing | null>(null)
async function done() {
  saying.value = reminding.value = null
  await again()
}
const noAnswer = ({ customerId }: Owing) =>
  act(async () => {
    const body = { id: newId(), kind: 'no_answer' as const, amount: null, onDate: null, text: '' }
    await call('collectionNote', { params: { id: customerId }, body })
    await again()
  })
/** The act of a row waits for the papers of that very row. */
const next = (entry: { customerId: string; act: string }) =>
  act(async () => {
    chosen.value = entry.customerId
    const about = await askOwing(entry.customerId, on.value)
    if (chosen.value !== entry.customerId) return
    if (entry.act === 'remind' || entry.act === 'letter') reminding.value = about
    else saying.value = { kind: entry.act === 'settle' ? 'settled' : 'note', about }
  })
</script>

<template>
  <div
    v-if="data"
    class="unpaid stacks"
  >
    <div class="left">
      <h1 class="visually-hidden">Unpaid</h1>
      <AgeingBand
        v-model:on="on"
        :unpaid="data"
      />
      <Notice :of="failed ?? problem" />
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
            Whom to act on
          </ActButton>
          <ActButton
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
      <Worklist
        v-if="view === 'list' && data.worklist.length"
        v-model:chosen="chosen"
        :entries="data.worklist"
        :acts="!past"
        @act="next"
      />
      <AgeingTable
        v-else-if="view === 'ageing' && data.customers.length"
        v-model:chosen="chosen"
        :unpaid="data"
      />
      <p
        v-else
        class="empty sheet"
      >
        {{ view === 'list' ? 'Nothing is late on this day.' : 'Nobody owes anything on this day.' }}
      </p>
    </div>
    <OwingBeside
      v-if="owing"
      class="beside"
      :owing="owing"
      :busy="busy"
      :past="past"
      @today="on = session.today"
      @note="(kind) => (saying = { kind, about: owing! })"
      @pay="paying = owing"
      @no-answer="noAnswer(owing)"
      @remind="reminding = owing"
    />
    <aside
      v-else
      class="beside"
      aria-label="The customer"
    >
      <p
        class="empty"
        role="status"
      >
        {{ away?.message ?? (chosen ? 'Opening…' : 'Choose a customer.') }}
      </p>
    </aside>
    <SaidForm
      v-if="saying"
      :about="saying.about"
      :kind="saying.kind"
      @done="done"
      @close="saying = null"
    />
    <ReminderForm
      v-if="reminding"
      :about="reminding"
      @done="done"
      @close="reminding = null"
    />
    <PaySheet
      v-if="paying"
      :model-value="true"
      :customer-id="paying.customerId"
      :number="paying.name"
      :due="paying.open"
      :mails="[paying.email, paying.email2].filter(Boolean)"
      @update:model-value="paying = null"
      @paid="again"
    />
  </div>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
    says="Adding up…"
  />
</template>

<style scoped>
.unpaid {
  display: grid;
  grid-template-columns: minmax(0, 1fr) var(--beside);
  min-height: 100%;
}
.left {
  min-width: 0;
}
.notices {
  list-style: none;
  margin: 12px 12px 0;
  padding: 0;
  display: flex;
  flex-direction: column;
  gap: 6px;
}
.head {
  padding: 12px;
  gap: 14px;
}
.beside {
  border-left: 1px solid var(--rule-2);
  background: #fbfcfb;
  padding: 14px;
  display: flex;
  flex-direction: column;
  gap: 10px;
  overflow: auto;
}
</style>
