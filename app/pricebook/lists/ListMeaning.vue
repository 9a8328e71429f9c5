<script setup lang="ts">
// What the columns of a list mean, and what becomes of what it names and leaves out.
import type { Answer } from '~~/shared/api'
import { BOOK_FIELDS } from '~~/core/pricebook/bookTable'
import FileColumns from '~/components/base/FileColumns.vue'
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'
import type { PriceList } from './usePriceList'

defineProps<{ rules: Answer<'pricing'> | null; busy: boolean }>()
const emit = defineEmits<{ look: [] }>()
const list = defineModel<PriceList>({ required: true })
const label = (field: string) => field.replaceAll('_', ' ')
</script>

<template>
  <FileColumns
    v-model="list.columns"
    :head="list.table!.head"
    :rows="list.table!.rows"
    :fields="BOOK_FIELDS"
    :label="label"
  />
  <p
    v-if="list.asks"
    class="wrong"
  >
    {{ list.asks }}
  </p>
  <div class="row top">
    <Field label="New entries stand in"
      ><TextInput
        v-model="list.options.category"
        list="list-categories"
        :placeholder="list.supplier || 'Taken in'" /></Field
    ><datalist id="list-categories">
      <option
        v-for="c in rules?.categories ?? []"
        :key="c"
        :value="c"
      /></datalist
    ><Field label="and are taxed as"
      ><Choice
        v-model="list.options.taxClass"
        :options="(rules?.taxClasses ?? []).map((t) => ({ value: t.id, label: t.name }))"
    /></Field>
    <Field label="A fixed price with a new cost"
      ><Choice
        v-model="list.options.fixed"
        :options="[
          { value: 'keep', label: 'stays as it is' },
          { value: 'by_rule', label: 'follows the rule from now on' },
        ]" /></Field
    ><Field label="What is no longer on the list"
      ><Choice
        v-model="list.options.vanished"
        :options="[
          { value: 'keep', label: 'stays in the book' },
          { value: 'retire', label: 'is retired' },
        ]" /></Field
    ><span class="grow" /><ActButton
      :primary="!list.seen"
      :disabled="busy || list.asks !== ''"
      @click="emit('look')"
    >
      Look at it first
    </ActButton>
  </div>
</template>

<style scoped>
.top {
  align-items: flex-end;
  gap: 12px;
  flex-wrap: wrap;
}
</style>
