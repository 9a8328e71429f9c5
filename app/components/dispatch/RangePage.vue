<script setup lang="ts">
// What the week, the month and the list have in common: the days, the way to others, the filter, the visit that is looked at.
import { computed, ref } from 'vue'
import { plusDays, plusMonths } from '~~/core/time/zone'
import type { Answer } from '~~/shared/api'
import ScheduleBar from '~/components/dispatch/ScheduleBar.vue'
import BoardSays from '~/dispatch/day/BoardSays.vue'
import { useUndo } from '~/dispatch/useUndo'
import UndoActs from '~/dispatch/UndoActs.vue'
import VisitSheet from '~/dispatch/visit/VisitSheet.vue'
import { SHOWS } from '~/lib/live'
import { dayKeys } from '~/dispatch/day/boardShortcuts'
import { useShortcuts } from '~/lib/shortcuts'
import { useAnswer } from '~/lib/useAnswer'
import { useScheduleDate } from '~/lib/useScheduleDate'
import { useScheduleFilter } from '~/stores/scheduleFilter'
import ActButton from '~/base/ActButton.vue'
import Pending from '~/base/Pending.vue'

const props = defineProps<{
  title: (from: string, to: string) => string
  span: (date: string) => { from: string; to: string }
  step: 'week' | 'month'
}>()
const { session, route, date, may } = useScheduleDate()
const filters = useScheduleFilter()
const days = computed(() => props.span(date.value))
const { data, problem, refresh } = useAnswer(
  'scheduleRange',
  () => ({ query: days.value }),
  SHOWS.day,
)
const go = (d: string) => void navigateTo({ path: route.path, query: { date: d } })
const move = (n: number) =>
  go(props.step === 'week' ? plusDays(date.value, 7 * n) : plusMonths(date.value, n))
const openId = ref<string | null>(null)
const opened = computed(
  () =>
    [...(data.value?.visits ?? []), ...(data.value?.tray ?? [])].find(
      (v) => v.id === openId.value,
    ) ?? null,
)
const shown = computed(() => data.value?.visits.filter(filters.fits) ?? [])
const { failure, refused, undo, redo } = useUndo(refresh)
useShortcuts(dayKeys(move, props.step))
type Range = Answer<'scheduleRange'>
defineSlots<{
  default(p: {
    data: Range
    shown: Range['visits']
    date: string
    open: (id: string) => void
  }): unknown
}>()
</script>

<template>
  <div
    v-if="data"
    class="views"
  >
    <ScheduleBar
      :date="date"
      :technicians="data.technicians"
      :shown="shown.length"
      :of="data.visits.length"
    />
    <div class="head">
      <h1>{{ title(days.from, days.to) }}</h1>
      <span class="quiet num"
        >{{ data.visits.length }} visits<template v-if="data.tray.length">
          · {{ data.tray.length }} without a slot</template
        ></span
      ><span class="grow" />
      <ActButton
        :title="`${step} before`"
        :aria-label="`${step} before`"
        @click="move(-1)"
      >
        ←</ActButton
      ><ActButton @click="go(session.today)"> Today</ActButton
      ><ActButton
        :title="`${step} after`"
        :aria-label="`${step} after`"
        @click="move(1)"
      >
        →
      </ActButton>
      <UndoActs
        v-if="may"
        :undo="undo"
        :redo="redo"
      />
    </div>
    <div class="body">
      <slot
        :data="data"
        :shown="shown"
        :date="date"
        :open="(id: string) => (openId = id)"
      />
    </div>
    <BoardSays
      v-model:failure="failure"
      v-model:refused="refused"
      :problem="problem"
    />
    <VisitSheet
      :visit="opened"
      :may="may"
      :technicians="data.technicians"
      :visits="data.visits"
      @close="openId = null"
      @changed="refresh()"
    />
  </div>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
  />
</template>

<style scoped>
.views {
  display: flex;
  flex-direction: column;
  height: 100%;
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
  padding: 10px 14px;
  flex: none;
}
.head h1 {
  font-size: 1rem;
}
.body {
  flex: 1;
  min-height: 0;
  overflow: auto;
}
</style>
