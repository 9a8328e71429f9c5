<script setup lang="ts">
// A form of the kit: its fields know it, it is sent by Enter, and it asks before what was typed is left behind.
import { computed, nextTick, useTemplateRef, watch } from 'vue'
import ActButton from './ActButton.vue'
import { guardLeaving } from './leaving'
import { provideForm, type FormState } from './useForm'

const props = defineProps<{
  of: FormState
  /** what is typed may be left without a word: a search, a filter */
  light?: boolean
}>()
const emit = defineEmits<{ submit: [] }>()
provideForm(props.of)
const root = useTemplateRef<HTMLFormElement>('root')
/** What is wrong with a field is said at it: whoever pressed a button far below is led there. */
watch(
  () => props.of.problem,
  async (problem) => {
    if (!problem) return
    await nextTick()
    const control = '.is-error :is(input, textarea, button, [tabindex="0"])'
    const wrong = root.value?.querySelector<HTMLElement>(control)
    // With its name above it in sight, too.
    wrong?.focus({ preventScroll: true })
    wrong?.scrollIntoView?.({ block: 'center' })
  },
  { flush: 'post' },
)
/** What becomes of what is typed: nothing, it is asked about, or it is kept through a reload. */
const keeping = computed(() => {
  if (props.light) return 'light'
  return props.of.isDraft ? 'keeps' : 'asks'
})
guardLeaving(
  () => !props.light && props.of.unkept,
  () => props.of.discard(),
)
</script>

<template>
  <form
    ref="root"
    class="stack"
    :data-form="keeping"
    @submit.prevent="of.busy || emit('submit')"
  >
    <p
      v-if="of.takenUp"
      class="note"
      role="status"
    >
      What you typed here before is still here.
      <ActButton
        quiet
        @click="of.discard()"
      >
        Throw it away
      </ActButton>
    </p>
    <slot />
  </form>
</template>
