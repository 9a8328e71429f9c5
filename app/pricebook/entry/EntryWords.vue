<script setup lang="ts">
// What most entries do without: words for customer and technician, supplier, skills, from when to when it is sold.
import DateInput from '~/base/DateInput.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'
import type { EntryForm } from './entryForm'

const form = defineModel<EntryForm>({ required: true })
defineProps<{ suppliers: readonly string[]; wrong: (path: string) => string }>()
const says = () => {
  const { description, technicianNote, supplier, skills, activeFrom, activeTo } = form.value
  return Boolean(description || technicianNote || supplier || skills || activeFrom || activeTo)
}
</script>

<template>
  <details :open="says()">
    <summary>Words, supplier, skills, dates</summary>
    <div class="stack">
      <Field
        name="description"
        label="For the customer"
      >
        <TextInput
          v-model="form.description"
          rows="2"
        />
      </Field>
      <Field
        name="technicianNote"
        label="For the technician"
      >
        <TextInput
          v-model="form.technicianNote"
          rows="2"
        />
      </Field>
      <div class="row top">
        <Field
          name="supplier"
          class="grow"
          label="Supplier"
        >
          <TextInput
            v-model="form.supplier"
            list="suppliers"
          />
        </Field>
        <Field
          name="partNumber"
          label="Their part number"
        >
          <TextInput
            v-model="form.partNumber"
            class="num"
          />
        </Field>
        <datalist id="suppliers">
          <option
            v-for="supplier in suppliers"
            :key="supplier"
            :value="supplier"
          />
        </datalist>
      </div>
      <Field
        name="skills"
        label="Skills that it wants, with commas between"
      >
        <TextInput v-model="form.skills" />
      </Field>
      <div class="row top">
        <Field
          name="activeFrom"
          label="On sale from"
          ><DateInput v-model="form.activeFrom"
        /></Field>
        <Field
          name="activeTo"
          label="until"
        >
          <DateInput v-model="form.activeTo" />
        </Field>
      </div>
    </div>
  </details>
</template>

<style scoped>
.stack {
  margin-top: 8px;
}
</style>
