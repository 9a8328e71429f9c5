<script setup lang="ts">
// Everything about a customer that can be changed by hand, in groups; kept in one act.
import { computed, reactive, ref } from 'vue'
import type { Answer } from '~~/shared/api'
import CustomFields from '~/components/settings/CustomFields.vue'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Choice from '~/base/Choice.vue'
import DateInput from '~/base/DateInput.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import FigureInput from '~/base/FigureInput.vue'
import TextInput from '~/base/TextInput.vue'

const props = defineProps<{ customer: Answer<'customer'>; setUp: Answer<'setUp'> | null }>()
const emit = defineEmits<{ kept: [customer: Answer<'customer'>]; close: [] }>()
const c = props.customer
const form = reactive({
  name: c.name,
  phone: c.phone,
  phone2: c.phone2,
  email: c.email,
  email2: c.email2,
  line1: c.line1,
  town: c.town,
  postcode: c.postcode,
  source: c.source,
  prospect: c.prospect,
  assignedTo: c.assignedTo,
  levelId: c.levelId,
  exempt: c.exempt,
  certificate: c.certificate,
  exemptUntil: c.exemptUntil ?? '',
  creditLimit: c.creditLimit?.amount ?? '',
  stopWork: c.stopWork,
  officeNote: c.officeNote,
  printedNote: c.printedNote,
  mailConsent: c.mailConsent,
  textConsent: c.textConsent,
  custom: { ...(c.custom as Record<string, string>) },
})
const version = ref(c.version)
const tags = ref(c.tags.join(', '))
const TERMS = [
  ['', 'as the company’s'],
  ['receipt', 'on receipt'],
  ['days:15', '15 days'],
  ['days:30', '30 days'],
  ['days:45', '45 days'],
  ['month_end:0', 'end of month'],
  ['month_end:15', 'end of month + 15 days'],
  ['next_month_day:10', '10th of next month'],
] as const
const terms = ref(
  c.terms
    ? [c.terms.kind, c.terms.days ?? c.terms.day].filter((x) => x !== undefined).join(':')
    : '',
)
const known = computed(() => TERMS.some((t) => t[0] === terms.value))
const prices = ref(c.ownPrices.map((p) => ({ ...p })))
const { busy, problem, act } = useAct()
const wrong = (path: string) => problem.value?.at(path) ?? ''
const asTerms = () => {
  const [kind, n] = terms.value.split(':')
  if (!kind) return null
  if (kind === 'receipt') return { kind: 'receipt' as const }
  if (kind === 'next_month_day') return { kind: 'next_month_day' as const, day: Number(n) }
  return { kind: 'days' as const, days: Number(n) }
}
const keep = () =>
  act(async () => {
    const { creditLimit, exemptUntil, ...rest } = form
    emit(
      'kept',
      await call('changeCustomer', {
        params: { id: c.id },
        body: {
          ...rest,
          version: version.value,
          creditLimit: creditLimit || null,
          exemptUntil: exemptUntil || null,
          terms: asTerms(),
          tags: tags.value
            .split(',')
            .map((t) => t.trim())
            .filter(Boolean),
          ownPrices: prices.value.map((p) => ({ entryId: p.entryId, price: p.price })),
        },
      }),
    )
  })
/** Someone else was faster: what was typed here stays and can be kept on top of theirs. */
const takeNewVersion = () =>
  act(async () => {
    version.value = (await call('customer', { params: { id: c.id } })).version
  })
const found = ref<Answer<'searchPriceBook'>['items']>([])
async function findEntry(words: string) {
  const q = words.trim()
  found.value =
    q.length > 1
      ? (await call('searchPriceBook', { query: { q } }).catch(() => ({ items: [] }))).items.slice(
          0,
          4,
        )
      : []
}
function addPrice(entry: Answer<'searchPriceBook'>['items'][number]) {
  if (!prices.value.some((p) => p.entryId === entry.id))
    prices.value.push({
      entryId: entry.id,
      name: entry.name,
      price: entry.price,
      bookPrice: entry.price,
    })
  found.value = []
}
</script>

