<script setup lang="ts">
// Before an invoice is made: what it will say, when it is due, to whom it goes. Made and sent in one act; never by accident.
import { computed, shallowRef } from 'vue'
import type { Answer } from '~~/shared/api'
import { call, newId } from '~/lib/api'
import { useLayouts } from '~/papers/useLayouts'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import FormFields from '~/base/FormFields.vue'
import { field, type FormRows } from '~/base/fields'
import { useForm } from '~/base/useForm'
import DataTable from '~/base/DataTable.vue'
import MissingHere from './MissingHere.vue'
import Notice from '~/base/Notice.vue'
import Phrases from '~/base/Phrases.vue'
import TextInput from '~/base/TextInput.vue'

const props = defineProps<{ work: Answer<'workOrder'> }>()
const emit = defineEmits<{
  made: [invoice: Answer<'invoice'>]
  changed: [work: Answer<'workOrder'>]
  close: []
}>()
const session = useSession()
const id = newId()
/** What the dialog shows, and bills; what came meanwhile is shown when somebody says so. */
const shown = shallowRef(props.work)
const { customer, bill } = props.work
const changed = computed(
  () => JSON.stringify(asBilled(props.work)) !== JSON.stringify(asBilled(shown.value)),
)
function asBilled({ lines, bill: now }: Answer<'workOrder'>) {
  return [now.total, lines.map((l) => [l.name, l.quantity, l.unitPrice, l.toBill])]
}
const form = useForm(
  {
    first: customer.email,
    second: customer.email2,
    dueOn: bill.dueOn,
    leftOut: '',
    beyond: '',
    findingsOf: [] as string[],
    layoutId: null as string | null,
    billing: { line1: '', town: '', postcode: '' },
    body: bill.mail,
  },
  { draft: `bill ${props.work.id}` },
)
/** What was mended here is seen here at once. */
function mended(now: Answer<'workOrder'>) {
  shown.value = now
  emit('changed', now)
}
const uncovered = computed(() => shown.value.time.uncoveredSeconds)
const lines = computed(() => shown.value.lines.filter((l) => Number(l.toBill.amount) > 0))
const make = (send: boolean) =>
  form.send(async () => {
    const { first, second, dueOn, body, leftOut, beyond, findingsOf, billing, layoutId } =
      form.values
    const reason = leftOut.trim()
    const to = send ? [first, second].map((a) => a.trim()).filter(Boolean) : []
    const invoice = await call('makeInvoice', {
      params: { id: props.work.id },
      body: {
        ...{ id, dueOn, to, body, shownTotal: shown.value.bill.total.amount },
        ...{ beyond: beyond.trim(), findingsOf, layoutId },
        billing: billing.line1.trim() ? billing : null,
        leftOut: reason && uncovered.value ? { seconds: uncovered.value, reason } : null,
      },
    })
    emit('made', invoice)
    emit('close')
  })
/** What was found on site, beside the lines that charge for it; printed where somebody says so. */
const found = computed(() => shown.value.visits.filter((v) => v.findings))
const printFound = (visitId: string, prints: boolean) => {
  const others = form.values.findingsOf.filter((one) => one !== visitId)
  form.values.findingsOf = prints ? [...others, visitId] : others
}
const billed = computed(() => [
  ...lines.value.map((l) => ({
    id: l.id,
    name: l.name,
    each: `${l.quantity} × ${l.unitPrice}`,
    sum: l.toBill,
  })),
  {
    id: 'tax',
    name: customer.exempt ? 'Tax (exempt)' : 'Tax',
    each: '',
    sum: shown.value.bill.tax,
  },
])
const layouts = useLayouts('invoice')
const fields = computed((): FormRows => [
  ...(layouts.value.length ? [field('layoutId', 'It looks', { options: layouts.value })] : []),
  [
    field('first', 'Send to', { kind: 'email' }),
    field('second', 'and to', { kind: 'email' }),
    field('dueOn', `Due (${customer.terms})`, { kind: 'date', narrow: true }),
  ],
  field('body', 'Text of the mail; the invoice is attached as PDF and linked', {
    kind: 'area',
    rows: 5,
  }),
])
</script>

