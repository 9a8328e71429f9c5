<script setup lang="ts">
// What an entry of the book is, as it is typed.
import Check from '~/base/Check.vue'
import Choice from '~/base/Choice.vue'
import Field from '~/base/Field.vue'
import FigureInput from '~/base/FigureInput.vue'
import TextInput from '~/base/TextInput.vue'
import { holdsParts } from './entryForm'
import EntryParts from './EntryParts.vue'
import EntryPrice from './EntryPrice.vue'
import EntryWords from './EntryWords.vue'
import { useFigures, type useEntry } from './useEntry'

const props = defineProps<{ of: ReturnType<typeof useEntry>; fresh: boolean }>()
const { form, rules, tried, entry, owns, typed } = props.of
const { amount } = useFigures()
const wrong = (path: string) => typed.problem?.at(path) ?? ''
const KINDS = [
  { value: 'task', label: 'Task, at a flat rate' },
  { value: 'part', label: 'Part' },
  { value: 'labour', label: 'Labour rate' },
  { value: 'charge', label: 'Charge' },
  { value: 'assembly', label: 'Assembly of several' },
]
</script>

<template>
  <form
    v-if="rules"
    class="sheet box"
    @submit.prevent="of.keep()"
  >
    <fieldset :disabled="!owns">
      <div class="row top">
        <Field
          name="kind"
          label="Kind"
        >
          <Choice
            v-model="form.kind"
            :disabled="!fresh"
            :options="KINDS"
          />
        </Field>
        <Field
          name="code"
          label="Code"
        >
          <TextInput
            v-model="form.code"
            class="num"
            style="width: 110px"
          />
        </Field>
        <Field
          name="category"
          class="grow"
          label="Category, with “ / ” before one inside it"
        >
          <TextInput
            v-model="form.category"
            list="categories"
          />
        </Field>
        <datalist id="categories">
          <option
            v-for="category in rules.categories"
            :key="category"
            :value="category"
          />
        </datalist>
      </div>
      <Field
        name="name"
        label="Name"
      >
        <TextInput v-model="form.name" />
      </Field>
      <p
        v-if="tried?.alike.length && (fresh || form.name !== entry?.name)"
        class="note warn small"
        role="status"
      >
        Named alike:
        <span
          v-for="alike in tried.alike"
          :key="alike.id"
          class="alike"
        >
          <NuxtLink
            :to="`/price-book/${alike.id}`"
            target="_blank"
            >{{ alike.code }} {{ alike.name }}</NuxtLink
          >
          {{ amount(alike.price) }}
        </span>
      </p>
      <div
        v-if="form.kind === 'task'"
        class="row top"
      >
        <Field
          name="hours"
          label="Hours, as the first"
          ><FigureInput v-model="form.hours"
        /></Field>
        <Field
          name="furtherHours"
          label="Hours, as a further one"
          ><FigureInput v-model="form.furtherHours"
        /></Field>
        <Field
          name="labourId"
          class="grow"
          label="Labour rate"
        >
          <Choice
            v-model="form.labourId"
            :options="
              rules.labour.map((l) => ({ value: l.id, label: `${l.name}, ${amount(l.price)}` }))
            "
          />
        </Field>
      </div>
      <EntryParts
        v-if="holdsParts(form.kind)"
        :model-value="form"
        :owns="owns"
        :error="wrong('parts')"
        @add="of.addParts"
      />
      <EntryPrice
        :model-value="form"
        :owns="owns"
        :tried="tried"
        :entry="entry"
      />
      <div class="row top">
        <Field
          name="unit"
          label="Sold by"
        >
          <TextInput
            v-model="form.unit"
            style="width: 90px"
            placeholder="each"
            list="units"
          />
        </Field>
        <datalist id="units">
          <option
            v-for="unit in rules.units"
            :key="unit"
            :value="unit"
          />
        </datalist>
        <Field
          name="taxClass"
          class="grow"
          label="Taxed as"
        >
          <Choice
            v-model="form.taxClass"
            :options="rules.taxClasses.map((t) => ({ value: t.id, label: t.name }))"
          />
        </Field>
        <Field
          name="incomeCode"
          label="Income code"
        >
          <TextInput
            v-model="form.incomeCode"
            class="num"
            style="width: 110px"
          />
        </Field>
        <Check
          v-model="form.pinned"
          class="pin"
        >
          at hand</Check
        >
      </div>
      <Field
        name="synonyms"
        label="Found by these words, too"
        ><TextInput v-model="form.synonyms"
      /></Field>
      <EntryWords
        :model-value="form"
        :suppliers="rules.suppliers"
        :wrong="wrong"
      />
    </fieldset>
  </form>
</template>

<style scoped>
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: flex;
  flex-direction: column;
  gap: 10px;
  min-width: 0;
}
fieldset :deep(.top) {
  align-items: flex-start;
  gap: 10px;
}
.pin {
  margin-top: 26px;
  white-space: nowrap;
}
.alike:not(:last-child)::after {
  content: ', ';
}
fieldset :deep(.field .figures) {
  width: 110px;
}
</style>
