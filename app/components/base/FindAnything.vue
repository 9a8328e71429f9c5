<script setup lang="ts">
// Ctrl K: finds anything and runs any command, by keyboard.
import { computed, nextTick, ref, watch } from 'vue'
import { call, Problem } from '~/lib/api'
import TextInput from '~/base/TextInput.vue'

const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ help: [] }>()
const words = ref('')
const found = ref<{ kind: string; title: string; detail: string; to: string }[]>([])
const at = ref(0)
/** why nothing could be looked for */
const failed = ref('')
const box = ref<{ focus: () => void }>()
const COMMANDS = [
  ['Take a call', '/calls/new', 'N'],
  ['Calls', '/calls', 'Alt 1'],
  ['Schedule', '/schedule', 'Alt 2'],
  ['On site', '/on-site', 'Alt 3'],
  ['To bill', '/to-bill', 'Alt 4'],
  ['Unpaid', '/unpaid', 'Alt 5'],
  ['Customers', '/customers', ''],
  ['Duplicates', '/customers/duplicates', ''],
  ['Import customers', '/customers/import', ''],
  ['Sites', '/sites', ''],
  ['Care agreements', '/agreements', ''],
  ['Set-up of calls', '/set-up', ''],
  ['Price book', '/price-book', ''],
  ['Invoices', '/invoices', ''],
  ['Mail', '/messages', ''],
  ['Shortcuts of this screen', '?', '?'],
] as const
const items = computed(() => {
  const w = words.value.toLowerCase()
  const commands = COMMANDS.filter((c) => c[0].toLowerCase().includes(w)).map(
    ([title, to, detail]) => ({ kind: 'go', title, detail, to: to as string }),
  )
  return w.length > 1 ? [...found.value, ...commands] : commands
})
let turn = 0
watch(words, async (w) => {
  at.value = 0
  const mine = ++turn
  if (w.trim().length < 2) return
  const got = await call('find', { query: { q: w.trim() } }).catch((error: Problem) => error)
  if (mine !== turn) return
  failed.value = got instanceof Problem ? got.message : ''
  found.value = got instanceof Problem ? [] : got.items
})
watch(open, (is) => {
  if (is) {
    words.value = ''
    found.value = []
    void nextTick(() => box.value?.focus())
  }
})
function choose(i: number) {
  const item = items.value[i]
  if (!item) return
  open.value = false
  if (item.to === '?') emit('help')
  else void navigateTo(item.to)
}
function key(e: KeyboardEvent) {
  if (e.key === 'ArrowDown') at.value = Math.min(at.value + 1, items.value.length - 1)
  else if (e.key === 'ArrowUp') at.value = Math.max(0, at.value - 1)
  else if (e.key === 'Enter') choose(at.value)
  else if (e.key === 'Escape') open.value = false
  else return
  e.preventDefault()
}
</script>

<template>
  <div
    v-if="open"
    class="veil"
    @click.self="open = false"
  >
    <div
      class="find"
      role="dialog"
      aria-label="Find anything"
      @keydown="key"
    >
      <TextInput
        ref="box"
        v-model="words"
        placeholder="A name, a telephone number, an address, W-1042, I-2207, or a command"
        aria-label="What to find"
        role="combobox"
        aria-expanded="true"
        aria-controls="found"
      />
      <ul
        id="found"
        role="listbox"
        aria-label="Found"
      >
        <li
          v-for="(item, i) in items"
          :key="item.to + item.title"
          role="option"
          :aria-selected="i === at"
          :class="{ at: i === at }"
          @mousedown.prevent="choose(i)"
        >
          <span class="kind">{{ item.kind }}</span><b class="clip">{{ item.title }}</b
          ><span class="quiet clip">{{ item.detail }}</span>
        </li>
        <li
          v-if="failed"
          class="wrong"
          role="alert"
        >
          Could not look: {{ failed }}
        </li>
        <li
          v-else-if="!items.length"
          class="quiet"
        >
          Nothing is called that.
        </li>
      </ul>
    </div>
  </div>
</template>

<style scoped>
.veil {
  position: fixed;
  inset: 0;
  background: rgb(22 36 31 / 25%);
  z-index: 3000;
  display: flex;
  justify-content: center;
  align-items: flex-start;
  padding-top: 90px;
}
.find {
  width: 620px;
  background: var(--sheet);
  border: 1px solid var(--rule-2);
  border-radius: 5px;
  padding: 10px;
}
ul {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
  max-height: 420px;
  overflow: auto;
}
li {
  display: grid;
  grid-template-columns: 70px minmax(0, 1fr) minmax(0, 1fr);
  gap: 10px;
  padding: 6px 8px;
  border-radius: 4px;
  cursor: pointer;
}
li.at {
  background: var(--green-1);
}
.kind {
  color: var(--ink-2);
  font-size: 12px;
}
</style>
