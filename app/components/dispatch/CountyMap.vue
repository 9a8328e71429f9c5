<script setup lang="ts">
// The map: ground, territories as the land that is nearer to their sites than to others', routes in order, people, what waits. Zoom, pan, keyboard.
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import {
  Delaunay,
  geoMercator,
  polygonCentroid,
  polygonHull,
  select,
  zoom,
  zoomIdentity,
  type D3ZoomEvent,
  type ZoomBehavior,
} from 'd3'
import type { Answer } from '~~/shared/api'
import ActButton from '~/base/ActButton.vue'

type Day = Answer<'mapDay'>
type Ground = {
  features: {
    properties: { name?: string; kind?: string; speed?: number }
    geometry: { type: string; coordinates: unknown }
  }[]
}
const props = defineProps<{
  day: Day
  ground: Ground | null
  only: string[]
  site: string | null
  layers: { territories: boolean; sites: boolean; routes: boolean }
}>()
const emit = defineEmits<{ site: [id: string]; visit: [id: string] }>()
const W = 900
const H = 700
const INKS = [
  '#1d5c49',
  '#2f5f8f',
  '#8a4b00',
  '#6b3f7d',
  '#3d6b21',
  '#8c2f4b',
  '#2b6d73',
  '#5a5a1e',
]
const TINTS = ['#dcebe4', '#f6ecd2', '#dde7f1', '#f3e0dc', '#e6e2f0', '#e5ecd6']
const ink = (i: number) => INKS[i % INKS.length]!
const spots = computed<[number, number][]>(() => [
  ...props.day.sites.map((s) => [s.lon, s.lat] as [number, number]),
  ...props.day.technicians.flatMap((t) =>
    [t.start, t.end].flatMap((p) => (p ? [[p.lon, p.lat] as [number, number]] : [])),
  ),
])
const projection = computed(() =>
  geoMercator().fitExtent(
    [
      [30, 30],
      [W - 30, H - 30],
    ],
    {
      type: 'MultiPoint',
      coordinates: spots.value.length
        ? spots.value
        : [
            [-75, 42],
            [-74.9, 42.1],
          ],
    },
  ),
)
const xy = (lon: number, lat: number) => projection.value([lon, lat])!
const line = (way: readonly (readonly number[])[]) =>
  way
    .map(
      ([lon, lat], i) =>
        `${i ? 'L' : 'M'}${xy(lon!, lat!)
          .map((n) => n.toFixed(1))
          .join(',')}`,
    )
    .join('')
/** Lines and rings as they stand: on a county's patch of the globe nobody has to know which side of a ring is its inside. */
function shape(g: Ground['features'][number]['geometry']): string {
  const deep = g.coordinates as never
  if (g.type === 'LineString') return line(deep)
  if (g.type === 'MultiLineString') return (deep as number[][][]).map(line).join('')
  const area = (rings: number[][][]) => rings.map((r) => `${line(r)}Z`).join('')
  if (g.type === 'Polygon') return area(deep)
  return g.type === 'MultiPolygon' ? area((deep as number[][][][]).flat()) : ''
}
const drawn = (test: (f: Ground['features'][number]) => boolean) =>
  (props.ground?.features ?? [])
    .filter(test)
    .map((f) => shape(f.geometry))
    .join('')
