<script setup lang="ts">
// When: the day, technicians' days side by side, the window told to the customer, and what speaks against it before it is booked.
import { computed, nextTick, ref, watch } from 'vue'
import { localTime, localToInstant, plusDays } from '~~/core/time/zone'
import type { Answer } from '~~/shared/api'
import NearestTable from '~/components/dispatch/NearestTable.vue'
import { call, type Problem } from '~/lib/api'
import { STEP_MS } from '~/dispatch/day/steps'
import { onLive, SHOWS } from '~/lib/live'
import type { Draft } from '~/stores/call'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import DateInput from '~/base/DateInput.vue'
import OpeningsTable from './when/OpeningsTable.vue'
import TechnicianStrips from './when/TechnicianStrips.vue'
import WhenFields from './when/WhenFields.vue'
import { usePlacementCheck, type Warning } from './when/usePlacementCheck'
import { usePromise } from './when/usePromise'

const props = defineProps<{
  callId: string
  chosen: Answer<'caller'> | null
  skills: string[]
  problem: Problem | null
  heldBy: string
}>()
const draft = defineModel<Draft>({ required: true })
const warnings = defineModel<Warning[]>('warnings', { required: true })
const session = useSession()
const schedule = ref<Answer<'schedule'> | null>(null)
const table = ref<InstanceType<typeof OpeningsTable>>()
const strips = ref<InstanceType<typeof TechnicianStrips>>()
/** why the day could not be looked at */
const unseen = ref('')
const wrong = (path: string) => props.problem?.at(path) ?? ''
const days = computed(() => Array.from({ length: 4 }, (_, i) => plusDays(session.today, i)))

async function load() {
  const { date } = draft.value
  if (!date) return
  try {
    const got = await call('schedule', { query: { date } })
    if (date !== draft.value.date) return
    schedule.value = got
    unseen.value = ''
  } catch (error) {
    if (date === draft.value.date) unseen.value = (error as Problem).message
  }
}
watch(() => draft.value.date, load, { immediate: true })
onLive(() => void load(), 0, SHOWS.day)
const technicians = computed(() => schedule.value?.technicians ?? [])
const technician = computed(
  () => technicians.value.find((t) => t.id === draft.value.technicianId) ?? null,
)
const startAt = computed(() =>
  draft.value.date && /^\d\d:\d\d$/.test(draft.value.start)
    ? localToInstant(draft.value.date, draft.value.start, session.zone)
    : null,
)
const territory = computed(
  () => props.chosen?.sites.find((s) => s.id === draft.value.siteId)?.territory ?? '',
)
const { kind, isOwn, promise, propose } = usePromise(draft, () => technician.value)
const { unchecked } = usePlacementCheck(
  props.callId,
  draft,
  { startAt: () => startAt.value, skills: () => props.skills },
  warnings,
)
defineExpose({ technician, startAt, begin })

function pick(technicianId: string, ms: number) {
  Object.assign(draft.value, { technicianId, start: localTime(ms, session.zone) })
  propose()
}
function take(o: Answer<'openings'>['items'][number]) {
  Object.assign(draft.value, {
    date: o.date,
    technicianId: o.technicianId,
    start: session.time(o.startAt),
    promiseFrom: o.promiseFrom,
    promiseTo: o.promiseTo,
    moves: o.moves,
  })
}
// What an opening would move belongs to that opening: another time or person moves nobody.
watch(
  () => [draft.value.technicianId, draft.value.date, draft.value.start].join(),
  () => {
    if (!table.value?.isTaken()) draft.value.moves = []
  },
  { flush: 'post' },
)
// Needed at once: who is near, and when they could be there.
const urgent = ref(false)
function sendNow(n: Answer<'nearest'>['items'][number]) {
  const at = Math.ceil(Date.parse(n.arriveAt) / STEP_MS) * STEP_MS
  Object.assign(draft.value, { date: session.today, moves: [] })
  pick(n.technicianId, at)
}
/** From the keyboard: the best opening, ready to be moved with the arrows. */
async function begin() {
  if (startAt.value === null || !technician.value) {
    const first = await table.value?.first()
    if (first) take(first)
    await load()
  }
  await nextTick()
  strips.value?.focus()
}
</script>

<template>
  <section class="when">
    <div
      class="row wrap"
      data-tour="call.when"
    >
      <span class="quiet small">When</span>
      <ActButton
        v-for="d in days"
        :key="d"
        :on="draft.date === d"
        :aria-pressed="draft.date === d"
        @click="draft.date = d"
      >
        {{ session.day(d) }}
      </ActButton>
      <DateInput
        v-model="draft.date"
        aria-label="Day"
      />
    </div>
    <OpeningsTable
      ref="table"
      :call-id="callId"
      :site-id="draft.siteId"
      :customer-id="draft.customerId"
      :duration-seconds="draft.durationSeconds"
      :skills="skills"
      :people="technicians"
      :territories="[...new Set(technicians.flatMap((t) => t.territories))].sort()"
      :chosen="{ technicianId: draft.technicianId, startAt }"
      @choose="take"
    />
    <p
      v-if="draft.moves.length"
      class="note warn"
      role="status"
    >
      It moves
      {{ draft.moves.map((m) => `${m.customer} to ${session.time(m.startAt)}`).join(', ') }}, within
      what was promised to them.
    </p>
    <p class="row">
      <ActButton
        :on="urgent"
        :aria-pressed="urgent"
        :disabled="!draft.siteId"
        @click="urgent = !urgent"
      >
        Needed now: who is near?</ActButton
      ><span
        v-if="!draft.siteId"
        class="quiet small"
        >Choose the site first.</span
      >
    </p>
    <NearestTable
      v-if="urgent && draft.siteId"
      :site-id="draft.siteId"
      :skills="skills"
      :chosen="draft.technicianId"
      @choose="sendNow"
    />
    <p
      v-if="heldBy"
      class="note bad"
      role="alert"
    >
      This time is held already by {{ heldBy }}. Choose another one.
    </p>
    <WhenFields
      v-model="draft"
      :technicians="technicians"
      :kind="kind"
      :is-own="isOwn"
      @promise="promise"
      @propose="propose"
    />
    <p
      v-if="wrong('promiseTo') || wrong('technicianId') || wrong('date')"
      class="wrong"
    >
      {{ wrong('promiseTo') || wrong('technicianId') || wrong('date') }}
    </p>
    <p
      v-if="unseen"
      class="note bad"
      role="alert"
    >
      The day could not be looked at: {{ unseen }}
      <ActButton @click="load"> Look again </ActButton>
    </p>
    <p
      v-if="unchecked"
      class="note warn"
      role="status"
    >
      Whether this time is free could not be looked up. The booking itself checks it again.
    </p>
    <p
      v-if="warnings.length"
      class="note warn"
      role="status"
    >
      <b>Before you promise it:</b> {{ warnings.map((w) => w.text).join('; ') }}. Booking goes ahead
      with your name to it.
    </p>
    <p
      v-if="territory"
      class="small quiet"
    >
      The site is in <b>{{ territory }}</b>. <kbd>Alt W</kbd> holds the best opening; arrows move
      it.
    </p>
    <TechnicianStrips
      v-if="schedule"
      ref="strips"
      v-model="draft"
      :call-id="callId"
      :schedule="schedule"
      :territory="territory"
      :name="chosen?.name ?? ''"
      :start-at="startAt"
      @pick="pick"
    />
  </section>
</template>

<style scoped>
.wrap {
  flex-wrap: wrap;
  gap: 6px;
}
.wrap .btn {
  padding: 0 8px;
  min-height: 30px;
}
</style>
