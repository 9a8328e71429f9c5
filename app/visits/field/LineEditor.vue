<script setup lang="ts">
// Beneath a line that was tapped: its quantity and price, whether it is done, and taking it out.
import { ref } from 'vue'
import type { Problem } from '~/lib/api'
import type { Line, LineChange } from './useFieldVisit'

const props = defineProps<{ line: Line; busy: boolean; problem: Problem | null }>()
const emit = defineEmits<{ change: [values: LineChange] }>()
const quantity = ref(props.line.quantity)
const price = ref(props.line.unitPrice)
</script>

<template>
  <p
    v-if="Number(line.billed.amount)"
    class="edit quiet small"
  >
    This line is on an invoice.
  </p>
  <form
    v-else
    class="edit"
    @submit.prevent="emit('change', { quantity, unitPrice: price })"
  >
    <div class="row">
      <label class="field grow">
        <span>Quantity</span>
        <input
          v-model="quantity"
          class="plain num"
          inputmode="decimal"
        />
        <span
          v-if="problem?.at('quantity')"
          class="wrong"
          >{{ problem.at('quantity') }}</span
        >
      </label>
      <label class="field grow">
        <span>Each, on this work order only</span>
        <input
          v-model="price"
          class="plain num"
          inputmode="decimal"
        />
        <span
          v-if="problem?.at('unitPrice')"
          class="wrong"
          >{{ problem.at('unitPrice') }}</span
        >
      </label>
    </div>
    <div class="row">
      <button
        class="btn act grow"
        :disabled="busy"
      >
        Keep
      </button>
      <button
        type="button"
        class="btn"
        :disabled="busy"
        @click="emit('change', { done: !line.done })"
      >
        {{ line.done ? 'Not done' : 'Done' }}
      </button>
      <button
        type="button"
        class="btn"
        :disabled="busy"
        @click="emit('change', { removed: true })"
      >
        Take out
      </button>
    </div>
  </form>
</template>

<style scoped>
.edit {
  padding: 0 16px 14px;
  display: flex;
  flex-direction: column;
  gap: 10px;
}
</style>
