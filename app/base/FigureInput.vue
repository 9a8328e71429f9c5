<script setup lang="ts">
// A sum, a quantity, a rate: figures as they are typed, since core reads them and money is never a float.
import { useTemplateRef } from 'vue'

defineOptions({ inheritAttrs: false })
const figures = defineModel<string | null>()
const emit = defineEmits<{ change: [figures: string] }>()
const input = useTemplateRef('input')
defineExpose({ focus: () => input.value?.focus(), select: () => input.value?.select() })
</script>

<template>
  <el-input
    ref="input"
    v-bind="$attrs"
    v-model="figures"
    class="figures"
    inputmode="decimal"
    :validate-event="false"
    @change="emit('change', $event)"
  />
</template>
