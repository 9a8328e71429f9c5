<script setup lang="ts">
// What was set up, by whom, from what to what; each change can be put back while nobody has changed it since.
import { computed, shallowRef } from 'vue'
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'
import { call } from '~/lib/api'
import { SHOWS } from '~/lib/live'
import { useAct } from '~/lib/useAct'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'
import { HISTORY_PAGE } from '~~/shared/schema'
import type { Answer } from '~~/shared/api'

type Page = Answer<'settingsHistory'>
type Entry = Page['items'][number]
const session = useSession()
const { data, problem, refresh } = useAnswer('settingsHistory', undefined, SHOWS.setUp)
const { busy, problem: failed, act } = useAct()
const earlier = shallowRef<readonly Page[]>([])
const pages = computed(() => [...(data.value ? [data.value] : []), ...earlier.value])
const entries = computed(() => [
  ...new Map(pages.value.flatMap(({ items }) => items).map((entry) => [entry.id, entry])).values(),
])
const undoable = computed(() => new Set(pages.value.flatMap((page) => page.undoable)))
const isAll = computed(() => (pages.value.at(-1)?.items.length ?? 0) < HISTORY_PAGE)
const before = () =>
  act(async () => {
    const last = entries.value.at(-1)!.id
    earlier.value = [...earlier.value, await call('settingsHistory', { query: { before: last } })]
  })
const undo = ({ id }: Entry) =>
  act(async () => {
    data.value = await call('undoSetting', { params: { entry: String(id) } })
  })
const saidOf = ({ what, from, to }: Entry['changes'][number]) =>
  `${what}: ${from || 'nothing'} → ${to || 'nothing'}`
</script>

<template>
  <h2 id="history">What was changed here</h2>
  <template v-if="data">
    <Notice :of="failed" />
    <DataTable
      v-if="entries.length"
      label="What was changed here"
      :rows="entries"
      :row-key="(e) => e.id"
      :columns="[
        { key: 'at', label: 'When', look: 'nowrap', text: (e) => session.dayTime(e.at) },
        { key: 'who', label: 'Who', text: (e) => e.who },
        { key: 'what', label: 'What' },
        { key: 'act', right: true },
      ]"
    >
      <template #what="{ row: entry }">
        {{ entry.text }}
        <span
          v-for="change in entry.changes"
          :key="change.what"
          class="quiet small change"
          >{{ saidOf(change) }}</span
        >
      </template>
      <template #act="{ row: entry }">
        <ActButton
          v-if="undoable.has(entry.id)"
          :busy="busy"
          :aria-label="`Undo: ${entry.text}`"
          @click="undo(entry)"
          >Undo</ActButton
        >
      </template>
    </DataTable>
    <p
      v-else
      class="quiet"
    >
      Nothing was changed yet.
    </p>
    <ActButton
      v-if="!isAll"
      quiet
      :busy="busy"
      @click="before"
      >What was before</ActButton
    >
  </template>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
  />
</template>

<style scoped>
.change {
  display: block;
  overflow-wrap: anywhere;
}
</style>
