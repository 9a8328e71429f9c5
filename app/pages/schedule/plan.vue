<script setup lang="ts">
// The day plan: what may change, what is proposed, before and after side by side; accepted in whole or in part. Nothing changes before.
import { computed, ref, watch } from 'vue'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import { plusDays } from '~~/core/time/zone'
import type { Answer } from '~~/shared/api'
import { call, newId, type Problem } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useLoad } from '~/lib/useLoad'
import { useBoard } from '~/stores/board'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Choice from '~/base/Choice.vue'
import DateInput from '~/base/DateInput.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'
import DataTable from '~/base/DataTable.vue'
import Notice from '~/base/Notice.vue'

definePageMeta({ layout: 'office' })
const session = useSession()
const board = useBoard()
const route = useRoute()
const date = ref(
  typeof route.query.date === 'string' && route.query.date >= session.today
    ? route.query.date
    : session.today,
)
const days = ref(1)
const absentId = ref(typeof route.query.absent === 'string' ? route.query.absent : '')
const reason = ref('ill')
const keepTechnicians = ref(false)
const tray = ref(true)
const seconds = ref(4)
const { data: schedule } = useLoad(() => call('schedule', { query: { date: date.value } }))
const leftOut = ref<string[]>([])
const people = computed(() => schedule.value?.technicians ?? [])
const plan = ref<Answer<'dayPlan'> | null>(null)
const chosen = ref<string[]>([])
const { busy, problem, act } = useAct()
const propose = () =>
  act(async () => {
    const dates = Array.from({ length: days.value }, (_, i) => plusDays(date.value, i))
    const technicianIds = leftOut.value.length
      ? people.value.filter((p) => !leftOut.value.includes(p.id)).map((p) => p.id)
      : []
    plan.value = await call('beginPlan', {
      body: {
        id: newId(),
        dates,
        technicianIds,
        keepTechnicians: keepTechnicians.value,
        tray: tray.value,
        absentId: absentId.value || null,
        reason: reason.value,
        seconds: seconds.value,
      },
    })
    await follow(plan.value.id)
  })
/** Asks how far it is until there is something to show. */
async function follow(id: string) {
  while (plan.value?.id === id && plan.value.state === 'running') {
    await new Promise((done) => setTimeout(done, 300))
    plan.value = await call('dayPlan', { params: { id } }).catch((error: Problem) => {
      if (error.code === 'offline') return plan.value
      throw error
    })
  }
  chosen.value = plan.value?.changes.map((c) => c.visitId) ?? []
}
const stop = () =>
  void call('stopPlan', { params: { id: plan.value!.id } }).catch(() => {
    /* it was ready in that moment */
  })
const accept = () =>
  act(async () => {
    const done = await call('acceptPlan', {
      params: { id: plan.value!.id },
      body: { visitIds: chosen.value },
    })
    board.keep(
      done.undo.map(({ visitId, version, ...before }) => ({
        id: visitId,
        before,
        after: {
          ...done.plan.changes.find((c) => c.visitId === visitId)!.to,
          durationSeconds: before.durationSeconds,
        },
        version,
      })),
    )
    plan.value = done.plan
    await navigateTo({ path: '/schedule', query: { date: date.value } })
  })
watch(
  () => route.query.absent,
  (id) => {
    if (typeof id === 'string') absentId.value = id
  },
)
const FACTS = [
  ['broken', 'Promises broken'],
  ['unserved', 'Without a slot'],
  ['overtimeSeconds', 'Time over'],
  ['drivingSeconds', 'Driving'],
] as const
const show = (key: (typeof FACTS)[number][0], n: number) =>
  key.endsWith('Seconds') ? `${hoursMinutes(n)} h` : String(n)
const better = (key: (typeof FACTS)[number][0]) =>
  plan.value!.after![key] - plan.value!.before![key]
const when = (s: { technician: string; startAt: string | null }) =>
  s.startAt ? `${session.dayTime(s.startAt)}, ${s.technician.split(' ')[0]}` : 'no slot'
