<script setup lang="ts" generic="Row">
// Rows and columns: sorted at their heads, chosen by a press on the row, summed under a double rule.
import {
  computed,
  h,
  markRaw,
  normalizeClass,
  onBeforeUnmount,
  onMounted,
  onUpdated,
  useTemplateRef,
} from 'vue'
import type { TableInstance } from 'element-plus'
import type { Column } from './columns'

/** A row with its place, since the library wants an object with a key, whatever the row is. */
type Placed = { row: Row; index: number; key: string }
type Head = { columnKey?: string }

const props = defineProps<{
  rows: readonly Row[]
  columns: readonly Column<Row>[]
  rowKey: (row: Row, index: number) => string | number
  /** what the table is, for those who do not see it */
  label?: string
  /** classes that follow from the row, such as chosen */
  tone?: (row: Row, index: number) => unknown
  /** a row is pressed to open or choose it */
  picks?: boolean
  /** on a phone each row is a card; the column that looks like `what` reaches across it */
  cards?: boolean
  /** rows whose first cell reaches across: headings among the rows */
  across?: (row: Row) => boolean
  /** whose second line, the slot `under`, is open */
  opened?: (row: Row) => boolean
  /** what stands under a column, by its key */
  sums?: Readonly<Record<string, string>>
}>()
const emit = defineEmits<{ pick: [row: Row] }>()
defineSlots<Record<string, (cell: { row: Row; index: number }) => unknown>>()

const table = useTemplateRef<TableInstance>('table')
const looks = computed(() => new Map(props.columns.map((column) => [column.key, column])))
const placed = computed<Placed[]>(() =>
  // As they were given: the library would hand back copies that are no longer the same.
  props.rows.map((row, index) => markRaw({ row, index, key: String(props.rowKey(row, index)) })),
)
const opened = computed(() => placed.value.filter((p) => props.opened?.(p.row)).map((p) => p.key))
const ofRow = ({ row: { row, index } }: { row: Placed }) =>
  normalizeClass([{ pick: props.picks }, props.tone?.(row, index)])
const ofCell = ({ row: { row, index }, column }: { row: Placed; column: Head }) =>
  normalizeClass(looks.value.get(column.columnKey ?? '')?.tone?.(row, index))
const spanOf = ({ row, columnIndex }: { row: Placed; columnIndex: number }) => {
  if (!props.across?.(row.row)) return [1, 1]
  return columnIndex === 0 ? [1, props.columns.length] : [0, 0]
}
/** The library's type knows names of fields only, though it takes functions. */
const bySort = (column: Column<Row>) =>
  column.sort && ((placed: Placed) => column.sort!(placed.row) as unknown as string)
const total = () =>
  props.columns.map(({ key, figures }) => {
    const sum = props.sums?.[key]
    return sum && figures ? h('span', { class: 'double' }, sum) : (sum ?? '')
  })
/** What the library leaves out: the table's name, and rows without a link that the keyboard reaches. */
function complete() {
  const root = table.value?.$el as HTMLElement
  if (props.label) root.querySelector('table')?.setAttribute('aria-label', props.label)
  for (const row of root.querySelectorAll<HTMLElement>('tr.pick'))
    if (!row.querySelector('a, button')) row.tabIndex = 0
}
/** What runs off to the side is reached by keyboard, too: known anew whenever the table or what is in it changes its width. */
const widths = new ResizeObserver((sizes) => {
  const wrap = sizes[0]!.target.closest<HTMLElement>('.el-scrollbar__wrap')!
  wrap.tabIndex = wrap.scrollWidth > wrap.clientWidth ? 0 : -1
})
onMounted(() => {
  complete()
  const root = table.value!.$el as HTMLElement
  for (const part of root.querySelectorAll('.el-scrollbar__wrap, .el-scrollbar__view'))
    widths.observe(part)
})
onUpdated(complete)
onBeforeUnmount(() => widths.disconnect())
const enter = (event: Event) => {
  const row = event.target as HTMLElement
  if (row.matches('tr.pick')) row.click()
}
</script>

<template>
  <el-table
    ref="table"
    class="data"
    table-layout="auto"
    :class="{ cards }"
    row-key="key"
    :data="placed"
    empty-text="Nothing here yet."
    :show-header="columns.some((column) => column.label)"
    :row-class-name="ofRow"
    :cell-class-name="ofCell"
    :show-summary="!!sums"
    :summary-method="total"
    :expand-row-keys="opened"
    :span-method="spanOf"
    @keydown.enter="enter"
    @row-click="(placed: Placed) => emit('pick', placed.row)"
  >
    <el-table-column
      v-for="column in columns"
      :key="column.key"
      :column-key="column.key"
      :label="column.label"
      :align="column.right || column.figures ? 'right' : 'left'"
      :width="column.width"
      :class-name="normalizeClass([column.look, { num: column.figures }])"
      :sortable="!!column.sort"
      :sort-by="bySort(column)"
    >
      <template
        v-if="$slots[`${column.key}Head`]"
        #header
        ><slot
          :name="`${column.key}Head`"
          :row="rows[0] as Row"
          :index="-1"
      /></template>
      <!-- The library asks once without a row, to find columns within. -->
      <template #default="{ row: { row, index }, $index }">
        <span
          v-if="cards && column.figures"
          class="says"
          >{{ column.label }}</span><slot
          v-if="$index >= 0"
          :name="column.key"
          :row="row as Row"
          :index="index"
          >{{ column.text?.(row as Row, index) }}</slot
        >
      </template>
    </el-table-column>
    <el-table-column
      v-if="$slots.under"
      type="expand"
      width="1"
      class-name="expander"
    >
      <template #default="{ row: { row, index }, $index }">
        <slot
          v-if="$index >= 0"
          name="under"
          :row="row as Row"
          :index="index"
        />
      </template>
    </el-table-column>
  </el-table>
</template>
