<script setup lang="ts">
// The map of a day: who drives where, who is near to what waits, and which land belongs to which territory.
import { computed, reactive, ref, watch } from 'vue'
import { plusDays } from '~~/core/time/zone'
import type { Answer } from '~~/shared/api'
import CountyMap from '~/components/dispatch/CountyMap.vue'
import NearestTable from '~/components/dispatch/NearestTable.vue'
import ScheduleBar from '~/components/dispatch/ScheduleBar.vue'
import { useSendNearest } from '~/dispatch/map/useSendNearest'
import ActRefused from '~/components/dispatch/ActRefused.vue'
import BoardSays from '~/dispatch/day/BoardSays.vue'
import { useUndo } from '~/dispatch/useUndo'
import UndoActs from '~/dispatch/UndoActs.vue'
import VisitSheet from '~/dispatch/visit/VisitSheet.vue'
import { onMoved } from '~/lib/live'
import { useAsking } from '~/lib/unanswered'
import { useAnswer } from '~/lib/useAnswer'
import { useScheduleDate } from '~/lib/useScheduleDate'
import { useScheduleFilter } from '~/stores/scheduleFilter'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'

definePageMeta({ layout: 'office' })
const { session, route, date, may } = useScheduleDate()
const filters = useScheduleFilter()
const { data, problem, refresh } = useAnswer('mapDay', () => ({ query: { date: date.value } }))
const both = () => Promise.all([refresh(), again()])
const { data: schedule, refresh: again } = useAnswer('schedule', () => ({
  query: { date: date.value },
}))
// Vans tell where they are every few seconds: once in a while is enough to see.
let waits = false
onMoved(() => {
  if (waits) return
  waits = true
  setTimeout(() => {
    waits = false
    void refresh()
  }, 1500)
})
type Ground = InstanceType<typeof CountyMap>['$props']['ground']
const ground = ref<Ground>(null)
const ask = useAsking()
async function loadGround(): Promise<void> {
  ground.value = await ask(async () => {
    const response = await fetch('/api/v1/map/ground.geojson')
    if (!response.ok) throw new Error('The roads and the ground of the map could not be had.')
    return (await response.json()) as Ground
  }, loadGround)
}
watch(
  () => data.value?.roadsId,
  (id) => void (id === undefined || loadGround()),
  { immediate: true },
)
const site = ref<string | null>(typeof route.query.site === 'string' ? route.query.site : null)
const layers = reactive({ territories: true, sites: true, routes: true })
const openId = ref<string | null>(null)
const opened = computed(() => schedule.value?.visits.find((v) => v.id === openId.value) ?? null)
const chosen = computed(() => data.value?.sites.find((s) => s.id === site.value) ?? null)
const only = ref<string[]>([])
const shown = computed(() => (only.value.length ? only.value : filters.filter.technicianIds))
const wants = computed(
  () => schedule.value?.tray.find((v) => v.siteId === site.value)?.skills ?? [],
)
const toggle = (id: string) => {
  only.value = only.value.includes(id) ? only.value.filter((x) => x !== id) : [...only.value, id]
}
function seen({ position }: Answer<'mapDay'>['technicians'][number]): string {
  if (position) return `${position.old ? 'last seen' : 'seen'} ${session.time(position.at)}`
  return date.value === session.today ? 'not seen today' : ''
}
const { said, warned, failed, send } = useSendNearest({
  site,
  date,
  waiting: () => schedule.value?.tray.find((v) => v.siteId === site.value),
  customerId: () => chosen.value!.customerId,
  shown: both,
})
const { failure, refused, undo, redo } = useUndo(both)
const go = (d: string) => void navigateTo({ path: '/schedule/map', query: { date: d } })
</script>

