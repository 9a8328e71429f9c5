<script setup lang="ts">
// What a customer paid, the latest first, and what of it is on no invoice; taken back here by whoever may.
import { nextTick, onMounted, ref, useTemplateRef } from 'vue'
import { BACK_REASONS } from '~~/core/payments/takingBack'
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'
import TakeBack from '~/invoices/TakeBack.vue'
import { useSession } from '~/stores/session'
import type { Customer } from './rowForms'

type Payment = Customer['payments'][number]
defineProps<{ customer: Customer }>()
const emit = defineEmits<{ changed: [] }>()
const session = useSession()
const taking = ref<Payment | null>(null)
const isLeft = ({ left }: Payment) => Number(left.amount) !== 0
const became = (p: Payment) =>
  [
    p.takenBack && BACK_REASONS[p.takenBack].said,
    p.invoices && `for ${p.invoices}`,
    isLeft(p) && `${session.money(p.left)} on no invoice`,
  ]
    .filter(Boolean)
    .join(', ')
const head = useTemplateRef<HTMLElement>('head')
const { hash } = useRoute()
// Who was led here by a receipt is shown it.
onMounted(() => hash === '#payments' && void nextTick(() => head.value?.scrollIntoView()))
function takenBack() {
  taking.value = null
  emit('changed')
}
</script>

<template>
  <template v-if="customer.payments.length">
    <h2
      id="payments"
      ref="head"
    >
      Payments
    </h2>
    <DataTable
      label="Payments"
      :rows="customer.payments"
      :row-key="(p) => p.id"
      :tone="(p) => ({ quiet: p.takenBack })"
      :columns="[
        { key: 'number', look: 'num', text: (p) => p.number },
        { key: 'on', look: 'quiet nowrap', text: (p) => session.day(p.on, 'withYear') },
        { key: 'by', text: (p) => [p.method, p.reference].filter(Boolean).join(' ') },
        { key: 'for', tone: (p) => ({ soon: isLeft(p) }), text: became },
        { key: 'amount', figures: true, text: (p) => session.money(p.amount, false) },
        { key: 'act', right: true, look: 'nowrap no-print' },
      ]"
    >
      <template #act="{ row: p }">
        <ActButton
          v-if="session.may('payments.takeBack') && !p.takenBack"
          quiet
          class="small"
          @click="taking = p"
        >
          Take it back…
        </ActButton>
      </template>
    </DataTable>
    <TakeBack
      v-if="taking"
      :payment="taking"
      @done="takenBack"
      @close="taking = null"
    />
  </template>
</template>
