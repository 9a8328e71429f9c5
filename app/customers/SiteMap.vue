<script setup lang="ts">
// Where a customer's sites are to each other, north up; drawn from their places, without a background map.
import { computed } from 'vue'
import { geoMercator } from 'd3'
import { saySite } from '~~/core/customers/saySite'
import type { Answer } from '~~/shared/api'

const props = defineProps<{ sites: Answer<'customer'>['sites'] }>()
const W = 300
const H = 190
const placed = computed(() =>
  props.sites.filter((s) => typeof s.lat === 'number' && typeof s.lon === 'number'),
)
const points = computed(() => {
  const spots = placed.value.map((s) => [s.lon!, s.lat!] as [number, number])
  // A single site, or several at one spot, get a mile around them.
  const around = spots.flatMap(
    ([lon, lat]) =>
      [
        [lon - 0.012, lat - 0.009],
        [lon + 0.012, lat + 0.009],
      ] as [number, number][],
  )
  const projection = geoMercator().fitExtent(
    [
      [26, 22],
      [W - 70, H - 26],
    ],
    { type: 'MultiPoint', coordinates: around },
  )
  const shown = placed.value.map((s, i) => ({
    id: s.id,
    name: s.name || saySite(s),
    at: projection(spots[i]!)!,
  }))
  const mile = spots.length
    ? Math.abs(
        projection([
          spots[0]![0] + 1 / (69.172 * Math.cos((spots[0]![1] * Math.PI) / 180)),
          spots[0]![1],
        ])![0] - projection(spots[0]!)![0],
      )
    : 0
  return { shown, mile }
})
</script>

<template>
  <svg
    v-if="placed.length"
    :viewBox="`0 0 ${W} ${H}`"
    class="map"
    role="img"
    :aria-label="`Map of ${placed.length} sites`"
  >
    <rect
      :width="W"
      :height="H"
      fill="#f7faf8"
    />
    <g
      v-for="p in points.shown"
      :key="p.id"
    >
      <circle
        :cx="p.at[0]"
        :cy="p.at[1]"
        r="7"
        fill="none"
        stroke="#1d5c49"
      />
      <circle
        :cx="p.at[0]"
        :cy="p.at[1]"
        r="3"
        fill="#1d5c49"
      />
      <text
        :x="p.at[0] + 11"
        :y="p.at[1] + 4"
      >
        {{ p.name }}
      </text>
    </g>
    <g :transform="`translate(10, ${H - 10})`">
      <path
        :d="`M0,-4 v4 h${Math.min(points.mile, W - 20)} v-4`"
        fill="none"
        stroke="#4a5a54"
      />
      <text
        x="3"
        y="-6"
      >
        1 mile
      </text>
    </g>
    <text
      :x="W - 16"
      y="16"
    >
      N
    </text>
    <path
      :d="`M${W - 12},34 v-14 m-4,5 l4,-5 l4,5`"
      fill="none"
      stroke="#4a5a54"
    />
  </svg>
  <p
    v-else
    class="quiet small"
  >
    The places of these sites are not known yet.
  </p>
</template>

<style scoped>
.map {
  width: 100%;
  border: 1px solid var(--rule-2);
  border-radius: 4px;
  display: block;
}
text {
  font: 0.65625rem var(--text);
  fill: var(--ink);
}
</style>
