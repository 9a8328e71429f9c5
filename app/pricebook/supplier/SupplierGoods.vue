<script setup lang="ts">
// What a supplier has, and the same thing at the others beneath the one that is compared.
import type { Answer } from '~~/shared/api'
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'
import { useSession } from '~/stores/session'

type Product = Answer<'supplierProducts'>['items'][number]
defineProps<{ items: Product[]; beside: { of: Product; items: Product[] } | null }>()
const emit = defineEmits<{ compare: [product: Product]; put: [product: Product] }>()
const session = useSession()
const show = (amount: string | null) => (amount === null ? '' : session.figure(amount))
const stock = (p: Product) => (p.stock ? `${p.stock} there` : `in ${p.deliveryDays} days`)
</script>

<template>
  <DataTable
    cards
    :rows="items"
    :row-key="(p) => p.partNumber"
    :opened="(p) => beside?.of === p"
    :columns="[
      { key: 'number', label: 'Their number', look: 'num', text: (p) => p.partNumber },
      { key: 'what', label: 'What', look: 'what' },
      {
        key: 'has',
        label: 'Has',
        right: true,
        tone: (p) => (p.stock ? 'good' : 'soon'),
        text: (p) => stock(p),
      },
      ...(session.me?.person.seesCost ? [{ key: 'costs', label: 'Costs us', figures: true }] : []),
      { key: 'price', label: 'We sell at', figures: true, text: (p) => show(p.price) },
      { key: 'act', right: true, look: 'nowrap' },
    ]"
  >
    <template #what="{ row: p }"
      >{{ p.name }}
      <span
        v-if="p.entry"
        class="chip good"
        >{{ p.entry.code }}</span
      ></template
    >

    <template #costs="{ row: p }"
      >{{ show(p.cost)
      }}<template v-if="p.entry?.cost && Number(p.entry.cost) !== Number(p.cost)"
        ><br /><span class="small soon">book {{ show(p.entry.cost) }}</span></template
      ></template
    >

    <template #act="{ row: p }"
      ><ActButton
        quiet
        :aria-expanded="beside?.of === p"
        @click="emit('compare', p)"
      >
        Compare</ActButton
      ><ActButton
        :aria-label="`Put ${p.name} into the basket`"
        @click="emit('put', p)"
      >
        Put in
      </ActButton></template
    >
    <template #under="{ row: p }"
      ><DataTable
        cards
        :label="`${p.name} at every supplier`"
        :rows="beside?.items ?? []"
        :row-key="(o, i) => o.supplierId"
        :columns="[
          { key: 'from', look: 'what' },
          { key: 'number', look: 'num', text: (o) => o.partNumber },
          { key: 'has', right: true, text: (o) => stock(o) },
          { key: 'costs', figures: true, text: (o) => show(o.cost) || show(o.price) },
          { key: 'act', right: true },
        ]"
        ><template #from="{ row: o, index: i }"
          >{{ o.supplier }}
          <span
            v-if="i === 0 && (beside?.items.length ?? 0) > 1"
            class="chip good"
            >best today</span
          ></template
        >

        <template #act="{ row: o }"
          ><ActButton
            :aria-label="`Put it in from ${o.supplier}`"
            @click="emit('put', o)"
          >
            Put in
          </ActButton></template
        ></DataTable
      ></template
    ></DataTable
  >
</template>
