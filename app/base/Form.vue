<script setup lang="ts">
// A form of the kit: its fields know it, it is sent by Enter, and it asks before what was typed is left behind.
import { guardLeaving } from './leaving'
import { provideForm, type FormState } from './useForm'

const props = defineProps<{
  of: FormState
  /** what is typed may be left without a word: a search, a filter */
  light?: boolean
}>()
const emit = defineEmits<{ submit: [] }>()
provideForm(props.of)
guardLeaving(() => !props.light && props.of.unkept)
</script>

<template>
  <form
    class="stack"
    @submit.prevent="of.busy || emit('submit')"
  >
    <slot />
  </form>
</template>
