<script setup lang="ts" generic="Value extends string | number | boolean">
// One of a few that exclude each other, each where it stands; those of one `name` belong together.
const chosen = defineModel<Value>()
defineProps<{ value: Value; name: string; disabled?: boolean }>()
const emit = defineEmits<{ change: [value: Value] }>()
</script>

<template>
  <el-radio
    v-model="chosen"
    :value="value"
    :name="name"
    :disabled="disabled"
    :validate-event="false"
    @change="emit('change', value)"
  >
    <slot />
  </el-radio>
</template>
