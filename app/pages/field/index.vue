<script setup lang="ts">
// My visits of the day, in order, the open one first.
import { computed, defineAsyncComponent, onMounted, ref } from 'vue'
import { afterPaint } from '~/lib/afterPaint'
import { useAnswer } from '~/lib/useAnswer'
import { useSignOut } from '~/lib/useSignOut'
import { useSession } from '~/stores/session'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'
import DayVisit from '~/visits/field/DayVisit.vue'
import { CLOCK_SAYS } from '~/visits/words'

// What is to be done besides, with its form and calendar, comes once the day is seen.
const MyTasks = defineAsyncComponent(() => afterPaint().then(() => import('~/tasks/MyTasks.vue')))
definePageMeta({ layout: 'field' })
const session = useSession()
const { data, problem, refresh } = useAnswer('fieldDay')
const isSeen = ref(false)
onMounted(() => (isSeen.value = true))
const open = computed(() => data.value?.visits.find((v) => v.id === data.value?.openVisitId))
const { signOut, problem: notSignedOut } = useSignOut()
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
        @click="signOut"
      >
        Sign out
      </button>
    </header>
    <Notice :of="notSignedOut" />
    <Notice
      v-if="data"
      :of="problem"
    />
    <NuxtLink
      v-if="open"
      class="openone"
      :to="`/field/visits/${open.id}`"
      ><span>Open now, {{ CLOCK_SAYS[open.state] }}</span
      ><b>{{ open.customer }}</b
      ><span>{{ open.title }} →</span></NuxtLink
    >
    <ol
      v-if="data?.visits.length"
      data-tour="day.visits"
    >
      <DayVisit
        v-for="v in data.visits"
        :key="v.id"
        :visit="v"
      />
    </ol>
    <p
      v-else-if="data"
      class="empty"
    >
      No visit today.
    </p>
    <Pending
      v-else
      :problem="problem"
      :again="refresh"
      says="Opening your day…"
    />
    <section
      v-if="data?.notBegun.length"
      aria-labelledby="not-begun"
    >
      <h2
        id="not-begun"
        class="soon"
      >
        Not begun, from the days before
      </h2>
      <ol>
        <DayVisit
          v-for="v in data.notBegun"
          :key="v.id"
          :visit="v"
          dated
        />
      </ol>
    </section>
    <MyTasks v-if="data && isSeen" />
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
  font-size: 1.25rem;
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
  font-size: 1.1875rem;
}
ol {
  list-style: none;
  margin: 10px 0;
  padding: 0;
}
h2 {
  padding: 10px 16px 0;
}
</style>
