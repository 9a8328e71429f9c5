<script setup lang="ts">
// Above every view of the schedule: which view, what is looked at, and the looks that are kept by name.
import { computed, onMounted, ref } from 'vue'
import { CALL_KINDS } from '~~/shared/calls'
import { useAct } from '~/lib/useAct'
import { useScheduleDate } from '~/lib/useScheduleDate'
import { useLooks, VISIT_STATES } from '~/stores/looks'

const props = defineProps<{
  date: string
  technicians: { id: string; name: string; skills: string[]; territories: string[] }[]
  shown?: number
  of?: number
}>()
const { session, route, may } = useScheduleDate()
const looks = useLooks()
onMounted(() => void looks.load())
const VIEWS = [
  ['/schedule', 'Day'],
  ['/schedule/one', 'One technician'],
  ['/schedule/week', 'Week'],
  ['/schedule/month', 'Month'],
  ['/schedule/list', 'List'],
  ['/schedule/map', 'Map'],
] as const
const territories = computed(() =>
  [...new Set(props.technicians.flatMap((t) => t.territories))].sort(),
)
const skills = computed(() => [...new Set(props.technicians.flatMap((t) => t.skills))].sort())
const name = ref('')
const open = ref(false)
const { busy, problem, act } = useAct()
const keep = () =>
  act(async () => {
    await looks.keep(name.value)
    name.value = ''
  })
const choose = (key: 'territory' | 'skill' | 'state' | 'kind', value: string) =>
  looks.set({ ...looks.filter, [key]: value })
const person = (id: string) =>
  looks.set({
    ...looks.filter,
    technicianIds: looks.filter.technicianIds.includes(id)
      ? looks.filter.technicianIds.filter((x) => x !== id)
      : [...looks.filter.technicianIds, id],
  })
const said = computed(() =>
  [
    looks.filter.technicianIds
      .map((id) => props.technicians.find((t) => t.id === id)?.name.split(' ')[0])
      .filter(Boolean)
      .join(', '),
    looks.filter.territory,
    looks.filter.skill,
    VISIT_STATES.find(([k]) => k === looks.filter.state)?.[1],
    looks.filter.kind,
  ]
    .filter(Boolean)
    .join(' · '),
)
</script>

<template>
  <div class="viewbar">
    <nav aria-label="Views of the schedule">
      <NuxtLink
        v-for="[to, label] in VIEWS"
        :key="to"
        :to="{ path: to, query: { date } }"
        :class="{ here: route.path === to }"
        :aria-current="route.path === to ? 'page' : undefined"
        >{{ label }}</NuxtLink
      >
    </nav>
    <button
      class="btn"
      :class="{ on: looks.active }"
      :aria-expanded="open"
      @click="open = !open"
    >
      {{ looks.active ? `Only: ${said}` : 'Everything' }}
    </button>
    <button
      v-if="looks.active"
      class="btn plain"
      @click="looks.clear()"
    >
      Show everything
    </button>
    <span
      v-if="looks.active && of"
      class="quiet small num"
      >{{ shown }} of {{ of }}</span
    >
    <button
      v-for="l in looks.looks"
      :key="l.id"
      class="btn look"
      :class="{ on: JSON.stringify(l.filter) === JSON.stringify(looks.filter) }"
      @click="looks.set(l.filter)"
    >
      {{ l.name }}
    </button>
    <span class="grow" />
    <a
      class="btn"
      :href="`/api/v1/schedule/${date}/day-sheets.pdf`"
      target="_blank"
      >Day sheets</a
    >
    <NuxtLink
      v-if="may"
      class="btn"
      to="/schedule/set-up"
      >Hours and areas</NuxtLink
    >
    <NuxtLink
      v-if="may && date >= session.today"
      class="btn"
      :to="{ path: '/schedule/plan', query: { date } }"
      >Plan the day…</NuxtLink
    >
    <div
      v-if="open"
      class="sheet pop"
      @keydown.esc="open = false"
    >
      <fieldset>
        <legend class="quiet small">Who; nobody chosen means everybody</legend>
        <label
          v-for="t in technicians"
          :key="t.id"
          class="row small"
          ><input
            type="checkbox"
            :checked="looks.filter.technicianIds.includes(t.id)"
            @change="person(t.id)"
          />
          {{ t.name }}</label
        >
      </fieldset>
      <div class="two">
        <label class="field"
          ><span>Territory</span
          ><select
            class="plain"
            :value="looks.filter.territory"
            @change="choose('territory', ($event.target as HTMLSelectElement).value)"
          >
            <option value="">all</option>
            <option
              v-for="t in territories"
              :key="t"
            >
              {{ t }}
            </option>
          </select></label
        >
        <label class="field"
          ><span>Skill wanted</span
          ><select
            class="plain"
            :value="looks.filter.skill"
            @change="choose('skill', ($event.target as HTMLSelectElement).value)"
          >
            <option value="">any</option>
            <option
              v-for="s in skills"
              :key="s"
            >
              {{ s }}
            </option>
          </select></label
        >
        <label class="field"
          ><span>How it stands</span
          ><select
            class="plain"
            :value="looks.filter.state"
            @change="choose('state', ($event.target as HTMLSelectElement).value)"
          >
            <option value="">all</option>
            <option
              v-for="[k, label] in VISIT_STATES"
              :key="k"
              :value="k"
            >
              {{ label }}
            </option>
          </select></label
        >
        <label class="field"
          ><span>Kind</span
          ><select
            class="plain"
            :value="looks.filter.kind"
            @change="choose('kind', ($event.target as HTMLSelectElement).value)"
          >
            <option value="">all</option>
            <option
              v-for="k in CALL_KINDS"
              :key="k"
            >
              {{ k }}
            </option>
          </select></label
        >
      </div>
      <form
        class="row"
        @submit.prevent="keep"
      >
        <input
          v-model="name"
          class="plain grow"
          maxlength="60"
          placeholder="Keep this look as…"
          aria-label="Keep this look as"
        /><button
          class="btn act"
          :disabled="busy || !name.trim()"
        >
          Keep
        </button>
      </form>
      <p
        v-if="problem"
        class="wrong"
      >
        {{ problem.message }}
      </p>
      <div
        v-for="l in looks.looks"
        :key="l.id"
        class="row"
      >
        <span class="grow">{{ l.name }}</span><button
          class="btn plain small"
          :aria-label="`Forget ${l.name}`"
          @click="act(() => looks.drop(l.id))"
        >
          Forget
        </button>
      </div>
    </div>
  </div>
</template>

<style scoped>
.viewbar {
  position: relative;
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 0 14px;
  min-height: 40px;
  background: var(--sheet);
  border-bottom: 1px solid var(--rule-2);
  flex: none;
}
nav {
  display: flex;
  align-self: stretch;
  margin-right: 6px;
}
nav a {
  display: flex;
  align-items: center;
  padding: 0 9px;
  color: var(--ink-2);
  text-decoration: none;
  border-bottom: 3px solid transparent;
  border-top: 3px solid transparent;
  white-space: nowrap;
}
nav a.here {
  color: var(--green);
  font-weight: 650;
  border-bottom-color: var(--green);
}
.viewbar > .btn {
  min-height: 28px;
  padding: 0 8px;
  max-width: 260px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.pop {
  position: absolute;
  z-index: 40;
  top: 38px;
  left: 330px;
  width: 430px;
  padding: 12px;
  display: flex;
  flex-direction: column;
  gap: 10px;
  box-shadow: 0 6px 24px rgb(22 36 31 / 14%);
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0 10px;
}
fieldset label {
  min-height: 25px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
</style>
