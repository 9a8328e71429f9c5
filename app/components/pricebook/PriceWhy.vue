<script setup lang="ts">
// What a price is made of: its parts, which sum to it, as a bookkeeper would write them down.
import DataTable from '~/base/DataTable.vue'
import type { Answer } from '~~/shared/api'
import { useSession } from '~/stores/session'

defineProps<{ why: Answer<'tryPrice'>['why']; title: string }>()
const session = useSession()
</script>

<template>
  <div class="stack">
    <b>{{ title }}</b>
    <DataTable
      :label="title"
      :rows="why.reasons"
      :row-key="(_, i) => i"
      :columns="[
        { key: 'part', text: (r) => r.text },
        { key: 'sum', figures: true, text: (r) => session.figure(r.amount) },
      ]"
      :sums="{ part: 'Price', sum: session.figure(why.price) }"
    />
    <p
      v-if="why.hour"
      class="row quiet small"
    >
      <span class="grow">An hour brings, parts paid</span>
      <span class="num">{{ session.figure(why.hour) }}</span>
    </p>
  </div>
</template>
