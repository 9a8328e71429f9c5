<script setup lang="ts">
// A colour: typed as #1f5c4a, or picked.
import TextInput from './TextInput.vue'

defineOptions({ inheritAttrs: false })
const colour = defineModel<string>()
defineProps<{ disabled?: boolean }>()
/** Dark enough to be read on white paper. */
const DARK = ['#1f5c4a', '#1b3a6b', '#7a1f2b', '#5a3d1e', '#4b2a63', '#3a4750']
</script>

<template>
  <span class="colour">
    <TextInput
      v-model="colour"
      v-bind="$attrs"
      maxlength="7"
      :disabled="disabled"
    />
    <el-color-picker
      :model-value="colour || null"
      :predefine="DARK"
      :disabled="disabled"
      :validate-event="false"
      aria-label="Pick a colour"
      @update:model-value="colour = $event ?? ''"
    />
  </span>
</template>

<style scoped>
.colour {
  display: flex;
  gap: 6px;
  width: 100%;
}
</style>
