<script setup lang="ts">
// One layout of a paper beside the last such paper, which shows each change while it is typed.
import { computed } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import ColourInput from '~/base/ColourInput.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import FormFields from '~/base/FormFields.vue'
import Notice from '~/base/Notice.vue'
import PaperSheet from '~/base/PaperSheet.vue'
import TextInput from '~/base/TextInput.vue'
import { field, type FormRows } from '~/base/fields'
import { useFormAbout } from '~/base/useForm'
import { call, newId } from '~/lib/api'
import type { Answer } from '~~/shared/api'
import {
  LAYOUT_FIELDS,
  PAPER_COLUMNS,
  USUAL_LAYOUT,
  type PaperLayout,
} from '~~/core/documents/paperLayout'
import type { PaperKind } from '~~/core/documents/paperWords'
import { COLUMN_WORDS, drawn, inOrder, usualWords, type Layout } from './words'

const props = defineProps<{
  kind: PaperKind
  /** none for a new one */
  of: Layout | null
  examples: Answer<'layoutExamples'> | null | undefined
  refresh: () => Promise<unknown>
}>()
const emit = defineEmits<{ kept: [layouts: Answer<'layouts'>, id: string] }>()
const id = props.of?.id ?? newId()
const typedOf = ({ name, usual, retired, layout }: Omit<Layout, 'id' | 'kind' | 'version'>) => ({
  ...{ name, usual, retired },
  ...layout,
})
const blank = typedOf({
  name: '',
  usual: false,
  retired: false,
  layout: USUAL_LAYOUT as Layout['layout'],
})
const form = useFormAbout(() => props.of, typedOf, props.refresh, { draft: `layout ${id}`, blank })
// A new one that was left half typed is taken up again.
if (!props.of) form.takeUp(`layout of ${props.kind}`)
const layout = computed(() => form.values as PaperLayout)
const paper = computed(() => drawn(props.kind, layout.value, props.examples))
const words = computed(() => form.values.words as Record<string, string>)
const fields = computed(() => LAYOUT_FIELDS[props.kind].map((name) => `{${name}}`).join(' '))
const rows = computed((): FormRows => [
  field('subject', 'What it is about, above the lines', { placeholder: '{title}' }),
  field('opening', 'Words that it opens with', { kind: 'area', rows: 3 }),
  field('conditions', 'Conditions at its foot, where other than usual', {
    kind: 'area',
    rows: 3,
  }),
  field('size', 'Paper', {
    options: [
      { value: '', label: 'as in our country' },
      { value: 'A4', label: 'A4' },
      { value: 'LETTER', label: 'Letter' },
    ],
  }),
])
const shows = (column: (typeof PAPER_COLUMNS)[number], on: boolean) => {
  const others = layout.value.columns.filter((one) => one !== column)
  form.values.columns = inOrder(on ? [...others, column] : others)
}
const keep = () =>
  form.keep(async (version) => {
    const body = { id, version, kind: props.kind, ...form.values }
    emit('kept', await call('keepLayout', { body }), id)
  })
</script>

<template>
  <div class="beside">
    <Form
      :of="form"
      class="stack"
      @submit="keep"
    >
      <Field
        name="name"
        label="Name of this layout"
      >
        <TextInput
          v-model="form.values.name"
          maxlength="60"
        />
      </Field>
      <Check
        v-model="form.values.usual"
        name="usual"
        :disabled="of?.usual"
        >What papers of this kind have where nobody says otherwise</Check
      >
      <FormFields :fields="rows" />
      <p class="quiet small">
        Filled in: <span class="fields">{{ fields }}</span>
      </p>
      <Field
        name="colour"
        label="Colour of the title, as #1f5c4a"
      >
        <ColourInput
          v-model="form.values.colour"
          placeholder="ink"
        />
      </Field>
      <fieldset>
        <legend>What the customer sees of each line</legend>
        <Check v-model="form.values.itemised">Each line; without it, their sum alone</Check>
        <template v-if="form.values.itemised">
          <Check
            v-for="column in PAPER_COLUMNS"
            :key="column"
            :model-value="layout.columns.includes(column)"
            @update:model-value="shows(column, Boolean($event))"
            >{{ COLUMN_WORDS[column] }}</Check
          >
          <Check v-model="form.values.discounts">What was taken off, and why</Check>
        </template>
      </fieldset>
      <details>
        <summary>Every word that is printed on it</summary>
        <Field
          v-for="[word, usual] in usualWords(kind)"
          :key="word"
          :name="`words.${word}`"
          :label="usual"
        >
          <TextInput
            v-model="words[word]"
            maxlength="200"
            :placeholder="usual"
          />
        </Field>
      </details>
      <Check
        v-if="of && !of.usual"
        v-model="form.values.retired"
        name="retired"
        >Put away: no paper is made with it any more</Check
      >
      <Notice />
      <p class="quiet small">Papers that were made before stay as they were.</p>
      <div class="row">
        <ActButton
          primary
          submit
          >Keep this layout</ActButton
        >
        <a
          v-if="of"
          :href="`/api/v1/set-up/layouts/${id}/example.pdf`"
          target="_blank"
          >As PDF, as it was kept</a
        >
      </div>
    </Form>
    <PaperSheet
      v-if="paper"
      class="example"
      :paper="paper"
    />
  </div>
</template>

<style scoped>
.beside {
  display: grid;
  grid-template-columns: minmax(300px, 380px) minmax(0, 1fr);
  gap: 24px;
  align-items: start;
}
.example {
  position: sticky;
  top: 12px;
}
.fields {
  font-family: var(--mono);
}
fieldset {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
}
summary {
  cursor: pointer;
}
@media (max-width: 1000px) {
  .beside {
    display: block;
  }
}
</style>
