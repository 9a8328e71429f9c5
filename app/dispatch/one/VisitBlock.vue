<script setup lang="ts">
// A visit in a technician's day: when, what, where; what was promised and what is expected.
import { computed } from 'vue'
import { useSession } from '~/stores/session'
import { begins, ends, type Visit } from './dayScale'

const props = defineProps<{
  visit: Visit
  dim: boolean
  /** who leads it, where that is somebody else */
  leads: string
}>()
const session = useSession()
const time = (at: number) => session.time(new Date(at).toISOString())
const notes = computed(() => {
  const v = props.visit
  return [
    v.promiseFrom && `promised ${v.promiseFrom}–${v.promiseTo}`,
    props.leads && `with ${props.leads}`,
    v.atRisk && `expected ${session.time(v.arriveAt)}`,
    v.contact,
  ]
    .filter(Boolean)
    .join(' · ')
})
</script>

<template>
  <button
    class="visit"
    role="listitem"
    :class="[visit.state, { risk: visit.atRisk, dim }]"
  >
    <b>{{ time(begins(visit)) }}–{{ time(ends(visit)) }} {{ visit.title }}</b
    ><span>{{ visit.customer }}, {{ visit.place }}, {{ visit.town }}</span
    ><span class="small">{{ notes }}</span>
  </button>
</template>

<style scoped>
.visit {
  position: absolute;
  left: 100px;
  right: 12px;
  border: 1.5px solid var(--steel);
  box-shadow: 0 0 0 1px var(--sheet);
  border-radius: 4px;
  background: var(--sheet);
  padding: 3px 10px;
  overflow: hidden;
  z-index: 3;
  text-align: left;
  display: flex;
  flex-direction: column;
  cursor: pointer;
  color: var(--ink);
  line-height: 1.3;
}
.on_site,
.paused {
  background: var(--green);
  border-color: var(--green);
  color: #fff;
}
.finished {
  background: #eef3f0;
  border-color: var(--rule-2);
  color: var(--ink-2);
}
.driving {
  border-style: dashed;
}
.visit.risk {
  background: var(--brick-1);
  border-color: var(--brick);
  color: var(--ink);
}
.dim {
  opacity: 0.3;
}
</style>
