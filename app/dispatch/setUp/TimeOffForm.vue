<script setup lang="ts">
// Enters when somebody is off: days, or a part of one.
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
const NONE = { from: '', fromTime: '', to: '', toTime: '', reason: '' }
const { form, keep } = useSetUpForm(
  { personId: '', ...NONE },
  (now) => emit('kept', now),
  () => NONE,
)
const FIELDS: FormRows = [
  field('personId', 'Who is off', { options: peopleOf(props.setUp) }),
  [
    field('from', 'From', { kind: 'date' }),
    field('fromTime', 'at', { kind: 'time', narrow: true }),
    field('to', 'To', { kind: 'date' }),
    field('toTime', 'at', { kind: 'time', narrow: true }),
  ],
  field('reason', 'Reason'),
]
const save = () => {
  const { personId, from, fromTime, to, toTime, reason } = form.values
  return keep(() =>
    call('addTimeOff', {
      body: {
        id: newId(),
        personId: given(personId),
        from: given(from),
        fromTime: fromTime || null,
        to: given(to || from),
        toTime: toTime || null,
        reason,
      },
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
    <h2>Time off</h2>
    <FormFields :fields="FIELDS" />
    <Notice />
    <ActButton
      primary
      submit
    >
      Enter time off
    </ActButton>
  </Form>
</template>
