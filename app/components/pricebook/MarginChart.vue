<script setup lang="ts">
// How margins spread before and after a change: one outline for each, over steps of five points.
import { computed } from 'vue'
import { bin, line, curveStepAfter, scaleLinear } from 'd3'

const props = defineProps<{ margins: readonly { was: string; becomes: string }[] }>()
const [W, H] = [560, 150]
const FROM = -0.2
const spread = (key: 'was' | 'becomes') =>
  bin()
    .domain([FROM, 1])
    .thresholds(Array.from({ length: 24 }, (_, i) => FROM + i * 0.05))(
    props.margins.map((m) => Math.max(FROM, Math.min(0.999, Number(m[key])))),
  )
const drawn = computed(() => {
  const [was, becomes] = [spread('was'), spread('becomes')]
  const most = Math.max(1, ...[...was, ...becomes].map((b) => b.length))
  const [x, y] = [scaleLinear([FROM, 1], [0, W]), scaleLinear([0, most], [H - 20, 6])]
  const path = (bins: typeof was) =>
    line<[number, number]>(
      (p) => x(p[0]),
      (p) => y(p[1]),
    ).curve(curveStepAfter)([
      ...bins.map((b): [number, number] => [b.x0!, b.length]),
      [1, bins.at(-1)!.length],
    ])!
  return {
    was: path(was),
    becomes: path(becomes),
    marks: x.ticks(6).map((t) => ({ at: x(t), text: `${Math.round(t * 100)} %` })),
    zero: x(0),
  }
})
const mean = (key: 'was' | 'becomes') =>
  props.margins.length
    ? Math.round(
        (props.margins.reduce((n, m) => n + Number(m[key]), 0) / props.margins.length) * 1000,
      ) / 10
    : 0
</script>

<template>
  <figure v-if="margins.length">
    <svg
      :viewBox="`-14 0 ${W + 28} ${H}`"
      role="img"
      :aria-label="`Margins: ${mean('was')} % on average before, ${mean('becomes')} % after`"
    >
      <line
        :x1="drawn.zero"
        :x2="drawn.zero"
        y1="0"
        :y2="H - 20"
        class="zero"
      />
      <path
        :d="drawn.was"
        class="was"
      />
      <path
        :d="drawn.becomes"
        class="becomes"
      />
      <text
        v-for="m in drawn.marks"
        :key="m.text"
        :x="m.at"
        :y="H - 5"
        text-anchor="middle"
      >
        {{ m.text }}
      </text>
    </svg>
    <figcaption class="small">
      <span class="key was" /> before, on average <b class="num">{{ mean('was') }} %</b>{{ ' '
      }}<span class="key becomes" /> after, on average <b class="num">{{ mean('becomes') }} %</b>
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
svg {
  width: 100%;
  max-width: 640px;
}
path {
  fill: none;
  stroke-width: 2;
}
.was {
  stroke: var(--steel);
  stroke-dasharray: 5 4;
}
path.becomes {
  stroke: var(--green);
}
text {
  font: 0.6875rem var(--text);
  fill: var(--ink-2);
}
.zero {
  stroke: var(--brick);
}
.key {
  display: inline-block;
  width: 22px;
  height: 0;
  border-top: 2px dashed var(--steel);
  vertical-align: middle;
  margin: 0 4px 0 10px;
}
.key.becomes {
  border-top: 2px solid var(--green);
}
</style>
