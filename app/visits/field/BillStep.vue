<script setup lang="ts">
// Billing at the door: what is done becomes an invoice, and its money is taken.
import { computed, ref, shallowRef } from 'vue'
import Pending from '~/base/Pending.vue'
import { useForm } from '~/base/useForm'
import PaySheet from '~/components/payments/PaySheet.vue'
import SendInvoice from '~/invoices/SendInvoice.vue'
import type { Invoice } from '~/invoices/useInvoice'
import { INVOICE_STATES } from '~/invoices/words'
import { call, newId } from '~/lib/api'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'
import type { useFieldVisit, Work } from './useFieldVisit'

const props = defineProps<{ work: Work; of: ReturnType<typeof useFieldVisit> }>()
const emit = defineEmits<{ done: [] }>()
const session = useSession()
const { email: first, email2: second } = props.work.customer
/** An address that was typed is there again after a step back. */
const begins = { first, second, beyond: '', findingsOf: [] as string[] }
const mail = useForm(begins, { draft: `bill at the door ${props.work.id}` })
const id = newId()
/** What is open already, when nothing is left to bill. */
function openInvoice(): string | null {
  const { invoices, totals } = props.work
  if (Number(totals.toBill.amount)) return null
  return (invoices.find((i) => Number(i.open.amount) > 0) ?? invoices.at(-1))?.id ?? null
}
const made = ref(openInvoice())
const {
  data: invoice,
  problem,
  refresh,
} = useAnswer('invoice', () => (made.value ? { params: { id: made.value } } : null))
/** It was never sent, or no mail of it arrived; a receipt is none of it. */
const isUnsent = computed(() => {
  const sent = invoice.value!.messages.filter(({ kind }) => kind === 'invoice')
  return sent.length ? sent.every(({ state }) => state === 'failed') : !invoice.value!.sent
})
const paying = ref(false)
/** the invoice that was made to be sent later, while it is */
const sending = shallowRef<Invoice | null>(null)
const mails = () => [mail.values.first, mail.values.second].map((to) => to.trim()).filter(Boolean)
const bill = (send: boolean) =>
  props.of.act(async () => {
    await call('makeInvoice', {
      params: { id: props.work.id },
      body: {
        ...{ id, to: send ? mails() : [], shownTotal: props.work.bill.total.amount },
        beyond: mail.values.beyond.trim(),
        findingsOf: mail.values.findingsOf,
      },
    })
    made.value = id
    mail.settle(mail.values)
    // Whoever bills at the door is paid there, most often: the sheet is a tap less, and one to close.
    paying.value = session.may('payments.take')
    await props.of.refresh()
  })
const sent = async () => {
  sending.value = null
  await refresh()
}
const found = computed(() => props.work.visits.filter(({ findings }) => findings))
const markDone = ({ lineId, version }: Work['bill']['missing'][number]) =>
  props.of.act(async () => {
    const body = { version: version!, done: true }
    await call('changeLine', { params: { id: lineId! }, body })
    await props.of.refresh()
  })
const paid = () => Promise.all([refresh(), props.of.refresh()])
</script>

