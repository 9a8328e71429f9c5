<script setup lang="ts">
// The words of a quote: what it is for, their order number, how long its price is held, what is to be done.
import InPlace from '~/base/InPlace.vue'
import type { Quote, QuoteWords } from './useQuote'

defineProps<{
  quote: Quote
  draft: boolean
  field?: boolean
  /** keeps some of them; says whether that was done */
  write: (words: Partial<QuoteWords>) => Promise<unknown>
}>()
</script>

<template>
  <div
    class="stack"
    :class="{ field }"
  >
    <div class="row">
      <InPlace
        class="grow"
        label="For"
        :value="quote.title"
        :keep="(title) => write({ title })"
        :disabled="!draft"
      />
      <InPlace
        class="order"
        label="Their order number"
        :value="quote.orderNumber"
        :keep="(orderNumber) => write({ orderNumber })"
        :disabled="!draft"
      />
      <InPlace
        kind="date"
        label="Price held until"
        :value="quote.expiresOn"
        :keep="(expiresOn) => write({ expiresOn })"
        :disabled="!draft"
      />
    </div>
    <InPlace
      kind="area"
      label="What is to be done"
      :value="quote.scope"
      :keep="(scope) => write({ scope })"
      :disabled="!draft"
    />
  </div>
</template>

<style scoped>
.row {
  flex-wrap: wrap;
}
.order {
  width: 150px;
}
.field .row > * {
  flex: 1 1 130px;
  min-width: 0;
}
</style>
