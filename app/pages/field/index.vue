<script setup lang="ts">
// My visits of the day, in order, the open one first.
import { computed } from 'vue'
import { useAnswer } from '~/lib/useAnswer'
import { useSignOut } from '~/lib/useSignOut'
import { useSession } from '~/stores/session'
import Notice from '~/base/Notice.vue'

definePageMeta({ layout: 'field' })
const session = useSession()
const { data, problem } = useAnswer('fieldDay')
const open = computed(() => data.value?.visits.find((v) => v.id === data.value?.openVisitId))
const SAID: Record<string, string> = {
  planned: '',
  driving: 'driving',
  on_site: 'on site',
  paused: 'paused',
  finished: '✓ finished',
  no_access: 'no access',
}
const leave = useSignOut()
</script>

<template>
  <div class="day">
    <header>
      <div class="grow">
        <h1>{{ session.me?.person.name.split(' ')[0] }}’s day</h1>
        <p class="quiet">{{ data ? session.day(data.date, 'long') : '' }}</p>
      </div>
      <NuxtLink
        class="btn plain"
        to="/me"
        >My sign-in</NuxtLink
      ><button
        class="btn plain"
        @click="leave"
      >
        Sign out
      </button>
    </header>
    <Notice :of="problem" />
    <NuxtLink
      v-if="open"
      class="openone"
      :to="`/field/visits/${open.id}`"
      ><span>Open now, {{ SAID[open.state] }}</span
      ><b>{{ open.customer }}</b
      ><span>{{ open.title }} →</span></NuxtLink
    >
    <ol v-if="data?.visits.length">
      <li
        v-for="v in data.visits"
        :key="v.id"
        :class="v.state"
      >
        <NuxtLink :to="`/field/visits/${v.id}`">
          <span class="when num"
            >{{ session.time(v.startAt)
            }}<i v-if="v.driveSeconds">{{ Math.round(v.driveSeconds / 60) }} min drive</i></span
          >
          <span class="what"
            ><b>{{ v.customer }}</b
            ><span>{{ v.title }}</span
            ><span class="quiet small">{{ v.place }}</span
            ><span
              v-if="v.accessNote || v.officeNote"
              class="soon small"
              >{{ [v.officeNote, v.accessNote].filter(Boolean).join(' · ') }}</span
            ><span class="small"
              ><span
                v-if="v.lead"
                class="chip"
                >with {{ v.lead.split(' ')[0] }}</span
              >{{ ' '
              }}<span
                v-if="v.promise"
                class="chip"
                >promised {{ v.promise }}</span
              >{{ ' '
              }}<span
                v-if="SAID[v.state]"
                class="chip good"
                >{{ SAID[v.state] }}</span
              ></span
            ></span
          >
        </NuxtLink>
      </li>
    </ol>
    <p
      v-else-if="data"
      class="empty"
    >
      No visit today.
    </p>
    <p
      v-else-if="!problem"
      class="empty"
      role="status"
    >
      Opening your day…
    </p>
  </div>
</template>

<style scoped>
header {
  display: flex;
  align-items: center;
  padding: 16px;
  background: var(--sheet);
  border-bottom: 1px solid var(--rule-2);
}
h1 {
  font-size: 20px;
}
.openone {
  display: flex;
  flex-direction: column;
  margin: 14px 16px 4px;
  padding: 14px 16px;
  background: var(--green);
  color: #fff;
  border-radius: 10px;
  text-decoration: none;
}
.openone b {
  font-size: 19px;
}
ol {
  list-style: none;
  margin: 10px 0;
  padding: 0;
}
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
  font-size: 18px;
}
.when i {
  display: block;
  font: 12px var(--text);
  color: var(--ink-2);
  white-space: normal;
}
.what {
  display: flex;
  flex-direction: column;
  gap: 2px;
}
</style>
