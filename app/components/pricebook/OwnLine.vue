<script setup lang="ts">
// Something that the book does not have: written as a line of this paper alone, or kept in the book as well, for the next time.
import { computed, ref } from 'vue'
import type { EntryKind } from '~~/core/pricebook/kinds'
import { taxedAs, usualTaxClass } from '~~/core/pricebook/usualTaxClass'
import { call, newId } from '~/lib/api'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Choice from '~/base/Choice.vue'
import Field from '~/base/Field.vue'
import FigureInput from '~/base/FigureInput.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { useForm } from '~/base/useForm'

export interface OwnLine {
  id: string
  entryId: string | null
  name: string | undefined
  kind: 'part' | 'labour' | 'charge' | 'other'
  quantity: string
  unitPrice: string | undefined
  cost: string | undefined
}
const props = defineProps<{
  busy: boolean
  /** whose line it becomes */
  about: string
  /** true once it is one */
  add: (line: OwnLine) => Promise<unknown>
}>()
const emit = defineEmits<{ close: [] }>()
const session = useSession()
const seesCost = computed(() => Boolean(session.me?.person.seesCost))
const owns = computed(() => session.may('pricebook.change'))
const { data: rules } = useAnswer('pricing', () => (owns.value ? {} : null), SHOWS.book)
const blank = () => ({
  name: '',
  kind: 'part' as OwnLine['kind'],
  quantity: '1',
  unitPrice: '',
  cost: '',
  keep: false,
  code: '',
  category: '',
})
const form = useForm(blank(), { draft: `own line ${props.about}` })
const { values } = form
const missing = computed(() => {
  if (!values.name.trim()) return 'Write what it is.'
  if (!values.unitPrice.trim()) return 'Write its price.'
  if (!values.keep) return ''
  if (!values.code.trim()) return 'Give it a code.'
  return values.category.trim() ? '' : 'Say in which category it stands.'
})
const tried = ref(false)
// Named once: pressed again after a lost answer, neither the entry nor the line comes twice.
const [id, entryId] = [newId(), newId()]
let inBook = false
const KINDS = [
  ['part', 'material'],
  ['labour', 'labour, by the hour'],
  ['charge', 'a charge'],
  ['other', 'something else'],
] as const
async function keepInBook() {
  const { name, kind, unitPrice, cost, code, category } = values
  const isLabour = kind === 'labour'
  await call('keepPriceEntry', {
    params: { id: entryId },
    body: {
      version: 0,
      kind: (kind === 'other' ? 'charge' : kind) satisfies EntryKind,
      code: code.trim(),
      name: name.trim(),
      category: category.trim(),
      unit: isLabour ? 'hour' : 'each',
      pricing: 'fixed',
      price: unitPrice,
      cost: cost || '0',
      taxClass: usualTaxClass(rules.value!.taxClasses, taxedAs(kind)) ?? '',
      seconds: isLabour ? 3600 : 0,
    },
  })
  inBook = true
}
const add = () =>
  form.act(async () => {
    tried.value = true
    if (missing.value) return
    if (values.keep && !inBook) await keepInBook()
    const { name, kind, quantity, unitPrice, cost } = values
    const ofBook = { entryId, name: undefined, unitPrice: undefined, cost: undefined }
    const ofItself = { entryId: null, name: name.trim(), unitPrice, cost: cost || undefined }
    // Whoever adds it says why it was not.
    if (!(await props.add({ id, kind, quantity, ...(inBook ? ofBook : ofItself) }))) return
    form.begin(blank())
    emit('close')
  })
function leave() {
  form.discard()
  emit('close')
}
</script>

<template>
  <Form
    class="own"
    aria-label="A line of its own"
    :of="form"
    @submit="add"
  >
    <Field
      class="name"
      label="What it is"
      ><TextInput
        v-model="values.name"
        autofocus
    /></Field>
    <Field label="Kind"
      ><Choice
        v-model="values.kind"
        :options="KINDS.map(([k, say]) => ({ value: k, label: say }))"
    /></Field>
    <Field label="How many"><FigureInput v-model="values.quantity" /></Field
    ><Field
      label="Price of one"
      name="price"
      ><FigureInput v-model="values.unitPrice" /></Field
    ><Field
      v-if="seesCost"
      label="Costs us"
      name="cost"
      ><FigureInput v-model="values.cost"
    /></Field>
    <template v-if="owns"
      ><Check
        v-model="values.keep"
        class="keep"
      >
        Keep it in the price book, too</Check
      >
      <template v-if="values.keep"
        ><Field
          label="Code"
          name="code"
          ><TextInput
            v-model="values.code"
            class="num" /></Field
        ><Field
          class="name"
          label="Category"
          ><TextInput
            v-model="values.category"
            list="own-categories" /></Field
        ><datalist id="own-categories">
          <option
            v-for="c in rules?.categories ?? []"
            :key="c"
            :value="c"
          /></datalist></template
    ></template>
    <p
      v-if="tried && missing"
      class="wrong"
      role="alert"
    >
      {{ missing }}
    </p>
    <Notice />
    <div class="row end">
      <ActButton @click="leave"> Leave it</ActButton
      ><ActButton
        primary
        submit
        :disabled="busy"
      >
        Add the line
      </ActButton>
    </div>
  </Form>
</template>

<style scoped>
.own {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(110px, 1fr));
  gap: 10px;
  align-items: end;
}
.name {
  grid-column: span 2;
}
.keep,
.end,
.wrong,
.own :deep(> .note) {
  grid-column: 1 / -1;
}
.own .field .wrong {
  grid-column: auto;
}
.end {
  justify-content: flex-end;
}
</style>
