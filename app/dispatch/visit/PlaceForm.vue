<script setup lang="ts">
// Who goes when, and for how long. What came meanwhile is followed where nobody typed.
import { computed, ref, watch } from 'vue'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import { localDate, localTime, localToInstant } from '~~/core/time/zone'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Choice from '~/base/Choice.vue'
import DateInput from '~/base/DateInput.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import TimeInput from '~/base/TimeInput.vue'
import { useForm } from '~/base/useForm'
import { call, Problem } from '~/lib/api'
import { useBoard } from '~/stores/board'
import { useSession } from '~/stores/session'
import ActRefused from '~/components/dispatch/ActRefused.vue'
import { refusedBy, type PromiseAnswer, type Refused } from './promise'
import { lengthsFor, type Technician, type Visit } from './visit'

const props = defineProps<{
  visit: Visit
  technicians: Technician[]
  /** what else is on the schedule: says how full somebody's day is */
  visits: Visit[]
}>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const board = useBoard()
const dayOf = (iso: string) => localDate(Date.parse(iso), session.zone)
const asIs = (v: Visit) => ({
  technicianId: v.technicianId,
  date: v.startAt ? dayOf(v.startAt) : (v.promiseDate ?? session.today),
  time: v.startAt ? localTime(Date.parse(v.startAt), session.zone) : '',
  durationSeconds: v.durationSeconds,
  crewIds: [...v.crewIds],
})
const form = useForm(asIs(props.visit), { draft: `place ${props.visit.id}` })
/** what speaks against it, until it is placed all the same */
const warned = ref<Refused | null>(null)
watch(
  () => props.visit.version,
  () => {
    warned.value = null
    form.follow(asIs(props.visit))
  },
)
/** What somebody has on the day that is chosen; nothing is said of a day that is not loaded. */
function loadOf(id: string): string {
  const day = props.visits.filter((v) => v.startAt && dayOf(v.startAt) === form.values.date)
  const theirs = day.filter((v) => v.technicianId === id || v.crewIds.includes(id))
  return day.length ? `${theirs.length} that day` : ''
}
const others = computed(() =>
  props.technicians
    .filter((t) => t.id !== form.values.technicianId)
    .map((t) => ({
      id: t.id,
      first: t.name.split(' ')[0],
      about: [loadOf(t.id), t.kind === 'employee' ? '' : t.kind].filter(Boolean).join(', '),
    })),
)
const people = computed(() => [
  { value: null, label: 'nobody yet' },
  ...props.technicians.map((t) => ({ value: t.id, label: t.name })),
])
const lengths = computed(() =>
  lengthsFor(props.visit).map((n) => ({ value: n, label: hoursMinutes(n) })),
)
function wanted() {
  const { technicianId, date, time, durationSeconds, crewIds } = form.values
  if (time && !date) throw new Problem('Say on which day.', { status: 422, code: 'invalid' })
  const at = time ? new Date(localToInstant(date, time, session.zone)).toISOString() : null
  const placed = technicianId !== null && at !== null
  return { technicianId, startAt: at, durationSeconds, crewIds: placed ? crewIds : [] }
}
const save = (answer?: PromiseAnswer) =>
  form.act(async () => {
    try {
      await board.place(props.visit, wanted(), answer !== undefined, answer)
      warned.value = null
      form.begin()
    } catch (error) {
      const refused = answer ? null : refusedBy(error)
      if (!refused) throw error
      warned.value = refused
    }
    emit('changed')
  })
const lock = () =>
  form.act(async () => {
    const { id, version, locked } = props.visit
    await call('lockVisit', { params: { id }, body: { version, locked: !locked } })
    emit('changed')
  })
</script>

<template>
  <Form
    :of="form"
    @submit="save()"
  >
    <div class="row">
      <Field
        class="grow"
        label="Technician"
        ><Choice
          v-model="form.values.technicianId"
          :disabled="visit.locked"
          class="wide"
          :options="people" /></Field
      ><Field label="Length"
        ><Choice
          v-model="form.values.durationSeconds"
          :disabled="visit.locked"
          :options="lengths"
      /></Field>
    </div>
    <div class="row">
      <Field
        class="grow"
        label="Day of the visit"
        ><DateInput
          v-model="form.values.date"
          :disabled="visit.locked" /></Field
      ><Field label="Begins"
        ><TimeInput
          v-model="form.values.time"
          :disabled="visit.locked"
      /></Field>
    </div>
    <fieldset>
      <legend class="quiet small">Who goes along</legend>
      <Check
        v-for="t in others"
        :key="t.id"
        v-model="form.values.crewIds"
        class="small"
        :value="t.id"
        :disabled="visit.locked"
      >
        {{ t.first }} <span class="quiet">{{ t.about }}</span></Check
      >
    </fieldset>
    <ActRefused
      v-if="warned"
      :text="warned.text"
      :asked="warned.asked"
      @again="save"
      @leave="warned = null"
    />
    <Notice />
    <div class="row">
      <ActButton
        primary
        submit
        :disabled="visit.locked"
      >
        Save the visit
      </ActButton>
      <span class="grow" />
      <ActButton
        v-if="visit.startAt"
        :disabled="form.busy"
        @click="lock"
      >
        {{ visit.locked ? 'Unlock' : 'Lock it here' }} <kbd>L</kbd>
      </ActButton>
    </div>
  </Form>
</template>

<style scoped>
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0 8px;
}
.row {
  align-items: flex-end;
}
</style>
