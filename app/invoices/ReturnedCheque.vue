<script setup lang="ts">
// Takes back the payment that it was opened for: its cheque came back from the bank.
import ReasonDialog from '~/base/ReasonDialog.vue'
import { call } from '~/lib/api'
import { useSession } from '~/stores/session'
import type { Invoice } from './useInvoice'

const props = defineProps<{ payment: Invoice['payments'][number] }>()
const emit = defineEmits<{ done: []; close: [] }>()
const session = useSession()
async function reverse(reason: string) {
  await call('bounce', { params: { id: props.payment.id }, body: { reason } })
  emit('done')
}
</script>

<template>
  <ReasonDialog
    title="The cheque came back"
    label="What the bank said"
    name="reason"
    act="Reverse the payment"
    :send="reverse"
    @close="emit('close')"
  >
    <p>
      The payment of <b class="num">{{ session.money(payment.amount) }}</b> ({{ payment.number }})
      is reversed in the books, and what it paid is open again.
    </p>
  </ReasonDialog>
</template>
