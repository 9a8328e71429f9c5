<script setup lang="ts">
// Points at the next place of this page that can be seen; nothing else is in its way, and everything can be used meanwhile.
import { computed, onBeforeUnmount, onMounted, shallowRef, watch } from 'vue'
import ActButton from '~/base/ActButton.vue'
import PointAt from '~/base/PointAt.vue'
import { useSession } from '~/stores/session'
import { stopsOn } from './stops'
import { useTour } from './useTour'

const route = useRoute()
const session = useSession()
const { seen, leave, pass, back } = useTour()
const stops = computed(() => stopsOn(route.path, seen.value ?? [], session.may))
/** those of this page that are there now, in their order */
const there = shallowRef<ReadonlyMap<string, HTMLElement>>(new Map())
const isSeen = (at: Element) => at.getClientRects().length > 0
function look() {
  // What a dialog stands over is not pointed at: the card would stand over the dialog.
  const dialogs = [...document.querySelectorAll('[role="dialog"][aria-modal="true"]')]
  const top = dialogs.findLast(isSeen)
  const found = stops.value.flatMap(({ place }) => {
    const at = document.querySelector<HTMLElement>(`[data-tour="${place}"]`)
    return at && isSeen(at) && (!top || top.contains(at)) ? [[place, at] as const] : []
  })
  const same = found.every(([place, at]) => there.value.get(place) === at)
  if (!same || found.length !== there.value.size) there.value = new Map(found)
}
/** A page draws itself in many steps: it is looked through once for all of them. */
let waits = 0
const observer = new MutationObserver(() => {
  waits ||= requestAnimationFrame(() => {
    waits = 0
    look()
  })
})
onMounted(() => {
  look()
  // A dialog that is closed may stay in the page, without being shown.
  const changes = { childList: true, subtree: true, attributeFilter: ['style'] }
  observer.observe(document.body, changes)
})
onBeforeUnmount(() => {
  observer.disconnect()
  cancelAnimationFrame(waits)
})
watch(stops, look, { flush: 'post' })
const here = computed(() => stops.value.filter(({ place }) => there.value.has(place)))
const stop = computed(() => here.value.find(({ place }) => !seen.value?.includes(place)))
const before = computed(() => here.value[here.value.indexOf(stop.value!) - 1])
</script>

<template>
  <PointAt
    v-if="stop"
    :key="stop.place"
    :at="there.get(stop.place)!"
    :title="stop.title"
  >
    <p>{{ stop.says }}</p>
    <div class="row">
      <ActButton
        quiet
        class="grow"
        @click="leave"
        >Leave the tour</ActButton
      >
      <ActButton
        v-if="before"
        @click="back(before.place)"
        >Before</ActButton
      >
      <ActButton
        primary
        @click="pass(stop.place)"
        >Understood</ActButton
      >
    </div>
  </PointAt>
</template>
