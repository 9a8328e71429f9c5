<script setup lang="ts">
// A day: from the calendar, or typed as people write it (27 nov, 11/27, tomorrow, fri).
import { computed, defineComponent, h, useTemplateRef } from 'vue'
import dayjs from 'dayjs'
import type { DatePickerInstance } from 'element-plus'
import { passOn } from './passOn'
import { retype, settle } from './retype'
import { dayPattern } from '~~/core/time/dayPattern'
import { sayDay } from '~~/core/time/sayDay'
import { readDate } from '~~/core/time/readDate'
import { useSession } from '~/stores/session'

defineOptions({ inheritAttrs: false })
const day = defineModel<string | null>()
const props = defineProps<{ min?: string; max?: string; disabled?: boolean }>()
const emit = defineEmits<{ change: [day: string] }>()
const session = useSession()
const locale = computed(() => session.me?.company.locale ?? 'en-US')
/** what the calendar can read back: its weekday stands before it */
const pattern = computed(() => dayPattern(locale.value))
const picker = useTemplateRef<DatePickerInstance>('picker')
const value = computed({
  get: () => day.value || '',
  set: (chosen: string | null) => {
    day.value = chosen ?? ''
    emit('change', chosen ?? '')
  },
})
const Weekday = defineComponent(
  () => () =>
    h('span', { class: 'weekday' }, day.value ? sayDay(day.value, locale.value, 'weekday') : ''),
)
const outside = (at: Date) => {
  const iso = dayjs(at).format('YYYY-MM-DD')
  return (!!props.min && iso < props.min) || (!!props.max && iso > props.max)
}
/** What was typed, in the one way of writing that the calendar reads. */
function neaten(event: Event) {
  const input = event.target as HTMLInputElement
  const read = readDate(input.value, session.today, locale.value)
  if (!read || outside(new Date(`${read}T00:00`))) return
  retype(input, dayjs(read).format(pattern.value))
}
/** Enter takes what was typed, and closes the calendar; the form is not sent by it. */
function take(event: KeyboardEvent) {
  if (event.ctrlKey || event.metaKey) return
  settle(event.target as HTMLInputElement)
  picker.value?.handleClose()
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <span
    class="date"
    @change.capture="neaten"
    @keydown.enter.capture="take"
    @keydown.tab.capture="settle($event.target as HTMLInputElement)"
    @keydown.capture="passOn($event, true)"
  >
    <el-date-picker
      ref="picker"
      v-bind="$attrs"
      v-model="value"
      type="date"
      value-format="YYYY-MM-DD"
      :format="pattern"
      :prefix-icon="Weekday"
      :disabled="disabled"
      :disabled-date="outside"
      :clearable="false"
      :validate-event="false"
    />
  </span>
</template>
