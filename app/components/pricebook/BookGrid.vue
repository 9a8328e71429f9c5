<script setup lang="ts">
// The book as a grid: as many rows as there are, drawn only where one looks; costs and prices typed, pasted and filled down as in a
// spreadsheet. Nothing typed here is kept: that is an act of its own, looked at first.
import { computed, nextTick, ref, watch } from 'vue'
import { useVirtualizer } from '@tanstack/vue-virtual'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import { margin } from '~~/core/documents/margin'
import { priceText } from '~~/core/money/priceText'
import { readAmount } from '~~/core/money/readAmount'
import { roundToMinor } from '~~/core/money/roundToMinor'
import type { Found } from '~/lib/book'
import type { SortKey } from '~/workers/book.worker'
import { usePriceEdits, type Column } from '~/stores/priceEdits'
import { useSession } from '~/stores/session'

const props = defineProps<{
  rows: Found[]
  may: boolean
  /** by what the rows stand in order; nothing where the words that were searched say it */ sort:
    SortKey | ''
  descending: boolean
}>()
const emit = defineEmits<{
  sort: [by: SortKey]
  look: []
  /** what of a paste found no place, in words */ left: [why: string]
}>()
const session = useSession()
const edits = usePriceEdits()
const seesCost = computed(() => Boolean(session.me?.person.seesCost))
const columns = computed<Column[]>(() => (seesCost.value ? ['cost', 'price'] : ['price']))
const box = ref<HTMLElement>()
const ROW = 32
const AHEAD = 4
const virtual = useVirtualizer(
  computed(() => ({
    count: props.rows.length,
    getScrollElement: () => box.value ?? null,
    estimateSize: () => ROW,
    overscan: AHEAD,
  })),
)
/** As many rows as are drawn at most: those that fit, one that is cut at each end, and those ahead. */
const PLACES = computed(
  () => Math.ceil((virtual.value.scrollRect?.height ?? 1600) / ROW) + 2 + 2 * AHEAD,
)
const at = ref({ row: 0, column: 'price' as Column })
const anchor = ref<number | null>(null)
const editing = ref<string | null>(null)
const input = ref<HTMLInputElement[]>()
/** The entry whose amount is typed: rows may come and go above it meanwhile. */
let typedInto: Found | undefined
/** Rows moved under the mark: its field is drawn elsewhere, and has not been left. */
let isMoving = false
watch(
  () => props.rows,
  async (rows, before) => {
    const placeOf = (row: number | null) =>
      row === null ? -1 : rows.findIndex(({ id }) => id === before[row]?.id)
    const [marked, first] = [placeOf(at.value.row), placeOf(anchor.value)]
    const row = marked >= 0 ? marked : Math.min(at.value.row, Math.max(0, rows.length - 1))
    anchor.value = marked >= 0 && first >= 0 ? first : null
    isMoving = row !== at.value.row && editing.value !== null
    at.value = { ...at.value, row }
    if (!isMoving) return
    // What is typed into is no longer shown: it is kept for its entry all the same.
    if (marked < 0) commit(0)
    else virtual.value.scrollToIndex(row, { align: 'auto' })
    await nextTick()
    isMoving = false
    if (editing.value !== null) input.value?.[0]?.focus()
  },
)
const range = computed(
  () =>
    (anchor.value === null
      ? [at.value.row, at.value.row]
      : [Math.min(anchor.value, at.value.row), Math.max(anchor.value, at.value.row)]) as [
      number,
      number,
    ],
)
const current = computed(() => props.rows[at.value.row])
const plain = (amount: string | null) => (amount === null ? '' : priceText(amount))
const typed = (e: Found, c: Column) => edits.edits[e.id]?.[c]
const shown = (e: Found, c: Column) => {
  const t = typed(e, c)
  if (t === undefined) return plain(e[c])
  const amount = readAmount(t)
  return amount === null ? t : plain(amount)
}
/** What nobody writes: an assembly, and the cost of a task that has parts inside. */
const derived = (e: Found, c: Column) =>
  e.kind === 'assembly' || (c === 'cost' && e.kind === 'task' && e.parts !== '')
/** A new cost takes a price that follows the rule along: what it becomes is said when it is looked at. */
const follows = (e: Found) =>
  typed(e, 'cost') !== undefined && typed(e, 'price') === undefined && e.pricing === 'rule'
