<script setup lang="ts">
// The day plan: what may change, what is proposed, before and after side by side; accepted in whole or in part. Nothing changes before.
import { computed, ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'
import DayAsItStands from '~/dispatch/plan/DayAsItStands.vue'
import PlanChanges from '~/dispatch/plan/PlanChanges.vue'
import PlanCompare from '~/dispatch/plan/PlanCompare.vue'
import PlanWish from '~/dispatch/plan/PlanWish.vue'
import { isReady, usePlan } from '~/dispatch/plan/usePlan'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
const session = useSession()
const { query } = useRoute()
const asked = (name: string) => (typeof query[name] === 'string' ? query[name] : '')
const date = ref(asked('date') >= session.today ? asked('date') : session.today)
const plans = computed(() => session.may('dispatch.plan'))
const {
  data: schedule,
  problem: away,
  refresh,
} = useAnswer('schedule', () => ({
  query: { date: date.value },
}))
const people = computed(() => schedule.value?.technicians ?? [])
const { plan, chosen, busy, problem, propose, forget, stop, accept } = usePlan()
const takeOver = async () => {
  if (await accept()) await navigateTo({ path: '/schedule', query: { date: date.value } })
}
</script>

<template>
  <section class="page">
    <div class="row">
      <h1 class="grow">Plan the day</h1>
      <NuxtLink
        class="btn"
        :to="{ path: '/schedule', query: { date } }"
        >Back to the schedule</NuxtLink
      >
    </div>
    <PlanWish
      :key="asked('absent')"
      v-model:date="date"
      :people="people"
      :absent="asked('absent')"
      :again="Boolean(plan)"
      :busy="busy"
      :may="plans"
      @propose="propose"
      @wish="forget"
    />
    <Notice :of="problem" />
    <div
      v-if="plan?.state === 'running'"
      class="sheet row running"
      role="status"
    >
      <progress
        :value="plan.progress"
        max="100"
        aria-label="Planning"
      />
      <span class="num">{{ plan.progress }} %</span>
      <span class="quiet grow">Nothing changes before you accept it.</span>
      <ActButton @click="stop"> Stop, with the best so far </ActButton>
    </div>
    <p
      v-else-if="plan?.state === 'failed'"
      class="note bad"
      role="alert"
    >
      {{ plan.problem }}
    </p>
    <template v-else-if="isReady(plan)">
      <PlanCompare :plan="plan" />
      <PlanChanges
        v-if="plan.changes.length && plans"
        v-model="chosen"
        :plan="plan"
        :busy="busy"
        @accept="takeOver"
      />
      <p
        v-else
        class="empty sheet"
      >
        Nothing better was found: the day stays as it is.
      </p>
    </template>
    <DayAsItStands
      v-else-if="schedule"
      :schedule="schedule"
    />
    <Pending
      v-else
      :problem="away"
      :again="refresh"
    />
  </section>
</template>

<style scoped>
.running {
  padding: 12px;
}
progress {
  width: 220px;
}
</style>
