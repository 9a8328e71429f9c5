<script setup lang="ts">
// What is no longer sold: it stays on the papers that have it, and can come back.
import LedgerList from '~/components/base/LedgerList.vue'
import ActButton from '~/base/ActButton.vue'
import { call } from '~/lib/api'
import { useSession } from '~/stores/session'
import type { Found } from '~/lib/book'

const props = defineProps<{ kind: '' | Found['kind']; category: string }>()
const emit = defineEmits<{ close: [] }>()
const session = useSession()
const show = (amount: string | null) => (amount === null ? '' : session.figure(amount))
const gone = (q: string, after?: string) =>
  call('priceBook', {
    query: {
      q,
      after,
      kind: props.kind || undefined,
      category: props.category || undefined,
      retired: 'yes',
    },
  })
</script>

<template>
  <LedgerList
    title="Retired"
    filter="Code, name, category"
    :load="gone"
    :watch-key="`${kind} ${category}`"
    empty="Nothing was retired."
    picks
    :columns="[
      { key: 'code', label: 'Code', look: 'num', text: (item) => item.code },
      { key: 'name', label: 'Name', text: (item) => item.name },
      { key: 'category', label: 'Category', look: 'quiet', text: (item) => item.category },
      {
        key: 'price',
        label: 'Price',
        figures: true,
        text: (item) => show(item.price),
        file: (item) => item.price,
      },
    ]"
    @pick="(item) => navigateTo(`/price-book/${item.id}`)"
  >
    <template #acts
      ><ActButton @click="emit('close')"> Back to what is on sale </ActButton></template
    >

    <template #code="{ row: item }"
      ><NuxtLink :to="`/price-book/${item.id}`">{{ item.code }}</NuxtLink></template
    >
  </LedgerList>
</template>
