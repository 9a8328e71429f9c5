<script setup lang="ts">
// Changes one line of a work order where it stands; the fields hold what it was when it was opened.
import ActButton from '~/base/ActButton.vue'
import Form from '~/base/Form.vue'
import Field from '~/base/Field.vue'
import FigureInput from '~/base/FigureInput.vue'
import TextInput from '~/base/TextInput.vue'
import { useForm } from '~/base/useForm'
import type { Answer } from '~~/shared/api'

const props = defineProps<{ line: Answer<'workOrder'>['lines'][number]; busy: boolean }>()
const emit = defineEmits<{ keep: [values: typeof form.values]; leave: [] }>()
const { name, quantity, unitPrice, discount } = props.line
const form = useForm({ name, quantity, unitPrice, discount: discount.amount })
</script>

<template>
  <Form
    :of="form"
    class="line"
    @submit="emit('keep', form.values)"
  >
    <Field
      class="grow"
      label="Called, here only"
    >
      <TextInput v-model="form.values.name" />
    </Field>
    <Field label="Quantity">
      <FigureInput v-model="form.values.quantity" />
    </Field>
    <Field label="Each, here only">
      <FigureInput v-model="form.values.unitPrice" />
    </Field>
    <Field label="Discount, or %">
      <FigureInput v-model="form.values.discount" />
    </Field>
    <ActButton
      primary
      submit
      :disabled="busy"
    >
      Keep
    </ActButton>
    <ActButton @click="emit('leave')"> Leave </ActButton>
  </Form>
</template>

<style scoped>
.line {
  flex-flow: row wrap;
  margin-top: 6px;
  align-items: flex-end;
}
.field {
  width: 96px;
}
.field.grow {
  flex: 1 0 100%;
}
</style>
