<script setup lang="ts">
// What happened to a thing, the last first, each with what it was and became; what was before those that are shown is fetched.
import { computed, shallowReactive, shallowRef, watch } from 'vue'
import { HISTORY_PAGE } from '~~/shared/schema'
import type { Answer } from '~~/shared/api'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useSession } from '~/stores/session'
import ActButton from './ActButton.vue'
import Notice from './Notice.vue'

type Entry = Answer<'workOrder'>['history'][number]
const props = defineProps<{
  entries: readonly Entry[]
  /** the list of what was before, and whose it is */
  of: `${'workOrder' | 'customer' | 'quote' | 'invoice'}Earlier`
  id: string
}>()
const session = useSession()
const { busy, problem, act } = useAct()
/** What was fetched, and what newer entries pushed out of the first page. */
const held = shallowReactive(new Map<number, Entry>())
const hold = (entries: readonly Entry[]) => entries.forEach((entry) => held.set(entry.id, entry))
const isAtStart = shallowRef(props.entries.length < HISTORY_PAGE)
watch([() => props.id, () => props.entries] as const, ([id, entries], [wasId, was]) => {
  if (id === wasId) return hold(was)
  held.clear()
  isAtStart.value = entries.length < HISTORY_PAGE
})
const shown = computed(() => {
  const all = new Map([...held, ...props.entries.map((entry) => [entry.id, entry] as const)])
  return [...all.values()].sort((a, b) => b.id - a.id)
})
const fetchEarlier = () =>
  act(async () => {
    const { id, of } = props
    const { items } = await call(of, { params: { id }, query: { before: shown.value.at(-1)!.id } })
    // The page may be another one's by now.
    if (props.id !== id) return
    hold(items)
    isAtStart.value = items.length < HISTORY_PAGE
  })
</script>

<template>
  <ol
    class="history"
    aria-label="History"
  >
    <li
      v-for="entry in shown"
      :key="entry.id"
    >
      {{ entry.text }}
      <span
        v-for="(change, i) in entry.changes"
        :key="i"
        class="small change"
        ><span class="quiet">{{ change.what }}</span> <s v-if="change.from">{{ change.from }}</s> →
        <b>{{ change.to || 'nothing' }}</b></span
      ><span class="quiet small when">{{ session.dayTime(entry.at) }} · {{ entry.who }}</span>
    </li>
  </ol>
  <Notice :of="problem" />
  <ActButton
    v-if="!isAtStart"
    quiet
    class="small"
    :disabled="busy"
    @click="fetchEarlier"
  >
    Show what was before
  </ActButton>
</template>

<style scoped>
.history {
  list-style: none;
  margin: 12px 0 0;
  padding: 0 0 0 16px;
  border-left: 2px solid var(--green-2);
}
li {
  position: relative;
  margin-bottom: 12px;
  overflow-wrap: anywhere;
}
.change,
.when {
  display: block;
}
li::before {
  content: '';
  position: absolute;
  left: -22px;
  top: 5px;
  width: 8px;
  height: 8px;
  border: 2px solid var(--green);
  border-radius: 50%;
  background: var(--sheet);
}
</style>
