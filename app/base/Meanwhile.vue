<script setup lang="ts">
// Beneath a field that is typed over: what somebody else made of it meanwhile. Both stand there until one of them is kept.
import { computed } from 'vue'
import ActButton from './ActButton.vue'
import { formAround } from './useForm'

const props = defineProps<{
  /** what the field is called in its form */
  names: readonly string[]
  /** how a value is said, where it is not as it stands */
  says?: ((value: unknown) => string) | undefined
}>()
const form = formAround()
const theirs = computed(() =>
  props.names
    .filter((name) => form?.meanwhile.has(name))
    .map((name) => [name, said(name)] as const),
)
function said(name: string): string {
  const value = form!.meanwhile.get(name)
  if (props.says) return props.says(value)
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  return String(value ?? '') || 'nothing'
}
</script>

<template>
  <span
    v-for="[name, value] in theirs"
    :key="name"
    class="meanwhile"
    role="status"
  >
    Meanwhile somebody wrote: <b>{{ value }}</b>
    <ActButton
      quiet
      class="small"
      @click="form!.takeTheirs(name)"
    >
      Take theirs
    </ActButton>
    <slot />
  </span>
</template>

<style scoped>
.meanwhile {
  display: block;
  width: 100%;
  padding: 3px 8px;
  border-left: 3px solid var(--marigold);
  background: var(--marigold-1);
  font-size: 0.78125rem;
  line-height: 1.4;
  white-space: pre-line;
}
</style>
