<script setup lang="ts">
// What a customer said about what they owe: noted for the one that it was opened from, with the sum that was shown.
import ActButton from '~/base/ActButton.vue'
import Form from '~/base/Form.vue'
import DateInput from '~/base/DateInput.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { call, newId } from '~/lib/api'
import { useForm } from '~/base/useForm'
import type { Owing } from './useOwing'

export type SaidKind = 'promise' | 'dispute' | 'settled' | 'note'
const props = defineProps<{ about: Owing; kind: SaidKind }>()
const emit = defineEmits<{ done: []; close: [] }>()
const TITLES: Readonly<Record<SaidKind, string>> = {
  promise: 'Promised to pay',
  dispute: 'Disputes it',
  settled: 'Dispute settled',
  note: 'What was said',
}
const id = newId()
const form = useForm(
  { amount: props.about.owed.amount, onDate: '', text: '' },
  { draft: `said ${props.about.customerId} ${props.kind}` },
)
const note = () =>
  form.send(async () => {
    const { amount, onDate, text } = form.values
    const promised = props.kind === 'promise'
    await call('collectionNote', {
      params: { id: props.about.customerId },
      body: {
        id,
        kind: props.kind,
        amount: promised ? amount : null,
        onDate: promised ? onDate : null,
        text,
      },
    })
    emit('done')
  })
</script>

<template>
  <Dialog
    :title="`${TITLES[kind]}: ${about.name}`"
    width="420"
    @close="emit('close')"
  >
    <Form
      :of="form"
      @submit="note"
    >
      <p v-if="kind === 'note' && about.phone">
        <a :href="`tel:${about.phone.replace(/[^\d+]/g, '')}`">{{ about.phone }}</a>
      </p>
      <div
        v-if="kind === 'promise'"
        class="row"
      >
        <Field
          class="grow"
          label="Amount"
          name="amount"
        >
          <TextInput
            v-model="form.values.amount"
            class="num"
          />
        </Field>
        <Field
          class="grow"
          label="By"
          name="onDate"
        >
          <DateInput v-model="form.values.onDate" />
        </Field>
      </div>
      <Field
        label="In their words"
        name="text"
      >
        <TextInput v-model="form.values.text" />
      </Field>
      <Notice />
      <ActButton
        primary
        submit
      >
        Note it
      </ActButton>
    </Form>
  </Dialog>
</template>
