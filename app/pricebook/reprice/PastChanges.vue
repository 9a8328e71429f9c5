<script setup lang="ts">
// Changes of prices so far: what waits for its day, what holds, what was taken back.
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'
import type { Answer } from '~~/shared/api'
import { useSession } from '~/stores/session'

defineProps<{ changes: Answer<'priceChanges'>['items']; busy: boolean }>()
const emit = defineEmits<{ undo: [id: string] }>()
const session = useSession()
</script>

<template>
  <DataTable
    :rows="changes"
    :row-key="(b) => b.id"
    :columns="[
      { key: 'made', label: 'Made', look: 'nowrap', text: (b) => session.dayTime(b.madeAt) },
      { key: 'what', label: 'What', text: (b) => b.title },
      { key: 'holdsFrom', label: 'Holds from', look: 'nowrap' },
      { key: 'prices', label: 'Prices', figures: true, text: (b) => b.entries },
      { key: 'by', label: 'By', look: 'quiet', text: (b) => b.madeBy },
      { key: 'act', right: true },
    ]"
  >
    <template #holdsFrom="{ row: b }"
      >{{ session.day(b.holdsFrom) }}
      <span
        v-if="b.state === 'waiting'"
        class="chip soon"
        >waits for its day</span
      ></template
    >

    <template #act="{ row: b }"
      ><span
        v-if="b.state === 'undone'"
        class="quiet"
        >taken back</span
      ><ActButton
        v-else
        :disabled="busy"
        :aria-label="`Take back: ${b.title}`"
        @click="emit('undo', b.id)"
      >
        Take back
      </ActButton></template
    ></DataTable
  >
</template>
