<script setup lang="ts">
// A time of day, typed as people write it (8, 830, 8:30, 4pm); the arrows go a quarter of an hour on or back.
// Not the library's picker: that one changes hours and minutes apart, so that nothing can be typed over.
import { ref, watch } from 'vue'
import { readTime } from '~~/core/time/readTime'

defineOptions({ inheritAttrs: false })
const time = defineModel<string | null>()
defineProps<{ disabled?: boolean }>()
const DAY_MINUTES = 24 * 60
const STEP = 15
const typed = ref(time.value ?? '')
watch(time, (now) => (typed.value = now ?? ''))

/** Takes what was typed; what is no time leaves the one that stood there. */
function take() {
  const read = typed.value.trim() === '' ? '' : (readTime(typed.value) ?? time.value ?? '')
  typed.value = read
  time.value = read
}
function step(by: number) {
  take()
  const [hours, minutes] = (time.value || '08:00').split(':').map(Number) as [number, number]
  const at = (hours * 60 + minutes + by + DAY_MINUTES) % DAY_MINUTES
  typed.value = `${String(Math.floor(at / 60)).padStart(2, '0')}:${String(at % 60).padStart(2, '0')}`
  time.value = typed.value
}
</script>

<template>
  <el-input
    v-bind="$attrs"
    v-model="typed"
    class="time"
    placeholder="hh:mm"
    maxlength="10"
    :disabled="disabled"
    :validate-event="false"
    @change="take"
    @keydown.enter.exact.prevent="take"
    @keydown.up.prevent="step(STEP)"
    @keydown.down.prevent="step(-STEP)"
  />
</template>