/** Somebody else changed what is being changed here. */
const theirs = (e: Found, c: Column) => {
  const edit = edits.edits[e.id]
  return edit?.[c] !== undefined && Number(edit.was[c]) !== Number(e[c])
}
interface Cell {
  text: string
  typed: boolean
  wrong: boolean
  theirs: boolean
  derived: boolean
  title: string
  label: string
}
function cellOf(e: Found, c: Column): Cell {
  const t = typed(e, c)
  const text = shown(e, c)
  const state = {
    typed: t !== undefined,
    wrong: t !== undefined && readAmount(t) === null,
    theirs: theirs(e, c),
  }
  const says = () => {
    if (state.wrong) return 'This is no amount; write it as 1234.50.'
    if (state.theirs) return `Somebody made this ${plain(e[c])} since you typed here.`
    return state.typed ? `was ${plain(e[c])}` : ''
  }
  const title = says()
  return {
    ...state,
    text,
    title,
    derived: derived(e, c),
    label: `${c} of ${e.name}: ${text}${state.typed ? `, ${title}` : ''}`,
  }
}
const marginOf = (e: Found) => {
  if (follows(e)) return ''
  const [price, cost] = [readAmount(shown(e, 'price')), readAmount(shown(e, 'cost'))]
  const { currency } = session.me!.company
  // Its hours cost us as well, whatever is bought for it.
  const m =
    price === null || cost === null
      ? null
      : margin(
          roundToMinor(price, currency),
          roundToMinor(cost, currency) + roundToMinor(e.labourCost ?? '0', currency),
        )
  if (m === null) return ''
  return m < -0.995 ? 'loss' : `${(m * 100).toFixed(0)} %`
}
function go(row: number, extend = false, column = at.value.column) {
  if (extend) anchor.value ??= at.value.row
  else anchor.value = null
  at.value = { row: Math.max(0, Math.min(props.rows.length - 1, row)), column }
  virtual.value.scrollToIndex(at.value.row, { align: 'auto' })
}
async function begin(text: string | null) {
  if (!props.may || !current.value || derived(current.value, at.value.column)) return
  typedInto = current.value
  editing.value = text ?? shown(current.value, at.value.column)
  await nextTick()
  const field = input.value?.[0]
  field?.focus()
  if (text === null) field?.select()
}
function commit(step: number) {
  if (editing.value === null || !typedInto) return
  const text = editing.value.trim()
  editing.value = null
  edits.write([{ row: typedInto, column: at.value.column, text }])
  if (step) go(at.value.row + step)
  box.value?.focus()
}
function cancel() {
  editing.value = null
  box.value?.focus()
}
const chosen = () =>
  props.rows.slice(range.value[0], range.value[1] + 1).filter((r) => !derived(r, at.value.column))
