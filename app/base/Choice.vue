<script setup lang="ts" generic="Value extends string | number | null">
// One of several; a long list is searched by typing.
import { computed } from 'vue'
import { passOn } from './passOn'

const chosen = defineModel<Value>()
const props = defineProps<{
  options: readonly { value: Value; label: string; disabled?: boolean }[]
  disabled?: boolean
}>()
const emit = defineEmits<{ change: [value: Value] }>()
const options = computed(() => [...props.options])
/** As wide as its longest word needs, as far as there is room. */
const room = computed(
  () => `${Math.min(26, Math.max(...options.value.map((o) => o.label.length), 4))}ch`,
)
</script>

<template>
  <el-select-v2
    v-model="chosen"
    class="choice"
    popper-class="choice-list"
    placeholder=""
    :style="{ '--room': room }"
    no-match-text="Nothing fits these words."
    no-data-text="There is nothing to choose yet."
    :options="options"
    :disabled="disabled"
    :filterable="options.length > 8"
    :fit-input-width="false"
    :empty-values="[undefined]"
    :validate-event="false"
    @keydown.capture="passOn"
    @change="emit('change', $event as Value)"
  />
</template>
