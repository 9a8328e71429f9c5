<script setup lang="ts" generic="Value extends string | number | boolean">
// Yes or no; with a value, one of several that may be taken together.
import type { Ref } from 'vue'

const checked = defineModel<boolean | Value[]>()
defineProps<{
  value?: Value
  disabled?: boolean
  /** what it is, where no words stand beside it */
  label?: string
}>()
const emit = defineEmits<{ change: [] }>()
/** The library's type leaves lists out, though it takes them. */
const model = checked as Ref<boolean | undefined>
</script>

<template>
  <el-checkbox
    v-model="model"
    class="check"
    :class="{ bare: label }"
    :value="value"
    :disabled="disabled"
    :validate-event="false"
    @change="emit('change')"
  >
    <span
      v-if="label"
      class="visually-hidden"
      >{{ label }}</span
    >
    <slot />
  </el-checkbox>
</template>
