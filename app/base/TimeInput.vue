<script setup lang="ts">
// A time of day: chosen, or typed as people write it (8, 830, 8:30, 4pm).
import { computed, useTemplateRef } from 'vue'
import type { TimePickerInstance } from 'element-plus'
import { passOn } from './passOn'
import { retype } from './retype'
import { readTime } from '~~/core/time/readTime'

defineOptions({ inheritAttrs: false })
const picker = useTemplateRef<TimePickerInstance>('picker')
const time = defineModel<string | null>()
defineProps<{ disabled?: boolean }>()
const value = computed({
  get: () => time.value || '',
  set: (chosen: string | null) => (time.value = chosen ?? ''),
})
/** What was typed, in the one way of writing that the picker reads. */
function neaten(event: Event) {
  const input = event.target as HTMLInputElement
  const read = readTime(input.value)
  if (read) retype(input, read)
}
/** Enter takes what was typed, and closes the picker; the form is not sent by it. */
function take(event: KeyboardEvent) {
  if (event.ctrlKey || event.metaKey) return
  neaten(event)
  picker.value?.handleClose()
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <span
    class="time"
    @change.capture="neaten"
    @keydown.enter.capture="take"
    @keydown.tab.capture="neaten"
    @keydown.capture="passOn"
  >
    <el-time-picker
      ref="picker"
      v-bind="$attrs"
      v-model="value"
      format="HH:mm"
      value-format="HH:mm"
      :disabled="disabled"
      :clearable="false"
      :validate-event="false"
    />
  </span>
</template>
