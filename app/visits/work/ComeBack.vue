<script setup lang="ts">
// What was done has to be looked at again, without charge: becomes work that waits for its slot.
import type { FreeKind } from '~~/core/visits/workKinds'
import ActButton from '~/base/ActButton.vue'
import Dialog from '~/base/Dialog.vue'
import Form from '~/base/Form.vue'
import FormFields from '~/base/FormFields.vue'
import Notice from '~/base/Notice.vue'
import { field } from '~/base/fields'
import { useForm } from '~/base/useForm'
import { call, newId } from '~/lib/api'

const props = defineProps<{ workOrderId: string }>()
const emit = defineEmits<{ close: [] }>()
const form = useForm({ kind: 'call_back' as FreeKind, problem: '' })
const ids = { workOrderId: newId(), visitId: newId() }
const FIELDS = [
  field('kind', 'It is', {
    options: [
      { value: 'call_back', label: 'a call-back: our work did not hold' },
      { value: 'warranty', label: 'a warranty visit: the part did not' },
    ],
  }),
  field('problem', 'What is wrong again', { kind: 'area', rows: 3 }),
]
const book = () =>
  form.send(async () => {
    const body = { ...ids, ...form.values }
    const made = await call('callBack', { params: { id: props.workOrderId }, body })
    emit('close')
    await navigateTo(`/work/${made.workOrderId}`)
  })
</script>

<template>
  <Dialog
    title="Come back without charge"
    width="460"
    @close="emit('close')"
  >
    <Form
      :of="form"
      @submit="book"
    >
      <FormFields :fields="FIELDS" />
      <Notice />
      <ActButton
        primary
        submit
      >
        Put it among what needs a slot
      </ActButton>
    </Form>
  </Dialog>
</template>
