<script setup lang="ts" generic="Row">
// What can be done with a whole table: kept as a file, printed.
import { nextTick, ref } from 'vue'
import { useSession } from '~/stores/session'
import ActButton from './ActButton.vue'
import type { Column } from './columns'
import { saveFile, tableCsv } from './tableFile'

const props = defineProps<{
  /** what the file is called, before its day */
  name: string
  columns: readonly Column<Row>[]
  /** all of its rows; null where they could not be had, which the table says itself */
  rows: () => readonly Row[] | Promise<readonly Row[] | null>
  /** draws all of them, so that they can be printed; false where they are too many, which the table says itself */
  draw?: (rows: readonly Row[]) => boolean
}>()
const session = useSession()
const busy = ref(false)
async function withRows(then: (rows: readonly Row[]) => void) {
  if (busy.value) return
  busy.value = true
  try {
    const rows = await props.rows()
    if (rows) then(rows)
  } finally {
    busy.value = false
  }
}
const keep = () =>
  withRows((rows) => saveFile(`${props.name} ${session.today}`, tableCsv(props.columns, rows)))
const print = () =>
  withRows((rows) => {
    if (props.draw?.(rows) !== false) void nextTick(() => window.print())
  })
</script>

<template>
  <span class="row no-print">
    <ActButton
      quiet
      :disabled="busy"
      @click="keep"
    >
      Keep as CSV
    </ActButton>
    <ActButton
      quiet
      :disabled="busy"
      @click="print"
    >
      Print
    </ActButton>
  </span>
</template>
