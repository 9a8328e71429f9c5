<script setup lang="ts">
// Who was clocked at each visit from when to when; corrected here, with a reason, by whoever may.
import { computed, ref } from 'vue'
import { CLOCK_KINDS } from '~~/core/hours/mendTime'
import { localDate } from '~~/core/time/zone'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import type { Answer } from '~~/shared/api'
import ActButton from '~/base/ActButton.vue'
import { useSession } from '~/stores/session'
import TimeForm from './TimeForm.vue'

type Work = Answer<'workOrder'>
type Visit = Work['visits'][number]
type Time = Visit['times'][number]
const props = defineProps<{
  work: Work
  /** of one visit only */
  visitId?: string
}>()
const emit = defineEmits<{ changed: [work: Work] }>()
const session = useSession()
const isField = computed(() => session.me?.person.role === 'technician')
const visits = computed(() =>
  props.work.visits.filter(
    ({ id, times, technicianId }) =>
      (!props.visitId || id === props.visitId) && (times.length > 0 || technicianId !== null),
  ),
)
/** On the phone one's own time of today; the office mends anybody's. */
const mayMend = (time: Time) =>
  session.may('visits.mendTime') &&
  (!isField.value ||
    (time.personId === session.me!.person.id &&
      localDate(Date.parse(time.from), session.zone) === session.today))
const open = ref<{ visit: Visit; time: Time | null } | null>(null)
/** Whoever was at it, or leads it. */
function peopleOf({ times, technicianId, technician }: Visit) {
  const all = new Map(times.map(({ personId, person }) => [personId, person]))
  if (technicianId) all.set(technicianId, technician)
  const people = [...all].map(([id, name]) => ({ id, name }))
  return isField.value ? people.filter(({ id }) => id === session.me!.person.id) : people
}
/** Whoever does not sign in is clocked from the office, on the page that a phone would show. */
const clocksFor = ({ technicianId, state }: Visit) =>
  !props.visitId &&
  session.may('visits.clock') &&
  technicianId !== null &&
  state !== 'finished' &&
  state !== 'cancelled'
const lasted = ({ from, to }: Time) =>
  to ? `${hoursMinutes((Date.parse(to) - Date.parse(from)) / 1000)} h` : 'runs'
</script>

<template>
  <details
    v-if="visits.length"
    class="sheet times no-print"
  >
    <summary>Times</summary>
    <section
      v-for="visit in visits"
      :key="visit.id"
    >
      <ul>
        <li
          v-for="time in visit.times"
          :key="time.id"
          class="row"
        >
          <span class="grow words"
            >{{ time.person }}, {{ CLOCK_KINDS[time.kind] }}
            <span class="num quiet"
              >{{ session.dayTime(time.from) }} – {{ time.to ? session.time(time.to) : 'now' }} ·
              {{ lasted(time) }}</span
            ></span
          >
          <ActButton
            v-if="mayMend(time)"
            quiet
            class="small"
            @click="open = { visit, time }"
            >Correct…</ActButton
          >
        </li>
        <li
          v-if="!visit.times.length"
          class="quiet"
        >
          Nothing was clocked yet.
        </li>
      </ul>
      <ActButton
        v-if="session.may('visits.mendTime') && peopleOf(visit).length"
        quiet
        class="small"
        @click="open = { visit, time: null }"
        >+ time that was not clocked</ActButton
      >{{ ' ' }}
      <NuxtLink
        v-if="clocksFor(visit)"
        class="btn plain small"
        :to="`/field/visits/${visit.id}`"
        >Clock it for {{ visit.technician }}</NuxtLink
      >
    </section>
    <TimeForm
      v-if="open"
      :key="open.time?.id ?? open.visit.id"
      :visit-id="open.visit.id"
      :time="open.time"
      :people="peopleOf(open.visit)"
      @changed="emit('changed', $event)"
      @close="open = null"
    />
  </details>
</template>

<style scoped>
.times {
  padding: 9px 12px;
}
.words {
  flex-basis: 200px;
}
.words .num {
  white-space: normal;
}
ul {
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
}
li {
  flex-wrap: wrap;
  border-bottom: 1px solid var(--rule-2);
  padding: 3px 0;
}
</style>
