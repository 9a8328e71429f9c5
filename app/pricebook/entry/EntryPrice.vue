<script setup lang="ts">
// How an entry is priced: by the rule or fixed, what it costs, and what the rule would say instead.
import { computed } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import Field from '~/base/Field.vue'
import FigureInput from '~/base/FigureInput.vue'
import TextInput from '~/base/TextInput.vue'
import { useSession } from '~/stores/session'
import { mayFollowRule, type Entry, type EntryForm } from './entryForm'
import { useFigures, type Tried } from './useEntry'

const form = defineModel<EntryForm>({ required: true })
const props = defineProps<{ owns: boolean; tried: Tried | null; entry: Entry | null }>()
const { amount, percent } = useFigures()
const seesCost = computed(() => useSession().me?.person.seesCost && form.value.kind !== 'assembly')
const fixed = computed(
  () => form.value.pricing === 'fixed' || ['labour', 'charge'].includes(form.value.kind),
)
const material = computed(() => (props.tried ?? props.entry)?.costs?.material)
const proposed = computed(() =>
  form.value.pricing === 'fixed' && mayFollowRule(form.value.kind) ? props.tried?.byRule : null,
)
const margins = computed(() => {
  const { marginByRule = null, margin = null } = props.tried ?? {}
  return marginByRule === null
    ? ''
    : `, a margin of ${percent(marginByRule)} instead of ${percent(margin)}`
})
</script>

<template>
  <div class="row top">
    <Field
      v-if="mayFollowRule(form.kind)"
      name="pricing"
      label="Priced"
    >
      <Choice
        v-model="form.pricing"
        :options="[
          { value: 'rule', label: 'by the rule' },
          { value: 'fixed', label: 'at a fixed price' },
        ]"
      />
    </Field>
    <Field
      v-if="seesCost"
      name="cost"
      label="Cost"
    >
      <TextInput
        v-if="form.kind === 'task' && form.parts.length"
        class="num"
        :model-value="material ? amount(material) : ''"
        disabled
        title="What the parts inside cost"
      />
      <FigureInput
        v-else
        v-model="form.cost"
      />
    </Field>
    <template v-if="fixed">
      <Field
        name="price"
        label="Price"
        ><FigureInput v-model="form.price"
      /></Field>
      <Field
        v-if="form.kind === 'task'"
        name="furtherPrice"
        label="As a further one"
      >
        <FigureInput v-model="form.furtherPrice" />
      </Field>
    </template>
  </div>
  <p
    v-if="proposed"
    class="note row"
    role="status"
  >
    <span class="grow">
      By the rule it would be <b class="num">{{ amount(proposed) }}</b> instead of
      {{ amount(form.price || '0') }}{{ margins }}.
    </span>
    <template v-if="owns">
      <ActButton @click="form.price = proposed"> Take that price</ActButton>
      <ActButton @click="form.pricing = 'rule'"> Follow the rule </ActButton>
    </template>
  </p>
</template>
