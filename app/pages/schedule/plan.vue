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
      <label class="field"
        ><span>From</span
        ><input
          v-model="date"
          class="plain"
          type="date"
          :min="session.today"
      /></label>
      <label class="field"
        ><span>Days</span
        ><select
          v-model.number="days"
          class="plain"
        >
          <option
            v-for="n in 5"
            :key="n"
            :value="n"
          >
            {{ n === 1 ? 'this day' : `${n} days` }}
          </option>
        </select></label
      >
      <label class="field"
        ><span>Somebody is away</span
        ><select
          v-model="absentId"
          class="plain"
        >
          <option value="">nobody</option>
          <option
            v-for="p in people"
            :key="p.id"
            :value="p.id"
          >
            {{ p.name }}
          </option>
        </select></label
      >
      <label
        v-if="absentId"
        class="field"
        ><span>because</span
        ><input
          v-model="reason"
          class="plain"
          style="width: 130px"
      /></label>
      <label class="field"
        ><span>Think for</span
        ><select
          v-model.number="seconds"
          class="plain"
        >
          <option
            v-for="n in [2, 4, 10, 30]"
            :key="n"
            :value="n"
          >
            {{ n }} s
          </option>
        </select></label
      >
      <label class="row"
        ><input
          v-model="tray"
          type="checkbox"
        />
        take in what has no slot</label
      ><label class="row"
        ><input
          v-model="keepTechnicians"
          type="checkbox"
        />
        everybody keeps their visits</label
      >
      <fieldset class="row who">
        <legend class="quiet small">Who is planned</legend>
        <label
          v-for="p in people.filter((x) => x.id !== absentId)"
          :key="p.id"
          class="row small"
          ><input
            type="checkbox"
            :checked="!leftOut.includes(p.id)"
            @change="
              leftOut = leftOut.includes(p.id)
                ? leftOut.filter((x) => x !== p.id)
                : [...leftOut, p.id]
            "
          />
          {{ p.name.split(' ')[0] }}</label
        >
      </fieldset>
      <button
        class="btn act"
        :disabled="busy"
      >
        {{ plan ? 'Propose anew' : 'Propose a plan' }}
      </button>
    </form>
    <p
      v-if="problem"
      class="note bad"
      role="alert"
    >
      {{ problem.message }}
    </p>
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
      ><button
        type="button"
        class="btn"
        @click="stop"
      >
        Stop, with the best so far
      </button>
    </div>
    <p
      v-else-if="plan?.state === 'failed'"
      class="note bad"
      role="alert"
    >
      {{ plan.problem }}
    </p>
    <template v-else-if="plan?.before && plan.after">
      <table class="book compare">
        <thead>
          <tr>
            <th />
            <th class="right">Now</th>
            <th class="right">Proposed</th>
            <th class="right">Difference</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="[k, name] in FACTS"
            :key="k"
          >
            <td>{{ name }}</td>
            <td class="right num">{{ show(k, plan.before[k]) }}</td>
            <td class="right num">{{ show(k, plan.after[k]) }}</td>
            <td
              class="right num"
              :class="better(k) < 0 ? 'good' : better(k) > 0 ? 'late' : 'quiet'"
            >
              {{
                better(k) === 0
                  ? 'same'
                  : `${better(k) < 0 ? '−' : '+'}${show(k, Math.abs(better(k)))}`
              }}
            </td>
          </tr>
        </tbody>
      </table>
      <template v-if="plan.changes.length">
        <table class="book">
          <thead>
            <tr>
              <th>
                <input
                  type="checkbox"
                  aria-label="Take all"
                  :checked="chosen.length === plan.changes.length"
                  @change="
                    chosen =
                      chosen.length === plan.changes.length
                        ? []
                        : plan.changes.map((c) => c.visitId)
                  "
                />
              </th>
              <th>Visit</th>
              <th>Now</th>
              <th>Proposed</th>
              <th>Promised</th>
              <th>Why</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="c in plan.changes"
              :key="c.visitId"
            >
              <td>
                <input
                  v-model="chosen"
                  type="checkbox"
                  :value="c.visitId"
                  :aria-label="`Take ${c.title}, ${c.customer}`"
                />
              </td>
              <td>
                <b>{{ c.customer }}</b> <span class="quiet">{{ c.title }}</span>
              </td>
              <td>{{ when(c.from) }}</td>
              <td>{{ when(c.to) }}</td>
              <td :class="c.kept ? 'quiet' : 'late'">
                {{
                  c.promise
                    ? `${c.promise.slice(11)} ${c.kept ? 'kept' : 'broken'}`
                    : c.kept
                      ? 'nothing'
                      : 'loses its slot'
                }}
              </td>
              <td class="small">{{ c.why }}</td>
            </tr>
          </tbody>
        </table>
        <div class="row">
          <button
            class="btn act"
            :disabled="busy || !chosen.length || plan.state === 'accepted'"
            @click="accept"
          >
            {{
              chosen.length === plan.changes.length
                ? `Accept all ${chosen.length}`
                : `Accept ${chosen.length} of ${plan.changes.length}`
            }}
            {{ plan.changes.length === 1 ? 'change' : 'changes' }}</button
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
.page {
  padding: 18px 20px;
  display: flex;
  flex-direction: column;
  gap: 12px;
}
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
