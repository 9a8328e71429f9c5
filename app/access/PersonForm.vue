<script setup lang="ts">
// Somebody of the firm: what they are called, how they are reached, what they do here and what an hour of it costs.
import { computed } from 'vue'
import { ROLES, type Role } from '~~/core/access/permissions'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Dialog from '~/base/Dialog.vue'
import Form from '~/base/Form.vue'
import FormFields from '~/base/FormFields.vue'
import Notice from '~/base/Notice.vue'
import { field, type FormRows } from '~/base/fields'
import { useFormAbout } from '~/base/useForm'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { ROLE_WORDS } from '~/settings/setUp'
import { useSession } from '~/stores/session'
import type { Answer } from '~~/shared/api'

type Staff = Answer<'staff'>
type Person = Staff['items'][number]
const props = defineProps<{
  person: Person | null
  people: readonly Person[]
  refresh: () => Promise<unknown>
}>()
const emit = defineEmits<{ kept: [staff: Staff]; close: [] }>()
const session = useSession()
const id = props.person?.id ?? newId()
const BLANK = {
  ...{ name: '', email: '', phone: '', role: 'technician', bookable: true },
  ...{ seesCost: false, payrollNumber: '', costRate: '', costRateFrom: '' },
}
const typedOf = ({ name, email, phone, role, ownRole, bookable, ...person }: Person) => ({
  ...{ name, email, phone, role: ownRole || role, bookable, seesCost: person.seesCost },
  ...{ payrollNumber: person.payrollNumber, costRate: person.costRate ?? '', costRateFrom: '' },
})
const form = useFormAbout(
  () => props.people.find((person) => person.id === id),
  typedOf,
  props.refresh,
  { draft: props.person ? `person ${id}` : 'new person', blank: BLANK },
)
/** A role of the firm's own stands for the one that it begins as. */
const own = session.ownRoles
const mayChoose = ROLES.filter((role) => role !== 'owner' || session.role === 'owner')
const FIELDS: FormRows = [
  field('name', 'Name'),
  [
    field('email', 'Mail address', { kind: 'email', placeholder: 'none: does not sign in' }),
    field('phone', 'Telephone'),
  ],
  field('role', 'What they do here', {
    options: [
      ...mayChoose.map((role) => ({ value: role, label: ROLE_WORDS[role] })),
      ...own.map(({ code, name, base }) => ({ value: code, label: `${name}: as ${base}` })),
    ],
  }),
  field('payrollNumber', 'Number in the payroll'),
]
const COSTS: FormRows = [
  [
    field('costRate', 'An hour costs us', { kind: 'figures' }),
    field(
      'costRateFrom',
      props.person?.costRates?.length ? 'From (else from today)' : 'From (else always)',
      { kind: 'date' },
    ),
  ],
]
/** Each rate with the day from which it holds, where it is not the only one that there ever was. */
const rates = computed(() => {
  const all = props.people.find((person) => person.id === id)?.costRates ?? []
  return all.length > 1 || all[0]?.from ? all : []
})
type Rate = (typeof rates.value)[number]
const sayRate = ({ from, rate }: Rate) =>
  `${session.figure(rate)} ${from ? `from ${session.day(from, 'withYear')}` : 'before'}`
const { busy, problem: notTaken, act } = useAct()
const takeBack = (rate: Rate) =>
  act(async () => emit('kept', await call('dropCostRate', { params: { id }, body: rate })))
const keep = () =>
  form.keep(async (version) => {
    const ownRole = own.find(({ code }) => code === form.values.role)
    const as = {
      role: ownRole?.base ?? (form.values.role as Role),
      ownRole: ownRole?.code ?? '',
    }
    const body = { id, ...form.values, ...as, ...(version && { version }) }
    emit('kept', await call('keepPerson', { body }))
    emit('close')
  })
</script>

<template>
  <Dialog
    :title="person ? person.name : 'Add somebody'"
    width="480"
    @close="emit('close')"
  >
    <Form
      :of="form"
      @submit="keep"
    >
      <FormFields :fields="FIELDS" />
      <FormFields
        v-if="session.me?.person.seesCost"
        :fields="COSTS"
      />
      <ul
        v-if="rates.length"
        class="rates small"
        aria-label="What an hour cost, from when on"
      >
        <li
          v-for="rate in rates"
          :key="rate.from"
        >
          {{ sayRate(rate) }}
          <ActButton
            v-if="rate.from"
            quiet
            class="small"
            :disabled="busy"
            :aria-label="`Take back ${sayRate(rate)}`"
            @click="takeBack(rate)"
            >Take back</ActButton
          >
        </li>
      </ul>
      <Notice :of="notTaken" />
      <Check
        v-model="form.values.bookable"
        name="bookable"
        >Goes to customers: visits are booked for them</Check
      >
      <Check
        v-model="form.values.seesCost"
        name="seesCost"
        >Sees what things cost us, whatever the role may</Check
      >
      <Notice />
      <ActButton
        primary
        submit
        >{{ person ? 'Keep' : form.values.email ? 'Add and invite' : 'Add' }}</ActButton
      >
    </Form>
  </Dialog>
</template>

<style scoped>
.rates {
  margin: 0;
  padding: 0;
  list-style: none;
}
</style>
