<script setup lang="ts">
// Lists that were taken in, each of which can be taken back.
import type { Answer } from '~~/shared/api'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'

defineProps<{ lists: Answer<'priceImports'>['items']; busy: boolean }>()
const emit = defineEmits<{ undo: [id: string] }>()
const session = useSession()
</script>

<template>
  <DataTable
    :rows="lists"
    :row-key="(i) => i.id"
    :columns="[
      { key: 'c1' },
      { key: 'c2', figures: true },
      { key: 'c3', figures: true },
      { key: 'c4', figures: true },
      { key: 'c5', look: 'quiet' },
      { key: 'c6', right: true },
    ]"
    ><template #c1="{ row: i }"
      >{{ i.fileName }} <span class="quiet">{{ i.supplier }}</span></template
    >
    <template #c2="{ row: i }">{{ i.counts.new }} new</template>
    <template #c3="{ row: i }">{{ i.counts.changed }} changed</template>
    <template #c4="{ row: i }">{{ i.counts.wrong }} left out</template>
    <template #c5="{ row: i }">{{ session.dayTime(i.madeAt) }} · {{ i.madeBy }}</template>
    <template #c6="{ row: i }"
      ><span
        v-if="i.state === 'undone'"
        class="quiet"
        >taken back</span
      ><ActButton
        v-else
        :disabled="busy"
        :aria-label="`Undo ${i.fileName}`"
        @click="emit('undo', i.id)"
      >
        Undo
      </ActButton></template
    ></DataTable
  >
</template>
