<script setup lang="ts">
// Between the columns: promised and not done, minutes that no line charges for, and work that is finished without a price.
import { computed, ref } from 'vue'
import { isUnderWay } from '~~/core/visits/visitLifecycle'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import ActButton from '~/base/ActButton.vue'
import ReasonDialog from '~/base/ReasonDialog.vue'
import { call } from '~/lib/api'
import { useSession } from '~/stores/session'
import { isZero, type Work } from './useWorkOrder'

const props = defineProps<{ work: Work; bills: boolean; busy: boolean }>()
const emit = defineEmits<{ charge: []; changed: [work: Work] }>()
const session = useSession()
const SECONDS = 60
const asked = ref<'' | 'explain' | 'close' | 'undone'>('')
/** the minutes that were shown when the reason was asked for */
const seconds = ref(0)
const params = { id: props.work.id }
/** Something was done, and what was to come after it waits: it ends only by somebody's word. */
const mayEnd = computed(
  () =>
    session.may('visits.close') &&
    !props.work.ended &&
    ['needs_slot', 'scheduled'].includes(props.work.state) &&
    isZero(props.work.totals.toBill) &&
    (!isZero(props.work.totals.billed) ||
      props.work.visits.some(({ state }) => state === 'finished')),
)
const unpriced = computed(
  () => props.bills && props.work.state === 'to_bill' && isZero(props.work.totals.toBill),
)
/** Promised, not done, and nobody goes there any more. */
const undone = computed(() =>
  props.work.state !== 'to_bill' ||
  props.work.visits.some(({ state }) => state === 'planned' || isUnderWay(state))
    ? []
    : props.work.lines.filter((line) => !line.done && !isZero(line.promised)),
)
/** those that were shown when the reason was asked for */
const leaving = ref<string[]>([])
function askUndone() {
  leaving.value = undone.value.map(({ id }) => id)
  asked.value = 'undone'
}
const leave = async (reason: string) =>
  emit('changed', await call('leaveUndone', { params, body: { lineIds: leaving.value, reason } }))
function explain() {
  seconds.value = props.work.time.uncoveredSeconds
  asked.value = 'explain'
}
const leaveOut = async (reason: string) =>
  emit('changed', await call('explainTime', { params, body: { seconds: seconds.value, reason } }))
const close = async (reason: string) =>
  emit('changed', await call('closeWorkOrder', { params, body: { reason } }))
</script>

<template>
  <div
    v-if="work.time.uncoveredSeconds"
    class="note warn row"
  >
    <span class="grow"
      ><b
        >{{ Math.round(work.time.uncoveredSeconds / SECONDS) }} minutes were worked that no line
        charges for.</b
      >
      The clock shows {{ hoursMinutes(work.time.siteSeconds) }} h on site; lines cover
      {{ hoursMinutes(work.time.coveredSeconds) }} h.</span
    >
    <template v-if="session.may('visits.sign')">
      <ActButton
        :disabled="busy"
        @click="emit('charge')"
      >
        Charge {{ session.money(work.time.charge) }}
      </ActButton>
      <ActButton @click="explain"> Leave out, say why </ActButton>
    </template>
  </div>
  <p
    v-if="!isZero(work.totals.notAgreed)"
    class="note warn"
  >
    <b
      >{{ session.money(work.totals.notAgreed) }} before tax came or grew after the customer
      agreed.</b
    >
    It has to be shown to them again, or it is billed with a reason.
  </p>
  <div
    v-if="undone.length"
    class="note warn row"
  >
    <span class="grow"
      ><b>Promised and not done:</b>
      {{ undone.map((line) => `${line.name}, ${session.money(line.promised)}`).join('; ') }}. Tick
      it where it was done, make a further visit, or say why not.</span
    >
    <ActButton
      v-if="session.may('visits.close')"
      @click="askUndone"
    >
      Not done, say why…
    </ActButton>
  </div>
  <p
    v-if="unpriced"
    class="note warn row"
  >
    <span class="grow"
      ><template v-if="isZero(work.totals.billed)"
        ><b>Finished, and nothing is priced.</b> Add what was done, or close it and say why nothing
        is billed.</template
      ><template v-else
        ><b>All that is priced is billed.</b> Charge or explain the minutes, or close it and say why
        no more is billed.</template
      ></span
    >
    <ActButton @click="asked = 'close'"> Close without a bill… </ActButton>
  </p>
  <p
    v-if="mayEnd"
    class="note row"
  >
    <span class="grow"
      >A visit is still to come. Where it will not be, close the work order and say why.</span
    >
    <ActButton @click="asked = 'close'"> Close, without the visit… </ActButton>
  </p>
  <ReasonDialog
    v-if="asked === 'explain'"
    title="Leave these minutes out"
    label="Why"
    name="reason"
    phrases="left_out"
    act="Leave them out"
    :send="leaveOut"
    @close="asked = ''"
  />
  <ReasonDialog
    v-if="asked === 'undone'"
    title="Promised and not done"
    label="Why"
    name="reason"
    phrases="not_done"
    act="Leave it"
    :send="leave"
    @close="asked = ''"
  />
  <ReasonDialog
    v-if="asked === 'close'"
    title="Close without a bill"
    label="Why"
    name="reason"
    phrases="no_bill"
    act="Close it"
    :send="close"
    @close="asked = ''"
  />
</template>
