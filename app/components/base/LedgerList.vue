<script setup lang="ts" generic="T extends { id: string }">
// A list with a filter and keyset paging: loads, says when it is empty, goes on when asked.
import { onBeforeUnmount, onMounted, ref, useTemplateRef, watch } from 'vue'
import { onLive } from '~/lib/live'
import { useFilter } from '~/lib/useFilter'
import { useListPlace } from '~/lib/useListPlace'
import { usePages } from '~/lib/usePages'
import type { Column } from '~/base/columns'
import DataTable from '~/base/DataTable.vue'
import Pending from '~/base/Pending.vue'
import ActButton from '~/base/ActButton.vue'
import TableActs from '~/base/TableActs.vue'
import TextInput from '~/base/TextInput.vue'

const props = defineProps<{
  title: string
  hint?: string
  filter?: string
  load: (q: string, after?: string) => Promise<{ items: T[]; next: string | null; total: number }>
  empty: string
  watchKey?: string
  columns: readonly Column<T>[]
  tone?: (item: T) => unknown
  picks?: boolean
}>()
const emit = defineEmits<{ pick: [item: T]; shown: [items: T[]] }>()
defineSlots<
  Record<string, (cell: { row: T; index: number }) => unknown> & {
    acts?: () => unknown
    note?: () => unknown
  }
>()
const q = useFilter('q')
const list = usePages<T>((after) => props.load(q.value.trim(), after))
const { items, next, total, problem, refresh, more } = list
let left = false
onBeforeUnmount(() => (left = true))
/** How many rows were gathered so far, while all of them are. */
const gathered = ref<number | null>(null)
/**
 * All that the filter finds, page after page, beside what is drawn; null where a page did not come, or something else is
 * asked by now.
 */
async function everyRow(): Promise<T[] | null> {
  const asked = () => `${q.value.trim()} ${props.watchKey}`
  const first = asked()
  gathered.value = items.value.length
  const rows = await list.everything((count) => {
    gathered.value = count
    return !left && asked() === first
  })
  gathered.value = null
  return rows
}
/** More than these a window draws too slowly to be worth its paper. */
const MOST_PRINTED = 2000
function draw(rows: readonly T[]): boolean {
  if (rows.length > MOST_PRINTED) {
    problem.value = `These are ${rows.length} rows; ${MOST_PRINTED} are printed at most. Filter them, or keep them as CSV.`
    return false
  }
  list.show(rows)
  return true
}
watch(items, (now) => emit('shown', now))
watch([q, () => props.watchKey], () => void list.begin())
const page = useTemplateRef<HTMLElement>('page')
const { kept } = useListPlace(page, () => items.value.length)
onMounted(() => (kept ? list.upTo(kept.rows).then(kept.scroll) : refresh()))
/** Changes that come together are asked for together: a long list is many pages. */
const PATIENCE_MS = 300
onLive(() => void refresh(), PATIENCE_MS)
</script>

<template>
  <section
    ref="page"
    class="page"
  >
    <div class="row head">
      <h1>
        {{ title }} <span class="quiet num">{{ total ?? '' }}</span>
      </h1>
      <span class="quiet grow">{{ hint }}</span>
      <div class="acts no-print">
        <slot name="acts" />
        <TextInput
          v-if="filter"
          v-model="q"
          data-filter
          :placeholder="filter"
          :aria-label="filter"
          style="width: 220px"
        />
      </div>
    </div>
    <p
      v-if="problem"
      class="note bad"
      role="alert"
    >
      {{ problem }}
    </p>
    <slot name="note" />
    <DataTable
      v-if="items.length"
      :rows="items"
      :columns="columns"
      :row-key="(item) => item.id"
      :tone="tone"
      :picks="picks"
      @pick="emit('pick', $event)"
    >
      <template
        v-for="slot in columns
          .flatMap((c) => [c.key, `${c.key}Head`])
          .filter((name) => $slots[name])"
        :key="slot"
        #[slot]="cell"
        ><slot
          :name="slot"
          v-bind="cell"
      /></template>
    </DataTable>
    <p
      v-else-if="total !== null"
      class="empty sheet"
    >
      {{ q ? 'Nothing fits these words.' : empty }}
    </p>
    <Pending
      v-else-if="!problem"
      says="Loading…"
    />
    <div
      v-if="items.length"
      class="row foot"
    >
      <span
        class="quiet small num"
        role="status"
        >{{ gathered ?? items.length }} of {{ total }}</span
      >
      <ActButton
        v-if="next"
        class="no-print"
        @click="more"
      >
        Show more
      </ActButton>
      <TableActs
        :name="title"
        :columns="columns"
        :rows="everyRow"
        :draw="draw"
      />
    </div>
  </section>
</template>

<style scoped>
.head {
  gap: 10px;
  flex-wrap: wrap;
}
.head h1 {
  white-space: nowrap;
}
.acts {
  display: contents;
}
.foot {
  justify-content: center;
  gap: 10px;
}
</style>
