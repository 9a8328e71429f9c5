<script setup lang="ts">
// Searching the price book while typing, in the browser's own copy of it; without words what is at hand. Enter takes the one that is marked,
// Shift+Enter marks several to be taken together. `large` for the phone: pictures, and rows that a thumb hits.
import { computed, reactive, ref, watch } from 'vue'
import type { Found } from '~/lib/book'
import { useBook } from '~/lib/useBook'
import PriceFound from '~/pricebook/search/PriceFound.vue'
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'

type Kind = Found['kind']
const props = defineProps<{
  label: string
  autofocus?: boolean
  atHand?: boolean
  only?: Kind
  not?: Kind
  large?: boolean
  /** takes them; where that answers that it was refused, they stay chosen */
  choose: (entries: Found[]) => unknown
}>()
const { state, turn, find, pin } = useBook()
const words = ref('')
const kind = ref<'' | Kind>(props.only ?? '')
const category = ref('')
const items = ref<Found[]>([])
const several = ref<Found[]>([])
/** Pictures that could not be fetched, as without a signal: a letter stands there until the book comes again. */
const lost = reactive(new Set<string>())
watch(turn, () => lost.clear())
const at = ref(0)
/** the mark was moved by hand since something was taken */
const moved = ref(false)
/** the words that what is shown belongs to */
const answered = ref('')
let asked = 0
watch(
  [words, kind, category, turn],
  async ([w, k, c], [before]) => {
    const mine = ++asked
    if (w !== before) at.value = 0
    if (!w.trim() && !props.atHand) {
      items.value = []
      return void (answered.value = '')
    }
    const got = await find(w.trim(), { limit: 30, kind: k || undefined, category: c || undefined })
    if (mine !== asked) return
    items.value = props.not ? got.filter((e) => e.kind !== props.not) : got
    answered.value = w.trim()
  },
  { immediate: true },
)
const KINDS = [
  ['', 'All'],
  ['task', 'Tasks'],
  ['part', 'Parts'],
  ['assembly', 'Assemblies'],
  ['labour', 'Labour'],
  ['charge', 'Charges'],
] as const
const marked = (e: Found) => several.value.some((s) => s.id === e.id)
function mark(e: Found) {
  several.value = marked(e) ? several.value.filter((s) => s.id !== e.id) : [...several.value, e]
}
/** A second tap of the same finger hits what slid under it, and means what was there before. */
const SETTLE_MS = 700
let takenAt = 0
function tap(entry: Found) {
  if (Date.now() - takenAt < SETTLE_MS) return
  takenAt = Date.now()
  take([entry])
}
/** The field is free at once for the next; what was refused comes back to it, unless something else is typed already. */
async function take(entries: Found[]) {
  const before = { words: words.value, several: several.value }
  several.value = []
  words.value = ''
  moved.value = false
  const answer = props.choose(entries)
  const refused = answer instanceof Promise && !(await answer)
  if (!refused || words.value || several.value.length) return
  words.value = before.words
  several.value = before.several
}
/** Whether somebody asked for what stands under the mark: by words, or by going to it. Enter in an empty field means nothing. */
const isMeant = computed(() => answered.value !== '' || moved.value)
/** Enter takes what is marked, or what stands under the mark with it. */
function enter(e: KeyboardEvent): boolean {
  // What is shown belongs to other words than those that were typed.
  if (answered.value !== words.value.trim()) return true
  const one = isMeant.value ? items.value[at.value] : undefined
  if (e.shiftKey) {
    if (one) mark(one)
    return Boolean(one)
  }
  if (e.ctrlKey) return false
  if (several.value.length && !words.value.trim()) take(several.value)
  else if (one) take([...several.value.filter((s) => s.id !== one.id), one])
  else return false
  return true
}
function key(e: KeyboardEvent) {
  if (e.key.startsWith('Arrow')) moved.value = true
  if (e.key === 'ArrowDown') at.value = Math.min(items.value.length - 1, at.value + 1)
  else if (e.key === 'ArrowUp') at.value = Math.max(0, at.value - 1)
  else if (e.key !== 'Enter' || !enter(e)) return
  e.preventDefault()
}
const trees = computed(() => state.value?.categories ?? [])
</script>

<template>
  <div
    class="search"
    :class="{ large }"
    :data-found="answered"
  >
    <div @keydown="key">
      <Field :label="label"
        ><TextInput
          v-model="words"
          :autofocus="autofocus"
          placeholder="a few words of what is done…"
          autocomplete="off"
      /></Field>
      <div
        v-if="atHand"
        class="kinds"
        role="group"
        aria-label="Kind"
      >
        <ActButton
          v-for="[k, name] in KINDS"
          :key="k"
          :on="kind === k"
          :aria-pressed="kind === k"
          @click="kind = k"
        >
          {{ name }}
        </ActButton>
        <Choice
          v-model="category"
          aria-label="Category"
          :options="[
            { value: '', label: 'any category' },
            ...trees.map((c) => ({ value: c.path, label: c.path })),
          ]"
        />
      </div>
      <p
        v-if="several.length"
        class="row several"
        role="status"
      >
        <span class="grow"
          ><b>{{ several.length }}</b> chosen: {{ several.map((s) => s.name).join(', ') }}</span
        ><ActButton @click="several = []"> None</ActButton
        ><ActButton
          primary
          @click="take(several)"
        >
          Add {{ several.length }}
        </ActButton>
      </p>
      <ul
        v-if="items.length"
        :aria-label="words ? 'Found in the price book' : 'Charges at hand'"
      >
        <PriceFound
          v-for="(e, i) in items"
          :key="e.id"
          :entry="e"
          :marked="marked(e)"
          :large="large"
          :lost="lost.has(e.pictureId ?? '')"
          :class="{ at: i === at }"
          @take="tap(e)"
          @mark="mark(e)"
          @pin="pin(e.id, !e.mine)"
          @lost="lost.add(e.pictureId!)"
        />
      </ul>
      <p
        v-else-if="words && state"
        class="quiet small none"
      >
        Nothing in the price book reads like that.
      </p>
      <p
        v-else-if="atHand && state"
        class="quiet small none"
      >
        {{ kind || category ? 'The price book has nothing of this.' : 'Nothing is at hand yet.' }}
      </p>
      <p
        v-else-if="words || atHand"
        class="quiet small none"
        role="status"
      >
        Opening the price book…
      </p>
    </div>
  </div>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
  border: 1px solid var(--rule);
  background: var(--sheet);
  max-height: 300px;
  overflow: auto;
}
li.at,
li:hover {
  background: var(--green-1);
}
.several {
  margin: 6px 0;
  padding: 6px 8px;
  background: var(--green-1);
}
.kinds {
  display: flex;
  gap: 6px;
  margin: 8px 0;
  flex-wrap: wrap;
}
.none {
  margin-top: 6px;
}
.large ul {
  max-height: none;
  border-radius: 8px;
}
.large .kinds {
  flex-wrap: nowrap;
  overflow-x: auto;
  margin: 8px -16px;
  padding: 0 16px;
  scrollbar-width: none;
}
.large .kinds .btn {
  min-height: 48px;
  flex: none;
  padding: 0 14px;
}
.large .kinds .choice {
  flex: none;
  max-width: 200px;
  order: -1;
  width: 132px;
}
</style>
