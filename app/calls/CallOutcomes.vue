<script setup lang="ts">
// What calls came to: a bar for each group, as long as it has calls, parted by what came of them.
import { computed } from 'vue'
import { scaleLinear, stack } from 'd3'
import { OUTCOMES, type Outcome } from '~~/core/calls/callCounts'
import type { Answer } from '~~/shared/api'

type Count = Answer<'callsCounted'>['items'][number]
const props = defineProps<{ items: readonly Count[] }>()
const [W, ROW, LEFT] = [720, 22, 150]
const WORDS: Readonly<Record<Outcome, string>> = {
  work: 'work',
  quote: 'a quote so far',
  answered: 'answered',
  declined: 'no',
  waiting: 'waiting',
}
const drawn = computed(() => {
  const rows = props.items
  const x = scaleLinear([0, Math.max(1, ...rows.map(({ calls }) => calls))], [LEFT, W - 40])
  const parts = stack<Count, Outcome>()
    .keys(OUTCOMES)
    .value(({ came }, outcome) => came[outcome])([...rows])
  return rows.map((row, i) => ({
    key: row.key,
    name: row.name,
    calls: row.calls,
    end: x(row.calls) + 6,
    y: i * ROW,
    said: `${row.name}: ${OUTCOMES.filter((o) => row.came[o])
      .map((o) => `${row.came[o]} ${WORDS[o]}`)
      .join(', ')}`,
    parts: parts
      .map((part) => ({ key: part.key, x: x(part[i]![0]), width: x(part[i]![1]) - x(part[i]![0]) }))
      .filter(({ width }) => width > 0),
  }))
})
</script>

<template>
  <figure>
    <svg
      :viewBox="`0 0 ${W} ${drawn.length * ROW}`"
      role="img"
      :aria-label="drawn.map((row) => row.said).join('; ')"
    >
      <g
        v-for="row in drawn"
        :key="row.key"
        :transform="`translate(0 ${row.y})`"
      >
        <title>{{ row.said }}</title>
        <text
          :x="LEFT - 8"
          :y="ROW / 2 + 4"
          text-anchor="end"
        >
          {{ row.name }}
        </text>
        <rect
          v-for="part in row.parts"
          :key="part.key"
          :class="part.key"
          :x="part.x"
          y="3"
          :width="part.width"
          :height="ROW - 6"
        />
        <text
          class="num"
          :x="row.end"
          :y="ROW / 2 + 4"
        >
          {{ row.calls }}
        </text>
      </g>
    </svg>
    <figcaption class="small">
      <span
        v-for="outcome in OUTCOMES"
        :key="outcome"
        ><span
          class="key"
          :class="outcome"
        />{{ WORDS[outcome] }}</span
      >
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 12px 0;
}
svg {
  width: 100%;
  max-width: 860px;
}
text {
  font: 0.75rem var(--text);
  fill: var(--ink);
}
figcaption {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
}
.key {
  display: inline-block;
  width: 14px;
  height: 10px;
  margin-right: 5px;
}
.work {
  fill: var(--green);
  background: var(--green);
}
.quote {
  fill: var(--steel);
  background: var(--steel);
}
.answered {
  fill: var(--rule-2);
  background: var(--rule-2);
}
.declined {
  fill: var(--brick);
  background: var(--brick);
}
.waiting {
  fill: var(--marigold-line);
  background: var(--marigold-line);
}
</style>
