<script setup lang="ts">
// The words of a quote: what it is for, their order number, how long its price is held, what is to be done.
import { reactive, useTemplateRef, watch } from 'vue'
import DateInput from '~/base/DateInput.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'
import type { Quote } from './useQuote'

const props = defineProps<{ quote: Quote; draft: boolean; field?: boolean }>()
const emit = defineEmits<{ change: [words: Words] }>()
type Words = Pick<Quote, 'title' | 'scope' | 'orderNumber' | 'expiresOn'>
const wordsOf = ({ title, scope, orderNumber, expiresOn }: Words): Words => ({
  title,
  scope,
  orderNumber,
  expiresOn,
})
const words = reactive(wordsOf(props.quote))
const box = useTemplateRef('box')
// What somebody is typing is not taken away by a change that arrives.
watch(
  () => props.quote,
  (quote) => {
    if (!box.value?.contains(document.activeElement)) Object.assign(words, wordsOf(quote))
  },
)
function keep() {
  const now = wordsOf(props.quote)
  const changed = (Object.keys(now) as (keyof Words)[]).some((part) => words[part] !== now[part])
  if (changed) emit('change', { ...words })
}
</script>

<template>
  <div
    ref="box"
    class="stack"
    :class="{ field }"
    @focusout="keep"
  >
    <div class="row">
      <Field
        class="grow"
        label="For"
      >
        <TextInput
          v-model="words.title"
          :disabled="!draft"
        />
      </Field>
      <Field label="Their order number">
        <TextInput
          v-model="words.orderNumber"
          :disabled="!draft"
          style="width: 130px"
        />
      </Field>
      <Field label="Price held until">
        <DateInput
          v-model="words.expiresOn"
          :disabled="!draft"
          @change="keep"
        />
      </Field>
    </div>
    <Field label="What is to be done">
      <TextInput
        v-model="words.scope"
        rows="2"
        :disabled="!draft"
      />
    </Field>
  </div>
</template>

<style scoped>
.row {
  flex-wrap: wrap;
}
.field .row > * {
  flex: 1 1 130px;
  min-width: 0;
}
</style>