const roads = computed(() => ({
  lakes: drawn((f) => f.properties.kind === 'water' && f.geometry.type.endsWith('Polygon')),
  rivers: drawn((f) => f.properties.kind === 'water' && f.geometry.type.endsWith('LineString')),
  lanes: drawn(
    (f) =>
      f.geometry.type.endsWith('LineString') &&
      f.properties.kind !== 'water' &&
      (f.properties.speed ?? 60) < 60,
  ),
  ways: drawn(
    (f) =>
      f.geometry.type.endsWith('LineString') &&
      f.properties.kind !== 'water' &&
      (f.properties.speed ?? 60) >= 60,
  ),
}))
const towns = computed(() =>
  (props.ground?.features ?? [])
    .filter((f) => f.geometry.type === 'Point' && f.properties.name)
    .map((f) => ({
      name: f.properties.name!,
      at: xy(...(f.geometry.coordinates as [number, number])),
    })),
)
// Cells around the sites, put together by territory; the edge of all is the hull of the sites, a little wider.
const cells = computed(() => {
  const points = props.day.sites.map((s) => xy(s.lon, s.lat))
  if (points.length < 3) return null
  const delaunay = Delaunay.from(points)
  const voronoi = delaunay.voronoi([-W, -H, 2 * W, 2 * H])
  const fills = new Map<string, string[]>()
  const borders: string[] = []
  props.day.sites.forEach((s, i) => {
    if (s.territoryId)
      fills.set(s.territoryId, [...(fills.get(s.territoryId) ?? []), voronoi.renderCell(i)])
  })
  const { halfedges, triangles } = delaunay
  const { circumcenters } = voronoi
  for (let e = 0; e < halfedges.length; e++) {
    const other = halfedges[e]!
    if (other < e) continue
    const [a, b] = [triangles[e]!, triangles[e % 3 === 2 ? e - 2 : e + 1]!]
    if (props.day.sites[a]!.territoryId === props.day.sites[b]!.territoryId) continue
    const [t, u] = [Math.floor(e / 3) * 2, Math.floor(other / 3) * 2]
    borders.push(
      `M${circumcenters[t]},${circumcenters[t + 1]}L${circumcenters[u]},${circumcenters[u + 1]}`,
    )
  }
  const hull = polygonHull(points)
  const middle = hull ? polygonCentroid(hull) : [W / 2, H / 2]
  const edge = hull?.map(([x, y]) => {
    const d = Math.hypot(x - middle[0]!, y - middle[1]!) || 1
    return [x + ((x - middle[0]!) / d) * 26, y + ((y - middle[1]!) / d) * 26]
  })
  const names = props.day.territories.map((t) => {
    const own = points.filter((_, i) => props.day.sites[i]!.territoryId === t.id)
    return {
      ...t,
      at: own.length
        ? [
            own.reduce((n, p) => n + p[0], 0) / own.length,
            own.reduce((n, p) => n + p[1], 0) / own.length,
          ]
        : null,
    }
  })
  return {
    delaunay,
    fills: [...fills].map(([id, parts]) => ({ id, d: parts.join('') })),
    borders: borders.join(''),
    edge: edge ? `M${edge.map((p) => p.join(',')).join('L')}Z` : '',
    names,
  }
})
const dots = computed(() =>
  props.day.sites
    .map(
      (s) =>
        `M${xy(s.lon, s.lat)
          .map((n) => n.toFixed(1))
          .join(',')}h0`,
    )
    .join(''),
)
const people = computed(() =>
  props.day.technicians.map((t, i) => ({
    ...t,
    ink: ink(i),
    on: props.only.length === 0 || props.only.includes(t.id),
    way: line(t.route),
    marks: t.stops.map((s, n) => ({ ...s, n: n + 1, at: xy(s.lon, s.lat) })),
    home: t.start ? xy(t.start.lon, t.start.lat) : null,
    van: t.position ? xy(t.position.lon, t.position.lat) : null,
  })),
)
const chosen = computed(() => {
  const s = props.day.sites.find((x) => x.id === props.site)
  return s ? { ...s, at: xy(s.lon, s.lat) } : null
})
const svg = ref<SVGSVGElement>()
const view = shallowRef({ x: 0, y: 0, k: 1 })
let behaviour: ZoomBehavior<SVGSVGElement, unknown>
onMounted(() => {
  behaviour = zoom<SVGSVGElement, unknown>()
    .scaleExtent([0.6, 24])
    .on('zoom', (e: D3ZoomEvent<SVGSVGElement, unknown>) => {
      view.value = e.transform
    })
  select(svg.value!).call(behaviour).on('dblclick.zoom', null)
})
onBeforeUnmount(() => select(svg.value!).on('.zoom', null))
const by = (k: number) => behaviour.scaleBy(select(svg.value!), k)
const pan = (x: number, y: number) =>
  behaviour.translateBy(select(svg.value!), x / view.value.k, y / view.value.k)
