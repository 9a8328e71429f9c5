<script setup lang="ts">
// The roads that drives are worked out on, and another network in their place.
import FileInput from '~/base/FileInput.vue'
import Notice from '~/base/Notice.vue'
import { call, newId, Problem } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useAnswer } from '~/lib/useAnswer'

defineProps<{ owns: boolean }>()
const { data: roads, refresh } = useAnswer('roads')
const { problem, act } = useAct()
const LARGEST = 50_000_000
const take = ([file]: File[]) =>
  act(async () => {
    if (!file) return
    if (file.size > LARGEST)
      throw new Problem('This file is larger than 50 MB. Take a smaller area.', {
        status: 413,
        code: 'too_large',
      })
    const name = file.name.replace(/\.\w+$/, '')
    await call('importRoads', { body: { id: newId(), name, data: await file.text() } })
    await refresh()
  })
</script>

<template>
  <div
    id="roads"
    class="sheet box"
  >
    <h2>Roads</h2>
    <p v-if="roads?.network">
      {{ roads.network.name }}: {{ roads.network.lines }} roads,
      {{ roads.network.positions }} positions<span
        v-if="roads.network.parts > 1"
        class="soon"
        >; it falls into {{ roads.network.parts }} parts, the largest is used</span
      >
    </p>
    <p
      v-else
      class="quiet"
    >
      No roads yet: driving is the distance as the crow flies, and a third more.
    </p>
    <div
      v-if="owns"
      class="row"
    >
      <span class="small quiet grow">Another network: GeoJSON lines with their speed</span>
      <FileInput
        label="Choose roads"
        accept=".json,.geojson,application/geo+json"
        @choose="take"
      />
    </div>
    <Notice :of="problem" />
  </div>
</template>
