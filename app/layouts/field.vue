<script setup lang="ts">
// The technician's phone: one column, big targets, the connection said when it is gone.
import { defineAsyncComponent, onMounted, ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import UnansweredStrip from '~/base/UnansweredStrip.vue'
import { connected } from '~/lib/live'
import { useTourHere } from '~/tour/useTour'

const HelpPanel = defineAsyncComponent(() => import('~/help/HelpPanel.vue'))
const TourGuide = defineAsyncComponent(() => import('~/tour/TourGuide.vue'))
const helping = ref(false)
const { seen: shownRound } = useTourHere()
/** Where the page came drawn, its buttons are there once a press on them does something; links lead at once. */
const awake = ref(false)
onMounted(() => (awake.value = true))
</script>

<template>
  <div
    class="field-shell"
    :class="{ asleep: !awake }"
  >
    <p
      v-if="!connected"
      class="away"
      role="status"
    >
      No signal. What you type is kept on this phone; acts have to be pressed again when it is back.
    </p>
    <UnansweredStrip />
    <main><slot /></main>
    <ActButton
      quiet
      class="help no-print"
      @click="helping = true"
      >Help with this page</ActButton
    >
    <TourGuide v-if="shownRound" />
    <HelpPanel
      v-if="helping"
      on-phone
      @close="helping = false"
    />
  </div>
</template>

<style>
.field-shell.asleep button {
  visibility: hidden;
}
.field-shell {
  font-size: 1rem;
  max-width: 560px;
  margin: 0 auto;
  min-height: 100vh;
  background: var(--paper);
  display: flex;
  flex-direction: column;
}
.field-shell main {
  flex: 1;
  display: flex;
  flex-direction: column;
  min-width: 0;
  overflow-wrap: anywhere;
}
.field-shell .help {
  align-self: center;
  margin: 8px 0 16px;
}
.field-shell .btn {
  white-space: normal;
}
.field-shell .btn,
.field-shell .el-button.btn.btn {
  min-width: 48px;
  min-height: 48px;
  border-radius: 8px;
  font-size: 1rem;
}
.field-shell .plain:is(input, select, textarea),
.field-shell :is(.el-input__wrapper, .el-select__wrapper) {
  min-height: 48px;
  font-size: 1rem;
  border-radius: 8px;
}
.field-shell .check {
  min-height: 48px;
}
.field-shell .small {
  font-size: 0.84375rem;
}
.field-shell .away {
  background: var(--marigold-1);
  padding: 8px 16px;
}
.field-shell li button {
  min-height: 52px;
}
</style>
