<script setup lang="ts">
// Before an invoice is made: what it will say, when it is due, to whom it goes. Made and sent in one act; never by accident.
import { computed, ref, watch } from 'vue'
import type { Answer } from '~~/shared/api'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import DateInput from '~/base/DateInput.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'
import DataTable from '~/base/DataTable.vue'
import Notice from '~/base/Notice.vue'

const open = defineModel<boolean>({ required: true })
const props = defineProps<{ work: Answer<'workOrder'> }>()
const emit = defineEmits<{ made: [invoice: Answer<'invoice'>] }>()
const session = useSession()
const { busy, problem, act } = useAct()
const first = ref('')
const second = ref('')
const dueOn = ref('')
const text = ref('')
let id = newId()
let key = newId()
watch(
  open,
  (is) => {
    if (!is) return
    id = newId()
    key = newId()
    first.value = props.work.customer.email
    second.value = props.work.customer.email2
    dueOn.value = props.work.bill.dueOn
    text.value = `Thank you for having us. Your invoice for “${props.work.title}” is attached; you can also read it and pay here:\n\n{link}\n\n${session.me?.company.name ?? ''}`
  },
  { immediate: true },
)
const lines = computed(() => props.work.lines.filter((l) => Number(l.toBill.amount) > 0))
const make = (send: boolean) =>
  act(async () => {
    const to = send ? [first.value, second.value].map((a) => a.trim()).filter(Boolean) : []
    const invoice = await call('makeInvoice', {
      params: { id: props.work.id },
      key: key + (send ? 's' : 'n') + to.join('').length,
      body: {
        id,
        dueOn: dueOn.value,
        to,
        body: text.value,
        shownTotal: props.work.bill.total.amount,
      },
    })
    emit('made', invoice)
    open.value = false
  })
const billed = computed(() => [
  ...lines.value.map((l) => ({
    id: l.id,
    name: l.name,
    each: `${l.quantity} × ${l.unitPrice}`,
    sum: l.toBill,
  })),
  {
    id: 'tax',
    name: props.work.customer.exempt ? 'Tax (exempt)' : 'Tax',
    each: '',
    sum: props.work.bill.tax,
  },
])
</script>

<template>
  <Dialog
    v-model="open"
    apart
    :title="`Bill ${work.number}`"
    width="620"
  >
    <div class="stack">
      <p
        v-if="work.time.uncoveredSeconds"
        class="note warn"
      >
        <b
          >{{ Math.round(work.time.uncoveredSeconds / 60) }} minutes were worked that no line
          charges for.</b
        >
        Charge or explain them first, or they are lost to this invoice.
      </p>
      <ul
        v-if="work.bill.missing.length"
        class="note warn missing"
      >
        <li
          v-for="m in work.bill.missing"
          :key="m"
        >
          {{ m }}
        </li>
      </ul>
      <DataTable
        label="What is billed"
        :rows="billed"
        :row-key="(l) => l.id"
        :columns="[
          { key: 'what', text: (l) => l.name },
          { key: 'each', figures: true, look: 'quiet', text: (l) => l.each },
          { key: 'sum', figures: true, text: (l) => session.money(l.sum, false) },
        ]"
        :sums="{ what: 'Total', sum: session.money(work.bill.total) }"
      />
      <div class="row">
        <Field
          class="grow"
          label="Send to"
          ><TextInput
            v-model="first"
            type="email" /></Field
        ><Field
          class="grow"
          label="and to"
          ><TextInput
            v-model="second"
            type="email"
        /></Field>
        <Field :label="`Due (${work.customer.terms})`"><DateInput v-model="dueOn" /></Field>
      </div>
      <Field label="Text of the mail; the invoice is attached as PDF and linked"
        ><TextInput
          v-model="text"
          rows="5"
        />
      </Field>
      <Notice :of="problem" />
      <p class="quiet small">Once made, an invoice is not changed any more.</p>
      <div class="row">
        <ActButton
          primary
          :disabled="busy || !first.trim()"
          @click="make(true)"
        >
          Make and send invoice {{ session.money(work.bill.total) }}</ActButton
        ><ActButton
          :disabled="busy"
          @click="make(false)"
        >
          Make it, send later
        </ActButton>
      </div>
    </div>
  </Dialog>
</template>

<style scoped>
.missing {
  margin: 0;
  padding-left: 30px;
}
</style>
