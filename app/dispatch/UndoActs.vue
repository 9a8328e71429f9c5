<script setup lang="ts">
// Takes back and does again what was done to visits, by button and key; what speaks against it is asked beneath.
import ActButton from '~/base/ActButton.vue'
import ActRefused from '~/components/dispatch/ActRefused.vue'
import { undoKeys } from '~/dispatch/day/boardShortcuts'
import { useScheduleAct } from '~/lib/useScheduleAct'
import { useShortcuts } from '~/lib/shortcuts'
import { useBoard } from '~/stores/board'

const props = defineProps<{ refresh: () => Promise<unknown> }>()
const board = useBoard()
const { failure, refused, act } = useScheduleAct(props.refresh)
const undo = () => void act((override) => board.undo(override))
const redo = () => void act((override) => board.redo(override))
useShortcuts(undoKeys(undo, redo))
</script>

<template>
  <ActButton
    :disabled="!board.done.length"
    title="Ctrl Z"
    @click="undo"
  >
    Undo
  </ActButton>
  <ActButton
    :disabled="!board.undone.length"
    title="Ctrl Y"
    @click="redo"
  >
    Redo
  </ActButton>
  <p
    v-if="failure"
    class="note bad says"
    role="alert"
  >
    {{ failure }}
    <ActButton
      quiet
      aria-label="Close"
      @click="failure = ''"
    >
      ×
    </ActButton>
  </p>
  <ActRefused
    v-if="refused"
    class="says"
    :text="refused.text"
    @again="refused.again()"
    @leave="refused = null"
  />
</template>

<style scoped>
.says {
  flex: 1 0 100%;
}
</style>
