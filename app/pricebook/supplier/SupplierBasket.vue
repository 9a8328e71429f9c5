<script setup lang="ts">
// What is taken from suppliers, before it becomes lines.
import type { Answer } from '~~/shared/api'
import type { Problem } from '~/lib/api'
import { guardWindow } from '~/base/leaving'
import ActButton from '~/base/ActButton.vue'
import FigureInput from '~/base/FigureInput.vue'
import { useSession } from '~/stores/session'

type Product = Answer<'supplierProducts'>['items'][number]
export type Taken = Product & { line: string; quantity: string }
defineProps<{ problem: Problem | null }>()
const basket = defineModel<Taken[]>({ required: true })
const session = useSession()
// What was put in is asked about before its sheet is closed.
guardWindow(
  () => basket.value.length > 0,
  () => {
    basket.value = []
  },
)
const show = (amount: string | null) => (amount === null ? '' : session.figure(amount))
</script>

<template>
  <div class="basket stack">
    <h3>Basket</h3>
    <div
      v-for="(b, i) in basket"
      :key="b.line"
      class="row"
    >
      <FigureInput
        v-model="b.quantity"
        style="width: 64px"
        :aria-label="`How many: ${b.name}`"
      /><span class="grow"
        >{{ b.name }} <span class="quiet small">{{ b.supplier }} {{ b.partNumber }}</span
        ><i
          v-if="problem?.at(`items[${i}].quantity`)"
          class="wrong"
        >
          {{ problem.at(`items[${i}].quantity`) }}</i
        ></span
      ><span class="num">{{ show(b.price) }}</span
      ><ActButton
        quiet
        :aria-label="`Take out ${b.name}`"
        @click="basket.splice(i, 1)"
      >
        ×
      </ActButton>
    </div>
  </div>
</template>

<style scoped>
.basket {
  border-top: 3px double var(--rule-2);
  padding-top: 8px;
}
i {
  font-style: normal;
}
@media (max-width: 600px) {
  .basket .btn {
    min-height: 48px;
  }
}
</style>
