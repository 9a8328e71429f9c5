<script setup lang="ts">
// A price to read out: entries of the book, what they come to for this customer then, and what they want of who goes.
import { computed, ref } from 'vue'
import PriceSearch from '~/components/pricebook/PriceSearch.vue'
import type { Found } from '~/lib/book'
import type { Draft } from '~/stores/call'
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'
import UsualCharges from './UsualCharges.vue'
import { useReadOut, type ReadLine } from './useReadOut'
import { useUsualCharges } from './useUsualCharges'

const props = defineProps<{ customerId: string | null }>()
const draft = defineModel<Draft>({ required: true })
const lines = defineModel<ReadLine[]>('lines', { required: true })
const { rows, total } = useReadOut(lines, () => ({
  customerId: props.customerId,
  date: draft.value.date,
  start: draft.value.start,
}))
const { usual } = useUsualCharges(draft, lines)
/** what is to be left out, which wants its reason */
const leaving = ref<ReadLine | null>(null)
function takeOut(index: number) {
  const line = lines.value[index]!
  const again = lines.value.some((other, j) => j !== index && other.id === line.id)
  if (usual.value.includes(line.id) && !again) leaving.value = line
  else lines.value = lines.value.filter((_, j) => j !== index)
}
const skills = computed(() => [...new Set(lines.value.flatMap((l) => l.skills))])
const isWork = (e: ReadLine) => e.kind === 'task' || e.kind === 'assembly'
/** How long all of it takes: setting up is done once. */
const secondsOf = (all: readonly ReadLine[]) =>
  all.reduce(
    (n, l, i) => n + (isWork(l) && all.slice(0, i).some(isWork) ? l.furtherSeconds : l.seconds),
    0,
  )
/** What is sold says how long it takes, and what it is about, while nobody has said it. */
function addEntries(entries: Found[]) {
  const first = !lines.value.some(isWork)
  lines.value = [...lines.value, ...entries.map((e) => ({ ...e, quantity: '1' }))]
  const seconds = secondsOf(lines.value)
  if (first && seconds)
    draft.value.durationSeconds = Math.max(1800, Math.round(seconds / 900) * 900)
  if (!draft.value.problem) draft.value.problem = entries[0]!.name
}
</script>

<template>
  <PriceSearch
    data-tour="call.price"
    label="Price to read out"
    :choose="addEntries"
  />
  <DataTable
    v-if="lines.length"
    class="read"
    label="What it would cost"
    :rows="rows"
    :row-key="(_, i) => i"
    :columns="[
      { key: 'what' },
      { key: 'net', figures: true, tone: (l) => ({ quiet: l.saving }), text: (l) => l.net },
      { key: 'act', right: true },
    ]"
    :sums="total ? { what: 'Before tax, about', net: total } : undefined"
  >
    <template #what="{ row: l }"
      ><span :class="{ quiet: l.saving }">{{ l.name }}</span
      ><span
        v-if="l.from"
        class="quiet small from"
        >{{ l.from }}</span
      ></template
    >
    <template #act="{ row: l, index }"
      ><ActButton
        v-if="!l.saving"
        quiet
        :aria-label="`Take out ${l.name}`"
        @click="takeOut(index)"
      >
        ×
      </ActButton></template
    >
  </DataTable>
  <UsualCharges
    v-model="draft"
    v-model:lines="lines"
    v-model:leaving="leaving"
  />
  <p
    v-if="skills.length"
    class="small quiet"
  >
    Wants {{ skills.join(', ') }}
  </p>
</template>

<style scoped>
.read td {
  padding: 6px 4px;
  vertical-align: middle;
}
.read .btn {
  min-height: 22px;
  padding: 0 6px;
}
.from {
  display: block;
}
</style>
