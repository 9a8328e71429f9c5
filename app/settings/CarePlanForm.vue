<script setup lang="ts">
// One plan of care agreements.
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import CountInput from '~/base/CountInput.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import FormFields from '~/base/FormFields.vue'
import Notice from '~/base/Notice.vue'
import { field, namesOf, type FormRows } from '~/base/fields'
import { useForm } from '~/base/useForm'
import { call, newId } from '~/lib/api'
import type { Answer } from '~~/shared/api'

type Plans = Answer<'plans'>
const props = defineProps<{ of: Plans['items'][number] | null; levels: Plans['levels'] }>()
const emit = defineEmits<{ kept: [plans: Plans]; close: [] }>()
const id = props.of?.id ?? newId()
const typedOf = ({ id: _, ...plan }: Plans['items'][number]) => plan
const form = useForm(
  props.of
    ? typedOf(props.of)
    : {
        ...{ name: '', work: '', price: '', levelId: null as string | null },
        ...{ visitsAYear: 1, minutes: 60, retired: false },
      },
)
/** As it stood when it was opened. */
const shown = props.of && typedOf(props.of)
const WHAT: FormRows = [field('name', 'Name'), field('work', 'What is done at a visit')]
const MONEY: FormRows = [
  [
    field('price', 'Price of a year', { kind: 'figures' }),
    field('levelId', 'They pay, for other work', {
      options: [{ value: null, label: 'what everybody pays' }, ...namesOf(props.levels)],
    }),
  ],
]
const keep = () =>
  form.send(async () => {
    emit('kept', await call('keepPlan', { body: { id, ...form.values, shown } }))
    emit('close')
  })
</script>

<template>
  <Dialog
    :title="of ? `Care plan: ${of.name}` : 'A further care plan'"
    width="480"
    @close="emit('close')"
  >
    <Form
      :of="form"
      @submit="keep"
    >
      <FormFields :fields="WHAT" />
      <div class="row">
        <Field
          name="visitsAYear"
          label="Visits a year"
        >
          <CountInput
            v-model="form.values.visitsAYear"
            :min="1"
            :max="12"
          />
        </Field>
        <Field
          name="minutes"
          label="Minutes of a visit"
        >
          <CountInput
            v-model="form.values.minutes"
            :min="15"
            :max="480"
          />
        </Field>
      </div>
      <FormFields :fields="MONEY" />
      <Check
        v-if="of"
        v-model="form.values.retired"
        name="retired"
        >Not offered any more</Check
      >
      <p class="quiet small">Agreements that were made before keep what they were made with.</p>
      <Notice />
      <ActButton
        primary
        submit
        >Keep this plan</ActButton
      >
    </Form>
  </Dialog>
</template>
