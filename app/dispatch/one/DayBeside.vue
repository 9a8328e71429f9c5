<script setup lang="ts">
// What a technician's day comes to.
import { computed } from 'vue'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import { useSession } from '~/stores/session'
import type { Day, Visit } from './dayScale'

const props = defineProps<{ who: Day['technicians'][number]; visits: readonly Visit[] }>()
const session = useSession()
const driven = computed(
  () => props.visits.reduce((n, v) => n + v.driveSeconds, 0) + props.who.homeDriveSeconds,
)
</script>

<template>
  <aside>
    <h2>{{ who.name }}</h2>
    <dl>
      <dt>Visits</dt>
      <dd class="num">{{ visits.length }}</dd>
      <dt>Driving</dt>
      <dd class="num">{{ hoursMinutes(driven) }} h</dd>
      <dt>Work</dt>
      <dd class="num">{{ hoursMinutes(visits.reduce((n, v) => n + v.durationSeconds, 0)) }} h</dd>
      <dt>Home at</dt>
      <dd class="num">{{ who.homeAt ? session.time(who.homeAt) : '–' }}</dd>
      <dt>Skills</dt>
      <dd>{{ who.skills.join(', ') || '–' }}</dd>
      <dt>Serves</dt>
      <dd>{{ who.territories.join(', ') || 'everywhere' }}</dd>
    </dl>
    <p
      v-if="!who.working.length"
      class="note warn"
    >
      Does not work on this day.
    </p>
    <p
      v-else-if="!visits.length"
      class="quiet"
    >
      Nothing is booked yet.
    </p>
  </aside>
</template>

<style scoped>
aside {
  border-left: 1px solid var(--rule-2);
  padding: 12px 14px;
  position: sticky;
  top: 0;
  align-self: start;
}
dl {
  display: grid;
  grid-template-columns: 80px 1fr;
  gap: 4px;
}
dt {
  color: var(--ink-2);
}
dd {
  margin: 0;
}
</style>
