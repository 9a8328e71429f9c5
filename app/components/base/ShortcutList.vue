<script setup lang="ts">
// The shortcuts of this screen, and those of every screen.
import { computed } from 'vue'
import DataTable from '~/base/DataTable.vue'
import Dialog from '~/base/Dialog.vue'

const emit = defineEmits<{ close: [] }>()
const route = useRoute()
const HERE: Record<string, [string, string][]> = {
  '/calls/': [
    ['Ctrl Enter', 'book the call'],
    ['↑ ↓ Enter', 'choose a match'],
    ['Alt W', 'go to the first free time; arrows move it'],
    ['Esc', 'back to the calls'],
  ],
  '/schedule': [
    ['Tab', 'go to the next visit'],
    ['← → ↑ ↓', 'move it by a quarter of an hour, or to another technician'],
    ['Shift ← →', 'shorten, lengthen'],
    ['Enter', 'save the move, or look at the visit'],
    ['Esc', 'leave it where it was'],
    ['Delete', 'take it off the schedule'],
    ['Ctrl Z', 'undo'],
    ['Ctrl Y', 'do it again'],
    ['S', 'swap with another: S on the one, S on the other'],
    ['L', 'lock it where it is, or unlock it'],
    ['C', 'a further visit of the same work order; Alt and drag puts it somewhere'],
    ['X', 'split it: the rest goes to the tray'],
    ['[ ]', 'day before, day after'],
  ],
}
const EVERYWHERE: [string, string][] = [
  ['N', 'take a call'],
  ['Ctrl K', 'find anything, run any command'],
  ['Alt 1 … 5', 'walk the run'],
  ['/', 'go to the filter of the list'],
  ['?', 'this page'],
]
const shortcuts = computed(() => [
  ...(Object.entries(HERE).find(([path]) => route.path.startsWith(path))?.[1] ?? []),
  ...EVERYWHERE,
])
</script>

<template>
  <Dialog
    title="Shortcuts"
    width="480"
    @close="emit('close')"
  >
    <DataTable
      :rows="shortcuts"
      :row-key="([keys]) => keys"
      :columns="[
        { key: 'keys', look: 'nowrap' },
        { key: 'what', text: ([, what]) => what },
      ]"
    >
      <template #keys="{ row: [keys] }"
        ><kbd>{{ keys }}</kbd></template
      >
    </DataTable>
  </Dialog>
</template>
