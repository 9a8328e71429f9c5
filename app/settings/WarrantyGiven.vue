<script setup lang="ts">
// How long the firm stands for what it supplied.
import ActButton from '~/base/ActButton.vue'
import Field from '~/base/Field.vue'
import FigureInput from '~/base/FigureInput.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import { useForm } from '~/base/useForm'
import { call } from '~/lib/api'

const props = defineProps<{ months: number; may: boolean }>()
const emit = defineEmits<{ kept: [] }>()
const form = useForm({ months: String(props.months) })
const keep = () =>
  form.send(async () => {
    // Nothing typed is no number, and not none.
    const months = Number(form.values.months.trim() || NaN)
    await call('keepWarranty', { body: { months } })
    emit('kept')
  })
</script>

<template>
  <h2 id="warranty">Our warranty</h2>
  <p class="quiet">
    On what we supplied, from the day on which it was done. It is said when somebody calls about it.
  </p>
  <Form
    :of="form"
    @submit="keep"
  >
    <div class="row months">
      <Field
        name="months"
        label="Months; 0 for none"
        ><FigureInput
          v-model="form.values.months"
          :disabled="!may" /></Field
      ><ActButton
        v-if="may"
        submit
        >Keep the warranty</ActButton
      >
    </div>
    <Notice />
  </Form>
</template>

<style scoped>
.months {
  align-items: flex-end;
}
</style>