/** While an amount is typed. */
function typingKey(e: KeyboardEvent): boolean {
  if (e.key === 'Enter') commit(e.shiftKey ? -1 : 1)
  else if (e.key === 'Escape') cancel()
  else if (e.key === 'Tab') {
    const next = (columns.value.indexOf(at.value.column) + 1) % columns.value.length
    commit(0)
    at.value = { ...at.value, column: columns.value[next]! }
  } else return false
  return true
}
/** Moves the mark; with Shift several rows are chosen. */
function movingKey(e: KeyboardEvent): boolean {
  const page = Math.max(1, Math.floor((box.value?.clientHeight ?? 320) / ROW) - 2)
  const steps: Record<string, number> = {
    ArrowDown: 1,
    ArrowUp: -1,
    PageDown: page,
    PageUp: -page,
    Home: -1e9,
    End: 1e9,
  }
  if (e.key in steps) go(at.value.row + steps[e.key]!, e.shiftKey)
  else if (e.key === 'ArrowLeft' || e.key === 'ArrowRight')
    at.value = { ...at.value, column: columns.value.at(e.key === 'ArrowLeft' ? 0 : -1)! }
  else return false
  return true
}
function controlKey(e: KeyboardEvent): boolean {
  const key = e.key.toLowerCase()
  if (key === 'd') fill()
  else if (key === 'z' && !e.shiftKey) edits.undo()
  else if (key === 'y' || key === 'z') edits.redo()
  else return false
  return true
}
/** Begins to type, or does something with what is chosen. */
function actingKey(e: KeyboardEvent): boolean {
  if (e.key === 'F2' || (e.key === 'Enter' && !e.ctrlKey)) void begin(null)
  else if (e.key === 'Enter') emit('look')
  else if (!props.may) return false
  else if (e.ctrlKey) return controlKey(e)
  else if (e.key === 'Delete' || e.key === 'Backspace')
    edits.write(chosen().map((row) => ({ row, column: at.value.column, text: '' })))
  // A sign is typed as it is, and said to be none of an amount.
  else if (/^[-\d.]$/.test(e.key) && !e.metaKey) void begin(e.key)
  else return false
  return true
}
function key(e: KeyboardEvent) {
  const took = editing.value === null ? movingKey(e) || actingKey(e) : typingKey(e)
  // Whoever types a letter here means the book, and no shortcut of the window.
  const letter = /^[a-z]$/i.test(e.key) && !e.ctrlKey && !e.metaKey && !e.altKey
  if (took || letter) e.preventDefault()
}
/** The first of the chosen cells into all of them. */
function fill() {
  const rows = chosen()
  if (rows.length > 1)
    edits.write(
      rows
        .slice(1)
        .map((row) => ({ row, column: at.value.column, text: shown(rows[0]!, at.value.column) })),
    )
}
function copy(e: ClipboardEvent) {
  if (editing.value !== null) return
  e.clipboardData?.setData(
    'text/plain',
    props.rows
      .slice(range.value[0], range.value[1] + 1)
      .map((r) => shown(r, at.value.column))
      .join('\n'),
  )
  e.preventDefault()
}
/** Cells of a spreadsheet, from here down; two columns go into cost and price. What finds no place is said. */
function paste(e: ClipboardEvent) {
  if (editing.value !== null || !props.may) return
  const clip = (e.clipboardData?.getData('text/plain') ?? '')
    .replace(/\r/g, '')
    .replace(/\n$/, '')
    .split('\n')
    .map((l) => l.split('\t'))
  const from = columns.value.indexOf(at.value.column)
  // One value goes into all that is chosen.
  const lines =
    clip.length === 1 && clip[0]!.length === 1 && range.value[1] > range.value[0]
      ? Array.from({ length: range.value[1] - range.value[0] + 1 }, () => clip[0]!)
      : clip
  const cells = lines.flatMap((line, i) =>
    line.map((text, j) => ({
      row: props.rows[range.value[0] + i],
      column: columns.value[from + j],
      text: text.trim(),
    })),
  )
  const fits = cells.flatMap(({ row, column, text }) =>
    row && column && !derived(row, column) ? [{ row, column, text }] : [],
  )
  if (fits.length) edits.write(fits)
  const count = (n: number, why: string) => (n ? [`${n} ${why}`] : [])
  emit(
    'left',
    [
      ...count(cells.filter((c) => !c.row).length, 'below the last row'),
      ...count(cells.filter((c) => c.row && !c.column).length, 'beside the last column'),
      ...count(
        cells.filter((c) => c.column && c.row && derived(c.row, c.column)).length,
        'where it costs what is inside',
      ),
    ].join(', '),
  )
  e.preventDefault()
}
function press(row: number, column: Column, e: PointerEvent) {
  const again = at.value.row === row && at.value.column === column && !e.shiftKey
  if (editing.value !== null && !again) commit(0)
  if (again && editing.value === null && document.activeElement === box.value)
    return void begin(null)
  if (editing.value !== null) return
  go(row, e.shiftKey, column)
  box.value?.focus()
  e.preventDefault()
}
/** All that is said in a row. Where nothing is typed it stays the same, however often the row comes by. */
interface Said {
  cost: Cell
  price: Cell
  margin: string
  hours: string
  sold: string
}
const said = new WeakMap<Found, Said>()
function saidOf(e: Found): Said {
  const plainly = edits.edits[e.id] === undefined
  const known = plainly ? said.get(e) : undefined
  if (known) return known
  const made = {
    cost: cellOf(e, 'cost'),
    price: cellOf(e, 'price'),
    margin: seesCost.value ? marginOf(e) : '',
    hours: e.kind === 'task' && e.seconds ? hoursMinutes(e.seconds) : '',
    sold: e.lastSold ? session.day(e.lastSold) : '',
  }
  if (plainly) said.set(e, made)
  return made
}
/** Rows are drawn into as many places as fit: one that leaves makes room for one that comes, and nothing is built anew. */
const lines = computed(() =>
  virtual.value
    .getVirtualItems()
    .map((v) => ({ v, e: props.rows[v.index]!, place: v.index % PLACES.value })),
)
/** Whether the row under the mark is among those that are drawn. */
const isDrawn = computed(() => lines.value.some(({ v }) => v.index === at.value.row))
const HEADS = computed(
  () =>
    [
      ['code', 'Code', ''],
      ['name', 'Name', ''],
      ['category', 'Category', ''],
      ['', 'Unit', ''],
      ['', 'Hours', 'right'],
      ...(seesCost.value ? [['cost', 'Cost', 'right']] : []),
      ['price', 'Price', 'right'],
      ...(seesCost.value
        ? [
            [
              '',
              'Margin',
              'right',
              'What is left of the price after what is bought for it and its hours at their cost',
            ],
          ]
        : []),
      ['used', 'Sold', 'right'],
      ['lastSold', 'Last sold', 'right'],
    ] as [by: SortKey | '', name: string, side: string, means?: string][],
)
/** What a row is drawn from: while one scrolls, rows that stay are not drawn anew. */
function drawnFrom(v: { index: number; start: number }): unknown[] {
  const e = props.rows[v.index]!
  const here = v.index === at.value.row
  return [
    e,
    v.start,
    edits.edits[e.id],
    here && at.value.column,
    here && editing.value,
    inRange(v.index, at.value.column) && range.value[0] !== range.value[1],
    seesCost.value,
  ]
}
const inRange = (i: number, c: Column) =>
  c === at.value.column && i >= range.value[0] && i <= range.value[1]
