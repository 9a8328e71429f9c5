<script setup lang="ts">
// Something that the book does not have: written as a line of this paper alone, or kept in the book as well, for the next time.
import { computed, reactive, ref } from 'vue'
import type { EntryKind } from '~~/core/pricebook/kinds'
import { taxedAs, usualTaxClass } from '~~/core/pricebook/usualTaxClass'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Choice from '~/base/Choice.vue'
import Field from '~/base/Field.vue'
import FigureInput from '~/base/FigureInput.vue'
import TextInput from '~/base/TextInput.vue'

export interface OwnLine {
  id: string
  entryId: string | null
  name: string | undefined
  kind: 'part' | 'labour' | 'charge' | 'other'
  quantity: string
  unitPrice: string | undefined
  cost: string | undefined
}
defineProps<{ busy: boolean }>()
const emit = defineEmits<{ add: [line: OwnLine]; close: [] }>()
const session = useSession()
const { busy: keeping, problem, act } = useAct()
const seesCost = computed(() => Boolean(session.me?.person.seesCost))
const owns = computed(() => session.may('pricebook.change'))
const { data: rules } = useAnswer('pricing', () => (owns.value ? {} : null), SHOWS.book)
const form = reactive({
  name: '',
  kind: 'part' as OwnLine['kind'],
  quantity: '1',
  unitPrice: '',
  cost: '',
  keep: false,
  code: '',
  category: '',
})
const missing = computed(() => {
  if (!form.name.trim()) return 'Write what it is.'
  if (!form.unitPrice.trim()) return 'Write its price.'
  if (!form.keep) return ''
  if (!form.code.trim()) return 'Give it a code.'
  return form.category.trim() ? '' : 'Say in which category it stands.'
})
const tried = ref(false)
const wrong = (path: string) => problem.value?.at(path) ?? ''
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
  const { name, kind, unitPrice, cost, code, category } = form
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
  act(async () => {
    tried.value = true
    if (missing.value) return
    if (form.keep && !inBook) await keepInBook()
    const { name, kind, quantity, unitPrice, cost } = form
    const ofBook = { entryId, name: undefined, unitPrice: undefined, cost: undefined }
    const ofItself = { entryId: null, name: name.trim(), unitPrice, cost: cost || undefined }
    emit('add', { id, kind, quantity, ...(inBook ? ofBook : ofItself) })
  })
</script>

<template>
  <form
    class="own"
    aria-label="A line of its own"
    @submit.prevent="add"
  >
    <Field
      class="name"
      label="What it is"
      ><TextInput
        v-model="form.name"
        autofocus
    /></Field>
    <Field label="Kind"
      ><Choice
        v-model="form.kind"
        :options="KINDS.map(([k, say]) => ({ value: k, label: say }))"
    /></Field>
    <Field label="How many"><FigureInput v-model="form.quantity" /></Field
    ><Field
      label="Price of one"
      :error="wrong('price')"
      ><FigureInput v-model="form.unitPrice" /></Field
    ><Field
      v-if="seesCost"
      label="Costs us"
      :error="wrong('cost')"
      ><FigureInput v-model="form.cost"
    /></Field>
    <template v-if="owns"
      ><Check
        v-model="form.keep"
        class="keep"
      >
        Keep it in the price book, too</Check
      >
      <template v-if="form.keep"
        ><Field
          label="Code"
          :error="wrong('code')"
          ><TextInput
            v-model="form.code"
            class="num" /></Field
        ><Field
          class="name"
          label="Category"
          ><TextInput
            v-model="form.category"
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
    <p
      v-else-if="problem"
      class="wrong"
      role="alert"
    >
      {{ problem.message }}
    </p>
    <div class="row end">
      <ActButton @click="emit('close')"> Leave it</ActButton
      ><ActButton
        primary
        submit
        :disabled="busy || keeping"
      >
        Add the line
      </ActButton>
    </div>
  </form>
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
.wrong {
  grid-column: 1 / -1;
}
.own .field .wrong {
  grid-column: auto;
}
i {
  font-style: normal;
}
.end {
  justify-content: flex-end;
}
</style>
