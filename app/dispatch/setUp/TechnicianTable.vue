<script setup lang="ts">
// Who works when, with what and where; their time off and meetings, which can be taken back.
import { reactive } from 'vue'
import { localDate } from '~~/core/time/zone'
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'
import { ask } from '~/base/leaving'
import Notice from '~/base/Notice.vue'
import { call } from '~/lib/api'
import { useSession } from '~/stores/session'
import { hoursInWords } from './hoursInWords'
import { useKeep, type Person, type SetUp } from './useSetUp'

const props = defineProps<{ setUp: SetUp; owns: boolean }>()
const emit = defineEmits<{ kept: [setUp: SetUp]; edit: [person: Person] }>()
const session = useSession()
const { problem, act, keep } = useKeep((now) => emit('kept', now))

function about(p: Person): string {
  const leader = props.setUp.technicians.find((t) => t.id === p.goesWith)
  const words = [
    p.kind === 'employee' ? '' : p.kind,
    leader ? `goes with ${leader.name.split(' ')[0]}` : '',
    p.startsAt === 'yard' ? 'from the yard' : '',
    p.endsAt === 'yard' ? 'back to the yard' : '',
  ]
  return words.filter(Boolean).join(', ')
}
const served = (p: Person) =>
  props.setUp.territories
    .filter((t) => p.territoryIds.includes(t.id))
    .map((t) => t.name)
    .join(', ') || 'everywhere'
const licence = (p: Person, skill: string) => p.licences.find((l) => l.skill === skill)
/** “Tue, Nov 24” for a whole day, “Fri, Nov 27 12:00–18:00” for a part of one. */
function timeOff({ from, to }: { from: string; to: string }): string {
  const date = (ms: number) => localDate(ms, session.zone)
  const [first, last] = [date(Date.parse(from)), date(Date.parse(to) - 1)]
  const whole = session.time(from) === '00:00' && session.time(to) === '00:00'
  if (first !== last)
    return whole
      ? `${session.day(first)} to ${session.day(last)}`
      : `${session.dayTime(from)} to ${session.dayTime(to)}`
  return whole
    ? session.day(first)
    : `${session.day(first)} ${session.time(from)}–${session.time(to)}`
}
const takeOff = (id: string) => keep(() => call('removeTimeOff', { params: { id } }))
const takeEntry = (id: string) => keep(() => call('removeEntry', { params: { id } }))

const link = reactive({ name: '', url: '' })
/** Calendars that read the link before are cut off by a new one. */
const mayEnd = (p: Person) =>
  !p.calendar ||
  ask({
    title: 'A new calendar link',
    text: `Whoever reads the calendar of ${p.name} by the link before no longer can.`,
    yes: 'Make a new link',
    no: 'Keep the one there is',
  })
const newLink = (p: Person) =>
  act(async () => {
    if (!(await mayEnd(p))) return
    const { url } = await call('newCalendar', { params: { id: p.id } })
    Object.assign(link, { name: p.name, url })
  })
</script>

<template>
  <Notice :of="problem" />
  <DataTable
    :rows="setUp.technicians"
    :row-key="(p) => p.id"
    :columns="[
      { key: 'technician', label: 'Technician', look: 'nowrap' },
      { key: 'hours', label: 'Hours, visits in the morning + afternoon', look: 'small' },
      { key: 'skills', label: 'Skills', look: 'small' },
      { key: 'territories', label: 'Territories', look: 'small', text: served },
      { key: 'off', label: 'Off, and entries', look: 'small' },
      { key: 'act', right: true, look: 'nowrap' },
    ]"
  >
    <template #technician="{ row: p }">
      <b>{{ p.name }}</b>
      <div class="small quiet">{{ about(p) }}</div>
    </template>
    <template #hours="{ row: p }">
      <div
        v-for="words in hoursInWords(p.hours)"
        :key="words"
        class="num"
      >
        {{ words }}
      </div>
      <span
        v-if="!p.hours.length"
        class="soon"
        >no hours yet: nobody is offered</span
      >
    </template>
    <template #skills="{ row: p }">
      <div
        v-for="skill in p.skills"
        :key="skill"
      >
        {{ skill }}
        <span
          v-if="licence(p, skill)"
          :class="licence(p, skill)!.until < session.today ? 'late' : 'quiet'"
        >
          until {{ session.day(licence(p, skill)!.until, 'withYear') }}
        </span>
      </div>
    </template>
    <template #off="{ row: p }">
      <div
        v-for="off in p.off"
        :key="off.id"
      >
        {{ timeOff(off) }}: {{ off.reason }}
        <ActButton
          quiet
          class="small"
          :aria-label="`Take back: ${off.reason}`"
          @click="takeOff(off.id)"
        >
          Take back
        </ActButton>
      </div>
      <div
        v-for="entry in p.entries"
        :key="entry.id"
      >
        {{ session.dayTime(entry.from) }}: {{ entry.title }}
        <ActButton
          quiet
          class="small"
          :aria-label="`Take back: ${entry.title}`"
          @click="takeEntry(entry.id)"
        >
          Take back
        </ActButton>
      </div>
    </template>
    <template #act="{ row: p }">
      <ActButton
        v-if="owns"
        :aria-label="`Change ${p.name}`"
        @click="emit('edit', p)"
      >
        Change
      </ActButton>
      {{ ' ' }}
      <ActButton
        :aria-label="`Calendar of ${p.name}`"
        @click="newLink(p)"
      >
        {{ p.calendar ? 'New calendar link' : 'Calendar link' }}
      </ActButton>
    </template>
  </DataTable>
  <p
    v-if="link.url"
    class="note"
    role="status"
  >
    The calendar of <b>{{ link.name }}</b>, for a calendar program; a link before this one has
    ended:<br />
    <code class="num url">{{ link.url }}</code>
  </p>
</template>

<style scoped>
.url {
  white-space: normal;
  overflow-wrap: anywhere;
}
</style>
