<script setup lang="ts">
// Takes an amount or a share off everything on the work order that is not billed.
import ActButton from '~/base/ActButton.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { useForm } from '~/base/useForm'
import { call } from '~/lib/api'
import type { Work } from './useWorkOrder'

const props = defineProps<{ workOrderId: string }>()
const emit = defineEmits<{ done: [work: Work] }>()
const form = useForm({ discount: '', words: '' }, { draft: `discount ${props.workOrderId}` })
const takeOff = () =>
  form.send(async () => {
    const params = { id: props.workOrderId }
    emit('done', await call('discountLines', { params, body: form.values }))
  })
</script>

<template>
  <Form
    :of="form"
    class="sheet pad no-print"
    @submit="takeOff"
  >
    <div class="row">
      <Field
        name="discount"
        label="Take off all that is not billed, besides the price level"
      >
        <TextInput
          v-model="form.values.discount"
          class="num"
          autofocus
          placeholder="25.00 or 10 %"
        />
      </Field>
      <Field
        class="grow"
        name="words"
        label="For what, as the paper says it"
      >
        <TextInput
          v-model="form.values.words"
          placeholder="as goodwill"
        />
      </Field>
      <ActButton
        primary
        submit
        :disabled="!form.values.discount.trim()"
      >
        Take it off
      </ActButton>
    </div>
    <Notice />
  </Form>
</template>

<style scoped>
.pad {
  padding: 12px;
}
.row {
  align-items: flex-end;
}
.field {
  width: 200px;
}
</style>
