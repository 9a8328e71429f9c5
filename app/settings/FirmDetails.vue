<script setup lang="ts">
// Who we are, how we are paid, on which terms: what every paper says from now on.
import { computed } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Form from '~/base/Form.vue'
import FormFields from '~/base/FormFields.vue'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'
import { field, optionsOf, type FormRows } from '~/base/fields'
import { useFormAbout } from '~/base/useForm'
import FirmLogo from './FirmLogo.vue'
import { localesFor, TAX_WORDS } from '~/begin/words'
import { readTerms, termsOptions, typedTerms } from '~/customers/terms'
import { call } from '~/lib/api'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import type { Answer } from '~~/shared/api'

defineProps<{ may: boolean }>()
type Firm = Answer<'firm'>
const { data, problem, refresh } = useAnswer('firm', undefined, SHOWS.setUp)
const BLANK = {
  ...{ legalName: '', registration: '', payee: '', bank: '', iban: '', bic: '', chequeName: '' },
  ...{ name: '', line1: '', town: '', postcode: '', phone: '', email: '', taxNumber: '' },
  ...{ terms: '', payTo: '', conditions: '', locale: '', timeZone: '', quoteDays: '' },
  taxMode: 'added' as Firm['taxMode'],
}
const typedOf = ({
  terms,
  quoteDays,
  version: _,
  timeZones: _z,
  currency: _c,
  logoId: _l,
  ...firm
}: Firm) => ({
  ...firm,
  terms: typedTerms(terms),
  quoteDays: String(quoteDays),
})
const form = useFormAbout(() => data.value, typedOf, refresh, { draft: 'firm', blank: BLANK })
const rows = computed((): FormRows => [
  [field('name', 'Name of the firm'), field('legalName', 'Legal name, where it is another')],
  field('line1', 'Address'),
  [field('town', 'Town'), field('postcode', 'Postcode', { narrow: true })],
  [field('phone', 'Telephone'), field('email', 'Mail address')],
  [
    field('taxNumber', 'Tax number'),
    field('terms', 'Terms of payment', {
      options: termsOptions('', '').filter(({ value }) => value),
    }),
    field('quoteDays', 'Quotes hold, days', { kind: 'figures', narrow: true }),
  ],
  field('registration', 'Where we are registered, and under which number'),
  field('payTo', 'How we are paid', { kind: 'area', rows: 3 }),
  [field('iban', 'IBAN'), field('bic', 'BIC', { narrow: true })],
  [field('payee', 'Payee, where not the firm’s name'), field('bank', 'Bank')],
  field('chequeName', 'Whom cheques name'),
  field('conditions', 'Conditions, at the foot of each invoice', { kind: 'area', rows: 3 }),
  [
    field('locale', 'Days and figures are written', { options: localesFor(data.value!) }),
    field('timeZone', 'Time zone', { options: optionsOf(data.value!.timeZones) }),
  ],
  field('taxMode', 'Our prices are', { options: TAX_WORDS }),
])
const keep = () =>
  form.keep(async (version) => {
    const { terms, quoteDays, ...changes } = form.changes()
    const body = {
      ...{ version, ...changes },
      ...(terms ? { terms: readTerms(terms)! } : {}),
      ...(quoteDays === undefined ? {} : { quoteDays: Number(quoteDays) }),
    }
    data.value = await call('changeFirm', { body })
  })
</script>

<template>
  <h2 id="firm">What our papers say</h2>
  <FirmLogo
    v-if="data && may"
    :of="data"
    @kept="data = $event"
  />
  <Form
    v-if="data"
    :of="form"
    @submit="keep"
  >
    <FormFields :fields="rows" />
    <Notice />
    <p class="quiet small">Papers that were made before stay as they were.</p>
    <ActButton
      v-if="may"
      submit
      >Keep what our papers say</ActButton
    >
  </Form>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
  />
</template>
