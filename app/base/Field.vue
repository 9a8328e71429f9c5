<script setup lang="ts">
// A control with its name above it and, beneath, what is wrong with what was typed.
import { computed, onBeforeUnmount } from 'vue'
import Meanwhile from './Meanwhile.vue'
import { formAround } from './useForm'

const props = defineProps<{
  label?: string
  /** what it is called in what is sent, where it stands in a `Form`; several where it is made of them */
  name?: string | readonly string[]
  /** what is wrong, or nothing, where it stands in none */
  error?: string | false | null
  /** the name before the control, on one line with it */
  inline?: boolean
  /** how a value of it is said, where it is not as it stands */
  says?: ((value: unknown) => string) | undefined
}>()
const form = formAround()
const names = [props.name ?? []].flat()
if (form) for (const name of names) onBeforeUnmount(form.place(name))
const wrong = computed(() => props.error || form?.wrong(...names) || '')
</script>

<template>
  <el-form-item
    class="field"
    :class="{ inline }"
    :label-position="inline ? 'left' : 'top'"
    :label="label ?? ' '"
    :error="wrong"
  >
    <template
      v-if="$slots.label"
      #label
    >
      <slot name="label" />
    </template>
    <slot />
    <Meanwhile
      v-if="form"
      :names="names"
      :says="says"
    />
    <template #error>
      <span class="wrong">{{ wrong }}</span>
    </template>
  </el-form-item>
</template>
