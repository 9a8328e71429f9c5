<script setup lang="ts">
// Above every view of the schedule: which view, what is looked at, and the filters that are kept by name.
import { computed, onMounted, ref } from 'vue'
import { useAsking } from '~/lib/unanswered'
import { useAct } from '~/lib/useAct'
import { useScheduleDate } from '~/lib/useScheduleDate'
import { useScheduleFilter, VISIT_STATES } from '~/stores/scheduleFilter'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Choice from '~/base/Choice.vue'
import Field from '~/base/Field.vue'
import OneField from '~/base/OneField.vue'

const props = defineProps<{
  date: string
  technicians: { id: string; name: string; skills: string[]; territories: string[] }[]
  shown?: number
  of?: number
}>()
const { session, route, may } = useScheduleDate()
const filters = useScheduleFilter()
const ask = useAsking()
const loadFilters = (): Promise<unknown> => ask(filters.load, loadFilters)
onMounted(loadFilters)
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
const open = ref(false)
const { problem, act } = useAct()
const choose = (key: 'territory' | 'skill' | 'state' | 'kind', value: string) =>
  filters.set({ ...filters.filter, [key]: value })
const person = (id: string) =>
  filters.set({
    ...filters.filter,
    technicianIds: filters.filter.technicianIds.includes(id)
      ? filters.filter.technicianIds.filter((x) => x !== id)
      : [...filters.filter.technicianIds, id],
  })
const said = computed(() =>
  [
    filters.filter.technicianIds
      .map((id) => props.technicians.find((t) => t.id === id)?.name.split(' ')[0])
      .filter(Boolean)
      .join(', '),
    filters.filter.territory,
    filters.filter.skill,
    VISIT_STATES.find(([k]) => k === filters.filter.state)?.[1],
    filters.filter.kind,
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
    <ActButton
      :on="filters.active"
      :aria-expanded="open"
      @click="open = !open"
    >
      {{ filters.active ? `Only: ${said}` : 'Everything' }}
    </ActButton>
    <ActButton
      v-if="filters.active"
      quiet
      @click="filters.clear()"
    >
      Show everything
    </ActButton>
    <span
      v-if="filters.active && of"
      class="quiet small num"
      >{{ shown }} of {{ of }}</span
    >
    <ActButton
      v-for="l in filters.saved"
      :key="l.id"
      class="kept"
      :on="JSON.stringify(l.filter) === JSON.stringify(filters.filter)"
      @click="filters.set(l.filter)"
    >
      {{ l.name }}
    </ActButton>
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
        <Check
          v-for="t in technicians"
          :key="t.id"
          class="small"
          :model-value="filters.filter.technicianIds.includes(t.id)"
          @change="person(t.id)"
        >
          {{ t.name }}</Check
        >
      </fieldset>
      <div class="two">
        <Field label="Territory"
          ><Choice
            :model-value="filters.filter.territory"
            :options="[
              { value: '', label: 'all' },
              ...territories.map((t) => ({ value: t, label: t })),
            ]"
            @change="choose('territory', $event)"
        /></Field>
        <Field label="Skill wanted"
          ><Choice
            :model-value="filters.filter.skill"
            :options="[{ value: '', label: 'any' }, ...skills.map((s) => ({ value: s, label: s }))]"
            @change="choose('skill', $event)"
        /></Field>
        <Field label="How it stands"
          ><Choice
            :model-value="filters.filter.state"
            :options="[
              { value: '', label: 'all' },
              ...VISIT_STATES.map(([k, label]) => ({ value: k, label: label })),
            ]"
            @change="choose('state', $event)"
        /></Field>
        <Field label="Kind"
          ><Choice
            :model-value="filters.filter.kind"
            :options="[
              { value: '', label: 'all' },
              ...session.workKinds.map((k) => ({ value: k.code, label: k.name })),
            ]"
            @change="choose('kind', $event)"
        /></Field>
      </div>
      <OneField
        primary
        label="Keep this filter as"
        placeholder="Keep this filter as…"
        maxlength="60"
        act="Keep"
        :send="filters.keep"
      />
      <p
        v-if="problem"
        class="wrong"
      >
        {{ problem.message }}
      </p>
      <div
        v-for="l in filters.saved"
        :key="l.id"
        class="row"
      >
        <span class="grow">{{ l.name }}</span><ActButton
          quiet
          class="small"
          :aria-label="`Forget ${l.name}`"
          @click="act(() => filters.drop(l.id))"
        >
          Forget
        </ActButton>
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
@media (max-width: 700px) {
  .viewbar {
    flex-wrap: wrap;
    padding: 4px 14px;
  }
  nav {
    flex-wrap: wrap;
  }
  .pop {
    left: 8px;
    width: min(430px, calc(100vw - 16px));
  }
}
</style>
