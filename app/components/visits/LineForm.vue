<script setup lang="ts">
// Changes one line of a work order where it stands; the fields hold what it was when it was opened.
import { reactive } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Field from '~/base/Field.vue'
import FigureInput from '~/base/FigureInput.vue'
import TextInput from '~/base/TextInput.vue'
import type { Answer } from '~~/shared/api'

const props = defineProps<{ line: Answer<'workOrder'>['lines'][number]; busy: boolean }>()
const emit = defineEmits<{ keep: [values: typeof values]; leave: [] }>()
const { name, quantity, unitPrice, discount } = props.line
const values = reactive({ name, quantity, unitPrice, discount: discount.amount })
</script>

<template>
  <form
    class="row"
    @submit.prevent="emit('keep', values)"
  >
    <Field
      class="grow"
      label="Called, here only"
    >
      <TextInput v-model="values.name" />
    </Field>
    <Field label="Quantity">
      <FigureInput v-model="values.quantity" />
    </Field>
    <Field label="Each, here only">
      <FigureInput v-model="values.unitPrice" />
    </Field>
    <Field label="Discount, or %">
      <FigureInput v-model="values.discount" />
    </Field>
    <ActButton
      primary
      submit
      :disabled="busy"
    >
      Keep
    </ActButton>
    <ActButton @click="emit('leave')"> Leave </ActButton>
  </form>
</template>

<style scoped>
form {
  margin-top: 6px;
  align-items: flex-end;
  flex-wrap: wrap;
}
.field {
  width: 96px;
}
.field.grow {
  flex: 1 0 100%;
}
</style>
