<script setup lang="ts">
// What is owed on a day by how late it is, drawn to one scale, and whether the books say the same.
import { computed } from 'vue'
import DateInput from '~/base/DateInput.vue'
import { useSession } from '~/stores/session'
import { BUCKETS } from './ageing'
import type { Unpaid } from './useOwing'

const on = defineModel<string>('on', { required: true })
const props = defineProps<{ unpaid: Unpaid }>()
const session = useSession()
const sizeOf = (key: (typeof BUCKETS)[number][0]) => Number(props.unpaid.totals[key].amount)
const most = computed(() => Math.max(1, ...BUCKETS.map(([key]) => sizeOf(key))))
</script>

<template>
  <div class="buckets">
    <div
      v-for="[key, name, colour] in BUCKETS"
      :key="key"
    >
      <span class="quiet small">{{ name }}</span>
      <b class="num"
        >{{ key === 'credits' && sizeOf(key) ? '−' : ''
        }}{{ session.money(unpaid.totals[key], false) }}</b
      >
      <i :style="{ width: `${(sizeOf(key) / most) * 100}%`, background: colour }" />
    </div>
    <div>
      <span class="quiet small">
        Owed on
        <DateInput
          v-model="on"
          aria-label="Owed on which day"
        />
      </span>
      <b class="num"
        ><span class="double">{{ session.money(unpaid.totals.owed) }}</span></b
      >
      <span
        v-if="sizeOf('credits')"
        class="small quiet"
        >open invoices {{ session.money(unpaid.totals.open) }}, less credits</span
      >
      <span
        class="small"
        :class="unpaid.agrees ? 'good' : 'late'"
        >{{
          unpaid.agrees ? 'agrees with the books' : `the books say ${session.money(unpaid.ledger)}`
        }}</span
      >
    </div>
  </div>
</template>

<style scoped>
.buckets {
  display: grid;
  grid-template-columns: repeat(6, 1fr) 1.5fr;
  background: var(--sheet);
  border-bottom: 1px solid var(--rule-2);
}
.buckets > div {
  padding: 10px 12px;
  border-right: 1px solid var(--rule);
  display: flex;
  flex-direction: column;
  gap: 3px;
  min-width: 0;
}
.buckets b {
  font-size: 0.9375rem;
}
.buckets i {
  height: 6px;
  min-width: 1px;
}
@media (max-width: 700px) {
  .buckets {
    grid-template-columns: 1fr 1fr;
  }
  .buckets > :last-child {
    grid-column: 1 / 3;
  }
}
</style>
