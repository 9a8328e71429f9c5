<script setup lang="ts">
// The note that prints on the invoices of a work order, while it is written.
import ActButton from '~/base/ActButton.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { useFormAbout } from '~/base/useForm'
import { call } from '~/lib/api'
import type { Work } from './useWorkOrder'

const props = defineProps<{ work: Work; refresh: () => Promise<unknown> }>()
const emit = defineEmits<{ changed: [work: Work]; close: [] }>()
const form = useFormAbout(
  () => props.work,
  ({ printedNote }) => ({ printedNote }),
  props.refresh,
  { draft: `printed note ${props.work.id}` },
)
const keep = () =>
  form.keep(async (version) => {
    const body = { version, printedNote: form.values.printedNote.trim() }
    emit('changed', await call('writeWorkOrder', { params: { id: props.work.id }, body }))
    emit('close')
  })
function leave() {
  form.discard()
  emit('close')
}
</script>

<template>
  <Form
    :of="form"
    class="printed"
    @submit="keep"
    @keydown.esc.stop="leave"
  >
    <div class="row">
      <Field
        class="grow"
        name="printedNote"
        label="Printed on the invoice"
      >
        <TextInput
          v-model="form.values.printedNote"
          maxlength="400"
          autofocus
        />
      </Field>
      <ActButton
        primary
        submit
      >
        Keep
      </ActButton>
      <ActButton @click="leave"> Leave </ActButton>
    </div>
    <Notice />
  </Form>
</template>

<style scoped>
.printed {
  width: 100%;
}
.row {
  align-items: flex-end;
}
</style>
