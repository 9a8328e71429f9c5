<script setup lang="ts">
// The four columns of a work order, line by line: promised, done, billed, paid. A gap to the next column is tinted.
import { computed, ref } from 'vue'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import ActButton from '~/base/ActButton.vue'
import type { Column } from '~/base/columns'
import DataTable from '~/base/DataTable.vue'
import type { Answer, Given } from '~~/shared/api'
import { useSession } from '~/stores/session'
import { marginSaid } from '~/visits/words'
import TakenOut from '~/visits/TakenOut.vue'
import LineForm from './LineForm.vue'

type Work = Answer<'workOrder'>
type Line = Work['lines'][number]
type Visit = Work['visits'][number]
/** A line, there or taken out, as an act on it names it. */
type Named = Pick<Line, 'id' | 'version'>
type Row = { key: string; title: string; line: Line | null }
export type LineChange = Omit<Given<'changeLine'>, 'version'>

const props = defineProps<{
  work: Work
  edits: boolean
  busy: boolean
  refresh: () => Promise<unknown>
}>()
const emit = defineEmits<{ change: [line: Named, values: LineChange]; changed: [work: Work] }>()
const session = useSession()
const editing = ref('')
const zero = (money: { amount: string }) => Number(money.amount) === 0
const show = (money: Line['net']) => (zero(money) ? '–' : session.money(money, false))
const sum = (money: Line['net']) => session.money(money, false)
const COLUMNS = ['promised', 'done', 'billed', 'paid'] as const

const phaseOf = ({ phaseId }: { phaseId: string | null }) =>
  phaseId && props.work.phases.find(({ id }) => id === phaseId)?.name
/** A visit as the heading of its lines: who, when, how it stands, how long. */
function headingOf(visit: Visit, i: number): string {
  const along = visit.along.map((a) => `${a.name} along, ${hoursMinutes(a.seconds)} h`)
  const worked = visit.siteSeconds
    ? `${hoursMinutes(visit.siteSeconds)} h on site, ${hoursMinutes(visit.driveSeconds)} h driving`
    : ''
  const at = visit.startAt ? session.dayTime(visit.startAt) : 'no time yet'
  const who = visit.technician || 'nobody yet'
  return [
    `Visit ${i + 1}`,
    phaseOf(visit),
    who,
    at,
    visit.state.replace('_', ' '),
    worked,
    ...along,
  ]
    .filter(Boolean)
    .join(' · ')
}
const rowsOf = (key: string, title: string, lines: Line[]): Row[] => [
  { key, title, line: null },
  ...lines.map((line) => ({ key: line.id, title: line.name, line })),
]
const rows = computed<Row[]>(() => {
  const { visits, lines } = props.work
  const office = lines.filter((line) => !line.visitId)
  return [
    ...visits.flatMap((visit, i) =>
      rowsOf(
        visit.id,
        headingOf(visit, i),
        lines.filter((line) => line.visitId === visit.id),
      ),
    ),
    ...(office.length ? rowsOf('office', 'Added in the office', office) : []),
  ]
})
const columns: Column<Row>[] = [
  { key: 'what', label: 'Work and material' },
  {
    key: 'promised',
    label: 'Promised',
    figures: true,
    text: ({ line }) => line && show(line.promised),
  },
  {
    key: 'done',
    label: 'Done',
    figures: true,
    tone: ({ line }) => ({ gap: line && !zero(line.toBill) }),
    text: ({ line }) => line && show(line.doneAmount),
  },
  {
    key: 'billed',
    label: 'Billed',
    figures: true,
    tone: ({ line }) => ({ owed: line && !zero(line.unpaid) }),
    text: ({ line }) => line && show(line.billed),
  },
  { key: 'paid', label: 'Paid', figures: true, text: ({ line }) => line && show(line.paid) },
  { key: 'act', right: true, look: 'nowrap no-print' },
]
const sums = computed(() => ({
  what: 'Before tax',
  ...Object.fromEntries(COLUMNS.map((column) => [column, sum(props.work.totals[column])])),
}))
const gaps = computed(() => {
  const { beyondPromise, toBill, unpaid } = props.work.totals
  return [
    ['done − promised', beyondPromise, ''],
    ['done − billed', toBill, zero(toBill) ? '' : 'late'],
    ['billed − paid', unpaid, zero(unpaid) ? '' : 'soon'],
  ] as const
})
/** What stands beneath a line's name. */
const beneath = (line: Line) =>
  [
    line.kind === 'task' ? 'flat rate' : line.kind,
    `${line.quantity} × ${line.unitPrice}`,
    line.bookPrice && line.bookPrice !== line.unitPrice && `(book ${line.bookPrice})`,
    ...line.off.map(({ why, amount }) => `less ${sum(amount)} ${why}`),
    line.coversSeconds && `covers ${hoursMinutes(line.coversSeconds)} h`,
    line.unitCost && `cost ${line.unitCost}`,
    line.priceFrom,
    phaseOf(line),
    line.partNumber && `${line.supplier} ${line.partNumber}`,
  ]
    .filter(Boolean)
    .join(' · ')
