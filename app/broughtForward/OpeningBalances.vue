<script setup lang="ts">
// What stood in the accounts on the day on which the firm begins here.
import { computed, reactive, watch } from 'vue'
import ActButton from '~/base/ActButton.vue'
import DateInput from '~/base/DateInput.vue'
import Field from '~/base/Field.vue'
import FigureInput from '~/base/FigureInput.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import { useForm } from '~/base/useForm'
import { call } from '~/lib/api'
import { useSession } from '~/stores/session'
import type { Answer } from '~~/shared/api'

type Brought = Answer<'broughtForward'>
const props = defineProps<{ of: Brought }>()
const emit = defineEmits<{ kept: [brought: Brought] }>()
const session = useSession()
const WORDS: Readonly<Record<Brought['accounts'][number]['account'], string>> = {
  bank: 'In the bank',
  cash: 'Cash on hand',
  undeposited: 'Cheques that are not in the bank yet',
  card: 'Card payments that are under way',
  tax: 'Tax that we owe',
}
const typedOf = ({ on, accounts }: Brought) => ({
  on: on ?? session.today,
  ...Object.fromEntries(accounts.map(({ account, amount }) => [account, amount])),
})
const form = useForm<Record<string, string>>(typedOf(props.of), { draft: 'opening-balances' })
/** What stood there when it was begun. */
const shown = reactive({ accounts: props.of.accounts })
watch(
  () => props.of,
  (now) => {
    if (form.unkept) return
    shown.accounts = now.accounts
    form.begin(typedOf(now))
  },
)
const amounts = computed(() =>
  props.of.accounts.map(({ account }) => ({ account, amount: form.values[account] || '0' })),
)
const keep = () =>
  form.send(async () => {
    const body = { on: form.values.on!, amounts: amounts.value, shown: shown.accounts }
    const now = await call('keepOpening', { body })
    shown.accounts = now.accounts
    form.begin(typedOf(now))
    emit('kept', now)
  })
</script>

<template>
  <p class="quiet">
    As the bookkeeper’s last balance sheet says. What customers owe and have is not entered here: it
    comes with the invoices and credits above.
  </p>
  <Form
    class="balances"
    :of="form"
    @submit="keep"
  >
    <Field
      name="on"
      label="On the evening of"
      ><DateInput
        v-model="form.values.on"
        :max="session.today"
    /></Field>
    <Field
      v-for="({ account }, i) in of.accounts"
      :key="account"
      :name="`amounts[${i}].amount`"
      :label="WORDS[account]"
      ><FigureInput v-model="form.values[account]"
    /></Field>
    <dl class="sums">
      <dt>Customers owe, from the list</dt>
      <dd>{{ session.money(of.invoices.sum) }}</dd>
      <dt>Customers have as credits</dt>
      <dd>{{ session.money(of.credits.sum) }}</dd>
      <dt>Opening balances in all</dt>
      <dd>
        <b>{{ session.money(of.opening) }}</b>
      </dd>
    </dl>
    <Notice />
    <ActButton submit>Keep these balances</ActButton>
  </Form>
</template>

<style scoped>
.balances {
  max-width: 420px;
}
.sums {
  display: grid;
  grid-template-columns: max-content max-content;
  gap: 2px 24px;
}
.sums dd {
  margin: 0;
  text-align: right;
  font-family: var(--mono);
}
</style>
