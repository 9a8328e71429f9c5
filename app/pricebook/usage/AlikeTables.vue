<script setup lang="ts">
// Entries that are easily taken for each other.
import type { Answer } from '~~/shared/api'
import DataTable from '~/base/DataTable.vue'
import { useSession } from '~/stores/session'

defineProps<{ alike: Answer<'bookUsage'>['alike'] }>()
const session = useSession()
</script>

<template>
  <p
    v-if="!alike.length"
    class="empty sheet"
  >
    No two entries are called alike.
  </p>
  <div
    v-for="(g, i) in alike"
    :key="i"
    class="sheet"
  >
    <DataTable
      :rows="g.entries"
      :row-key="(e) => e.id"
      :columns="[
        { key: 'c1', look: 'code num' },
        { key: 'c2', text: (e) => e.name },
        { key: 'c3', figures: true, text: (e) => session.figure(e.price) },
        {
          key: 'c4',
          right: true,
          look: 'last',
          text: (e) => (e.last ? `last sold ${session.day(e.last)}` : 'never sold'),
        },
      ]"
      ><template #c1="{ row: e }"
        ><NuxtLink :to="`/price-book/${e.id}`">{{ e.code }}</NuxtLink></template
      >
    </DataTable>
  </div>
</template>

<style scoped>
.code {
  width: 90px;
}
.last {
  width: 160px;
  color: var(--ink-2);
}
</style>
