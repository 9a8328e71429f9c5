<script setup lang="ts">
// The days of the week above the board, each with how much of its mornings and afternoons is taken.
import { fullness, shareTaken } from '~/lib/capacity'
import { useSession } from '~/stores/session'
import type { Day } from './useDay'

defineProps<{ week: Day['week']; date: string }>()
const emit = defineEmits<{ go: [date: string] }>()
const session = useSession()
const halves = (d: Day['week'][number]) => [
  { short: 'AM', name: 'Morning', taken: d.morning, of: d.capacityMorning },
  { short: 'PM', name: 'Afternoon', taken: d.afternoon, of: d.capacityAfternoon },
]
</script>

<template>
  <nav aria-label="Days of the week">
    <button
      v-for="d in week"
      :key="d.date"
      :class="{ on: d.date === date }"
      :aria-current="d.date === date ? 'date' : undefined"
      @click="emit('go', d.date)"
    >
      <span>{{ session.day(d.date) }}</span>
      <span
        v-for="half in halves(d)"
        :key="half.short"
        class="bar"
        :title="`${half.name}: ${half.taken} of ${half.of}`"
      >
        <i>{{ half.short }}</i>
        <em
          ><u
            :class="fullness(half.taken, half.of)"
            :style="{ width: shareTaken(half.taken, half.of) }"
        /></em>
        <b class="num">{{ half.taken }}/{{ half.of }}</b>
      </span>
    </button>
  </nav>
</template>

<style scoped>
nav {
  display: grid;
  grid-template-columns: repeat(7, 1fr);
  background: var(--sheet);
  border-bottom: 1px solid var(--rule-2);
  flex: none;
}
button {
  border: 0;
  border-right: 1px solid var(--rule);
  background: none;
  padding: 7px 9px;
  text-align: left;
  cursor: pointer;
  display: flex;
  flex-direction: column;
  gap: 3px;
}
.on {
  background: var(--green-1);
  font-weight: 650;
}
.bar {
  display: flex;
  gap: 5px;
  align-items: center;
  font-size: 0.625rem;
  color: var(--ink-2);
  font-weight: 400;
}
.bar i {
  font-style: normal;
  width: 16px;
}
.bar em {
  flex: 1;
  height: 7px;
  background: #e6ebe8;
}
.bar u {
  display: block;
  height: 100%;
  background: var(--green-2);
}
.bar u.full {
  background: #d9a53c;
}
.bar u.over {
  background: var(--brick);
}
.bar b {
  font-weight: 400;
  width: 30px;
  text-align: right;
}
</style>
