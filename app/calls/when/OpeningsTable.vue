<script setup lang="ts">
// Openings ranked beside the quantities that decide: one small table, one button a row, fresh while the call is typed.
import { ref, watch } from 'vue'
import type { Answer } from '~~/shared/api'
import { call } from '~/lib/api'
import { onLive, SHOWS } from '~/lib/live'
import { useAsking } from '~/lib/unanswered'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Choice from '~/base/Choice.vue'
import DateInput from '~/base/DateInput.vue'
import DataTable from '~/base/DataTable.vue'

const props = defineProps<{
  callId?: string
  siteId: string | null
  customerId: string | null
  durationSeconds: number
  skills: string[]
  people: { id: string; name: string }[]
  territories: string[]
  chosen: { technicianId: string | null; startAt: number | null }
}>()
const emit = defineEmits<{ choose: [opening: Answer<'openings'>['items'][number]] }>()
type Found = Answer<'openings'>
const session = useSession()
const found = ref<Found | null>(null)
const part = ref<'any' | 'morning' | 'afternoon'>('any')
const order = ref<'best' | 'first' | 'cheapest' | 'known'>('best')
const on = ref('')
/** a technician, or `area:` and a territory */
const only = ref('')
const mayMove = ref(false)
let turn = 0
let wait: ReturnType<typeof setTimeout> | undefined
const ask = useAsking()
const wish = () => ({
  callId: props.callId ?? null,
  siteId: props.siteId,
  customerId: props.customerId,
  durationSeconds: props.durationSeconds,
  skills: props.skills,
  part: part.value,
  order: order.value,
  from: on.value || null,
  days: on.value ? 1 : 14,
  technicianId: only.value.startsWith('area:') ? null : only.value || null,
  servedBy: only.value.startsWith('area:') ? only.value.slice(5) : '',
  mayMove: mayMove.value,
  limit: 6,
})
/** the wish that what is shown belongs to */
let shownFor = ''
async function load() {
  const mine = ++turn
  const body = wish()
  const got = await ask(() => call('openings', { body }), load)
  if (mine !== turn) return
  // Openings for something else are not left standing where none could be had; those for the same wish are.
  if (got || shownFor !== JSON.stringify(body)) found.value = got
  shownFor = JSON.stringify(body)
}
const soon = (ms: number) => {
  clearTimeout(wait)
  wait = setTimeout(() => void load(), ms)
}
watch(
  () => [
    props.siteId,
    props.customerId,
    props.durationSeconds,
    props.skills.join(),
    part.value,
    order.value,
    on.value,
    only.value,
    mayMove.value,
  ],
  () => soon(120),
  { immediate: true },
)
onLive(() => soon(400), 0, SHOWS.day)
/** For the keyboard: the first row, once it is there for what is wished by then. */
async function first() {
  clearTimeout(wait)
  let mine: number
  do {
    mine = turn + 1
    await load()
  } while (mine !== turn)
  return found.value?.items[0] ?? null
}
const isChosen = (o: Found['items'][number]) =>
  props.chosen.technicianId === o.technicianId && props.chosen.startAt === Date.parse(o.startAt)
/** Whether the time that is chosen is one of the openings as they stand. */
defineExpose({ first, isTaken: () => found.value?.items.some(isChosen) ?? false })
/** The driving and the way home have columns of their own; the way home is said where it comes late. */
const said = (o: Found['items'][number]) =>
  o.reasons
    .filter((r) => r.code !== 'driving' && (r.code !== 'home' || o.overtimeSeconds > 0))
    .map((r) => r.text)
    .join('; ')
const minutes = (s: number) => `${Math.round(s / 60)}`
const ORDERS = [
  ['best', 'Best first'],
  ['first', 'First possible'],
  ['cheapest', 'Least driving'],
  ['known', 'Whom they know'],
] as const
const PARTS = [
  ['any', 'Any time'],
  ['morning', 'Morning'],
  ['afternoon', 'Afternoon'],
] as const
</script>

<template>
  <div class="openings">
    <div class="row wrap">
      <Choice
        v-model="order"
        aria-label="Openings in the order of"
        :options="ORDERS.map(([k, name]) => ({ value: k, label: name }))"
      />
      <Choice
        v-model="part"
        aria-label="Part of the day"
        :options="PARTS.map(([k, name]) => ({ value: k, label: name }))"
      />
      <Choice
        v-model="only"
        aria-label="Openings of"
        :options="[
          { value: '', label: 'anybody' },
          ...people.map((p) => ({ value: p.id, label: p.name })),
          ...territories.map((t) => ({ value: `area:${t}`, label: `who serves ${t}` })),
        ]"
      />
      <Check
        v-model="mayMove"
        title="Openings for which other visits begin later, within what was promised to them"
        class="small"
      >
        others may move</Check
      >
      <DateInput
        v-model="on"
        aria-label="Openings on the day"
        :min="session.today"
      />
    </div>
    <DataTable
      v-if="found?.items.length"
      :rows="found.items"
      :row-key="(o) => o.technicianId + o.startAt"
      :tone="(o) => ({ chosen: isChosen(o) })"
      :columns="[
        { key: 'opening', label: 'Opening', look: 'nowrap' },
        { key: 'who', label: 'Who', look: 'nowrap' },
        { key: 'drive', label: '+ Drive', figures: true },
        {
          key: 'home',
          label: 'Home',
          figures: true,
          tone: (o) => ({ late: o.overtimeSeconds }),
          text: (o) => session.time(o.dayEndAt),
        },
        {
          key: 'whatItMeans',
          label: 'What it means',
          look: 'small',
          tone: (o) => ({ soon: !o.sound }),
          text: (o) => said(o) || 'disturbs nothing',
        },
        { key: 'act', right: true },
      ]"
      ><template #opening="{ row: o }"
        >{{ session.day(o.date) }} <b class="num">{{ session.time(o.startAt) }}</b></template
      >
      <template #who="{ row: o }"
        ><span :title="o.technician">{{ o.technician.split(' ')[0] }}</span></template
      >
      <template #drive="{ row: o }">{{ minutes(o.extraDriveSeconds) }} min</template>

      <template #act="{ row: o }"
        ><ActButton
          :disabled="isChosen(o)"
          @click="emit('choose', o)"
        >
          {{ isChosen(o) ? 'held' : 'Hold' }}
        </ActButton></template
      ></DataTable
    >
    <p
      v-else-if="found"
      class="quiet small"
    >
      No opening {{ on ? 'on this day' : 'in the next two weeks' }} like that. Take another part of
      the day, or place it by hand below.
    </p>
    <p
      v-else
      class="quiet small"
      role="status"
    >
      Looking for openings…
    </p>
    <p
      v-if="found && !found.placeKnown"
      class="quiet small"
    >
      Where the work is, is not known yet: driving is not counted.
    </p>
  </div>
</template>

<style scoped>
.openings {
  display: flex;
  flex-direction: column;
  gap: 6px;
}
.wrap > .choice {
  flex: 1 1 96px;
  min-width: 96px;
}
.wrap {
  flex-wrap: wrap;
  gap: 5px;
}
.wrap .btn {
  min-height: 30px;
  padding: 0 8px;
}
td {
  padding: 4px 8px !important;
}
.chosen td {
  background: var(--green-1);
}
</style>
