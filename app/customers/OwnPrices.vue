<script setup lang="ts">
// Prices that a customer alone has: found in the book, typed, or taken out.
import { ref } from 'vue'
import type { Answer } from '~~/shared/api'
import ActButton from '~/base/ActButton.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'
import { call } from '~/lib/api'

type Entry = Answer<'searchPriceBook'>['items'][number]
const prices = defineModel<Answer<'customer'>['ownPrices']>({ required: true })
const SHOWN = 4
const found = ref<Entry[]>([])
let turn = 0
async function find(words: string) {
  const mine = ++turn
  const q = words.trim()
  const none = { items: [] as Entry[] }
  const { items } =
    q.length > 1 ? await call('searchPriceBook', { query: { q } }).catch(() => none) : none
  if (mine === turn) found.value = items.slice(0, SHOWN)
}
function add({ id, name, price }: Entry) {
  if (!prices.value.some((p) => p.entryId === id))
    prices.value.push({ entryId: id, name, price, bookPrice: price })
  found.value = []
}
</script>

<template>
  <div
    v-for="(p, i) in prices"
    :key="p.entryId"
    class="row"
  >
    <span class="grow"
      >{{ p.name }} <span class="quiet small">book {{ p.bookPrice }}</span></span
    >
    <TextInput
      v-model="p.price"
      style="width: 100px"
      :aria-label="`Own price of ${p.name}`"
    />
    <ActButton
      quiet
      :aria-label="`Take out ${p.name}`"
      @click="prices.splice(i, 1)"
    >
      ×
    </ActButton>
  </div>
  <Field label="An own price for">
    <TextInput
      placeholder="call-out charge, labour…"
      @keydown.enter.prevent
      @input="find"
    />
  </Field>
  <div
    v-if="found.length"
    class="stack"
  >
    <ActButton
      v-for="e in found"
      :key="e.id"
      @click="add(e)"
    >
      {{ e.name }} · {{ e.price }}
    </ActButton>
  </div>
</template>