<template>
  <section
    v-if="!made"
    class="block"
  >
    <h2>Bill {{ session.money(work.bill.total) }}</h2>
    <template v-if="!Number(work.bill.total.amount)">
      <p class="note warn">Nothing is marked done that is not billed. Open a line and mark it.</p>
      <button
        class="btn act"
        @click="emit('done')"
      >
        Back to the lines
      </button>
    </template>
    <template v-else>
      <p class="quiet">
        Due {{ session.day(work.bill.dueOn, 'withYear') }} ({{ work.customer.terms }})
      </p>
      <p
        v-if="work.time.uncoveredSeconds"
        class="note warn"
      >
        {{ Math.round(work.time.uncoveredSeconds / 60) }} minutes are neither charged nor explained.
        Billed all the same, the work order stays to be billed for them.
      </p>
      <template v-if="Number(work.bill.beyond.amount)">
        <p class="note warn">
          {{ session.money(work.bill.beyond) }} before tax was not agreed to. Show it to the
          customer, or say why it is billed all the same.
        </p>
        <label class="field">
          <span>Why it is billed all the same</span>
          <input
            v-model="mail.values.beyond"
            class="plain"
          />
          <span
            v-if="of.failed.value?.at('beyond')"
            class="wrong"
            >{{ of.failed.value.at('beyond') }}</span
          >
        </label>
      </template>
      <ul
        v-if="work.bill.missing.length"
        class="note warn"
      >
        <li
          v-for="missing in work.bill.missing"
          :key="missing.lineId ?? missing.why"
        >
          {{ missing.text }}
          <button
            v-if="missing.why === 'undone'"
            class="btn"
            :disabled="of.busy.value"
            :aria-label="`Mark it done: ${missing.text}`"
            @click="markDone(missing)"
          >
            Mark it done
          </button>
        </li>
      </ul>
      <label
        v-for="visit in found"
        :key="visit.id"
        class="row found"
      >
        <input
          v-model="mail.values.findingsOf"
          type="checkbox"
          :value="visit.id"
        />
        <span class="grow"
          ><span class="quiet small">Print what was found on the invoice</span><br />{{
            visit.findings
          }}</span
        >
      </label>
      <label class="field">
        <span>Send to</span>
        <input
          v-model="mail.values.first"
          class="plain"
          type="email"
        />
      </label>
      <label class="field">
        <span>and to</span>
        <input
          v-model="mail.values.second"
          class="plain"
          type="email"
        />
      </label>
      <button
        class="btn act"
        data-tour="bill.make"
        :disabled="of.busy.value || !mail.values.first.trim()"
        @click="bill(true)"
      >
        Make and send invoice {{ session.money(work.bill.total) }}
      </button>
      <button
        class="btn"
        :disabled="of.busy.value"
        @click="bill(false)"
      >
        Make it, send later
      </button>
    </template>
  </section>
  <Pending
    v-else-if="!invoice"
    :problem="problem"
    :again="refresh"
    says="Opening the invoice…"
  />
  <section
    v-else
    class="block"
  >
    <h2>Invoice {{ invoice.paper.number }}</h2>
    <p>
      {{ INVOICE_STATES[invoice.state] }} · open
      <b class="num">{{ session.money(invoice.open) }}</b>
    </p>
    <p
      v-for="p in invoice.payments"
      :key="p.id"
      class="quiet"
    >
      <span class="num">{{ session.money(p.amount) }}</span> by {{ p.method }} {{ p.reference }}
    </p>
    <p
      v-for="m in invoice.messages"
      :key="m.id"
      class="quiet small"
    >
      Mail to {{ m.to }}: {{ m.state }}
    </p>
    <button
      v-if="invoice.acts.includes('pay') && session.may('payments.take')"
      class="btn act"
      @click="paying = true"
    >
      Take payment
    </button>
    <button
      v-if="invoice.acts.includes('send') && isUnsent"
      class="btn"
      @click="sending = invoice"
    >
      Send it…
    </button>
    <button
      class="btn"
      @click="emit('done')"
    >
      Back to the visit
    </button>
    <SendInvoice
      v-if="sending"
      :invoice="sending"
      :mails="mails()"
      @done="sent"
      @close="sending = null"
    />
    <PaySheet
      v-if="paying"
      v-model="paying"
      :customer-id="invoice.customerId"
      :invoice-id="invoice.id"
      :number="invoice.paper.number"
      :due="invoice.open"
      :mails="mails()"
      @paid="paid"
    />
  </section>
</template>

<style scoped>
.found {
  min-height: 48px;
}
.found input {
  width: 24px;
  height: 24px;
  accent-color: var(--green);
}
</style>
