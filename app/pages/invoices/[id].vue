<script setup lang="ts">
import { computed, reactive, ref } from 'vue'
import InvoicePaper from '~/components/invoices/InvoicePaper.vue'
import CustomFields from '~/components/settings/CustomFields.vue'
import PaySheet from '~/components/payments/PaySheet.vue'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useLoad } from '~/lib/useLoad'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'
import MailFields from '~/base/MailFields.vue'

definePageMeta({ layout: 'office' })
const session = useSession()
const id = String(useRoute().params.id)
const {
  data: invoice,
  problem,
  refresh,
} = useLoad(() => call('invoice', { params: { id } }), 0, {
  subjects: ['invoice', 'payment', 'message', 'settings'],
})
const { data: customer } = useLoad(async () => {
  const found = invoice.value ?? (await call('invoice', { params: { id } }))
  return call('customer', { params: { id: found.customerId } })
})
const { busy, problem: failed, act } = useAct()
const sending = ref(false)
const paying = ref(false)
const bouncing = ref('')
const reason = ref('')
const mail = reactive({ first: '', second: '', subject: '', body: '' })
const bills = computed(() => session.may('invoices.make'))
const mails = computed(() =>
  [customer.value?.email, customer.value?.email2].filter((m): m is string => Boolean(m)),
)
function openSend() {
  Object.assign(mail, {
    first: mails.value[0] ?? '',
    second: mails.value[1] ?? '',
    subject: `${session.me?.company.name}: invoice ${invoice.value!.paper.number}`,
    body: `Your invoice is attached; you can also read it and pay here:\n\n{link}\n\n${session.me?.company.name}`,
  })
  sending.value = true
}
const send = (handed: boolean) =>
  act(async () => {
    invoice.value = await call('sendInvoice', {
      params: { id },
      body: handed
        ? { to: [] }
        : { to: [mail.first, mail.second].filter(Boolean), subject: mail.subject, body: mail.body },
    })
    sending.value = false
  })
const link = (renew: boolean) =>
  act(async () => {
    invoice.value = await call(renew ? 'renewLink' : 'withdrawLink', { params: { id } })
  })
const values = computed(() =>
  Object.fromEntries(invoice.value?.fields.map((f) => [f.id, f.value]) ?? []),
)
const fill = (next: Record<string, string>) =>
  act(async () => {
    const fieldId = Object.keys(next).find((k) => next[k] !== values.value[k])
    if (fieldId) await call('fillField', { body: { fieldId, subjectId: id, value: next[fieldId] } })
    await refresh()
  })
const bounce = () =>
  act(async () => {
    await call('bounce', { params: { id: bouncing.value }, body: { reason: reason.value } })
    bouncing.value = ''
    await refresh()
  })
</script>

