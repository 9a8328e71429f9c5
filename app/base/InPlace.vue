<script setup lang="ts">
// One value that is changed where it stands: kept when its field is left, or its page. What is half typed is not written over by what arrives
// meanwhile.
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import ActButton from './ActButton.vue'
import Choice from './Choice.vue'
import DateInput from './DateInput.vue'
import Field from './Field.vue'
import FigureInput from './FigureInput.vue'
import Meanwhile from './Meanwhile.vue'
import TextInput from './TextInput.vue'
import type { FieldKind, Option } from './fields'
import { guardLeaving, guardWindow } from './leaving'
import { provideForm, useForm } from './useForm'

const props = defineProps<{
  value: string
  /** keeps it; says whether that was done */
  keep: (value: string) => Promise<unknown>
  kind?: FieldKind
  options?: readonly Option[] | undefined
  label: string
  /** its name is read out, not shown */
  bare?: boolean
  disabled?: boolean
}>()
const form = useForm({ value: props.value })
provideForm(form)
const sending = ref(false)
// What is on its way comes back as its own.
watch([() => props.value, sending], ([value, isSending]) => {
  if (!isSending) form.follow({ value })
})
async function keepMine() {
  if (!form.changed || sending.value) return
  const sent = form.values.value
  sending.value = true
  const done = await props.keep(sent)
  if (done) form.settle({ value: sent })
  sending.value = false
  // What was typed while it was on its way has left its field, too.
  if (done && form.changed) await leaves()
}
/** Where somebody else wrote something else meanwhile, a person says which of them stays. */
const leaves = async () => {
  if (!form.meanwhile.size) await keepMine()
}
const unkept = () => form.changed && !sending.value
guardWindow(unkept)
guardLeaving(() => unkept() && form.meanwhile.size > 0)
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
    <Choice
      v-if="options"
      v-model="form.values.value"
      v-bind="read"
      :options="options"
      :disabled="disabled"
      @change="leaves"
    />
    <DateInput
      v-else-if="kind === 'date'"
      v-model="form.values.value"
      v-bind="read"
      :disabled="disabled"
      @change="leaves"
    />
    <FigureInput
      v-else-if="kind === 'figures'"
      v-model="form.values.value"
      v-bind="read"
      :disabled="disabled"
      @change="leaves"
    />
    <TextInput
      v-else
      v-model="form.values.value"
      v-bind="read"
      :rows="kind === 'area' ? 2 : undefined"
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
