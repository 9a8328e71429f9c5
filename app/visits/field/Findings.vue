<script setup lang="ts">
// What was found and done, as it is written: kept when its box is left and before the clock goes on; what is not kept survives a reload.
import { onBeforeUnmount } from 'vue'
import Meanwhile from '~/base/Meanwhile.vue'
import Phrases from '~/base/Phrases.vue'
import { guardWindow } from '~/base/leaving'
import { provideForm, useFormAbout } from '~/base/useForm'
import { call } from '~/lib/api'
import type { useFieldVisit } from './useFieldVisit'

const props = defineProps<{ visitId: string; of: ReturnType<typeof useFieldVisit> }>()
const form = useFormAbout(
  () => props.of.data.value,
  ({ findings }) => ({ findings }),
  props.of.refresh,
  { draft: `findings ${props.visitId}` },
)
provideForm(form)
const params = { id: props.visitId }
const write = async () => {
  if (form.changed)
    await form.keep(async (version) => {
      const body = { version, findings: form.values.findings }
      props.of.take(await call('findings', { params, body }))
    })
}
let last = Promise.resolve()
/**
 * Each after the one before it: what is pressed or typed while that is on its way goes out behind it. Where somebody
 * else wrote something else meanwhile, a person says which of them stays.
 */
const leaves = () =>
  (last = last.then(async () => {
    if (!form.meanwhile.size) await write()
  }))
guardWindow(() => form.unkept)
onBeforeUnmount(props.of.keepFirst(leaves))
onBeforeUnmount(() => void leaves())
</script>

<template>
  <label
    class="field"
    data-form="keeps"
  >
    <span>What was found and done</span>
    <textarea
      v-model="form.values.findings"
      class="plain"
      rows="3"
      @blur="leaves"
    />
    <span
      v-if="form.problem"
      class="wrong"
      role="alert"
      >{{ form.problem.message }} What you typed is still here.</span
    >
  </label>
  <Phrases
    v-model="form.values.findings"
    of="findings"
    several
    @update:model-value="leaves"
  />
  <Meanwhile :names="['findings']">
    <button
      type="button"
      class="btn"
      @click="write"
    >
      Keep mine
    </button>
  </Meanwhile>
</template>