function show(id: string, column: Column) {
  const row = props.rows.findIndex((r) => r.id === id)
  if (row < 0) return false
  go(row, false, column)
  box.value?.focus()
  return true
}
/** A link of the row, without a component for each of thousands; with a key held it is the browser's. */
function open(e: MouseEvent, id: string) {
  if (e.button !== 0 || e.ctrlKey || e.metaKey || e.shiftKey || e.altKey) return
  e.preventDefault()
  void navigateTo(`/price-book/${id}`)
}
defineExpose({ focus: () => box.value?.focus(), show })
</script>

<template>
  <div
    ref="box"
    class="grid"
    :class="{ costs: seesCost }"
    role="grid"
    tabindex="0"
    aria-label="Price book"
    :aria-rowcount="rows.length + 1"
    :aria-activedescendant="isDrawn ? `c-${current!.id}-${at.column}` : undefined"
    @keydown="key"
    @copy="copy"
    @paste="paste"
  >
    <div
      class="line head"
      role="row"
    >
      <span
        v-for="[by, name, side, means] in HEADS"
        :key="name"
        role="columnheader"
        :class="side"
        :title="means"
        :aria-sort="by && by === sort ? (descending ? 'descending' : 'ascending') : undefined"
        ><button
          v-if="by"
          type="button"
          tabindex="-1"
          @click="emit('sort', by)"
        >
          {{ name }}{{ by === sort ? (descending ? ' ↓' : ' ↑') : '' }}</button
        ><template v-else>{{ name }}</template></span
      >
    </div>
    <div
      class="all"
      role="rowgroup"
      :style="{ height: `${virtual.getTotalSize()}px` }"
    >
      <div
        v-for="{ v, e, place } in lines"
        :key="place"
        v-memo="drawnFrom(v)"
        class="line"
        :class="{ here: v.index === at.row }"
        role="row"
        :aria-rowindex="v.index + 2"
        :style="{ transform: `translateY(${v.start}px)` }"
      >
        <span
          role="gridcell"
          class="num"
          ><a
            :href="`/price-book/${e.id}`"
            tabindex="-1"
            @click="open($event, e.id)"
            >{{ e.code }}</a
          ></span
        >
        <span
          role="gridcell"
          class="clip"
          :title="e.parts && `with ${e.parts}`"
          >{{ e.name }}
          <i
            v-if="e.pinned"
            class="chip good"
            >at hand</i
          ></span
        >
        <span
          role="gridcell"
          class="clip quiet"
          >{{ e.category }}</span
        >
        <span
          role="gridcell"
          class="quiet clip"
          >{{ e.unit }}</span
        >
        <span
          role="gridcell"
          class="right num quiet"
          >{{ saidOf(e).hours }}</span
        >
        <span
          v-for="c in columns"
          :id="`c-${e.id}-${c}`"
          :key="c"
          role="gridcell"
          class="right num cell"
          :class="{
            typed: saidOf(e)[c].typed,
            wrong: saidOf(e)[c].wrong,
            theirs: saidOf(e)[c].theirs,
            derived: saidOf(e)[c].derived,
            at: v.index === at.row && c === at.column,
            in: inRange(v.index, c) && range[0] !== range[1],
          }"
          :title="saidOf(e)[c].title"
          :aria-label="saidOf(e)[c].label"
          :style="c === 'price' ? { order: 1 } : undefined"
          @pointerdown="press(v.index, c, $event)"
        >
          <input
            v-if="editing !== null && v.index === at.row && c === at.column"
            ref="input"
            v-model="editing"
            class="num"
            inputmode="decimal"
            :aria-label="`${c} of ${e.name}`"
            @blur="isMoving || commit(0)"
          />
          <i
            v-else-if="c === 'price' && follows(e)"
            class="quiet small"
            >by the rule</i
          >
          <template v-else>{{ saidOf(e)[c].text }}</template>
        </span>
        <span
          v-if="seesCost"
          role="gridcell"
          class="right num"
          :class="/^(-|loss)/.test(saidOf(e).margin) ? 'late' : 'quiet'"
          style="order: 2"
          >{{ saidOf(e).margin }}</span
        >
        <span
          role="gridcell"
          class="right num quiet"
          style="order: 3"
          >{{ e.used || '' }}</span
        >
        <span
          role="gridcell"
          class="right quiet small"
          style="order: 4"
          >{{ saidOf(e).sold }}</span
        >
      </div>
    </div>
  </div>
