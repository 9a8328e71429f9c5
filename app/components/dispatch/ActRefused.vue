<script setup lang="ts">
// What the server would rather not do, asked about before it is done; where it breaks a promise, what is promised instead.
import { onBeforeUnmount, onMounted, reactive, ref, useTemplateRef } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import DateInput from '~/base/DateInput.vue'
import Radio from '~/base/Radio.vue'
import TimeInput from '~/base/TimeInput.vue'
import { promiseSaid, type PromiseAnswer, type PromiseAsked } from '~/dispatch/visit/promise'
import { useSession } from '~/stores/session'

const props = defineProps<{ text: string; asked?: PromiseAsked | null }>()
const emit = defineEmits<{ again: [answer: PromiseAnswer]; leave: [] }>()
const session = useSession()
const box = useTemplateRef<HTMLElement>('box')
// It is answered by keyboard, too, and leaves the focus where it was.
let before: Element | null = null
onMounted(() => {
  before = document.activeElement
  box.value?.querySelector<HTMLElement>('.answers button')?.focus()
})
onBeforeUnmount(() => {
  if (box.value?.contains(document.activeElement)) (before as HTMLElement | null)?.focus()
})
const choice = ref<'other' | 'keep' | 'later'>('other')
const other = reactive({
  date: props.asked?.proposed.date ?? '',
  from: props.asked?.proposed.from ?? '',
  to: props.asked?.proposed.to ?? '',
})
const known = ref(false)
function again() {
  if (!props.asked || choice.value === 'keep') return emit('again', {})
  const { date, from, to } = other
  const promise = choice.value === 'later' ? null : { date, from: from || null, to: to || null }
  emit('again', { promise, known: known.value })
}
</script>

<template>
  <div
    ref="box"
    class="note warn stack"
    role="alertdialog"
    aria-label="Before it is saved"
    @keydown.esc.stop="emit('leave')"
  >
    <span><b>Not saved yet.</b> {{ text }}</span>
    <div
      v-if="asked"
      class="stack"
      role="radiogroup"
      aria-label="What is promised then"
    >
      <Radio
        v-model="choice"
        name="promise"
        value="other"
        >Promise another time</Radio
      >
      <div class="row other">
        <DateInput
          v-model="other.date"
          aria-label="Promised day"
          :disabled="choice !== 'other'"
        />
        <TimeInput
          v-model="other.from"
          aria-label="Promised from"
          :disabled="choice !== 'other'"
        />
        <span>–</span>
        <TimeInput
          v-model="other.to"
          aria-label="Promised to"
          :disabled="choice !== 'other'"
        />
      </div>
      <Radio
        v-model="choice"
        name="promise"
        value="keep"
        >Keep what was promised: {{ promiseSaid(asked.promise, session.day) }}</Radio
      >
      <Radio
        v-model="choice"
        name="promise"
        value="later"
        >Promise nothing for now</Radio
      >
      <Check
        v-if="choice !== 'keep'"
        v-model="known"
        class="left"
        >The customer knows already</Check
      >
    </div>
    <div class="row answers">
      <ActButton
        primary
        @click="again"
      >
        Place it all the same
      </ActButton>
      <ActButton @click="emit('leave')"> Leave it </ActButton>
    </div>
  </div>
</template>

<style scoped>
.stack {
  gap: 6px;
}
.other {
  margin-left: 24px;
  gap: 6px;
}
:deep(.el-radio) {
  height: auto;
  min-height: 28px;
  margin: 0;
  font-weight: 400;
  white-space: normal;
}
</style>