type Change = NonNullable<typeof plan.value>['changes'][number]
function promised(c: Change): string {
  if (c.promise) return `${c.promise.slice(11)} ${c.kept ? 'kept' : 'broken'}`
  return c.kept ? 'nothing' : 'loses its slot'
}
function takeAll() {
  const every = plan.value?.changes.map((c) => c.visitId) ?? []
  chosen.value = chosen.value.length === every.length ? [] : every
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
    <form
      class="sheet form"
      @submit.prevent="propose"
    >
      <Field label="From"
        ><DateInput
          v-model="date"
          :min="session.today"
      /></Field>
      <Field label="Days"
        ><Choice
          v-model="days"
          :options="
            [1, 2, 3, 4, 5].map((n) => ({ value: n, label: n === 1 ? 'this day' : `${n} days` }))
          "
      /></Field>
      <Field label="Somebody is away"
        ><Choice
          v-model="absentId"
          :options="[
            { value: '', label: 'nobody' },
            ...people.map((p) => ({ value: p.id, label: p.name })),
          ]"
      /></Field>
      <Field
        v-if="absentId"
        label="because"
        ><TextInput
          v-model="reason"
          style="width: 130px"
      /></Field>
      <Field label="Think for"
        ><Choice
          v-model="seconds"
          :options="[2, 4, 10, 30].map((n) => ({ value: n, label: `${n} s` }))"
      /></Field>
      <Check v-model="tray"> take in what has no slot</Check
      ><Check v-model="keepTechnicians"> everybody keeps their visits</Check>
      <fieldset class="row who">
        <legend class="quiet small">Who is planned</legend>
        <Check
          v-for="p in people.filter((x) => x.id !== absentId)"
          :key="p.id"
          class="small"
          :model-value="!leftOut.includes(p.id)"
          @change="
            leftOut = leftOut.includes(p.id)
              ? leftOut.filter((x) => x !== p.id)
              : [...leftOut, p.id]
          "
        >
          {{ p.name.split(' ')[0] }}</Check
        >
      </fieldset>
      <ActButton
        primary
        submit
        :disabled="busy"
      >
        {{ plan ? 'Propose anew' : 'Propose a plan' }}
      </ActButton>
    </form>
    <Notice :of="problem" />
    <div
      v-if="plan?.state === 'running'"
      class="sheet form"
      role="status"
    >
      <progress
        :value="plan.progress"
        max="100"
        aria-label="Planning"
      /><span class="num">{{ plan.progress }} %</span
      ><span class="quiet grow">Nothing changes before you accept it.</span
      ><ActButton @click="stop"> Stop, with the best so far </ActButton>
    </div>
    <p
      v-else-if="plan?.state === 'failed'"
      class="note bad"
      role="alert"
    >
      {{ plan.problem }}
    </p>
    <template v-else-if="plan?.before && plan.after">
      <DataTable
        class="compare"
        :rows="FACTS"
        :row-key="([k, name]) => k"
        :columns="[
          { key: 'c1', text: ([, name]) => name },
          { key: 'now', label: 'Now', figures: true, text: ([k]) => show(k, plan!.before![k]) },
          {
            key: 'proposed',
            label: 'Proposed',
            figures: true,
            text: ([k]) => show(k, plan!.after![k]),
          },
          {
            key: 'difference',
            label: 'Difference',
            figures: true,
            tone: ([k]) => (better(k) < 0 ? 'good' : better(k) > 0 ? 'late' : 'quiet'),
            text: ([k]) =>
              better(k) === 0
                ? 'same'
                : `${better(k) < 0 ? '−' : '+'}${show(k, Math.abs(better(k)))}`,
          },
        ]"
      >
      </DataTable>
      <template v-if="plan.changes.length">
        <DataTable
          :rows="plan.changes"
          :row-key="(c) => c.visitId"
          :columns="[
            { key: 'take', label: 'Take' },
            { key: 'visit', label: 'Visit' },
            { key: 'now', label: 'Now', text: (c) => when(c.from) },
            { key: 'proposed', label: 'Proposed', text: (c) => when(c.to) },
            {
              key: 'promised',
              label: 'Promised',
              tone: (c) => (c.kept ? 'quiet' : 'late'),
              text: promised,
            },
            { key: 'why', label: 'Why', look: 'small', text: (c) => c.why },
          ]"
        >
          <template #takeHead
            ><Check
              label="Take all"
              :model-value="chosen.length === plan.changes.length"
              @change="takeAll"
          /></template>
          <template #take="{ row: c }"
            ><Check
              v-model="chosen"
              :value="c.visitId"
              :label="`Take ${c.title}, ${c.customer}`"
          /></template>
          <template #visit="{ row: c }"
            ><b>{{ c.customer }}</b> <span class="quiet">{{ c.title }}</span></template
          >
        </DataTable>
        <div class="row">
          <ActButton
            primary
            :disabled="busy || !chosen.length || plan.state === 'accepted'"
            @click="accept"
          >
            {{
              chosen.length === plan.changes.length
                ? `Accept all ${chosen.length}`
                : `Accept ${chosen.length} of ${plan.changes.length}`
            }}
            {{ plan.changes.length === 1 ? 'change' : 'changes' }}</ActButton
          ><span class="quiet">It can be undone on the schedule.</span>
        </div>
      </template>
      <p
        v-else
        class="empty sheet"
      >
        Nothing better was found: the day stays as it is.
      </p>
    </template>
    <p
      v-else
      class="empty sheet"
    >
      The planner keeps promises first, then serves everybody, then avoids time over, then driving.
      It proposes; you accept all of it, some, or nothing.
    </p>
  </section>
</template>

<style scoped>
.form {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  padding: 12px;
  align-items: flex-end;
}
.form > label.row,
.who {
  min-height: 34px;
}
.who {
  border: 0;
  padding: 0;
  margin: 0;
  gap: 12px;
  flex-wrap: wrap;
}
.compare {
  max-width: 620px;
}
progress {
  width: 220px;
}
</style>
