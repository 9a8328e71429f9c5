<script setup lang="ts">
// The phases of long work, in their order, and which of its visits and lines belong to which.
import { computed } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import { namesOf } from '~/base/fields'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { useFormAbout } from '~/base/useForm'
import { call, newId } from '~/lib/api'
import { useSession } from '~/stores/session'
import type { Work } from './useWorkOrder'

type Of = Record<string, string | null>
const props = defineProps<{ work: Work; refresh: () => Promise<unknown> }>()
const emit = defineEmits<{ changed: [work: Work]; close: [] }>()
const session = useSession()
const ofThings = (things: readonly { id: string; phaseId: string | null }[]): Of =>
  Object.fromEntries(things.map(({ id, phaseId }) => [id, phaseId]))
const form = useFormAbout(
  () => props.work,
  ({ phases, visits, lines }) => ({
    phases: phases.flatMap(({ id, name }) => (id ? [{ id, name }] : [])),
    visits: ofThings(visits),
    lines: ofThings(lines),
  }),
  props.refresh,
  { draft: `phases ${props.work.id}` },
)
const add = () => (form.values.phases = [...form.values.phases, { id: newId(), name: '' }])
if (!form.values.phases.length) add()
/** What was of one that goes is of none. */
function remove(id: string) {
  form.values.phases = form.values.phases.filter((phase) => phase.id !== id)
  for (const of of [form.values.visits, form.values.lines])
    for (const [thing, phaseId] of Object.entries(of)) if (phaseId === id) of[thing] = null
}
function up(i: number) {
  const phases = [...form.values.phases]
  phases.splice(i - 1, 0, ...phases.splice(i, 1))
  form.values.phases = phases
}
const named = computed(() => form.values.phases.filter(({ name }) => name.trim()))
const nameOf = (id: unknown) => named.value.find((phase) => phase.id === id)?.name ?? 'none'
const choices = (none: string) => [{ value: null, label: none }, ...namesOf(named.value)]
const visitName = ({ technician, startAt }: Work['visits'][number], i: number) =>
  [`Visit ${i + 1}`, technician, startAt && session.dayTime(startAt)].filter(Boolean).join(' · ')
const changedOnly = (of: Of, was: Of) =>
  Object.entries(of).flatMap(([id, phaseId]) => (was[id] === phaseId ? [] : [{ id, phaseId }]))
const keep = () =>
  form.keep(async (version) => {
    const body = {
      ...{ version, phases: named.value },
      visits: changedOnly(form.values.visits, ofThings(props.work.visits)),
      lines: changedOnly(form.values.lines, ofThings(props.work.lines)),
    }
    emit('changed', await call('keepPhases', { params: { id: props.work.id }, body }))
    emit('close')
  })
</script>

<template>
  <Dialog
    :title="`Phases of ${work.number}`"
    width="560"
    @close="emit('close')"
  >
    <Form
      :of="form"
      @submit="keep"
    >
      <div
        v-for="(phase, i) in form.values.phases"
        :key="phase.id"
        class="row phase"
      >
        <Field
          class="grow"
          :name="`phases[${i}].name`"
          :label="`Phase ${i + 1}`"
          ><TextInput
            v-model="phase.name"
            placeholder="what is done in it" /></Field
        ><ActButton
          v-if="i"
          quiet
          class="small"
          :aria-label="`Move phase ${i + 1} up`"
          @click="up(i)"
          >Up</ActButton
        ><ActButton
          quiet
          class="small"
          :aria-label="`Take out phase ${i + 1}`"
          @click="remove(phase.id)"
          >Take out</ActButton
        >
      </div>
      <ActButton
        quiet
        class="small start"
        @click="add"
      >
        + a phase
      </ActButton>
      <template v-if="named.length">
        <p class="quiet small">
          Lines are of the phase of their visit, unless they have one of their own.
        </p>
        <Field
          v-for="(visit, i) in work.visits"
          :key="visit.id"
          :name="`visits.${visit.id}`"
          :label="visitName(visit, i)"
          :says="nameOf"
          ><Choice
            v-model="form.values.visits[visit.id]"
            :options="choices('of no phase')"
        /></Field>
        <Field
          v-for="line in work.lines"
          :key="line.id"
          :name="`lines.${line.id}`"
          :label="line.name"
          :says="nameOf"
          ><Choice
            v-model="form.values.lines[line.id]"
            :options="choices(line.visitId ? 'as its visit' : 'of no phase')"
        /></Field>
      </template>
      <Notice />
      <div class="row">
        <ActButton
          primary
          submit
        >
          Keep
        </ActButton>
        <ActButton @click="emit('close')"> Leave </ActButton>
      </div>
    </Form>
  </Dialog>
</template>

<style scoped>
.phase {
  align-items: flex-end;
}
.start {
  align-self: flex-start;
}
</style>
