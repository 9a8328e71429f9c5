<script setup lang="ts">
// Takes back and does again what was done to visits, by button and key, in every view of the schedule.
import ActButton from '~/base/ActButton.vue'
import { undoKeys } from '~/dispatch/day/boardShortcuts'
import { useShortcuts } from '~/lib/shortcuts'
import { useBoard } from '~/stores/board'

const props = defineProps<{ undo: () => unknown; redo: () => unknown }>()
const board = useBoard()
useShortcuts(
  undoKeys(
    () => void props.undo(),
    () => void props.redo(),
  ),
)
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
</template>
