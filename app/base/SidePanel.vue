<script setup lang="ts">
// A panel beside the page, which stays in use behind it: about one thing of it. It takes the focus of who opened it by a key, not of who pointed,
// and asks before what was typed in it is lost. Its own drawing: the library's holds the keys.
import { nextTick, useTemplateRef, watch } from 'vue'
import { useFocusBack } from './focusBack'
import { askBeforeLeaving, leavingWithin } from './leaving'
import { useShortcuts } from '~/lib/shortcuts'
import ActButton from './ActButton.vue'

const open = defineModel<boolean>({ default: true })
const props = defineProps<{ title: string; /** what it is about */ about: string }>()
const emit = defineEmits<{ close: [] }>()
const forms = leavingWithin()
async function close() {
  if (forms.any() && !(await askBeforeLeaving())) return
  forms.discard()
  open.value = false
  emit('close')
}
const panel = useTemplateRef<HTMLElement>('panel')
const isByKey = () => document.activeElement?.matches(':focus-visible') ?? false
watch(
  () => open.value && props.about,
  async (about) => {
    if (!about || !isByKey()) return
    await nextTick()
    panel.value?.focus()
  },
  { immediate: true },
)
useFocusBack(() => open.value)
useShortcuts([
  {
    keys: 'Esc',
    press: 'Escape',
    typing: true,
    does: 'close what stands beside',
    when: () => open.value,
    run: () => void close(),
  },
])
</script>

<template>
  <Teleport to="body">
    <div
      v-if="open"
      ref="panel"
      role="dialog"
      tabindex="-1"
      class="side-panel"
      :aria-label="title"
    >
      <header class="row">
        <h2 class="grow">{{ title }}</h2>
        <ActButton
          quiet
          aria-label="Close"
          @click="close"
        >
          ×
        </ActButton>
      </header>
      <div class="inside"><slot /></div>
    </div>
  </Teleport>
</template>

<style scoped>
.side-panel {
  position: fixed;
  /* Beneath the run, which stays at hand. */
  inset: 60px 0 0 auto;
  z-index: 20;
  display: flex;
  flex-direction: column;
  width: min(420px, 100vw);
  background: var(--sheet);
  border-left: 1px solid var(--rule-2);
  box-shadow: -6px 0 18px rgb(22 36 31 / 12%);
}
.side-panel:focus-visible {
  outline-offset: -3px;
}
header {
  padding: 12px 16px;
  border-bottom: 1px solid var(--rule);
}
h2 {
  font-size: 1rem;
}
.inside {
  overflow: auto;
  padding: 14px 16px;
}
/* For a finger. */
@media (width <= 600px) {
  header :deep(.btn) {
    min-width: 48px;
    min-height: 48px;
  }
}
</style>
