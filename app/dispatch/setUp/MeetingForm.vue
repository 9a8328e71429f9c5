<script setup lang="ts">
// Enters a meeting or a training into somebody's day.
import ActButton from '~/base/ActButton.vue'
import Form from '~/base/Form.vue'
import FormFields from '~/base/FormFields.vue'
import Notice from '~/base/Notice.vue'
import { field, type FormRows } from '~/base/fields'
import { call, newId } from '~/lib/api'
import { given } from '~/lib/given'
import { peopleOf, useSetUpForm, type SetUp } from './useSetUp'

const props = defineProps<{ setUp: SetUp }>()
const emit = defineEmits<{ kept: [setUp: SetUp] }>()
const { form, keep } = useSetUpForm(
  { personId: '', date: '', from: '08:00', to: '09:00', title: '' },
  (now) => emit('kept', now),
  (entered) => ({ ...entered, title: '' }),
)
const FIELDS: FormRows = [
  field('personId', 'For whom', { options: peopleOf(props.setUp) }),
  [
    field('date', 'Day', { kind: 'date' }),
    field('from', 'from', { kind: 'time', narrow: true }),
    field('to', 'to', { kind: 'time', narrow: true }),
  ],
  field('title', 'What it is'),
]
const save = () => {
  const { personId, date, ...rest } = form.values
  return keep(() =>
    call('addEntry', {
      body: { ...rest, id: newId(), personId: given(personId), date: given(date) },
    }),
  )
}
</script>

<template>
  <Form
    :of="form"
    class="sheet box"
    @submit="save"
  >
    <h2>Meeting, training</h2>
    <FormFields :fields="FIELDS" />
    <Notice />
    <ActButton
      primary
      submit
    >
      Enter it
    </ActButton>
  </Form>
</template>
