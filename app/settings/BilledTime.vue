<script setup lang="ts">
// How time on site becomes time that is charged.
import { billedHours, TIME_STEPS, type BilledTime } from '~~/core/hours/billedTime'
import { computed, watch } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import Field from '~/base/Field.vue'
import FigureInput from '~/base/FigureInput.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import { useForm } from '~/base/useForm'
import { call } from '~/lib/api'

const props = defineProps<{ time: BilledTime; may: boolean }>()
const emit = defineEmits<{ kept: [] }>()
const asTyped = ({ way, stepMinutes, leastMinutes }: BilledTime) => ({
  ...{ way, stepMinutes, leastMinutes: String(leastMinutes) },
})
const form = useForm(asTyped(props.time))
watch(
  () => props.time,
  (time) => form.follow(asTyped(time)),
)
const typed = (): BilledTime => ({
  ...{ way: form.values.way, stepMinutes: form.values.stepMinutes },
  // Nothing typed is no number, and not none.
  leastMinutes: Number(form.values.leastMinutes.trim() || NaN),
})
const keep = () =>
  form.send(async () => {
    await call('keepBilledTime', { body: { ...typed(), shown: props.time } })
    emit('kept')
  })
const EXAMPLES_MIN = [4, 23, 71]
const examples = computed(() => {
  const to = typed()
  if (!(to.leastMinutes >= 0)) return ''
  const said = EXAMPLES_MIN.map((min) => `${min} min → ${billedHours(min * 60, to)} h`)
  return said.join(', ')
})
</script>

<template>
  <h2 id="time">Time that is charged</h2>
  <p class="quiet">
    Minutes on site that no line covers, once somebody charges them. What was charged stays.
  </p>
  <Form
    :of="form"
    @submit="keep"
  >
    <div class="row time">
      <Field
        name="way"
        label="Rounded"
        ><Choice
          v-model="form.values.way"
          :disabled="!may"
          :options="[
            { value: 'nearest', label: 'to the nearest' },
            { value: 'up', label: 'up to the next' },
          ]" /></Field
      ><Field
        name="stepMinutes"
        label="Minutes"
        ><Choice
          v-model="form.values.stepMinutes"
          :disabled="!may"
          :options="TIME_STEPS.map((step) => ({ value: step, label: String(step) }))" /></Field
      ><Field
        name="leastMinutes"
        label="At least, minutes"
        ><FigureInput
          v-model="form.values.leastMinutes"
          :disabled="!may" /></Field
      ><ActButton
        v-if="may"
        submit
        :disabled="!form.changed"
        >Keep how time is charged</ActButton
      >
    </div>
    <p
      v-if="examples"
      class="quiet small"
    >
      {{ examples }}
    </p>
    <Notice />
  </Form>
</template>

<style scoped>
.time {
  align-items: flex-end;
}
</style>