const all = () => behaviour.transform(select(svg.value!), zoomIdentity)
function to(lon: number, lat: number) {
  const [x, y] = xy(lon, lat)
  behaviour.transform(
    select(svg.value!),
    zoomIdentity
      .translate(W / 2, H / 2)
      .scale(Math.max(2.5, view.value.k))
      .translate(-x, -y),
  )
}
watch(
  () => props.site,
  () => chosen.value && to(chosen.value.lon, chosen.value.lat),
)
function key(e: KeyboardEvent) {
  const act = {
    ArrowLeft: () => pan(80, 0),
    ArrowRight: () => pan(-80, 0),
    ArrowUp: () => pan(0, 80),
    ArrowDown: () => pan(0, -80),
    '+': () => by(1.4),
    '=': () => by(1.4),
    '-': () => by(1 / 1.4),
    '0': all,
  }[e.key]
  if (!act) return
  e.preventDefault()
  act()
}
/** A press on the land chooses the site that is nearest, when it is near enough to have been meant. */
function press(e: MouseEvent) {
  const point = svg.value!.createSVGPoint()
  Object.assign(point, { x: e.clientX, y: e.clientY })
  const at = point.matrixTransform(svg.value!.getScreenCTM()!.inverse())
  const [x, y] = [(at.x - view.value.x) / view.value.k, (at.y - view.value.y) / view.value.k]
  const i = cells.value?.delaunay.find(x, y) ?? (props.day.sites.length ? 0 : -1)
  const s = i >= 0 ? props.day.sites[i]! : null
  if (s && Math.hypot(xy(s.lon, s.lat)[0] - x, xy(s.lon, s.lat)[1] - y) * view.value.k < 14)
    emit('site', s.id)
}
const f = (px: number) => px / view.value.k
</script>

<template>
  <div class="map">
    <svg
      ref="svg"
      :viewBox="`0 0 ${W} ${H}`"
      preserveAspectRatio="xMidYMid meet"
      tabindex="0"
      role="application"
      aria-label="Map. Arrows move it, plus and minus zoom, 0 shows all."
      @keydown="key"
      @click="press"
    >
      <defs>
        <clipPath id="land"><path :d="cells?.edge || `M0,0H${W}V${H}H0Z`" /></clipPath>
      </defs>
      <rect
        :x="-W"
        :y="-H"
        :width="3 * W"
        :height="3 * H"
        fill="#f4f6f2"
      />
      <g :transform="`translate(${view.x},${view.y}) scale(${view.k})`">
        <g
          v-if="cells && layers.territories"
          clip-path="url(#land)"
        >
          <path
            v-for="c in cells.fills"
            :key="c.id"
            :d="c.d"
            :fill="TINTS[day.territories.findIndex((t) => t.id === c.id) % TINTS.length]"
          />
          <path
            :d="cells.borders"
            class="border"
          />
        </g>
        <path
          v-if="cells && layers.territories"
          :d="cells.edge"
          class="hull"
        />
        <path
          :d="roads.rivers"
          class="river"
        />
        <path
          :d="roads.lakes"
          class="lake"
        />
        <path
          :d="roads.lanes"
          class="lane"
        />
        <path
          :d="roads.ways"
          class="way"
        />
        <path
          v-if="layers.sites"
          :d="dots"
          class="dots"
        />
        <g
          v-for="t in towns"
          :key="t.name"
        >
          <text
            :x="t.at[0]"
            :y="t.at[1] - f(9)"
            :font-size="f(13)"
            class="town"
          >
            {{ t.name }}
          </text>
        </g>
        <template v-if="cells && layers.territories">
          <text
            v-for="t in cells.names.filter((n) => n.at)"
            :key="t.id"
            :x="t.at![0]"
            :y="t.at![1]! + f(38)"
            :font-size="f(12)"
            class="area"
          >
            {{ t.name }}{{ t.people.length ? '' : ' (nobody)' }}
          </text>
        </template>
        <template v-if="layers.routes">
          <g
            v-for="p in people"
            :key="p.id"
            :class="{ faint: !p.on }"
          >
            <path
              :d="p.way"
              class="route"
              :stroke="p.ink"
            />
            <rect
              v-if="p.home"
              :x="p.home[0] - f(5)"
              :y="p.home[1] - f(5)"
              :width="f(10)"
              :height="f(10)"
              :fill="p.ink"
            />
            <g
              v-for="m in p.marks"
              :key="m.visitId"
              class="stop"
              role="button"
              :aria-label="`Stop ${m.n} of ${p.name}`"
              @click.stop="emit('visit', m.visitId)"
            >
              <circle
                :cx="m.at[0]"
                :cy="m.at[1]"
                :r="f(9)"
                :fill="m.state === 'finished' ? '#eef3f0' : m.atRisk ? '#fae4de' : '#fff'"
                :stroke="m.atRisk ? '#b23a24' : p.ink"
                :stroke-width="f(2)"
              />
              <text
                :x="m.at[0]"
                :y="m.at[1] + f(4)"
                :font-size="f(11)"
                text-anchor="middle"
                :fill="p.ink"
              >
                {{ m.state === 'finished' ? '✓' : m.n }}
              </text>
            </g>
          </g>
          <g
            v-for="p in people.filter((x) => x.van)"
            :key="`v${p.id}`"
            :class="{ faint: !p.on || p.position!.old }"
          >
            <path
              :d="`M${p.van![0]},${p.van![1] - f(11)}l${f(9)},${f(11)}l${-f(9)},${f(11)}l${-f(9)},${-f(11)}z`"
              :fill="p.ink"
              stroke="#fff"
              :stroke-width="f(1.5)"
            />
            <text
              :x="p.van![0] + f(12)"
              :y="p.van![1] + f(4)"
              :font-size="f(12)"
              class="name"
            >
              {{ p.name.split(' ')[0] }}
            </text>
          </g>
        </template>
        <g
          v-for="w in day.waiting"
          :key="w.visitId"
          class="stop"
          role="button"
          :aria-label="`Waits for a slot: ${w.title}, ${w.customer}`"
          @click.stop="emit('site', w.siteId)"
        >
          <path
            :d="`M${xy(w.lon, w.lat)[0]},${xy(w.lon, w.lat)[1]}m0,${-f(10)}l${f(9)},${f(16)}h${-f(18)}z`"
            fill="#fbf0d6"
            stroke="#8a5b00"
            :stroke-width="f(1.8)"
          />
        </g>
        <circle
          v-if="chosen"
          :cx="chosen.at[0]"
          :cy="chosen.at[1]"
          :r="f(15)"
          class="chosen"
        />
      </g>
    </svg>
    <div class="keys">
      <ActButton
        aria-label="Nearer"
        @click="by(1.6)"
      >
        +</ActButton
      ><ActButton
        aria-label="Farther"
        @click="by(1 / 1.6)"
      >
        −</ActButton
      ><ActButton @click="all"> All </ActButton>
    </div>
  </div>
