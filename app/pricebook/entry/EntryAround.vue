<script setup lang="ts">
// What stands around an entry: others easily taken for it, where it stands in, how its price has changed.
import DataTable from '~/base/DataTable.vue'
import { useSession } from '~/stores/session'
import type { Entry } from './entryForm'
import { useFigures } from './useEntry'

defineProps<{ entry: Entry }>()
const session = useSession()
const { amount } = useFigures()
</script>

<template>
  <div
    v-if="entry.alike.length"
    class="sheet box"
  >
    <h2>Easily taken for it</h2>
    <DataTable
      :rows="entry.alike"
      :row-key="(a) => a.id"
      :columns="[
        { key: 'code', look: 'num' },
        { key: 'name' },
        { key: 'price', figures: true, text: (a) => amount(a.price) },
      ]"
    >
      <template #code="{ row: a }">
        <NuxtLink :to="`/price-book/${a.id}`">{{ a.code }}</NuxtLink>
      </template>
      <template #name="{ row: a }">
        {{ a.name }}
        <span class="quiet small">{{
          a.last ? `last sold ${session.day(a.last, 'withYear')}` : 'never sold'
        }}</span>
      </template>
    </DataTable>
  </div>
  <div
    v-if="entry.standsIn.length"
    class="sheet box"
  >
    <h2>Stands in</h2>
    <DataTable
      :rows="entry.standsIn"
      :row-key="(a) => a.id"
      :columns="[
        { key: 'code', look: 'num' },
        { key: 'name', text: (a) => a.name },
        { key: 'quantity', figures: true, text: (a) => a.quantity },
      ]"
    >
      <template #code="{ row: a }">
        <NuxtLink :to="`/price-book/${a.id}`">{{ a.code }}</NuxtLink>
      </template>
    </DataTable>
  </div>
  <div
    v-if="entry.history.length"
    class="sheet box"
  >
    <h2>History of the price</h2>
    <DataTable
      :rows="entry.history"
      :row-key="(_, i) => i"
      :tone="(h) => ({ undone: h.state === 'undone' })"
      :columns="[
        { key: 'from', look: 'nowrap', text: (h) => session.day(h.holdsFrom, 'withYear') },
        { key: 'what' },
        {
          key: 'price',
          figures: true,
          look: 'nowrap',
          text: (h) => `${amount(h.was.price)} → ${amount(h.became.price)}`,
        },
      ]"
    >
      <template #what="{ row: h }">
        {{ h.title }}
        <span class="quiet small"
          >{{ h.madeBy }}{{ h.state === 'applied' ? '' : `, ${h.state}` }}</span
        >
      </template>
    </DataTable>
  </div>
</template>

<style scoped>
:deep(.undone) {
  text-decoration: line-through;
  color: var(--ink-2);
}
</style>
