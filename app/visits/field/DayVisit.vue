<script setup lang="ts">
// One visit in a technician's day: when, whom, where, and what to know before.
import type { Answer } from '~~/shared/api'
import { useSession } from '~/stores/session'
import { CLOCK_SAYS } from '~/visits/words'

defineProps<{
  visit: Answer<'fieldDay'>['visits'][number]
  /** it stands among visits of other days */
  dated?: boolean
}>()
const session = useSession()
</script>

<template>
  <li :class="visit.state">
    <NuxtLink :to="`/field/visits/${visit.id}`">
      <span class="when num"
        ><i v-if="dated && visit.startAt">{{ session.dayOf(visit.startAt) }}</i
        >{{ session.time(visit.startAt)
        }}<i v-if="visit.driveSeconds">{{ Math.round(visit.driveSeconds / 60) }} min drive</i></span
      >
      <span class="what"
        ><b>{{ visit.customer }}</b
        ><span>{{ visit.title }}</span
        ><span class="quiet small">{{ visit.place }}</span
        ><span
          v-if="visit.accessNote || visit.officeNote"
          class="soon small"
          >{{ [visit.officeNote, visit.accessNote].filter(Boolean).join(' · ') }}</span
        ><span class="small"
          ><span
            v-if="visit.lead"
            class="chip"
            >with {{ visit.lead.split(' ')[0] }}</span
          >{{ ' '
          }}<span
            v-if="visit.promise"
            class="chip"
            >promised {{ visit.promise }}</span
          >{{ ' '
          }}<span
            v-if="CLOCK_SAYS[visit.state]"
            class="chip good"
            >{{ CLOCK_SAYS[visit.state] }}</span
          ></span
        ></span
      >
    </NuxtLink>
  </li>
</template>

<style scoped>
li a {
  display: grid;
  grid-template-columns: 78px 1fr;
  gap: 12px;
  padding: 12px 16px;
  background: var(--sheet);
  border-bottom: 1px solid var(--rule);
  color: var(--ink);
  text-decoration: none;
}
.finished a {
  background: transparent;
  color: var(--ink-2);
}
.when {
  font-size: 1.125rem;
}
.when i {
  display: block;
  font: 0.75rem var(--text);
  color: var(--ink-2);
  white-space: normal;
}
.what {
  display: flex;
  flex-direction: column;
  gap: 2px;
}
</style>
