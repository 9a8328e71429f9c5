<script setup lang="ts">
// How one series of numbers goes on: what stands before the figures, the next, whether it begins with each year.
import { computed } from 'vue'
import { numberIn, seriesProblem } from '~~/core/documents/numberSeries'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import FigureInput from '~/base/FigureInput.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { useForm } from '~/base/useForm'
import { call } from '~/lib/api'
import { useSession } from '~/stores/session'
import type { Answer } from '~~/shared/api'
import { SERIES_WORDS, type Series } from './setUp'

const props = defineProps<{ of: Series }>()
const emit = defineEmits<{ kept: [numbers: Answer<'numbers'>]; close: [] }>()
const session = useSession()
const { kind, version, prefix, yearly } = props.of
const figures = (count: number) => String(count)
const form = useForm({
  ...{ prefix, yearly, width: figures(props.of.width), next: figures(props.of.next) },
})
/** What is typed, as a series; NaN where no number is typed. */
const typed = computed(() => ({
  ...{ prefix: form.values.prefix, yearly: form.values.yearly },
  ...{ width: Number(form.values.width || NaN), next: Number(form.values.next || NaN) },
}))
const example = computed(() => {
  const { next, ...series } = typed.value
  const isWhole = Number.isInteger(next) && series.width > 0 && series.width < 10
  if (!isWhole || seriesProblem(series)) return ''
  return numberIn(series, next, Number(session.today.slice(0, 4)))
})
const keep = () =>
  form.send(async () => {
    const numbers = await call('keepNumbers', { body: { kind, version, ...typed.value } })
    emit('kept', numbers)
    emit('close')
  })
</script>

<template>
  <Dialog
    :title="`Numbers of ${SERIES_WORDS[of.kind].toLowerCase()}`"
    width="460"
    @close="emit('close')"
  >
    <Form
      :of="form"
      @submit="keep"
    >
      <div class="row top">
        <Field
          class="grow"
          name="prefix"
          label="Before the figures"
          ><TextInput v-model="form.values.prefix"
        /></Field>
        <Field
          name="next"
          label="The next number"
          ><FigureInput v-model="form.values.next"
        /></Field>
        <Field
          name="width"
          label="Figures, at least"
          ><FigureInput v-model="form.values.width"
        /></Field>
      </div>
      <p class="quiet small">{year} before the figures stands for the year of the paper.</p>
      <Field name="yearly"
        ><Check v-model="form.values.yearly">Begins at 1 with each year</Check></Field
      >
      <p
        v-if="example"
        role="status"
      >
        The next is <b class="num">{{ example }}</b>. Numbers that were given stay.
      </p>
      <Notice />
      <ActButton
        primary
        submit
        >Keep these numbers</ActButton
      >
    </Form>
  </Dialog>
</template>

<style scoped>
.top {
  align-items: flex-start;
}
</style>
