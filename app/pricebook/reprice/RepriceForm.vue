<script setup lang="ts">
// Which prices are changed, and how; looked at before anything changes.
import { watch } from 'vue'
import type { Answer } from '~~/shared/api'
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import Field from '~/base/Field.vue'
import FigureInput from '~/base/FigureInput.vue'
import Form from '~/base/Form.vue'
import { optionsOf } from '~/base/fields'
import { useForm } from '~/base/useForm'
import type { Problem } from '~/lib/api'
import { KINDS, RULES, type PriceWish } from './priceRules'

defineProps<{ rules: Answer<'pricing'>; problem: Problem | null; busy: boolean }>()
const emit = defineEmits<{ change: []; look: [wish: PriceWish] }>()
const form = useForm({
  kind: 'part' as keyof typeof KINDS | '',
  category: '',
  supplier: '',
  rule: 'price_percent' as keyof typeof RULES,
  percent: '',
  price: '',
})
// What was looked at is what is done: another wish wants another look.
watch(form.values, () => emit('change'))
const ANY = { value: '', label: 'any' }
const of = (words: Readonly<Record<string, string>>) =>
  Object.entries(words).map(([value, label]) => ({ value, label }))
function look() {
  const { kind, rule, percent, price, ...where } = form.values
  emit('look', {
    ...where,
    kind: kind || undefined,
    rule,
    percent: rule.endsWith('percent') ? percent.trim() : '',
    price: rule === 'set' ? price.trim() : '',
  })
}
</script>

<template>
  <Form
    :of="form"
    light
    class="sheet wrapped wish"
    @submit="look"
  >
    <Field
      label="Which"
      :error="problem?.at('kind')"
    >
      <Choice
        v-model="form.values.kind"
        :options="[{ value: '', label: 'everything' }, ...of(KINDS)]"
      />
    </Field>
    <Field label="Category">
      <Choice
        v-model="form.values.category"
        :options="[ANY, ...optionsOf(rules.categories)]"
      />
    </Field>
    <Field
      v-if="rules.suppliers.length"
      label="Supplier"
    >
      <Choice
        v-model="form.values.supplier"
        :options="[ANY, ...optionsOf(rules.suppliers)]"
      />
    </Field>
    <Field label="What is done">
      <Choice
        v-model="form.values.rule"
        :options="of(RULES)"
      />
    </Field>
    <Field
      v-if="form.values.rule.endsWith('percent')"
      label="Per cent"
      :error="problem?.at('percent')"
    >
      <FigureInput
        v-model="form.values.percent"
        placeholder="4 or -2.5"
        style="width: 110px"
      />
    </Field>
    <Field
      v-if="form.values.rule === 'set'"
      label="Price"
      :error="problem?.at('price')"
    >
      <FigureInput
        v-model="form.values.price"
        style="width: 110px"
      />
    </Field>
    <span class="grow" />
    <ActButton
      primary
      submit
      class="look"
      :disabled="busy"
    >
      Look at it first
    </ActButton>
  </Form>
</template>

<style scoped>
.wish {
  align-items: flex-start;
  gap: 12px;
  padding: 14px;
}
.look {
  margin-top: 22px;
}
</style>
