<script setup lang="ts">
// What a firm has set up, what is still missing for which task, and where it is entered.
import { computed, ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'
import OwnFirm from '~/begin/OwnFirm.vue'
import PhoneCode from '~/begin/PhoneCode.vue'
import StarterBook from '~/begin/StarterBook.vue'
import { STEPS, TASK_WORDS } from '~/begin/words'
import type { StepCode } from '~~/core/settings/firstSteps'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'
import { useTour } from '~/tour/useTour'

definePageMeta({ layout: 'office' })
const session = useSession()
const { data, problem, refresh } = useAnswer('guide')
const { busy, problem: failed, act } = useAct()
const done = computed(() => data.value?.steps.filter((step) => step.done).length ?? 0)
const says = (code: StepCode) => STEPS[code].says
const mayGo = (code: StepCode) => {
  const { needs } = STEPS[code]
  return !needs || session.may(needs)
}
const { begin } = useTour()
function showRound() {
  begin()
  void navigateTo('/calls/new')
}
const tried = ref(false)
const tryMail = () =>
  act(async () => {
    await call('tryMail')
    tried.value = true
  })
</script>

<template>
  <section
    v-if="data"
    class="page guide"
  >
    <h1>Guide</h1>
    <p class="quiet">
      {{ session.me?.company.name }}: <b class="num">{{ done }}</b> of
      <b class="num">{{ data.steps.length }}</b> steps are done. Leave it whenever you like; it
      knows where you are.
    </p>
    <p
      v-if="session.me?.company.demo"
      class="note row"
    >
      <span class="grow">This is the demo, which has all of it.</span><OwnFirm />
    </p>
    <p
      v-if="session.may('calls.take')"
      class="row"
    >
      <span class="grow"
        >A first call, from the telephone to the money, on the real screens: each place says what it
        is for. On a phone, the code below goes on from there.</span
      >
      <ActButton @click="showRound">Show me round</ActButton>
    </p>
    <ul
      class="tasks"
      aria-label="What can begin"
    >
      <li
        v-for="{ task, missing } in data.tasks"
        :key="task"
        class="sheet"
        :class="{ ready: !missing.length }"
      >
        <b>{{ TASK_WORDS[task] }}</b>
        <span
          v-if="!missing.length"
          class="good"
          >can begin</span
        >
        <span
          v-else
          class="soon"
          >still missing: {{ missing.map((code) => STEPS[code].lacks).join(', ') }}</span
        >
      </li>
    </ul>
    <ol
      class="sheet steps"
      aria-label="Steps"
    >
      <li
        v-for="step in data.steps"
        :key="step.code"
        :class="{ done: step.done }"
      >
        <span
          class="num mark"
          :class="step.done ? 'good' : 'quiet'"
          :aria-label="step.done ? 'done' : 'not yet'"
          >{{ step.done ? '✓' : '○' }}</span
        >
        <span class="grow"
          ><b>{{ says(step.code) }}</b
          ><br /><span class="quiet small">{{ STEPS[step.code].why }}</span></span
        >
        <StarterBook
          v-if="step.code === 'book' && !step.done && session.may('pricebook.change')"
          @kept="refresh"
        />
        <PhoneCode v-if="step.code === 'people'" />
        <ActButton
          v-if="step.code === 'mail'"
          :disabled="busy"
          @click="tryMail"
          >{{ STEPS.mail.act }}</ActButton
        >
        <NuxtLink
          v-else-if="mayGo(step.code)"
          class="btn"
          :to="STEPS[step.code].to"
          >{{ step.done ? 'Look at it' : STEPS[step.code].act }}</NuxtLink
        >
      </li>
    </ol>
    <p
      v-if="tried"
      class="note"
      role="status"
    >
      A mail to {{ session.me?.person.email }} is on its way. Whether it arrived is under
      <NuxtLink to="/messages">Mail</NuxtLink>.
    </p>
    <Notice :of="failed ?? problem" />
  </section>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
  />
</template>

<style scoped>
.guide {
  max-width: 860px;
}
.tasks {
  list-style: none;
  margin: 12px 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 8px;
}
.tasks li {
  padding: 10px 12px;
  display: flex;
  flex-direction: column;
  gap: 2px;
  border-top: 3px solid var(--marigold);
}
.tasks li.ready {
  border-top-color: var(--green);
}
.steps {
  list-style: none;
  margin: 0;
  padding: 4px 14px;
}
.steps li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 12px;
  padding: 8px 0;
  border-bottom: 1px solid var(--rule);
}
.steps li:last-child {
  border-bottom: 0;
}
.mark {
  width: 1.2em;
  text-align: center;
}
</style>
