<script setup lang="ts">
// Who came in and from where, who did not, and what was changed of it; the last first.
import { computed, shallowRef } from 'vue'
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'
import Notice from '~/base/Notice.vue'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'
import { HISTORY_PAGE } from '~~/shared/schema'
import type { Answer } from '~~/shared/api'

type Entry = Answer<'accessTrail'>['items'][number]
const session = useSession()
const { data, problem } = useAnswer('accessTrail', undefined, { subjects: ['person', 'access'] })
const { busy, problem: failed, act } = useAct()
const earlier = shallowRef<readonly Entry[]>([])
const isAll = shallowRef(false)
const entries = computed(() => {
  const all = [...(data.value?.items ?? []), ...earlier.value]
  return [...new Map(all.map((entry) => [entry.id, entry])).values()]
})
const before = () =>
  act(async () => {
    const { items } = await call('accessTrail', { query: { before: entries.value.at(-1)!.id } })
    isAll.value = items.length < HISTORY_PAGE
    earlier.value = [...earlier.value, ...items]
  })
</script>

<template>
  <h2>Who came in</h2>
  <Notice :of="failed ?? problem" />
  <DataTable
    v-if="entries.length"
    label="Who came in"
    :rows="entries"
    :row-key="(e) => e.id"
    :columns="[
      { key: 'at', label: 'When', look: 'nowrap', text: (e) => session.dayTime(e.at) },
      { key: 'who', label: 'Who', text: (e) => e.who },
      { key: 'what', label: 'What', text: (e) => e.text },
    ]"
  />
  <ActButton
    v-if="entries.length >= HISTORY_PAGE && !isAll"
    quiet
    :disabled="busy"
    @click="before"
    >What was before</ActButton
  >
</template>
