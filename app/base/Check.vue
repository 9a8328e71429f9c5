<script setup lang="ts" generic="Value extends string | number | boolean">
// Yes or no; with a value, one of several that may be taken together.
import { computed } from 'vue'
import Meanwhile from './Meanwhile.vue'

defineOptions({ inheritAttrs: false })
const checked = defineModel<boolean | Value[]>()
const props = defineProps<{
  value?: Value
  disabled?: boolean
  /** what it is, where no words stand beside it */
  label?: string
  /** what it is called in the form that it stands in */
  name?: string
}>()
const emit = defineEmits<{ change: [] }>()
/** Of several, whether this one is among them. */
const model = computed({
  get: () =>
    Array.isArray(checked.value) ? checked.value.includes(props.value!) : Boolean(checked.value),
  set: (on: boolean) => {
    if (!Array.isArray(checked.value)) checked.value = on
    else if (on) checked.value = [...checked.value, props.value!]
    else checked.value = checked.value.filter((one) => one !== props.value)
  },
})
</script>

<template>
  <el-checkbox
    v-bind="$attrs"
    v-model="model"
    class="check"
    :class="{ bare: label }"
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
  <Meanwhile
    v-if="name"
    :names="[name]"
  />
</template>
