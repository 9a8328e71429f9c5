<script setup lang="ts">
// Taking money: several methods one after the other; what is left is proposed each time.
import { computed, ref, watch } from 'vue'
import { call, newId, type Problem } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useSession } from '~/stores/session'
import type { Money } from '~~/core/money/formatMinor'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
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
const { busy, problem, act } = useAct()
const left = ref<Money>(props.due)
const method = ref<'cash' | 'cheque' | 'transfer'>('cash')
const amount = ref('')
const reference = ref('')
const receipt = ref(true)
const taken = ref<{ text: string }[]>([])
/** More than is open is kept as a credit only when somebody says so. */
const over = ref('')
let id = newId()
watch(
  open,
  (is) => {
    if (!is) return
    id = newId()
    left.value = props.due
    amount.value = props.due.amount
    reference.value = ''
    taken.value = []
    over.value = ''
  },
  { immediate: true },
)
watch(amount, () => {
  over.value = ''
})
const done = computed(() => taken.value.length > 0 && Number(left.value.amount) <= 0)
const take = (mayLeaveCredit: boolean) =>
  act(async () => {
    const body = {
      id,
      customerId: props.customerId,
      invoiceIds: props.invoiceId ? [props.invoiceId] : [],
      method: method.value,
      amount: amount.value,
      reference: reference.value,
      receiptTo: receipt.value ? props.mails : [],
      // What this sheet shows: money that somebody else took meanwhile, or whose answer was lost, is not taken twice.
      shownOpen: left.value.amount,
      mayLeaveCredit,
    }
    const got = await call('pay', {
      key: `${id}${amount.value}${method.value}${mayLeaveCredit ? '+' : ''}`,
      body,
    }).catch((error: Problem) => {
      if (error.code === 'more_than_open') over.value = (error.extra.over as Money).amount
      // It was taken before: the sheet shows what is open now.
      if (error.code === 'open_changed' || error.code === 'already_paid' || error.code === 'exists')
        emit('paid')
      throw error
    })
    taken.value = [
      ...taken.value,
      {
        text: `${session.money(got.amount)} by ${method.value}${reference.value ? ` (${reference.value})` : ''}, receipt ${got.number}${Number(got.left.amount) ? `; ${session.money(got.left)} kept as a credit` : ''}`,
      },
    ]
    left.value = got.stillOpen
    amount.value = left.value.amount
    reference.value = ''
    method.value = 'cheque'
    over.value = ''
    id = newId()
    emit('paid')
  })
/** What is open now, when it is no longer what was shown. */
const now = computed(() =>
  problem.value?.code === 'open_changed' ? (problem.value.extra.open as Money) : null,
)
function takeNow() {
  if (!now.value) return
  left.value = now.value
  amount.value = now.value.amount
  problem.value = null
  id = newId()
}
</script>

<template>
  <Dialog
    v-model="open"
    apart
    :title="`Payment for ${number}`"
    width="430"
  >
    <form
      class="stack"
      @submit.prevent="take(false)"
    >
      <p
        v-for="t in taken"
        :key="t.text"
        class="note"
        role="status"
      >
        {{ t.text }}
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
            v-for="m in ['cash', 'cheque', 'transfer'] as const"
            :key="m"
            class="grow"
            role="radio"
            :aria-checked="method === m"
            :on="method === m"
            @click="method = m"
          >
            {{ m === 'cash' ? 'Cash' : m === 'cheque' ? 'Cheque' : 'Transfer' }}
          </ActButton>
        </div>
        <Field
          label="Amount"
          :error="problem?.at('amount') ? problem.at('amount') : ''"
          ><FigureInput v-model="amount"
        /></Field>
        <Field
          :label="method === 'cheque' ? 'Number of the cheque' : 'Reference'"
          :error="problem?.at('reference') ? problem.at('reference') : ''"
          ><TextInput v-model="reference"
        /></Field>
        <Check
          v-if="mails.length"
          v-model="receipt"
        >
          Mail a receipt to {{ mails.join(' and ') }}</Check
        >
        <div
          v-if="problem && !problem.errors.length && !over"
          class="note bad"
          role="alert"
        >
          <p>{{ problem.message }}</p>
          <p v-if="now">
            Shown was {{ session.money(left) }}, open is {{ session.money(now) }}.
            <ActButton
              v-if="Number(now.amount)"
              @click="takeNow"
            >
              Go on with {{ session.money(now) }}
            </ActButton>
          </p>
        </div>
        <div
          v-if="over"
          class="note warn"
          role="alert"
        >
          <p>{{ problem?.message }}</p>
          <p>
            <b class="num">{{ session.money({ amount: over, currency: left.currency }) }}</b> would
            be kept as a credit.
            <ActButton
              :disabled="busy"
              @click="take(true)"
            >
              Yes, keep it as a credit
            </ActButton>
          </p>
        </div>
        <ActButton
          primary
          submit
          :disabled="busy"
        >
          Take
          {{
            /^\d+(\.\d+)?$/.test(amount)
              ? session.money({ amount, currency: left.currency })
              : 'payment'
          }}
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
    </form>
  </Dialog>
</template>
