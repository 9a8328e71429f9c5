<script setup lang="ts">
// Ctrl K: finds anything and runs any command, by keyboard.
import { computed, nextTick, ref, watch } from 'vue'
import type { Permission } from '~~/core/access/permissions'
import { call, Problem } from '~/lib/api'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import TextInput from '~/base/TextInput.vue'
import { INDEX, RUN } from '~/lib/officeIndex'
import { useLayer } from '~/lib/layers'
import { placesFor } from '~/settings/places'

const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ help: [] }>()
const words = ref('')
type Item = { kind: string; title: string; detail: string; to: string }
const found = ref<Item[]>([])
const at = ref(0)
/** why nothing could be looked for */
const failed = ref('')
const box = ref<{ focus: () => void }>()
useLayer(
  () => open.value,
  () => (open.value = false),
)
const session = useSession()
type Command = readonly [title: string, to: string, keys: string, may?: Permission]
const COMMANDS: readonly Command[] = [
  ['Take a call', '/calls/new', 'N', 'calls.take'],
  ...RUN.map(([to, name, may], i): Command => [name, to, `Alt ${i + 1}`, may]),
  ...INDEX.flatMap(({ links }) => links.map(([to, name, may]): Command => [name, to, '', may])),
  ['Duplicates', '/customers/duplicates', '', 'customers.merge'],
  ['Import customers', '/customers/import', '', 'customers.import'],
  ['Help: what this screen is for, its keys', '?', '?'],
  ['The whole guide', '/help', ''],
]
const mine = computed(() => COMMANDS.filter(([, , , may]) => !may || session.may(may)))
/** the customer that something is to begin for */
const within = ref('')
const isCustomer = ({ kind }: Item) => kind === 'customer' || kind === 'prospect'
/** What may begin for a customer who was found. */
const begun = ({ to, title }: Item): Item[] =>
  (
    [
      ['Book work', `/calls/new?customer=${to.split('/').at(-1)!}`, 'calls.take'],
      ['Begin a quote', `${to}?begin=quote`, 'customers.make'],
      ['Bill something', `${to}?begin=bill`, 'invoices.make'],
    ] as const
  ).flatMap(([act, at, may]) =>
    session.may(may) ? [{ kind: 'begin', title: act, detail: `for ${title}`, to: at }] : [],
  )
const items = computed(() => {
  const w = words.value.toLowerCase()
  const commands = mine.value
    .filter((c) => c[0].toLowerCase().includes(w))
    .map(([title, to, detail]) => ({ kind: 'go', title, detail, to }))
  const those = found.value.flatMap((item) =>
    item.to === within.value ? [item, ...begun(item)] : [item],
  )
  const places = placesFor(w)
    .filter(({ may, title }) => session.may(may) && !commands.some((c) => c.title === title))
    .map(({ title, to }) => ({ kind: 'set up', title, detail: '', to }))
  return w.length > 1 ? [...those, ...commands, ...places] : commands
})
let turn = 0
/** What is found belongs to other words than those that stand there. */
const asking = ref(false)
/** Enter was pressed before the answer was there. */
let takesFirst = false
watch(words, async (w) => {
  at.value = 0
  within.value = ''
  takesFirst = false
  const mine = ++turn
  asking.value = w.trim().length > 1
  if (!asking.value) return void (found.value = [])
  const got = await call('find', { query: { q: w.trim() } }).catch((error: Problem) => error)
  if (mine !== turn) return
  asking.value = false
  failed.value = got instanceof Problem ? got.message : ''
  found.value = got instanceof Problem ? [] : got.items
  if (takesFirst && found.value.length) choose(0)
})
let before: Element | null = null
watch(open, (is) => {
  if (is) {
    before = document.activeElement
    words.value = ''
    found.value = []
    void nextTick(() => box.value?.focus())
  } else {
    turn++
    ;(before as HTMLElement | null)?.focus?.()
  }
})
function enter() {
  if (asking.value) takesFirst = true
  else choose(at.value)
}
function choose(i: number) {
  const item = items.value[i]
  if (!item) return
  open.value = false
  if (item.to === '?') emit('help')
  else void navigateTo(item.to)
}
/** Shows what may begin for a customer, and goes to the first of it. */
function beginFor(i: number) {
  const item = items.value[i]
  if (!item || !isCustomer(item) || !begun(item).length) return false
  within.value = item.to
  at.value = items.value.indexOf(item) + 1
  return true
}
const isAtEnd = ({ target }: Event) => {
  const { selectionStart, value } = target as HTMLInputElement
  return selectionStart === value.length
}
function key(e: KeyboardEvent) {
  if (e.key === 'ArrowDown') at.value = Math.min(at.value + 1, items.value.length - 1)
  else if (e.key === 'ArrowUp') at.value = Math.max(0, at.value - 1)
  else if (e.key === 'Enter') enter()
  else if (e.key === 'ArrowRight' && isAtEnd(e) && beginFor(at.value)) e.preventDefault()
  else if (e.key === 'Escape' || (e.key === 'k' && (e.ctrlKey || e.metaKey))) open.value = false
  // There is one field: the keys stay in it.
  else if (e.key !== 'Tab') return
  e.preventDefault()
  e.stopPropagation()
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
        v-show="items.length"
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
          ><span class="quiet clip">{{ item.detail }}</span
          ><ActButton
            v-if="isCustomer(item) && within !== item.to && begun(item).length"
            quiet
            class="small"
            tabindex="-1"
            :aria-label="`Begin something for ${item.title}`"
            @mousedown.prevent.stop="beginFor(i)"
            >Begin <kbd>→</kbd></ActButton
          >
        </li>
      </ul>
      <p
        v-if="failed"
        class="wrong"
        role="alert"
      >
        Could not look: {{ failed }}
      </p>
      <p
        v-else-if="asking"
        class="quiet"
        role="status"
      >
        Looking…
      </p>
      <p
        v-else-if="!items.length"
        class="quiet"
        role="status"
      >
        Nothing is called that.
      </p>
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
  grid-template-columns: 70px minmax(0, 1fr) minmax(0, 1fr) auto;
  gap: 10px;
  padding: 6px 8px;
  border-radius: 4px;
  cursor: pointer;
}
li.at {
  background: var(--green-1);
}
p {
  padding: 6px 8px;
}
.kind {
  color: var(--ink-2);
  font-size: 0.75rem;
}
</style>
