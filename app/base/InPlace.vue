<script setup lang="ts">
// One value that is changed where it stands: kept when its field is left, or its page. What is half typed is not written over by what arrives
// meanwhile.
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import ActButton from './ActButton.vue'
import Control from './Control.vue'
import Field from './Field.vue'
import Meanwhile from './Meanwhile.vue'
import type { FieldKind, Option } from './fields'
import { guardLeaving } from './leaving'
import { provideForm, useForm } from './useForm'

const props = defineProps<{
  value: string
  /** keeps it; says whether that was done */
  keep: (value: string) => Promise<unknown>
  kind?: FieldKind | undefined
  options?: readonly Option[] | undefined
  label: string
  /** its name is read out, not shown */
  bare?: boolean
  disabled?: boolean
}>()
const form = useForm({ value: props.value })
provideForm(form)
const sending = ref(false)
/** what is on its way */
let last = Promise.resolve()
// What is on its way comes back as its own.
watch([() => props.value, sending], ([value, isSending]) => {
  if (!isSending) form.follow({ value })
})
function keepMine(): Promise<void> {
  if (!form.changed || sending.value) return last
  return (last = send())
}
async function keeps(value: string) {
  const done = await props.keep(value)
  if (done) form.settle({ value })
  return done
}
async function send() {
  const sent = form.values.value
  sending.value = true
  const done = await keeps(sent).finally(() => (sending.value = false))
  // What was typed while it was on its way has left its field, too.
  if (done && form.changed) await leaves()
}
/** Where somebody else wrote something else meanwhile, a person says which of them stays. */
const leaves = () => (form.meanwhile.size ? Promise.resolve() : keepMine())
const unkept = () => form.changed && !sending.value
// A page is left once it is kept; where it could not be, that is asked about.
guardLeaving(unkept, form.discard, leaves)
onBeforeUnmount(() => void leaves())
const read = computed(() => (props.bare ? { 'aria-label': props.label } : {}))
</script>

<template>
  <component
    :is="bare ? 'span' : Field"
    class="in-place"
    data-form="asks"
    v-bind="bare ? {} : { label }"
    @focusout="leaves"
  >
    <Control
      v-model="form.values.value"
      v-bind="read"
      :kind="kind"
      :options="options"
      :disabled="disabled"
      @change="leaves"
    />
    <Meanwhile :names="['value']">
      <ActButton
        quiet
        class="small"
        @click="keepMine"
      >
        Keep mine
      </ActButton>
    </Meanwhile>
  </component>
</template>
