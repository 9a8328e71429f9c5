<script setup lang="ts">
// Everything about a customer that can be changed by hand, in groups; kept in one act.
import { computed } from 'vue'
import type { Answer } from '~~/shared/api'
import type { PaperKind } from '~~/core/documents/paperWords'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Dialog from '~/base/Dialog.vue'
import Form from '~/base/Form.vue'
import FormFields from '~/base/FormFields.vue'
import Meanwhile from '~/base/Meanwhile.vue'
import Notice from '~/base/Notice.vue'
import Phrases from '~/base/Phrases.vue'
import { field, namesOf, optionsOf, type FormRows } from '~/base/fields'
import { useFormAbout } from '~/base/useForm'
import CustomFields from '~/components/settings/CustomFields.vue'
import { call } from '~/lib/api'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import OwnPrices from './OwnPrices.vue'
import { readTerms, termsOptions, typedTerms } from './terms'

type Customer = Answer<'customer'>
const props = defineProps<{
  customer: Customer
  setUp: Answer<'setUp'> | null
  refresh: () => Promise<unknown>
}>()
const emit = defineEmits<{ kept: [customer: Customer]; close: [] }>()
const c = props.customer
function typedOf(now: Customer) {
  const { name, phone, phone2, email, email2, line1, town, postcode, source, prospect } = now
  const { assignedTo, levelId, exempt, certificate, stopWork, officeNote, printedNote } = now
  const { mailConsent, textConsent, ownPrices, quoteLayoutId, invoiceLayoutId } = now
  return {
    ...{ name, phone, phone2, email, email2, line1, town, postcode, source, prospect },
    ...{ assignedTo, levelId, exempt, certificate, stopWork, officeNote, printedNote },
    ...{ mailConsent, textConsent, ownPrices, quoteLayoutId, invoiceLayoutId },
    exemptUntil: now.exemptUntil ?? '',
    creditLimit: now.creditLimit?.amount ?? '',
    custom: now.custom as Record<string, string>,
    tags: now.tags.join(', '),
    terms: typedTerms(now.terms),
  }
}
const form = useFormAbout(() => props.customer, typedOf, props.refresh, {
  draft: `customer ${c.id}`,
})
const WHO: FormRows = [
  field('name', 'Name'),
  [field('phone', 'Telephone'), field('phone2', 'Second telephone')],
  [field('email', 'Mail address'), field('email2', 'Second mail address')],
  field('line1', 'Billing address'),
  [field('town', 'Town'), field('postcode', 'Postcode', { narrow: true })],
  [
    field('source', 'How they heard of us', {
      options: [
        { value: '', label: 'not asked' },
        ...optionsOf([...new Set([...(props.setUp?.sources ?? []), c.source])].filter(Boolean)),
      ],
    }),
    field('assignedTo', 'Who has it', {
      options: [{ value: null, label: 'nobody' }, ...namesOf(props.setUp?.people)],
    }),
  ],
  field('tags', 'Tags, with commas between'),
]
const MONEY: FormRows = [
  [
    field('terms', 'Terms', { options: termsOptions(typedTerms(c.terms), c.termsInWords) }),
    field('levelId', 'Price level', {
      options: [{ value: null, label: 'standard' }, ...namesOf(props.setUp?.levels)],
    }),
  ],
  [
    field('creditLimit', 'Credit limit', { kind: 'figures', placeholder: 'none' }),
    field('stopWork', 'Stop work, because'),
  ],
]
const { data: layouts } = useAnswer('layoutNames', undefined, SHOWS.setUp)
/** With the one that they have, also where it was put away since. */
function layoutsOf(kind: PaperKind, has: string | null) {
  const there = layouts.value?.items.filter((one) => one.kind === kind) ?? []
  const away = has !== null && there.every(({ id }) => id !== has)
  return [
    { value: null, label: 'as is usual' },
    ...namesOf(there),
    ...(away ? [{ value: has, label: 'as is usual: theirs was put away' }] : []),
  ]
}
const LAYOUTS = computed((): FormRows => [
  [
    field('quoteLayoutId', 'Their quotes look', { options: layoutsOf('quote', c.quoteLayoutId) }),
    field('invoiceLayoutId', 'Their invoices look', {
      options: layoutsOf('invoice', c.invoiceLayoutId),
    }),
  ],
])
const EXEMPT: FormRows = [
  [field('certificate', 'Certificate'), field('exemptUntil', 'Until', { kind: 'date' })],
]
const NOTES: FormRows = [
  field('officeNote', 'Office only, never seen by the customer', { kind: 'area', rows: 3 }),
  field('printedNote', 'Printed on their invoices', { kind: 'area', rows: 2 }),
]
const CONSENTS = { options: optionsOf(['not asked', 'yes', 'no']) }
const CONSENT: FormRows = [
  [field('mailConsent', 'By mail', CONSENTS), field('textConsent', 'By text', CONSENTS)],
]
const ownFields = () =>
  props.setUp?.fields.filter((f) => f.subject === 'customer' && !f.retired) ?? []
