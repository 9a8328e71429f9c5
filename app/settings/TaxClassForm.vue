<script setup lang="ts">
// One class of taxes: what is taxed so, and at which rates.
import ActButton from '~/base/ActButton.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import FigureInput from '~/base/FigureInput.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { useForm } from '~/base/useForm'
import { call } from '~/lib/api'
import type { Answer } from '~~/shared/api'
import { surely } from './oddRate'

type Classes = Answer<'taxClasses'>
const props = defineProps<{ of: Classes['classes'][number] | null }>()
const emit = defineEmits<{ kept: [classes: Classes]; close: [] }>()
const form = useForm({
  name: props.of?.name ?? '',
  rates: props.of?.rates.map((rate) => ({ ...rate })) ?? [{ name: '', percent: '' }],
})
/** As it stood when it was opened. */
const shown = props.of && {
  name: props.of.name,
  rates: props.of.rates.map((rate) => ({ ...rate })),
}
const send = (sure: boolean) =>
  form.send(async () => {
    const body = { id: props.of?.id ?? '', ...form.values, shown, sure }
    emit('kept', await call('keepTaxClass', { body }))
    emit('close')
  })
const keep = () => surely(send, () => form.problem)
</script>

<template>
  <Dialog
    :title="of ? `Taxes: ${of.name}` : 'A further class of taxes'"
    width="480"
    @close="emit('close')"
  >
    <Form
      :of="form"
      @submit="keep"
    >
      <Field
        name="name"
        label="What is taxed so"
      >
        <TextInput v-model="form.values.name" />
      </Field>
      <div
        v-for="(rate, i) in form.values.rates"
        :key="i"
        class="row rate"
      >
        <Field
          class="grow"
          :name="`rates[${i}].name`"
          label="Name of the tax"
        >
          <TextInput v-model="rate.name" />
        </Field>
        <Field
          :name="`rates[${i}].percent`"
          label="Per cent"
        >
          <FigureInput v-model="rate.percent" />
        </Field>
        <ActButton
          quiet
          :aria-label="`Without ${rate.name || 'this rate'}`"
          @click="form.values.rates.splice(i, 1)"
          >Without it</ActButton
        >
      </div>
      <p
        v-if="!form.values.rates.length"
        class="quiet"
      >
        Nothing is taxed.
      </p>
      <ActButton
        quiet
        @click="form.values.rates.push({ name: '', percent: '' })"
        >A further rate</ActButton
      >
      <p class="quiet small">
        What is billed from now on has these rates; invoices that were made stay as they are.
      </p>
      <Notice />
      <ActButton
        primary
        submit
        >Keep these taxes</ActButton
      >
    </Form>
  </Dialog>
</template>

<style scoped>
/* Level with what is typed, also when something is wrong beneath it. */
.rate {
  align-items: flex-start;
}
.rate > .btn {
  margin-top: 22px;
}
</style>