<template>
  <div
    v-if="invoice"
    class="page"
  >
    <div class="main">
      <InvoicePaper
        :paper="invoice.paper"
        :paid="invoice.paid"
        :open="invoice.open"
      />
    </div>
    <aside class="no-print">
      <p>
        <span
          class="chip"
          :class="{ late: invoice.late, good: invoice.state === 'paid' }"
          >{{ invoice.late ? `overdue by ${invoice.late} days` : invoice.state }}</span
        >
      </p>
      <p>
        Open <b class="num">{{ session.money(invoice.open) }}</b>
      </p>
      <ActButton
        v-if="bills && Number(invoice.open.amount)"
        primary
        @click="paying = true"
      >
        Take payment…</ActButton
      ><ActButton
        v-if="bills"
        @click="openSend"
      >
        {{ invoice.sent ? 'Send again…' : 'Send…' }}
      </ActButton>
      <a
        class="btn"
        :href="`/api/v1/invoices/${id}.pdf`"
        target="_blank"
        rel="noopener"
        >PDF</a
      ><a
        v-if="invoice.link"
        class="btn"
        :href="invoice.link"
        target="_blank"
        rel="noopener"
        >The customer’s page</a
      ><NuxtLink
        v-if="invoice.workOrderId"
        class="btn"
        :to="`/work/${invoice.workOrderId}`"
        >Work order {{ invoice.paper.workOrder }}</NuxtLink
      >
      <Notice :of="failed" />
      <details
        v-if="bills"
        class="small"
      >
        <summary>
          {{
            invoice.linkUntil
              ? `The customer’s link holds until ${session.day(invoice.linkUntil.slice(0, 10))}`
              : 'The customer’s link was withdrawn'
          }}
        </summary>
        <p class="quiet">
          Whoever has the link reads this invoice. Another link ends this one; send the invoice
          again then.
        </p>
        <div class="row">
          <ActButton
            v-if="invoice.linkUntil"
            :disabled="busy"
            @click="link(false)"
          >
            Withdraw it</ActButton
          ><ActButton
            :disabled="busy"
            @click="link(true)"
          >
            Make another link
          </ActButton>
        </div>
      </details>
      <CustomFields
        v-if="bills && invoice.fields.length"
        :model-value="values"
        :fields="invoice.fields"
        @update:model-value="fill"
      />
      <h3>Payments</h3>
      <ul>
        <li
          v-for="p in invoice.payments"
          :key="p.id"
        >
          <b class="num">{{ session.money(p.amount) }}</b> by {{ p.method }} {{ p.reference
          }}<br /><span class="quiet small"
            >{{ session.day(p.on) }} · {{ p.number
            }}<template v-if="p.bounced"> · <span class="late">came back</span></template></span
          ><ActButton
            v-if="session.may('payments.bounce') && p.method === 'cheque' && !p.bounced"
            quiet
            class="small"
            @click="
              () => {
                bouncing = p.id
                reason = ''
              }
            "
          >
            It came back…
          </ActButton>
        </li>
        <li
          v-if="!invoice.payments.length"
          class="quiet"
        >
          None yet.
        </li>
      </ul>
      <h3>Mail</h3>
      <ul>
        <li
          v-for="m in invoice.messages"
          :key="m.id"
        >
          {{ m.kind }} to {{ m.to }}<br /><span class="quiet small"
            >{{ session.dayTime(m.createdAt) }} ·
            {{ m.openedAt ? `opened ${session.dayTime(m.openedAt)}` : m.state }}</span
          >
        </li>
        <li
          v-if="!invoice.messages.length"
          class="quiet"
        >
          Nothing was sent.
        </li>
      </ul>
    </aside>
    <Dialog
      v-model="sending"
      title="Send the invoice"
      width="560"
      ><form
        class="stack"
        @submit.prevent="send(false)"
      >
        <MailFields
          :model-value="mail"
          :rows="7"
        />
        <div class="row">
          <ActButton
            primary
            submit
            :disabled="busy || !mail.first"
          >
            Send it</ActButton
          ><ActButton
            :disabled="busy"
            @click="send(true)"
          >
            It was handed over
          </ActButton>
        </div>
      </form></Dialog
    >
    <Dialog
      :model-value="bouncing !== ''"
      title="The cheque came back"
      width="420"
      @close="bouncing = ''"
      ><form
        class="stack"
        @submit.prevent="bounce"
      >
        <p>The payment is reversed in the books and what it paid is open again.</p>
        <Field label="What the bank said"><TextInput v-model="reason" /></Field
        ><ActButton
          primary
          submit
          :disabled="busy"
        >
          Reverse the payment
        </ActButton>
      </form></Dialog
    >
    <PaySheet
      v-if="paying"
      v-model="paying"
      :customer-id="invoice.customerId"
      :invoice-id="id"
      :number="invoice.paper.number"
      :due="invoice.open"
      :mails="mails"
      @paid="refresh"
    />
  </div>
  <Pending
    v-else
    :problem="problem"
  />
</template>

<style scoped>
.page {
  display: grid;
  gap: 0;
  padding: 0;
  grid-template-columns: minmax(0, 1fr) 270px;
  min-height: 100%;
}
.main {
  padding: 20px;
  max-width: 860px;
}
aside {
  border-left: 1px solid var(--rule-2);
  background: #fbfcfb;
  padding: 16px;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  padding: 5px 0;
  border-bottom: 1px solid var(--rule);
}
</style>
