<script setup lang="ts">
// The now card: what the clock does, and the single next step.
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import type { ClockAct } from '~~/core/visits/visitLifecycle'
import type { Answer } from '~~/shared/api'
import { clockWords } from '~/visits/words'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'

const props = defineProps<{ detail: Answer<'fieldVisit'>; busy: boolean }>()
const emit = defineEmits<{ act: [act: ClockAct] }>()
const session = useSession()
const now = ref(session.now())
const timer = setInterval(() => {
  now.value = session.now()
}, 1000)
onBeforeUnmount(() => clearInterval(timer))
const state = computed(() => props.detail.visit.state)
// A second tap of the same finger means the button that was there before, not the one that has just come.
const SETTLE_MS = 700
const settling = ref(false)
let settled: ReturnType<typeof setTimeout> | undefined
watch(state, () => {
  settling.value = true
  clearTimeout(settled)
  settled = setTimeout(() => {
    settling.value = false
  }, SETTLE_MS)
})
onBeforeUnmount(() => clearTimeout(settled))
const running = computed(() =>
  props.detail.clock.since
    ? Math.max(0, Math.floor((now.value - Date.parse(props.detail.clock.since)) / 1000))
    : 0,
)
const stopwatch = computed(() => {
  const s = running.value
  return `${Math.floor(s / 3600)}:${String(Math.floor(s / 60) % 60).padStart(2, '0')}:${String(s % 60).padStart(2, '0')}`
})
const minutes = (s: number) => `${Math.round(s / 60)} min`
const line = computed(
  () =>
    ({
      planned: `Planned for ${session.timeOrDay(props.detail.visit.startAt)}${props.detail.visit.promise ? `, promised ${props.detail.visit.promise}` : ''}`,
      driving: `Driving since ${session.timeOrDay(props.detail.clock.since)}`,
      on_site: `On site since ${session.timeOrDay(props.detail.clock.since)}`,
      paused: `Paused since ${session.timeOrDay(props.detail.clock.since)}`,
      finished: 'Finished',
      no_access: 'Nobody let us in',
      cancelled: 'Cancelled',
    })[state.value],
)
</script>

<template>
  <section
    class="nowcard"
    data-tour="visit.clock"
    :class="state"
    aria-label="Now"
  >
    <div class="row">
      <span class="grow">{{ line }}</span><span
        v-if="detail.clock.driveSeconds && state !== 'driving'"
        >drove {{ minutes(detail.clock.driveSeconds) }}</span
      ><span v-else-if="state === 'planned' && detail.visit.driveSeconds"
        >about {{ minutes(detail.visit.driveSeconds) }} to drive</span
      >
    </div>
    <p
      v-if="detail.clock.kind"
      class="watch num"
      role="timer"
    >
      {{ stopwatch }}
    </p>
    <p v-else-if="state === 'finished'">{{ minutes(detail.clock.siteSeconds) }} on site</p>
    <div
      v-if="detail.acts.length"
      class="acts"
    >
      <ActButton
        v-for="(act, i) in detail.acts"
        :key="state + act"
        :class="{ first: i === 0 }"
        :disabled="busy || settling"
        @click="emit('act', act)"
      >
        {{ clockWords(act, state) }}
      </ActButton>
    </div>
  </section>
</template>

<style scoped>
.nowcard {
  background: var(--green);
  color: #fff;
  border-radius: 10px;
  padding: 14px 16px;
  margin: 14px 16px 0;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.planned,
.finished,
.no_access {
  background: var(--sheet);
  color: var(--ink);
  border: 1px solid var(--rule-2);
}
.paused {
  background: #3f6156;
}
.watch {
  font-size: min(2.75rem, 17vw);
  line-height: 1.1;
}
.acts {
  display: flex;
  gap: 8px;
}
.acts .btn {
  flex: 1;
  background: rgb(255 255 255 / 12%);
  color: #fff;
  border-color: rgb(255 255 255 / 35%);
}
.acts .btn.first {
  background: #fff;
  color: var(--green);
  flex: 1.6;
}
.planned .btn,
.finished .acts .btn,
.no_access .acts .btn {
  background: var(--sheet);
  color: var(--ink);
  border-color: var(--rule-2);
}
.planned .acts .btn.first {
  background: var(--green);
  color: #fff;
  border-color: var(--green);
}
</style>
