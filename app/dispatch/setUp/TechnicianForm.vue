<script setup lang="ts">
// One technician: week, skills with their licences, territories, whom they go with, where their day begins and ends.
import { computed, reactive } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Choice from '~/base/Choice.vue'
import DateInput from '~/base/DateInput.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { call } from '~/lib/api'
import { useKeep, type Person, type SetUp } from './useSetUp'
import { hoursOf, weekForm } from './weekForm'
import WeekTable from './WeekTable.vue'

const props = defineProps<{ setUp: SetUp; person: Person }>()
const emit = defineEmits<{ kept: [setUp: SetUp]; close: [] }>()
const { busy, problem, keep } = useKeep((now) => emit('kept', now))
const { person } = props
const form = reactive({
  days: weekForm(person.hours),
  skills: person.skills.join(', '),
  licences: person.licences.map((l) => ({ ...l })),
  areas: [...person.territoryIds],
  kind: person.kind as 'employee',
  goesWith: person.goesWith ?? null,
  startsAt: person.startsAt as 'home',
  endsAt: person.endsAt as 'home',
  homePostcode: '',
})
const skills = computed(() => {
  const typed = form.skills.split(',').map((skill) => skill.trim())
  return [...new Set(typed.filter(Boolean))]
})
const licence = (skill: string) => form.licences.find((l) => l.skill === skill)
/** A licence belongs to a skill; without a day there is none. */
function setLicence(skill: string, until: string) {
  const known = licence(skill)
  if (known) known.until = until
  else form.licences.push({ skill, until })
}
const KINDS = ['employee', 'subcontractor', 'apprentice'].map((kind) => ({
  value: kind,
  label: kind,
}))
const leaders = computed(() => [
  { value: null, label: 'nobody: is booked alone' },
  ...props.setUp.technicians
    .filter((t) => t.id !== person.id && !t.goesWith)
    .map((t) => ({ value: t.id, label: t.name })),
])
const places = computed(() => [
  { value: 'home', label: 'home' },
  { value: 'yard', label: 'the yard', disabled: !props.setUp.yardKnown },
])
const save = () =>
  keep(
    () =>
      call('changeTechnician', {
        params: { id: person.id },
        body: {
          version: person.version,
          hours: hoursOf(form.days),
          kind: form.kind,
          goesWith: form.goesWith,
          startsAt: form.startsAt,
          endsAt: form.endsAt,
          homePostcode: form.homePostcode,
          skills: skills.value,
          licences: form.licences.filter((l) => l.until && skills.value.includes(l.skill)),
          territoryIds: form.areas,
        },
      }),
    () => emit('close'),
  )
</script>

<template>
  <Dialog
    :title="person.name"
    width="860"
    @close="emit('close')"
  >
    <form
      class="stack"
      @submit.prevent="save"
    >
      <WeekTable v-model="form.days" />
      <Field label="Skills, with commas between"><TextInput v-model="form.skills" /></Field>
      <div
        v-if="skills.length"
        class="row wrapped"
      >
        <Field
          v-for="skill in skills"
          :key="skill"
          :label="`${skill}: licence valid until`"
        >
          <DateInput
            :model-value="licence(skill)?.until ?? ''"
            @change="setLicence(skill, $event)"
          />
        </Field>
      </div>
      <fieldset class="row wrapped plain">
        <legend class="quiet small">Territories; none means everywhere</legend>
        <Check
          v-for="t in setUp.territories"
          :key="t.id"
          v-model="form.areas"
          :value="t.id"
        >
          {{ t.name }}</Check
        >
      </fieldset>
      <div class="row">
        <Field label="Works here as">
          <Choice
            v-model="form.kind"
            :options="KINDS"
          />
        </Field>
        <Field
          class="grow"
          label="Always goes with"
        >
          <Choice
            v-model="form.goesWith"
            :options="leaders"
          />
        </Field>
      </div>
      <div class="row">
        <Field label="The day begins at">
          <Choice
            v-model="form.startsAt"
            :options="places"
          />
        </Field>
        <Field label="and ends at">
          <Choice
            v-model="form.endsAt"
            :options="places"
          />
        </Field>
        <Field
          class="grow"
          :label="
            person.home ? 'Home is known; move it to the postcode' : 'Home is in the postcode'
          "
        >
          <TextInput
            v-model="form.homePostcode"
            class="num"
            :placeholder="person.home ? 'stays where it is' : '04101'"
          />
        </Field>
      </div>
      <Notice :of="problem" />
      <ActButton
        primary
        submit
        :disabled="busy"
      >
        Keep
      </ActButton>
    </form>
  </Dialog>
</template>

<style scoped>
.wrapped {
  flex-wrap: wrap;
}
.plain {
  border: 0;
  padding: 0;
  margin: 0;
  gap: 14px;
}
</style>