</template>

<style scoped>
.grid {
  position: relative;
  flex: 1;
  min-height: 320px;
  overflow: auto;
  background: var(--sheet);
  border: 1px solid var(--rule-2);
  outline-offset: -2px;
  contain: strict;
}
.all .line {
  contain: strict;
}
.all {
  position: relative;
}
.line {
  display: grid;
  grid-template-columns: 84px minmax(200px, 1fr) 170px 62px 58px 92px 62px 92px;
  align-items: center;
  height: 32px;
  width: 100%;
}
.costs .line {
  grid-template-columns: 84px minmax(200px, 1fr) 160px 58px 58px 92px 92px 66px 58px 92px;
}
.all .line {
  position: absolute;
  top: 0;
  left: 0;
  border-bottom: 1px solid var(--rule);
}
.line > span {
  padding: 0 8px;
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}
.head {
  position: sticky;
  top: 0;
  z-index: 2;
  background: var(--sheet);
  border-bottom: 1px solid var(--ink-2);
  font-size: 0.75rem;
  font-weight: 600;
  color: var(--ink-2);
}
.head button {
  border: 0;
  background: none;
  padding: 0;
  font: inherit;
  color: inherit;
  cursor: pointer;
}
.here {
  background: #f7faf8;
}
i {
  font-style: normal;
}
.cell {
  height: 31px;
  line-height: 31px;
  cursor: cell;
  align-self: start;
}
.cell.derived {
  color: var(--ink-2);
  cursor: default;
}
.cell.in {
  background: var(--green-1);
  box-shadow:
    inset 2px 0 0 var(--green-2),
    inset -2px 0 0 var(--green-2);
}
.cell.at {
  box-shadow: inset 0 0 0 2px var(--green);
}
.cell.typed {
  background: var(--marigold-1);
  font-weight: 650;
}
.cell.wrong {
  background: var(--brick-1);
  color: var(--brick);
}
.cell.theirs {
  box-shadow: inset 3px 0 0 var(--marigold-line);
}
.cell input {
  width: 100%;
  border: 0;
  outline: 0;
  background: transparent;
  text-align: right;
  font: inherit;
  padding: 0;
}
</style>
