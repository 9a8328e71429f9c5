<script setup lang="ts">
// Searching the price book while typing; without words the charges at hand. Enter takes the first.
import { ref, watch } from 'vue'
import type { Answer } from '~~/shared/api'
import { call } from '~/lib/api'
import { useSession } from '~/stores/session'

const props = defineProps<{ label: string, autofocus?: boolean, atHand?: boolean, only?: 'task' | 'part' | 'labour' | 'charge' }>()
const emit = defineEmits<{ choose: [entry: Answer<'searchPriceBook'>['items'][number]] }>()
const session = useSession()
const words = ref('')
const kind = ref<'' | 'task' | 'part' | 'labour' | 'charge'>(props.only ?? '')
const items = ref<Answer<'searchPriceBook'>['items']>([])
const at = ref(0)
let turn = 0
watch([words, kind], async ([w, k]) => {
  const mine = ++turn
  at.value = 0
  if (!w.trim() && !props.atHand) return void (items.value = [])
  const got = await call('searchPriceBook', { query: { q: w.trim(), kind: k || undefined } }).catch(() => ({ items: [] }))
  if (mine === turn) items.value = got.items
}, { immediate: true })
function take(entry: typeof items.value[number]) {
  emit('choose', entry)
  words.value = ''
}
function key(e: KeyboardEvent) {
  if (e.key === 'ArrowDown') at.value = Math.min(items.value.length - 1, at.value + 1)
  else if (e.key === 'ArrowUp') at.value = Math.max(0, at.value - 1)
  else if (e.key === 'Enter' && !e.ctrlKey && items.value[at.value]) take(items.value[at.value]!)
  else return
  e.preventDefault()
}
</script>

<template>
  <div class="search" @keydown="key">
    <label class="field"><span>{{ label }}</span><input v-model="words" class="plain" :autofocus="autofocus" placeholder="tank 44, relief valve, diagnostic…" autocomplete="off"></label>
    <div v-if="atHand" class="kinds" role="group" aria-label="Kind">
      <button v-for="[k, name] in [['', 'All'], ['task', 'Tasks'], ['part', 'Parts'], ['labour', 'Labour'], ['charge', 'Charges']] as const" :key="k" type="button" class="btn" :class="{ on: kind === k }" :aria-pressed="kind === k" @click="kind = k">{{ name }}</button>
    </div>
    <ul v-if="items.length" :aria-label="words ? 'Found in the price book' : 'Charges at hand'">
      <li v-for="(e, i) in items" :key="e.id">
        <button type="button" :class="{ at: i === at }" @click="take(e)">
          <span class="grow"><b>{{ e.name }}</b> <span class="quiet small">{{ e.code }} · {{ e.kind === 'task' ? 'flat rate' : e.kind }}{{ e.unit === 'each' ? '' : ` by ${e.unit}` }}</span></span>
          <span class="num">{{ session.money({ amount: e.price, currency: e.agreementSaving.currency }, false) }}</span>
        </button>
      </li>
    </ul>
    <p v-else-if="words" class="quiet small none">Nothing in the price book reads like that.</p>
  </div>
</template>

<style scoped>
ul { list-style: none; margin: 4px 0 0; padding: 0; border: 1px solid var(--rule); background: var(--sheet); max-height: 300px; overflow: auto; } li + li { border-top: 1px solid var(--rule); }
li button { display: flex; gap: 10px; width: 100%; text-align: left; padding: 7px 9px; border: 0; background: none; cursor: pointer; align-items: baseline; } li button.at, li button:hover { background: var(--green-1); }
.kinds { display: flex; gap: 6px; margin: 8px 0; flex-wrap: wrap; } .none { margin-top: 6px; }
</style>
