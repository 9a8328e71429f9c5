<script setup lang="ts">
// An invoice as it was sent, what may be done with it, and beside it what came in and what happened.
import { computed, ref } from 'vue'
import type { InvoiceAct } from '~~/core/invoices/invoiceLifecycle'
import { invoiceDocument } from '~~/core/invoices/invoiceDocument'
import ActButton from '~/base/ActButton.vue'
import DocumentPage from '~/base/DocumentPage.vue'
import PaperSheet from '~/base/PaperSheet.vue'
import Pending from '~/base/Pending.vue'
import StateTag from '~/base/StateTag.vue'
import PaySheet from '~/components/payments/PaySheet.vue'
import FilledFields from '~/components/settings/FilledFields.vue'
import { useSession } from '~/stores/session'
import CustomerLink from './CustomerLink.vue'
import InvoiceBeside from './InvoiceBeside.vue'
import TakeBack from './TakeBack.vue'
import SendInvoice from './SendInvoice.vue'
import { useInvoice, type Invoice } from './useInvoice'
import { actWords, invoiceTag } from './words'

const props = defineProps<{ id: string }>()
const session = useSession()
const {
  invoice,
  problem,
  refresh,
  busy,
  failed,
  mails,
  tags,
  may,
  changeLink,
  act: inTurn,
} = useInvoice(props.id)
/** the act whose dialog is open, and the invoice as it was when it was opened */
const asked = ref<{ act: InvoiceAct; invoice: Invoice } | null>(null)
const returned = ref<Invoice['payments'][number] | null>(null)
const acts = computed(() => invoice.value?.acts.filter((act) => act !== 'link') ?? [])
function sent(now: Invoice) {
  invoice.value = now
  asked.value = null
}
async function takenBack() {
  returned.value = null
  await refresh()
}
</script>

<template>
  <DocumentPage
    v-if="invoice"
    :id="invoice.id"
    :number="invoice.paper.number"
    :title="invoice.paper.buyer.name"
    of="invoiceEarlier"
    :history="invoice.history"
    :problem="(failed ?? problem)?.message"
  >
    <template #state><StateTag v-bind="invoiceTag(invoice)" /></template>
    <template #standing>
      <p>
        Open <b class="num">{{ session.money(invoice.open) }}</b>
        <span
          v-for="tag in tags"
          :key="tag"
          class="chip"
          >{{ tag }}</span
        >
      </p>
    </template>
    <template #acts>
      <ActButton
        v-for="act in acts"
        :key="act"
        :primary="act === 'pay'"
        :disabled="busy"
        @click="asked = { act, invoice }"
      >
        {{ actWords(act, invoice) }}
      </ActButton>
      <a
        class="btn"
        :href="`/api/v1/invoices/${id}.pdf`"
        target="_blank"
        rel="noopener"
        >PDF</a
      >
      <a
        v-if="invoice.link"
        class="btn"
        :href="invoice.link"
        target="_blank"
        rel="noopener"
        >The customer’s page</a
      >
      <NuxtLink
        v-if="invoice.workOrderId"
        class="btn"
        :to="`/work/${invoice.workOrderId}`"
        >Work order {{ invoice.paper.workOrder }}</NuxtLink
      >
    </template>
    <PaperSheet
      class="sent"
      :paper="invoiceDocument(invoice.paper, invoice)"
    />
    <template #beside>
      <CustomerLink
        v-if="may('link')"
        :until="invoice.linkUntil"
        :busy="busy"
        @change="changeLink"
      />
      <FilledFields
        v-if="session.may('invoices.make')"
        :fields="invoice.fields"
        :subject-id="id"
        :act="inTurn"
        @filled="refresh"
      />
      <InvoiceBeside
        :invoice="invoice"
        @returned="returned = $event"
      />
    </template>
    <SendInvoice
      v-if="asked?.act === 'send'"
      :invoice="asked.invoice"
      :mails="mails"
      @done="sent"
      @close="asked = null"
    />
    <PaySheet
      v-if="asked?.act === 'pay'"
      :model-value="true"
      :customer-id="asked.invoice.customerId"
      :invoice-id="asked.invoice.id"
      :number="asked.invoice.paper.number"
      :due="asked.invoice.open"
      :mails="mails"
      @update:model-value="asked = null"
      @paid="refresh"
    />
    <TakeBack
      v-if="returned"
      :payment="returned"
      @done="takenBack"
      @close="returned = null"
    />
  </DocumentPage>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
  />
</template>

<style scoped>
.sent {
  max-width: 860px;
}
</style>
