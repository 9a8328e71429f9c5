<script setup lang="ts">
// Care agreements: the visits due by territory and month, booked in one act; what ends soon, renewed.
import { reactive, ref } from 'vue'
import { ElMessage } from 'element-plus'
import LedgerList from '~/components/base/LedgerList.vue'
import type { Column } from '~/base/columns'
import { sayMonth } from '~~/core/time/sayDay'
import { plusMonths } from '~~/core/time/zone'
import type { Answer } from '~~/shared/api'
import { call, newId } from '~/lib/api'
import { useFilter } from '~/lib/useFilter'
import { useAct } from '~/lib/useAct'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import PressOne from '~/base/PressOne.vue'
import Check from '~/base/Check.vue'
import Choice from '~/base/Choice.vue'

definePageMeta({ layout: 'office' })
type Row = Answer<'agreements'>['items'][number]
const session = useSession()
const { data: setUp } = useAnswer('setUp', undefined, SHOWS.setUp)
const { busy, problem, act } = useAct()
const month = useFilter('month', session.today.slice(0, 7))
const territory = useFilter('territory')
const show = useFilter<'due' | 'ending' | 'all'>('show', 'due')
const shown = ref<Row[]>([])
const picked = reactive(new Set<string>())
const turn = ref(0)
const left = ref<string[]>([])
const load = (q: string, after?: string) =>
  call('agreements', {
    query: {
      q,
      after,
      limit: 100,
      territory: territory.value || undefined,
      due: show.value === 'due' ? month.value : undefined,
      ending: show.value === 'ending' ? true : undefined,
    },
  })
const office = computed(() => session.may('agreements.bill'))
const renews = computed(() => session.may('agreements.change'))
const bookable = (r: Row) => Boolean(r.visitDueOn) && !r.booked && Boolean(r.site)
const all = () => {
  const every = shown.value.filter(bookable)
  const add = every.some((r) => !picked.has(r.id))
  for (const r of every)
    if (add) picked.add(r.id)
    else picked.delete(r.id)
}
/** Of what is picked, what stands on the screen: nobody makes what they do not see. */
const chosen = computed(() => shown.value.filter((r) => picked.has(r.id) && bookable(r)))
const book = () =>
  act(async () => {
    const ids = chosen.value.map((r) => r.id)
    const { made, skipped } = await call('bookDueVisits', {
      body: {
        items: ids.map((agreementId) => ({ agreementId, workOrderId: newId(), visitId: newId() })),
      },
    })
    left.value = skipped.map((s) => s.why)
    ids.forEach((id) => picked.delete(id))
    turn.value++
    ElMessage({
      type: 'success',
      message: `${made.length} ${made.length === 1 ? 'visit waits' : 'visits wait'} for a slot on the schedule`,
      duration: 6000,
    })
  })
const renew = (r: Row) =>
  act(async () => {
    await call('renewAgreement', { params: { id: r.id }, body: { version: r.version } })
    turn.value++
    ElMessage({ type: 'success', message: `${r.customer}: renewed for a year`, duration: 6000 })
  })
/** The year is looked at, and sent on purpose, like any bill. */
const bill = (r: Row) =>
  act(async () => {
    const body = { workOrderId: newId(), lineId: newId() }
    const { workOrderId } = await call('billAgreement', { params: { id: r.id }, body })
    await navigateTo(`/work/${workOrderId}?bill=1`)
  })
const months = computed(() =>
  Array.from({ length: 6 }, (_, i) => plusMonths(`${session.today.slice(0, 7)}-01`, i).slice(0, 7)),
)
const monthName = (month: string) => sayMonth(month, session.locale)
const columns = computed<Column<Row>[]>(() => [
  ...(office.value && show.value === 'due' ? [{ key: 'take', label: 'Take' }] : []),
  { key: 'customer', label: 'Customer', file: (r) => r.customer },
  { key: 'site', label: 'Site', text: (r) => r.site || 'no site named' },
  { key: 'territory', label: 'Territory', text: (r) => r.territory },
  { key: 'plan', label: 'Plan', text: (r) => r.plan },
  {
    key: 'stands',
    label: 'How it stands',
    tone: (r) => ({
      late: r.state.includes('overdue'),
      soon: r.state.includes('visit due') || r.state.includes('ends'),
    }),
    file: (r) => r.state,
  },
  {
    key: 'last',
    label: 'Last service',
    look: 'quiet',
    text: (r) => (r.lastVisitOn ? session.day(r.lastVisitOn) : 'never'),
  },
  { key: 'act', right: true, look: 'nowrap' },
])
</script>

<template>
  <LedgerList
    title="Care agreements"
    :columns="columns"
    filter="Customer, address, plan"
    :load="load"
    :watch-key="[show, month, territory, turn].join()"
    :empty="
      show === 'due' ? 'No visit is due by the end of this month.' : 'There is no agreement here.'
    "
    @shown="shown = $event"
  >
    <template #acts>
      <PressOne
        v-model="show"
        :options="
          [
            ['due', 'Visits due'],
            ['ending', 'Ending soon'],
            ['all', 'All'],
          ] as const
        "
      />
      <Choice
        v-if="show === 'due'"
        v-model="month"
        aria-label="Due by the end of"
        style="width: 150px"
        :options="months.map((m) => ({ value: m, label: monthName(m) }))"
      />
      <Choice
        v-model="territory"
        aria-label="Territory"
        style="width: 150px"
        :options="[
          { value: '', label: 'every territory' },
          ...(setUp?.territories ?? []).map((t) => ({ value: t.name, label: t.name })),
        ]"
      />
      <ActButton
        v-if="office && show === 'due'"
        primary
        :disabled="busy || !chosen.length"
        @click="book"
      >
        Make {{ chosen.length || '' }} {{ chosen.length === 1 ? 'visit' : 'visits' }}
      </ActButton>
    </template>
    <template
      v-if="problem || left.length"
      #note
      ><p
        class="note warn"
        role="alert"
      >
        {{ problem?.message ?? `Left out: ${left.join('; ')}.` }}
      </p></template
    >
    <template #takeHead
      ><ActButton
        quiet
        @click="all"
      >
        all
      </ActButton></template
    >
    <template #take="{ row: item }"
      ><Check
        :model-value="picked.has(item.id)"
        :disabled="!bookable(item)"
        :label="`Visit for ${item.customer}`"
        @change="picked.has(item.id) ? picked.delete(item.id) : picked.add(item.id)"
    /></template>
    <template #customer="{ row: item }"
      ><NuxtLink :to="`/customers/${item.customerId}`">{{ item.customer }}</NuxtLink
      ><br /><span class="small quiet num">{{ item.phone }}</span></template
    >
    <template #stands="{ row: item }"
      >{{ item.state
      }}<template v-if="item.booked"
        ><br /><span class="small quiet">{{ item.booked }} is waiting</span></template
      ></template
    >
    <template #act="{ row: item }"
      ><span class="small quiet">until {{ session.day(item.endsOn, 'withYear') }}</span
      >{{ ' '
      }}<ActButton
        v-if="
          office &&
          show === 'all' &&
          item.price &&
          (!item.billedUntil || item.billedUntil < item.endsOn)
        "
        :disabled="busy"
        @click="bill(item)"
      >
        Bill the year {{ Number(item.price).toFixed(2) }}</ActButton
      >{{ ' '
      }}<ActButton
        v-if="renews && show === 'ending'"
        :disabled="busy"
        @click="renew(item)"
      >
        Renew a year
      </ActButton></template
    >
  </LedgerList>
</template>
