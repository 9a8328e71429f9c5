<script setup lang="ts">
// What is said of an act on the schedule, or asked before it is done: beneath what it is about, which does not move under the pointer and is not
// covered.
import ActButton from '~/base/ActButton.vue'
import ActRefused from '~/components/dispatch/ActRefused.vue'
import type { useScheduleAct } from '~/lib/useScheduleAct'
import type { Visit } from './useDay'

const failure = defineModel<string>('failure', { required: true })
const refused = defineModel<ReturnType<typeof useScheduleAct>['refused']['value']>('refused', {
  required: true,
})
defineProps<{
  problem?: { message: string } | null
  swapping?: Visit | null
  /** what speaks against the place that is tried */
  warnings?: string
}>()
</script>

<template>
  <div class="says">
    <p
      v-if="problem || failure"
      class="note bad row"
      role="alert"
    >
      <span class="grow">{{ failure || problem?.message }}</span>
      <ActButton
        v-if="failure"
        quiet
        aria-label="Close"
        @click="failure = ''"
      >
        ×
      </ActButton>
    </p>
    <ActRefused
      v-if="refused"
      :text="refused.text"
      :asked="refused.asked"
      @again="refused.again($event)"
      @leave="refused = null"
    />
    <p
      v-else-if="swapping"
      class="note"
      role="status"
    >
      {{ swapping.customer }} changes places with… press <kbd>S</kbd> on another visit, or
      <kbd>Esc</kbd>.
    </p>
    <p
      v-else-if="warnings"
      class="note warn"
      role="status"
    >
      {{ warnings }}
    </p>
  </div>
</template>

<style scoped>
.says {
  flex: none;
}
.says :deep(.note) {
  border-radius: 0;
}
</style>
