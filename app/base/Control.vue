<script setup lang="ts">
// What a value is typed with or chosen by, whatever its kind: the one place that knows which.
import { useAttrs } from 'vue'
import Choice from './Choice.vue'
import DateInput from './DateInput.vue'
import FigureInput from './FigureInput.vue'
import TextInput from './TextInput.vue'
import TimeInput from './TimeInput.vue'
import type { FieldKind, Option } from './fields'

defineOptions({ inheritAttrs: false })
const value = defineModel<string | null>()
const props = defineProps<{
  kind?: FieldKind | undefined
  /** one of these: a choice */
  options?: readonly Option[] | undefined
  /** lines of an area at first */
  rows?: number | undefined
  placeholder?: string | undefined
}>()
const emit = defineEmits<{ change: [value: string] }>()
const attrs = useAttrs()
const KINDS = { date: DateInput, time: TimeInput, figures: FigureInput } as const
const control = () => {
  if (props.options) return Choice
  return (props.kind && KINDS[props.kind as keyof typeof KINDS]) || TextInput
}
/** What only some of them take. */
const own = () => ({
  ...attrs,
  ...(props.options && { options: props.options }),
  ...(props.placeholder && { placeholder: props.placeholder }),
  ...(props.kind === 'area' && { rows: props.rows ?? 2 }),
  ...(props.kind === 'email' && { type: 'email' }),
})
</script>

<template>
  <component
    :is="control()"
    v-bind="own()"
    v-model="value"
    @change="emit('change', $event)"
  />
</template>
