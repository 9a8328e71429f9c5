<script setup lang="ts">
// The four-column account of a work order: promised, done, billed, paid; its gaps can be acted on where they stand.
import { QUOTE_VISIT } from '~~/core/visits/workKinds'
import { computed, ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import DocumentPage from '~/base/DocumentPage.vue'
import Pending from '~/base/Pending.vue'
import StateTag from '~/base/StateTag.vue'
import PaySheet from '~/components/payments/PaySheet.vue'
import LineSources from '~/components/pricebook/LineSources.vue'
import BillSheet from '~/invoices/BillSheet.vue'
import { useSession } from '~/stores/session'
import { WORK_ORDER_TONES } from '../words'
import ComeBack from './ComeBack.vue'
import DiscountAll from './DiscountAll.vue'
import { isZero, useWorkOrder, type Work } from './useWorkOrder'
import WorkAccount from './WorkAccount.vue'
import WorkEnd from './WorkEnd.vue'
import WorkFacts from './WorkFacts.vue'
import WorkGaps from './WorkGaps.vue'
import WorkInvoices from './WorkInvoices.vue'
import Asks from '~/access/Asks.vue'
import WorkTimes from '~/visits/WorkTimes.vue'
import TaskList from '~/tasks/TaskList.vue'
import WorkPhases from './WorkPhases.vue'
import WorkProofs from './WorkProofs.vue'
import WorkRates from './WorkRates.vue'
import WorkWords from './WorkWords.vue'

const props = defineProps<{ id: string; bill?: boolean; add?: boolean; cancel?: boolean }>()
const session = useSession()
const {
  work,
  problem,
  refresh,
  busy,
  failed,
  take,
  change,
  mails,
  charge,
  beginQuote,
  addEntries,
  addOwn,
  addBasket,
} = useWorkOrder(props.id)
/** the part of the page that is open for an act */
const open = ref<'' | 'add' | 'discount' | 'back'>(props.add ? 'add' : '')
const toggle = (part: 'add' | 'discount') => {
  open.value = open.value === part ? '' : part
}
const billing = ref(Boolean(props.bill))
const paying = ref<Work['invoices'][number] | null>(null)
const writes = computed(() => session.may('visits.write'))
/** What has ended is read, and goes on before anything of it is changed. */
const edits = computed(() => writes.value && !work.value!.ended)
const bills = computed(() => session.may('invoices.make'))
const finished = computed(() => ['to_bill', 'billed', 'closed'].includes(work.value!.state))
const ends = computed(() => session.may('visits.cancel'))
const ending = ref<'' | 'cancel' | 'reopen'>(props.cancel ? 'cancel' : '')
/** By somebody's word: what is billed and paid rests by itself, and goes on by itself. */
const hasEnded = computed(() => work.value!.ended)
const mayBeCancelled = computed(
  () =>
    !hasEnded.value &&
    isZero(work.value!.totals.billed) &&
    work.value!.visits.every(({ state }) => ['planned', 'cancelled', 'no_access'].includes(state)),
)
const discounts = computed(
  () =>
    edits.value && session.may('visits.rates') && work.value!.lines.some((l) => isZero(l.billed)),
)
const printPage = () => window.print()
function discounted(now: Work) {
  take(now)
  open.value = ''
}
</script>

<template>
  <DocumentPage
    v-if="work"
    :id="id"
    :number="work.number"
    :title="work.title"
    of="workOrderEarlier"
    :history="work.history"
    :problem="(failed ?? problem)?.message"
  >
    <template #state>
      <StateTag
        :word="session.state(work.state)"
        :tone="WORK_ORDER_TONES[work.state]"
      />
    </template>
    <template #standing><WorkFacts :work="work" /></template>
    <template #acts>
      <NuxtLink
        v-for="quote in work.quotes"
        :key="quote.id"
        class="btn"
        :to="`/quotes/${quote.id}`"
        >{{ quote.number }} · {{ quote.state }} {{ session.money(quote.total) }}</NuxtLink
      >
      <ActButton
        v-if="edits && !work.quotes.length && work.state !== 'cancelled'"
        :primary="work.kind === QUOTE_VISIT"
        :disabled="busy"
        @click="beginQuote"
      >
        Begin a quote
      </ActButton>
      <ActButton
        v-if="writes && !work.callbackOf && finished"
        @click="open = 'back'"
      >
        Call-back…
      </ActButton>
      <ActButton
        v-if="edits"
        @click="toggle('add')"
      >
        Add line
      </ActButton>
      <ActButton
        v-if="discounts"
        @click="toggle('discount')"
      >
        Discount…
      </ActButton>
      <ActButton
        v-if="ends && mayBeCancelled"
        @click="ending = 'cancel'"
      >
        Cancel the work order…
      </ActButton>
      <ActButton
        v-if="ends && hasEnded"
        @click="ending = 'reopen'"
      >
        Go on with it…
      </ActButton>
      <ActButton @click="printPage"> Print </ActButton>
      <ActButton
        v-if="bills && !isZero(work.totals.toBill)"
        primary
        @click="billing = true"
      >
        Bill what is open {{ session.money(work.totals.toBill) }}
      </ActButton>
    </template>
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
      :refresh="refresh"
      @changed="take"
    />
    <TaskList
      about="work"
      :subject-id="id"
    />
    <LineSources
      v-if="open === 'add'"
      :about="id"
      :busy="busy"
      :problem="failed"
      :add-entries="addEntries"
      :add-own="addOwn"
      :add-basket="addBasket"
    />
    <DiscountAll
      v-if="open === 'discount'"
      :work-order-id="id"
      @done="discounted"
    />
    <WorkRates
      :work="work"
      :may="session.may('visits.rates')"
      :refresh="refresh"
      @changed="take"
    />
    <Asks
      :asks="work.asks"
      @answered="refresh()"
    />
    <WorkAccount
      data-tour="work.account"
      :work="work"
      :edits="edits"
      :busy="busy"
      :refresh="refresh"
      @change="change"
      @changed="take"
    />
    <WorkPhases
      :work="work"
      :edits="edits"
      :refresh="refresh"
      @changed="take"
    />
    <WorkGaps
      :work="work"
      :bills="bills"
      :busy="busy"
      @charge="charge"
      @changed="take"
    />
    <WorkInvoices
      :invoices="work.invoices"
      :bills="bills"
      @pay="paying = $event"
    />
    <WorkTimes
      :work="work"
      @changed="take"
    />
    <WorkProofs :work="work" />
    <ComeBack
      v-if="open === 'back'"
      :work-order-id="id"
      @close="open = ''"
    />
    <BillSheet
      v-if="bills && billing"
      :work="work"
      @made="refresh"
      @changed="take"
      @close="billing = false"
    />
    <WorkEnd
      v-if="ends && ending"
      :work="work"
      :as="ending"
      @changed="take"
      @close="ending = ''"
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
  </DocumentPage>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
    says="Opening the account…"
  />
</template>

<style scoped>
.asked {
  padding: 9px 12px;
  white-space: pre-line;
}
</style>