type Typed = ReturnType<typeof typedOf>
/** What was typed of it, as it is sent; what was not stays as it is. */
function asSent({ creditLimit, exemptUntil, terms, tags, ownPrices, ...rest }: Partial<Typed>) {
  const words = (text: string) => text.split(',').map((word) => word.trim())
  return {
    ...rest,
    ...(creditLimit !== undefined && { creditLimit: creditLimit || null }),
    ...(exemptUntil !== undefined && { exemptUntil: exemptUntil || null }),
    ...(terms !== undefined && { terms: readTerms(terms) }),
    ...(tags !== undefined && { tags: words(tags).filter(Boolean) }),
    ...(ownPrices && {
      ownPrices: ownPrices.map(({ entryId, price }) => ({ entryId, price })),
    }),
  }
}
const keep = () =>
  form.keep(async (version) => {
    const body = { version, ...asSent(form.changes()) }
    emit('kept', await call('changeCustomer', { params: { id: c.id }, body }))
  })
const sayPrices = (prices: unknown) =>
  (prices as Typed['ownPrices']).map((p) => `${p.name} ${p.price}`).join('\n')
</script>

<template>
  <Dialog
    title="Change the customer"
    width="760"
    @close="emit('close')"
  >
    <Form
      :of="form"
      class="groups stacks"
      @submit="keep"
    >
      <fieldset>
        <legend>Who and where to bill</legend>
        <FormFields :fields="WHO" />
        <Phrases
          v-model="form.values.tags"
          of="tags"
          listed
        />
        <Check
          v-model="form.values.prospect"
          name="prospect"
        >
          Only a prospect so far</Check
        >
      </fieldset>
      <fieldset>
        <legend>Money</legend>
        <FormFields :fields="MONEY" />
        <FormFields
          v-if="layouts?.items.length"
          :fields="LAYOUTS"
        />
        <Check
          v-model="form.values.exempt"
          name="exempt"
        >
          Exempt from tax</Check
        >
        <FormFields
          v-if="form.values.exempt"
          :fields="EXEMPT"
        />
        <OwnPrices v-model="form.values.ownPrices" />
        <Meanwhile
          :names="['ownPrices']"
          :says="sayPrices"
        />
      </fieldset>
      <fieldset>
        <legend>Notes</legend>
        <FormFields :fields="NOTES" />
      </fieldset>
      <fieldset>
        <legend>May we write?</legend>
        <FormFields :fields="CONSENT" />
        <CustomFields
          v-model="form.values.custom"
          name="custom"
          :fields="ownFields()"
        />
      </fieldset>
      <Notice class="wide" />
      <ActButton
        primary
        submit
        class="wide"
      >
        Keep
      </ActButton>
    </Form>
  </Dialog>
</template>

<style scoped>
.groups {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
.wide {
  grid-column: 1 / 3;
}
fieldset {
  border: 1px solid var(--rule-2);
  border-radius: 4px;
  padding: 6px 12px 12px;
  margin: 0;
  display: flex;
  flex-direction: column;
  gap: 8px;
  min-width: 0;
}
legend {
  font-size: 0.75rem;
  color: var(--ink-2);
  padding: 0 4px;
}
</style>
