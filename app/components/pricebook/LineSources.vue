<script setup lang="ts">
// Where a line of a quote or a work order may come from: the book, a supplier, or written by hand. Each is
// closed when its act answers that it was done.
import { ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import type { Problem } from '~/lib/api'
import type { Found } from '~/lib/book'
import OwnLineForm, { type OwnLine } from './OwnLine.vue'
import PriceSearch from './PriceSearch.vue'
import SupplierSheet, { type BasketLine } from './SupplierSheet.vue'

defineProps<{
  /** whose lines they become */
  about: string
  busy: boolean
  problem: Problem | null
  field?: boolean
  addEntries: (entries: Found[]) => Promise<unknown>
  addOwn: (line: OwnLine) => Promise<unknown>
  addBasket: (items: BasketLine[]) => Promise<unknown>
}>()
const open = ref<'' | 'supplier' | 'own'>('')
const closeAfter = async (work: Promise<unknown>) => {
  if (await work) open.value = ''
}
</script>

<template>
  <div class="sheet stack sources no-print">
    <PriceSearch
      label="Add from the price book"
      at-hand
      :large="field"
      :choose="addEntries"
    />
    <div class="row">
      <ActButton @click="open = 'supplier'"> From a supplier… </ActButton>
      <ActButton @click="open = open === 'own' ? '' : 'own'"> Not in the book… </ActButton>
    </div>
    <OwnLineForm
      v-if="open === 'own'"
      :about="about"
      :busy="busy"
      :add="addOwn"
      @close="open = ''"
    />
    <SupplierSheet
      v-if="open === 'supplier'"
      :busy="busy"
      :problem="problem"
      :field="field"
      @take="closeAfter(addBasket($event))"
      @close="open = ''"
    />
  </div>
</template>

<style scoped>
.sources {
  padding: 12px;
}
</style>