</script>

<template>
  <div class="account">
    <DataTable
      label="The account"
      :rows="rows"
      :row-key="(row) => row.key"
      :tone="(row) => ({ group: !row.line })"
      :across="(row) => !row.line"
      :columns="columns"
      :sums="sums"
    >
      <template #what="{ row: { line, title } }">
        <LineForm
          v-if="line && editing === line.id"
          :line="line"
          :refresh="refresh"
          @changed="emit('changed', $event)"
          @leave="editing = ''"
        />
        <template v-else
          >{{ title
          }}<template v-if="line"
            ><br /><span class="quiet small">{{ beneath(line) }}</span
            ><span
              v-if="!zero(line.notAgreed)"
              class="chip soon"
              >not agreed yet</span
            ></template
          ></template
        >
      </template>
      <template #act="{ row: { line } }">
        <template v-if="line && edits && zero(line.billed)">
          <ActButton
            v-if="!line.done"
            quiet
            class="small"
            :disabled="busy"
            @click="emit('change', line, { done: true })"
          >
            Mark done
          </ActButton>
          <ActButton
            quiet
            class="small"
            @click="editing = line.id"
          >
            Change
          </ActButton>
          <ActButton
            quiet
            class="small"
            :disabled="busy"
            @click="emit('change', line, { removed: true })"
          >
            Take out
          </ActButton>
        </template>
      </template>
    </DataTable>
    <p
      v-if="!work.lines.length"
      class="empty"
    >
      Nothing is priced yet. Add a line from the price book.
    </p>
    <TakenOut
      v-if="edits"
      :lines="work.takenOut"
      :busy="busy"
      @back="emit('change', $event, { removed: false })"
    />
    <div class="row gaps small">
      <span class="quiet grow">{{
        work.price.margin === null
          ? ''
          : `${marginSaid(work.price, session.money)}: ${(work.price.margin * 100).toFixed(1)} %`
      }}</span>
      <span
        v-for="[name, money, tone] in gaps"
        :key="name"
        ><span class="quiet">{{ name }}</span
        >{{ ' '
        }}<b
          class="num"
          :class="tone"
          >{{ sum(money) }}</b
        ></span
      >
    </div>
  </div>
</template>

<style scoped>
.account {
  border: 1px solid var(--rule-2);
  background: var(--sheet);
}
.account :deep(td.num) {
  border-left: 1px solid var(--rule);
}
.account :deep(.group td) {
  background: #eff4f1;
  font-weight: 600;
  font-size: 0.78125rem;
}
.account :deep(td.gap) {
  background: var(--brick-1);
  color: var(--brick);
  font-weight: 700;
}
.account :deep(td.owed) {
  background: var(--marigold-1);
}
.gaps {
  gap: 20px;
  padding: 8px 10px;
}
.account .btn.plain {
  min-height: 24px;
  padding: 0 5px;
  font-weight: 500;
  color: var(--green);
}
</style>