<template>
  <Dialog
    title="Change the customer"
    width="760"
    @close="emit('close')"
  >
    <form
      class="groups"
      @submit.prevent="keep"
    >
      <fieldset>
        <legend>Who and where to bill</legend>
        <Field
          label="Name"
          :error="wrong('name')"
          ><TextInput v-model="form.name"
        /></Field>
        <div class="row">
          <Field
            class="grow"
            label="Telephone"
            ><TextInput v-model="form.phone" /></Field
          ><Field
            class="grow"
            label="Second telephone"
            ><TextInput v-model="form.phone2"
          /></Field>
        </div>
        <div class="row">
          <Field
            class="grow"
            label="Mail address"
            :error="wrong('email')"
            ><TextInput v-model="form.email" /></Field
          ><Field
            class="grow"
            label="Second mail address"
            :error="wrong('email2')"
            ><TextInput v-model="form.email2"
          /></Field>
        </div>
        <Field label="Billing address"><TextInput v-model="form.line1" /></Field>
        <div class="row">
          <Field
            class="grow"
            label="Town"
            ><TextInput v-model="form.town" /></Field
          ><Field label="Postcode"><TextInput v-model="form.postcode" /></Field>
        </div>
        <div class="row">
          <Field
            class="grow"
            label="Tags, with commas between"
            ><TextInput v-model="tags" /></Field
          ><Field
            class="grow"
            label="How they heard of us"
            ><Choice
              v-model="form.source"
              :options="[
                { value: '', label: 'not asked' },
                ...[...new Set([...(setUp?.sources ?? []), form.source])]
                  .filter(Boolean)
                  .map((s) => ({ value: s, label: s })),
              ]"
          /></Field>
        </div>
        <div class="row">
          <Check
            v-model="form.prospect"
            class="grow"
          >
            Only a prospect so far</Check
          ><Field
            class="grow"
            label="Who has it"
            ><Choice
              v-model="form.assignedTo"
              :options="[
                { value: null, label: 'nobody' },
                ...(setUp?.people ?? []).map((p) => ({ value: p.id, label: p.name })),
              ]"
          /></Field>
        </div>
      </fieldset>
      <fieldset>
        <legend>Money</legend>
        <div class="row">
          <Field
            class="grow"
            label="Terms"
            ><Choice
              v-model="terms"
              :options="[
                ...TERMS.map(([k, n]) => ({ value: k, label: n })),
                ...(!known ? [{ value: terms, label: c.termsInWords }] : []),
              ]" /></Field
          ><Field
            class="grow"
            label="Price level"
            ><Choice
              v-model="form.levelId"
              :options="[
                { value: null, label: 'standard' },
                ...(setUp?.levels ?? []).map((l) => ({ value: l.id, label: l.name })),
              ]"
          /></Field>
        </div>
        <div class="row">
          <Field
            class="grow"
            label="Credit limit"
            :error="wrong('creditLimit')"
            ><FigureInput
              v-model="form.creditLimit"
              placeholder="none" /></Field
          ><Field
            class="grow"
            label="Stop work, because"
            ><TextInput v-model="form.stopWork"
          /></Field>
        </div>
        <Check v-model="form.exempt"> Exempt from tax</Check>
        <div
          v-if="form.exempt"
          class="row"
        >
          <Field
            class="grow"
            label="Certificate"
            ><TextInput v-model="form.certificate" /></Field
          ><Field
            class="grow"
            label="Until"
            ><DateInput v-model="form.exemptUntil"
          /></Field>
        </div>
        <div
          v-for="(p, i) in prices"
          :key="p.entryId"
          class="row"
        >
          <span class="grow"
            >{{ p.name }} <span class="quiet small">book {{ p.bookPrice }}</span></span
          ><TextInput
            v-model="p.price"
            style="width: 100px"
            :aria-label="`Own price of ${p.name}`"
          /><ActButton
            quiet
            :aria-label="`Take out ${p.name}`"
            @click="prices.splice(i, 1)"
          >
            ×
          </ActButton>
        </div>
        <Field label="An own price for"
          ><TextInput
            placeholder="call-out charge, labour…"
            @input="findEntry"
        /></Field>
        <div
          v-if="found.length"
          class="stack"
        >
          <ActButton
            v-for="e in found"
            :key="e.id"
            @click="addPrice(e)"
          >
            {{ e.name }} · {{ e.price }}
          </ActButton>
        </div>
      </fieldset>
      <fieldset>
        <legend>Notes</legend>
        <Field label="Office only, never seen by the customer"
          ><TextInput
            v-model="form.officeNote"
            rows="3"
          />
        </Field>
        <Field label="Printed on their invoices"
          ><TextInput
            v-model="form.printedNote"
            rows="2"
          />
        </Field>
      </fieldset>
      <fieldset>
        <legend>May we write?</legend>
        <div class="row">
          <Field
            class="grow"
            label="By mail"
            ><Choice
              v-model="form.mailConsent"
              :options="['not asked', 'yes', 'no'].map((v) => ({ value: v, label: v }))" /></Field
          ><Field
            class="grow"
            label="By text"
            ><Choice
              v-model="form.textConsent"
              :options="['not asked', 'yes', 'no'].map((v) => ({ value: v, label: v }))"
          /></Field>
        </div>
        <CustomFields
          v-model="form.custom"
          :fields="setUp?.fields.filter((f) => f.subject === 'customer' && !f.retired) ?? []"
        />
      </fieldset>
      <div
        v-if="problem"
        class="note bad row wide"
        role="alert"
      >
        <span class="grow">{{ problem.message }}</span><ActButton
          v-if="problem.code === 'stale'"
          @click="takeNewVersion"
        >
          Keep mine on top of theirs
        </ActButton>
      </div>
      <ActButton
        primary
        submit
        class="wide"
        :disabled="busy"
      >
        Keep
      </ActButton>
    </form>
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
  font-size: 12px;
  color: var(--ink-2);
  padding: 0 4px;
}
</style>
