<script setup lang="ts">
// An act: says what it does, its shortcut, and while it may not be taken, why.
import { formAround } from './useForm'

defineProps<{
  /** the act that a person most likely came for; one a screen */
  primary?: boolean
  /** an act beside others that needs no border */
  quiet?: boolean
  /** stands for something that is on now */
  on?: boolean
  submit?: boolean
  disabled?: boolean
  /** why it may not be taken: disables it */
  why?: string
}>()
/** What sends a form waits while it is on its way. */
const form = formAround()
</script>

<template>
  <el-button
    class="btn"
    :class="{ act: primary, plain: quiet, on }"
    :native-type="submit ? 'submit' : 'button'"
    :disabled="disabled || !!why || (submit && form?.busy)"
    :title="why || undefined"
  >
    <slot />
  </el-button>
</template>
