<script setup lang="ts">
// Taking money: several methods one after the other; what is left is proposed each time.
import { computed, ref, watch } from 'vue'
import { call, newId, type Problem } from '~/lib/api'
import { useForm } from '~/base/useForm'
import type { Answer } from '~~/shared/api'
import { useSession } from '~/stores/session'
import { currencyExponent } from '~~/core/money/currencyExponent'
import type { Money } from '~~/core/money/formatMinor'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import FigureInput from '~/base/FigureInput.vue'
import TextInput from '~/base/TextInput.vue'

const open = defineModel<boolean>({ required: true })
/** `due` is what is open on the invoice, or on all of the customer's invoices where none is named. */
const props = defineProps<{
  customerId: string
  invoiceId?: string
  number: string
  due: Money
  mails: string[]
}>()
const emit = defineEmits<{ paid: [] }>()
const session = useSession()
const METHODS = { cash: 'Cash', cheque: 'Cheque', transfer: 'Transfer' } as const
type Method = keyof typeof METHODS
const left = ref<Money>(props.due)
const form = useForm({ method: 'cash' as Method, amount: '', reference: '', receipt: true })
/** what was taken so far, one sentence each */
const taken = ref<string[]>([])
/** More than is open is kept as a credit only when somebody says so. */
const over = ref('')
let id = newId()
/** Proposes what is left, for the next payment. */
function propose(open: Money, method: Method) {
  id = newId()
  left.value = open
  over.value = ''
  form.begin({ amount: open.amount, reference: '', method })
}
watch(
  open,
  (is) => {
    if (!is) return
    taken.value = []
    propose(props.due, 'cash')
  },
  { immediate: true },
)
watch(
  () => form.values.amount,
  () => {
    over.value = ''
  },
)
const done = computed(() => taken.value.length > 0 && Number(left.value.amount) <= 0)
function sayTaken(got: Answer<'pay'>, method: Method, reference: string): string {
  const noted = reference ? ` (${reference})` : ''
  const credit = Number(got.left.amount) ? `; ${session.money(got.left)} kept as a credit` : ''
  return `${session.money(got.amount)} by ${method}${noted}, receipt ${got.number}${credit}`
}
/** What a refusal means for what is shown. */
function learn(error: Problem): never {
  if (error.code === 'more_than_open') over.value = (error.extra.over as Money).amount
  // It was taken before: the sheet shows what is open now.
  if (['open_changed', 'already_paid', 'exists'].includes(error.code)) emit('paid')
  throw error
}
const take = (mayLeaveCredit: boolean) =>
  form.act(async () => {
    const { method, amount, reference, receipt } = form.values
    const got = await call('pay', {
      body: {
        id,
        customerId: props.customerId,
        invoiceIds: props.invoiceId ? [props.invoiceId] : [],
        method,
        amount,
        reference,
        receiptTo: receipt ? props.mails : [],
        // What this sheet shows: money that somebody else took meanwhile, or whose answer was lost, is not taken twice.
        shownOpen: left.value.amount,
        mayLeaveCredit,
      },
    }).catch(learn)
    taken.value.push(sayTaken(got, method, reference))
    propose(got.stillOpen, 'cheque')
    emit('paid')
  })
/** What is open now, when it is no longer what was shown. */
const now = computed(() =>
  form.problem?.code === 'open_changed' ? (form.problem.extra.open as Money) : null,
)
function takeNow() {
  propose(now.value!, form.values.method)
  form.problem = null
}
const button = computed(() => {
  const { amount } = form.values
  const { currency } = left.value
  // A sum that the currency does not have is not rounded to one that nobody typed.
  const [, whole, part = ''] = /^(\d+)(?:\.(\d+))?$/.exec(amount) ?? []
  const isSum = whole !== undefined && part.length <= currencyExponent(currency)
  return isSum ? session.money({ amount, currency }) : 'payment'
})
</script>

<template>
  <Dialog
    v-model="open"
    apart
    :title="`Payment for ${number}`"
    width="430"
  >
    <Form
      :of="form"
      @submit="take(false)"
    >
      <p
        v-for="t in taken"
        :key="t"
        class="note"
        role="status"
      >
        {{ t }}
      </p>
      <template v-if="!done">
        <p>
          Still open <b class="num">{{ session.money(left) }}</b>
        </p>
        <div
          class="row"
          role="radiogroup"
          aria-label="How it is paid"
        >
          <ActButton
            v-for="(word, m) in METHODS"
            :key="m"
            class="grow"
            role="radio"
            :aria-checked="form.values.method === m"
            :on="form.values.method === m"
            @click="form.values.method = m"
          >
            {{ word }}
          </ActButton>
        </div>
        <Field
          label="Amount"
          name="amount"
          ><FigureInput v-model="form.values.amount"
        /></Field>
        <Field
          :label="form.values.method === 'cheque' ? 'Number of the cheque' : 'Reference'"
          name="reference"
          ><TextInput v-model="form.values.reference"
        /></Field>
        <Check
          v-if="mails.length"
          v-model="form.values.receipt"
        >
          Mail a receipt to {{ mails.join(' and ') }}</Check
        >
        <Notice v-if="!over">
          <template v-if="now">
            Shown was {{ session.money(left) }}, open is {{ session.money(now) }}.
            <ActButton
              v-if="Number(now.amount)"
              @click="takeNow"
            >
              Go on with {{ session.money(now) }}
            </ActButton>
          </template>
        </Notice>
        <div
          v-if="over"
          class="note warn"
          role="alert"
        >
          <p>{{ form.problem?.message }}</p>
          <p>
            <b class="num">{{ session.money({ amount: over, currency: left.currency }) }}</b> would
            be kept as a credit.
            <ActButton
              :disabled="form.busy"
              @click="take(true)"
            >
              Yes, keep it as a credit
            </ActButton>
          </p>
        </div>
        <ActButton
          primary
          submit
          data-tour="bill.pay"
        >
          Take {{ button }}
        </ActButton>
      </template>
      <template v-else
        ><p
          class="note"
          role="status"
        >
          <b class="good">Paid.</b>
          {{ invoiceId ? `Nothing is open on ${number}.` : `${number} has no open invoice.` }}
        </p>
        <ActButton
          primary
          @click="open = false"
        >
          Done
        </ActButton></template
      >
    </Form>
  </Dialog>
</template>
