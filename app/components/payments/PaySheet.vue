<script setup lang="ts">
// Taking money: several methods one after the other; what is left is proposed each time.
import { computed, ref, watch } from 'vue'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useSession } from '~/stores/session'
import type { Money } from '~~/core/money/formatMinor'

const open = defineModel<boolean>({ required: true })
const props = defineProps<{ customerId: string, invoiceId?: string, number: string, due: Money, mails: string[] }>()
const emit = defineEmits<{ paid: [] }>()
const session = useSession()
const { busy, problem, act } = useAct()
const left = ref<Money>(props.due)
const method = ref<'cash' | 'cheque' | 'transfer'>('cash')
const amount = ref('')
const reference = ref('')
const receipt = ref(true)
const taken = ref<{ text: string }[]>([])
let id = newId()
watch(open, (is) => {
  if (!is) return
  id = newId()
  left.value = props.due
  amount.value = props.due.amount
  reference.value = ''
  taken.value = []
}, { immediate: true })
const done = computed(() => Number(left.value.amount) <= 0)
const take = () => act(async () => {
  const got = await call('pay', { key: id + amount.value + method.value, body: { id, customerId: props.customerId, invoiceIds: props.invoiceId ? [props.invoiceId] : [], method: method.value, amount: amount.value, reference: reference.value, receiptTo: receipt.value ? props.mails : [] } })
  taken.value = [...taken.value, { text: `${session.money(got.amount)} by ${method.value}${reference.value ? ` (${reference.value})` : ''}, receipt ${got.number}${Number(got.left.amount) ? `; ${session.money(got.left)} kept as a credit` : ''}` }]
  left.value = got.applied.at(-1)?.open ?? { ...left.value, amount: '0.00' }
  amount.value = left.value.amount
  reference.value = ''
  method.value = 'cheque'
  id = newId()
  emit('paid')
})
</script>

<template>
  <el-dialog v-model="open" :title="`Payment for ${number}`" width="430" append-to-body>
    <form class="stack" @submit.prevent="take">
      <p v-for="t in taken" :key="t.text" class="note" role="status">{{ t.text }}</p>
      <template v-if="!done">
        <p>Still open <b class="num">{{ session.money(left) }}</b></p>
        <div class="row" role="radiogroup" aria-label="How it is paid"><button v-for="m in ['cash', 'cheque', 'transfer'] as const" :key="m" type="button" role="radio" :aria-checked="method === m" class="btn grow" :class="{ on: method === m }" @click="method = m">{{ m === 'cash' ? 'Cash' : m === 'cheque' ? 'Cheque' : 'Transfer' }}</button></div>
        <label class="field"><span>Amount</span><input v-model="amount" class="plain num" inputmode="decimal"><span v-if="problem?.at('amount')" class="wrong">{{ problem.at('amount') }}</span></label>
        <label class="field"><span>{{ method === 'cheque' ? 'Number of the cheque' : 'Reference' }}</span><input v-model="reference" class="plain"><span v-if="problem?.at('reference')" class="wrong">{{ problem.at('reference') }}</span></label>
        <label v-if="mails.length" class="row"><input v-model="receipt" type="checkbox"> Mail a receipt to {{ mails.join(' and ') }}</label>
        <p v-if="problem && !problem.errors.length" class="note bad" role="alert">{{ problem.message }}</p>
        <button class="btn act" :disabled="busy">Take {{ /^\d+(\.\d+)?$/.test(amount) ? session.money({ amount, currency: left.currency }) : 'payment' }}</button>
      </template>
      <template v-else><p class="note" role="status"><b class="good">Paid.</b> Nothing is open on {{ number }}.</p><button type="button" class="btn act" @click="open = false">Done</button></template>
    </form>
  </el-dialog>
</template>