</template>

<style scoped>
.map {
  position: relative;
  height: 100%;
  min-height: 0;
}
svg {
  width: 100%;
  height: 100%;
  display: block;
  cursor: grab;
  touch-action: none;
}
svg:focus-visible {
  outline: 2px solid var(--green);
  outline-offset: -2px;
}
path,
circle {
  vector-effect: non-scaling-stroke;
}
.border {
  fill: none;
  stroke: #76857f;
  stroke-width: 1;
  stroke-dasharray: 5 4;
}
.hull {
  fill: none;
  stroke: #b9c5bf;
}
.river {
  fill: none;
  stroke: #a9cbdd;
  stroke-width: 4;
  stroke-linejoin: round;
}
.lake {
  fill: #d3e4ee;
  stroke: #a9cbdd;
  stroke-width: 1.5;
}
.lane {
  fill: none;
  stroke: #d8d8d0;
  stroke-width: 1;
}
.way {
  fill: none;
  stroke: #b9b6a8;
  stroke-width: 2.5;
}
.dots {
  fill: none;
  stroke: #4a5a54;
  stroke-width: 4;
  stroke-linecap: round;
  opacity: 0.55;
}
.route {
  fill: none;
  stroke-width: 3;
  stroke-linejoin: round;
  opacity: 0.85;
}
.faint {
  opacity: 0.16;
}
.stop {
  cursor: pointer;
}
.town {
  font-weight: 650;
  fill: var(--ink);
  text-anchor: middle;
}
.area {
  fill: #4a5a54;
  font-style: italic;
  text-anchor: middle;
}
text {
  font-family: var(--text);
  paint-order: stroke;
  stroke: #fff;
  stroke-width: 0.25em;
  stroke-linejoin: round;
}
.stop text {
  stroke: none;
  font-weight: 700;
}
.name {
  font-weight: 650;
  fill: var(--ink);
}
.chosen {
  fill: none;
  stroke: var(--brick);
  stroke-width: 3;
}
.keys {
  position: absolute;
  left: 12px;
  bottom: 12px;
  display: flex;
  gap: 4px;
}
</style>