<template>
  <div
    v-if="data"
    class="views"
  >
    <ScheduleBar
      :date="data.date"
      :technicians="schedule?.technicians ?? []"
    />
    <div class="two">
      <CountyMap
        :day="data"
        :ground="ground"
        :only="shown"
        :site="site"
        :layers="layers"
        @site="(id) => (site = id)"
        @visit="(id) => (openId = id)"
      />
      <aside>
        <div class="row">
          <h1 class="grow">{{ session.day(data.date, 'long') }}</h1>
          <ActButton
            aria-label="Day before"
            @click="go(plusDays(data.date, -1))"
          >
            ←</ActButton
          ><ActButton
            aria-label="Day after"
            @click="go(plusDays(data.date, 1))"
          >
            →
          </ActButton>
        </div>
        <div
          v-if="may"
          class="row undo"
        >
          <UndoActs
            :undo="undo"
            :redo="redo"
          />
        </div>
        <BoardSays
          v-model:failure="failure"
          v-model:refused="refused"
        />
        <p class="row small">
          <Check v-model="layers.routes"> routes</Check
          ><Check v-model="layers.territories"> territories</Check
          ><Check v-model="layers.sites"> sites</Check>
        </p>
        <p
          v-if="!data.roadsId"
          class="note warn"
        >
          No roads were imported: routes are straight lines.
          <NuxtLink to="/schedule/set-up#roads">Import roads</NuxtLink>
        </p>
        <template v-if="chosen">
          <div class="row">
            <h2 class="grow">{{ chosen.customer }}</h2>
            <ActButton
              quiet
              aria-label="Leave this site"
              @click="site = null"
            >
              ×
            </ActButton>
          </div>
          <p class="small quiet">
            {{ chosen.place }} ·
            <NuxtLink :to="`/customers/${chosen.customerId}`">the customer</NuxtLink>
          </p>
          <Notice :of="failed" />
          <p
            v-if="said"
            class="note"
            role="status"
          >
            {{ said }} <NuxtLink to="/schedule">See the day</NuxtLink>
          </p>
          <ActRefused
            v-if="warned"
            :text="warned.text"
            :asked="warned.asked"
            @again="send(warned.by, $event)"
            @leave="warned = null"
          />
          <NearestTable
            v-if="may"
            :site-id="chosen.id"
            :skills="wants"
            @choose="send($event)"
          />
        </template>
        <template v-else>
          <h2>Who drives</h2>
          <button
            v-for="t in data.technicians"
            :key="t.id"
            class="who"
            :class="{ on: shown.includes(t.id) }"
            :aria-pressed="shown.includes(t.id)"
            @click="toggle(t.id)"
          >
            <b>{{ t.name }}</b><span class="num small"
              >{{ t.stops.length }} {{ t.stops.length === 1 ? 'stop' : 'stops' }}</span
            ><span class="quiet small">{{ seen(t) }}</span>
          </button>
          <h2>
            No slot yet <span class="num quiet">{{ data.waiting.length + data.nowhere }}</span>
          </h2>
          <button
            v-for="w in data.waiting"
            :key="w.visitId"
            class="who"
            @click="site = w.siteId"
          >
            <b>{{ w.title }}</b><span class="quiet small">{{ w.customer }}</span>
          </button>
          <p
            v-if="data.nowhere"
            class="small quiet"
          >
            {{ data.nowhere }} more, whose place is not known.
          </p>
          <p class="small quiet">
            Press a site, or something that waits, to see who is nearest. Squares are where a day
            begins, diamonds where somebody is.
          </p>
        </template>
      </aside>
    </div>
    <VisitSheet
      v-if="schedule"
      :visit="opened"
      :may="may"
      :technicians="schedule.technicians"
      :visits="schedule.visits"
      @close="openId = null"
      @changed="again()"
    />
  </div>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
    says="Drawing the map…"
  />
</template>

<style scoped>
.undo {
  flex-wrap: wrap;
}
.views {
  display: flex;
  flex-direction: column;
  height: 100%;
}
.two {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 380px;
}
aside {
  border-left: 1px solid var(--rule-2);
  background: var(--sheet);
  overflow: auto;
  padding: 12px 14px;
  display: flex;
  flex-direction: column;
  gap: 6px;
}
h1 {
  font-size: 1rem;
}
.who {
  display: grid;
  grid-template-columns: 1fr auto;
  text-align: left;
  border: 1px solid var(--rule-2);
  border-radius: 4px;
  background: var(--sheet);
  padding: 5px 9px;
  cursor: pointer;
  color: var(--ink);
}
.who.on {
  border-color: var(--green);
  background: var(--green-1);
}
.who .quiet {
  grid-column: 1 / 3;
}
@media (max-width: 700px) {
  .views {
    height: auto;
  }
  .two {
    grid-template: 320px auto / minmax(0, 1fr);
  }
  aside {
    border-left: 0;
  }
}
</style>
