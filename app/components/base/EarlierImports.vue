<script setup lang="ts">
// What was taken in from files before, each with its way back.
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'
import { useSession } from '~/stores/session'

defineProps<{
  items: readonly {
    id: string
    fileName: string
    added: number
    skipped: number
    by: string
    at: string
    undone: boolean
  }[]
  busy: boolean
}>()
const emit = defineEmits<{ undo: [id: string] }>()
const session = useSession()
</script>

<template>
  <template v-if="items.length"
    ><h2>Earlier imports</h2>
    <DataTable
      label="Earlier imports"
      :rows="items"
      :row-key="(i) => i.id"
      :columns="[
        { key: 'file', text: (i) => i.fileName },
        { key: 'in', figures: true, text: (i) => `${i.added} taken in` },
        { key: 'out', figures: true, text: (i) => `${i.skipped} left out` },
        { key: 'who', look: 'quiet', text: (i) => `${session.dayTime(i.at)} · ${i.by}` },
        { key: 'undo', right: true },
      ]"
    >
      <template #undo="{ row: i }"
        ><span
          v-if="i.undone"
          class="quiet"
          >taken back</span
        ><ActButton
          v-else
          :aria-label="`Undo ${i.fileName}`"
          :disabled="busy"
          @click="emit('undo', i.id)"
        >
          Undo
        </ActButton></template
      ></DataTable
    ></template
  >
</template>
