<script setup lang="ts">
// One technician: week, skills with their licences, territories, whom they go with, where their day begins and ends.
import { computed } from 'vue'
import { PERSON_KINDS } from '~~/shared/dispatch/setUp'
import ActButton from '~/base/ActButton.vue'
import Form from '~/base/Form.vue'
import Check from '~/base/Check.vue'
import Choice from '~/base/Choice.vue'
import DateInput from '~/base/DateInput.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { optionsOf } from '~/base/fields'
import { call } from '~/lib/api'
import { useSetUpForm, type Person, type SetUp } from './useSetUp'
import { hoursOf, weekForm } from './weekForm'
import WeekTable from './WeekTable.vue'

const props = defineProps<{ setUp: SetUp; person: Person }>()
const emit = defineEmits<{ kept: [setUp: SetUp]; close: [] }>()
const { person } = props
const typed = {
  days: weekForm(person.hours),
  skills: person.skills.join(', '),
  licences: person.licences.map((l) => ({ ...l })),
  areas: [...person.territoryIds],
  kind: person.kind as 'employee',
  goesWith: person.goesWith ?? null,
  startsAt: person.startsAt as 'home',
  endsAt: person.endsAt as 'home',
  homePostcode: '',
}
const { form, keep } = useSetUpForm(typed, (now) => {
  emit('kept', now)
  emit('close')
})
const skills = computed(() => {
  const typed = form.values.skills.split(',').map((skill) => skill.trim())
  return [...new Set(typed.filter(Boolean))]
})
const licence = (skill: string) => form.values.licences.find((l) => l.skill === skill)
/** A licence belongs to a skill; without a day there is none. */
function setLicence(skill: string, until: string) {
  const known = licence(skill)
  if (known) known.until = until
  else form.values.licences.push({ skill, until })
}
const KINDS = optionsOf(PERSON_KINDS)
const leaders = computed(() => [
  { value: null, label: 'nobody: is booked alone' },
  ...props.setUp.technicians
    .filter((t) => t.id !== person.id && !t.goesWith)
    .map((t) => ({ value: t.id, label: t.name })),
])
const places = computed(() => [
  { value: 'home', label: 'home' },
  { value: 'yard', label: 'the yard', disabled: !props.setUp.yard },
])
const save = () =>
  keep(() =>
    call('changeTechnician', {
      params: { id: person.id },
      body: {
        version: person.version,
        hours: hoursOf(form.values.days),
        kind: form.values.kind,
        goesWith: form.values.goesWith,
        startsAt: form.values.startsAt,
        endsAt: form.values.endsAt,
        homePostcode: form.values.homePostcode,
        skills: skills.value,
        licences: form.values.licences.filter((l) => l.until && skills.value.includes(l.skill)),
        territoryIds: form.values.areas,
      },
    }),
  )
</script>

<template>
  <Dialog
    :title="person.name"
    width="860"
    @close="emit('close')"
  >
    <Form
      :of="form"
      @submit="save"
    >
      <WeekTable v-model="form.values.days" />
      <Field label="Skills, with commas between"><TextInput v-model="form.values.skills" /></Field>
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
          v-model="form.values.areas"
          :value="t.id"
        >
          {{ t.name }}</Check
        >
      </fieldset>
      <div class="row">
        <Field label="Works here as">
          <Choice
            v-model="form.values.kind"
            :options="KINDS"
          />
        </Field>
        <Field
          class="grow"
          label="Always goes with"
        >
          <Choice
            v-model="form.values.goesWith"
            :options="leaders"
          />
        </Field>
      </div>
      <div class="row">
        <Field label="The day begins at">
          <Choice
            v-model="form.values.startsAt"
            :options="places"
          />
        </Field>
        <Field label="and ends at">
          <Choice
            v-model="form.values.endsAt"
            :options="places"
          />
        </Field>
        <Field
          class="grow"
          :label="
            person.home
              ? 'Home is known; move it to'
              : 'Home: a postcode, or latitude and longitude'
          "
        >
          <TextInput
            v-model="form.values.homePostcode"
            class="num"
            :placeholder="person.home ? 'stays where it is' : '04101'"
          />
        </Field>
      </div>
      <Notice />
      <ActButton
        primary
        submit
      >
        Keep
      </ActButton>
    </Form>
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
