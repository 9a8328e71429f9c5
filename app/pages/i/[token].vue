<script setup lang="ts">
// The customer's page of an invoice: drawn on the server, readable and payable without JavaScript.
import ForCustomer from '~/base/ForCustomer.vue'
import PaperSheet from '~/base/PaperSheet.vue'
import { invoiceDocument } from '~~/core/invoices/invoiceDocument'
import type { Answer } from '~~/shared/api'
import { sayMoney } from '~~/core/money/sayMoney'

const route = useRoute()
const token = String(route.params.token)
const { data, error, refresh } = await useFetch<Answer<'publicInvoice'>>(
  `/api/v1/public/invoices/${encodeURIComponent(token)}`,
)
if (error.value && import.meta.server) setResponseStatus(useRequestEvent()!, 404)
const card = computed(() => String(route.query.card ?? ''))
const money = (m: { amount: string; currency: string }) =>
  sayMoney(m, data.value?.paper.locale ?? 'en-US')
/** The terminal has taken it, and the books are told a moment later. */
const isOnItsWay = computed(
  () => ['approved', 'waiting'].includes(card.value) && data.value?.state !== 'paid',
)
const ASK_MS = 3000
const asking = ref<ReturnType<typeof setInterval>>()
onMounted(() => {
  asking.value = setInterval(() => isOnItsWay.value && void refresh(), ASK_MS)
})
onBeforeUnmount(() => clearInterval(asking.value))
</script>

<template>
  <ForCustomer
    :title="data ? `Invoice ${data.paper.number}` : 'Invoice'"
    :found="Boolean(data)"
    :seen="`/api/v1/public/invoices/${encodeURIComponent(token)}/seen`"
  >
    <template v-if="data">
      <p
        v-if="card === 'approved' || data.state === 'paid'"
        class="note done"
        role="status"
      >
        <b>{{
          data.state === 'paid'
            ? 'This invoice is paid. Thank you.'
            : 'The payment is on its way; this page shows it in a moment.'
        }}</b>
      </p>
      <p
        v-else-if="card === 'declined'"
        class="note bad"
        role="alert"
      >
        <b>The card was declined.</b> Nothing was charged. Try another card, or pay another way.
      </p>
      <p
        v-else-if="card === 'away'"
        class="note bad"
        role="alert"
      >
        <b>Card payment does not answer at the moment.</b> Nothing was charged. Try again in a few
        minutes, or pay another way.
      </p>
      <p
        v-else-if="card === 'busy'"
        class="note bad"
        role="alert"
      >
        <b>Very many are asking at this moment.</b> Nothing was charged. Press the button again in a
        few seconds.
      </p>
      <p
        v-else-if="card === 'waiting'"
        class="note"
        role="status"
      >
        <b>The card terminal says that it was approved; our books do not show it yet.</b> This page
        shows it in a moment. Please do not pay a second time.
      </p>
      <p
        v-else-if="card === 'failed'"
        class="note bad"
        role="alert"
      >
        <b>Something went wrong on our side.</b> Nothing was charged. Please try again, or pay
        another way.
      </p>
      <div class="acts">
        <form
          v-if="Number(data.open.amount) > 0 && !isOnItsWay"
          method="post"
          :action="`/i/${token}/pay`"
        >
          <button class="btn act">Pay {{ money(data.open) }} by card</button>
        </form>
        <a
          class="btn"
          :href="`/api/v1/public/invoices/${token}.pdf`"
          >Download as PDF</a
        >
      </div>
      <PaperSheet :paper="invoiceDocument(data.paper, data)" />
    </template>
  </ForCustomer>
</template>