<template>
  <Dialog
    apart
    :title="`Bill ${work.number}`"
    width="620"
    @close="emit('close')"
  >
    <MissingHere
      v-if="shown.bill.missing.length"
      :missing="shown.bill.missing"
      :may="session.may('visits.write')"
      @changed="mended"
    />
    <Form
      :of="form"
      @submit="make(true)"
    >
      <div
        v-if="uncovered"
        class="note warn stack"
      >
        <p>
          <b>{{ Math.round(uncovered / 60) }} minutes were worked that no line charges for.</b>
          Charge them first, or say why not; else the work order stays to be billed for them.
        </p>
        <Field
          label="Why they are left out"
          name="leftOut.reason"
          ><TextInput v-model="form.values.leftOut"
        /></Field>
        <Phrases
          v-model="form.values.leftOut"
          of="left_out"
        />
      </div>
      <div
        v-if="Number(shown.bill.beyond.amount)"
        class="note warn stack"
      >
        <p>
          <b>{{ session.money(shown.bill.beyond) }} before tax was not agreed to.</b>
          Show it to the customer first, or say why it is billed all the same.
        </p>
        <Field
          label="Why it is billed all the same"
          name="beyond"
          ><TextInput v-model="form.values.beyond"
        /></Field>
        <Phrases
          v-model="form.values.beyond"
          of="beyond"
        />
      </div>
      <DataTable
        label="What is billed"
        :rows="billed"
        :row-key="(l) => l.id"
        :columns="[
          { key: 'what', text: (l) => l.name },
          { key: 'each', figures: true, look: 'quiet', text: (l) => l.each },
          { key: 'sum', figures: true, text: (l) => session.money(l.sum, false) },
        ]"
        :sums="{ what: 'Total', sum: session.money(shown.bill.total) }"
      />
      <div
        v-for="visit in found"
        :key="visit.id"
        class="note stack"
      >
        <p class="found">
          <span class="quiet small">Found by {{ visit.technician }}: is each of it charged?</span
          ><br />{{ visit.findings }}
        </p>
        <Check
          :model-value="form.values.findingsOf.includes(visit.id)"
          @update:model-value="printFound(visit.id, Boolean($event))"
          >Print it on the invoice</Check
        >
      </div>
      <p
        v-if="changed"
        class="note warn"
        role="status"
      >
        What is to be billed changed meanwhile: shown is {{ session.money(shown.bill.total) }}, now
        it is {{ session.money(work.bill.total) }}.
        <ActButton @click="shown = work">Show what it is now</ActButton>
      </p>
      <div
        v-if="!customer.address && session.may('customers.change')"
        class="note warn stack"
      >
        <p><b>There is no billing address.</b> It is kept with the customer.</p>
        <div class="row">
          <Field
            class="grow"
            name="billing.line1"
            label="Billing address"
            ><TextInput v-model="form.values.billing.line1" /></Field
          ><Field
            name="billing.town"
            label="Town"
            ><TextInput v-model="form.values.billing.town" /></Field
          ><Field
            name="billing.postcode"
            label="Postcode"
            ><TextInput v-model="form.values.billing.postcode"
          /></Field>
        </div>
      </div>
      <FormFields :fields="fields" />
      <Notice />
      <p class="quiet small">Once made, an invoice is not changed any more.</p>
      <div class="row">
        <ActButton
          primary
          submit
          :disabled="!form.values.first.trim()"
        >
          Make and send invoice {{ session.money(shown.bill.total) }}</ActButton
        ><ActButton
          :disabled="form.busy"
          @click="make(false)"
        >
          Make it, send later
        </ActButton>
      </div>
    </Form>
  </Dialog>
</template>

<style scoped>
.found {
  white-space: pre-line;
}
</style>
