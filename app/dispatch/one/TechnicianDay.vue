<script setup lang="ts">
// One technician's day from top to bottom: hours, time off, drives between the visits, promises, the way home.
import { computed, onBeforeUnmount, ref } from 'vue'
import { useSession } from '~/stores/session'
import { useScheduleFilter } from '~/stores/scheduleFilter'
import VisitBlock from './VisitBlock.vue'
import { begins, dayScale, ends, type Day, type Visit } from './dayScale'

const props = defineProps<{
  day: Day
  who: Day['technicians'][number]
  visits: readonly Visit[]
}>()
const emit = defineEmits<{ open: [visitId: string] }>()
const session = useSession()
const filters = useScheduleFilter()
const scale = computed(() => dayScale(props.day))
const time = (at: number) => session.time(new Date(at).toISOString())
/** Whom somebody goes along with; nobody where the visit is their own. */
const leaderOf = (v: Visit) =>
  v.technicianId === props.who.id
    ? ''
    : (props.day.technicians.find((t) => t.id === v.technicianId)?.name.split(' ')[0] ?? '')
const EVERY_MS = 20_000
const now = ref(session.now())
const tick = setInterval(() => {
  now.value = session.now()
}, EVERY_MS)
onBeforeUnmount(() => clearInterval(tick))
</script>

<template>
  <div
    class="down"
    :style="{ height: `${scale.height + 40}px` }"
    :role="visits.length ? 'list' : 'group'"
    :aria-label="`The day of ${who.name}`"
  >
    <span
      v-for="h in scale.hours"
      :key="h"
      class="hour num"
      :style="{ top: `${scale.y(h)}px` }"
      >{{ time(h) }}</span
    >
    <span
      v-for="(w, i) in who.working"
      :key="`w${i}`"
      class="working"
      :style="scale.place(w.from, w.to)"
    />
    <span
      v-for="(o, i) in who.timeOff"
      :key="`o${i}`"
      class="off small"
      :style="scale.place(o.from, o.to)"
      >{{ o.reason }}</span
    >
    <template
      v-for="v in visits"
      :key="v.id"
    >
      <span
        v-if="v.driveSeconds && v.technicianId === who.id"
        class="drive"
        :style="scale.place(begins(v) - v.driveSeconds * 1000, begins(v))"
        ><i class="num">{{ Math.round(v.driveSeconds / 60) }} min drive</i></span
      >
      <span
        v-if="v.promiseStart && v.promiseEnd"
        class="promise"
        :class="{ risk: v.atRisk }"
        :style="scale.place(v.promiseStart, v.promiseEnd)"
        :title="`Promised ${v.promiseFrom}–${v.promiseTo}`"
      />
      <VisitBlock
        :visit="v"
        :dim="filters.active && !filters.fits(v)"
        :leads="leaderOf(v)"
        :style="scale.place(begins(v), ends(v), 26)"
        @click="emit('open', v.id)"
      />
    </template>
    <span
      v-if="who.homeAt"
      class="home small"
      :style="{ top: `${scale.y(who.homeAt)}px` }"
      >home at {{ session.time(who.homeAt) }}, {{ Math.round(who.homeDriveSeconds / 60) }} min
      drive</span
    >
    <span
      v-if="day.date === session.today && now >= scale.from && now <= scale.to"
      class="now"
      :style="{ top: `${scale.y(now)}px` }"
    />
  </div>
</template>

<style scoped>
.down {
  position: relative;
  margin: 10px 20px 0 0;
  background: repeating-linear-gradient(135deg, #f0f3f1 0 7px, #e6ebe8 7px 8px) 70px 0 no-repeat;
}
.hour {
  position: absolute;
  left: 0;
  width: 62px;
  text-align: right;
  font-size: 0.75rem;
  color: var(--ink-2);
  transform: translateY(-8px);
}
.hour::after {
  content: '';
  position: absolute;
  left: 70px;
  top: 8px;
  width: 2000px;
  max-width: 60vw;
  border-top: 1px solid var(--rule);
}
.working {
  position: absolute;
  left: 70px;
  right: 0;
  background: var(--sheet);
  border-left: 3px solid var(--green-2);
}
.off {
  position: absolute;
  left: 73px;
  right: 0;
  background: repeating-linear-gradient(135deg, #f0f3f1 0 7px, #e6ebe8 7px 8px);
  padding: 2px 12px;
  color: var(--ink-2);
  text-align: right;
}
.promise {
  position: absolute;
  left: 84px;
  width: 7px;
  border: 1.5px solid var(--ink-2);
  border-right: 0;
  z-index: 2;
}
.promise.risk {
  border-color: var(--brick);
}
.drive {
  position: absolute;
  left: 120px;
  border-left: 2px dotted var(--ink-2);
  z-index: 2;
}
.drive i {
  position: absolute;
  left: 8px;
  top: 50%;
  transform: translateY(-50%);
  font-style: normal;
  font-size: 0.75rem;
  color: var(--ink-2);
  white-space: nowrap;
  background: var(--sheet);
  padding: 0 3px;
}
.home {
  position: absolute;
  left: 100px;
  padding-top: 2px;
  color: var(--ink-2);
  z-index: 2;
  background: var(--sheet);
}
.now {
  position: absolute;
  left: 66px;
  right: 0;
  border-top: 2px solid var(--marigold-line);
  z-index: 5;
  pointer-events: none;
}
</style>
