<script setup lang="ts">
// Why something was refused, where it was asked for. In a form: what no field says at its place.
import { computed, defineAsyncComponent, useTemplateRef, watch } from 'vue'
import type { Problem } from '~/lib/api'
import { formAround } from './useForm'

const AskForYes = defineAsyncComponent(() => import('~/access/AskForYes.vue'))
const props = defineProps<{
  /** the refusal; within a form it may be left out */
  of?: { message: string; errors?: readonly unknown[] } | null | undefined
}>()
const form = formAround()
const shown = computed(() => (props.of === undefined ? form?.unplaced : props.of))
/** What is over one's limit may be asked for. */
const overLimit = computed(() => {
  const problem = shown.value as Problem | null | undefined
  return problem?.code === 'over_limit' && problem.extra.request ? problem : null
})
const note = useTemplateRef<HTMLElement>('note')
// What was pressed may stand far beneath it.
watch(shown, () => note.value?.scrollIntoView?.({ block: 'nearest' }), { flush: 'post' })
</script>

<template>
  <div
    v-if="shown"
    ref="note"
    class="note bad"
    role="alert"
  >
    {{ shown.message }}
    <slot />
    <AskForYes
      v-if="overLimit"
      :key="overLimit.message"
      :of="overLimit"
    />
  </div>
</template>

<style scoped>
/* Also above what stands fixed at the foot of a phone, with what may be asked beneath it. */
.note {
  scroll-margin-block: 220px;
}
</style>
