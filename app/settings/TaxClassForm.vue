<script setup lang="ts">
// One class of taxes: what is taxed so, and at which rates.
import { computed, ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import DateInput from '~/base/DateInput.vue'
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
const blank = () => ({ name: '', percent: '', from: '', until: '', postcodes: '' })
const form = useForm({
  name: props.of?.name ?? '',
  rates: props.of?.rates.map((rate) => ({ ...rate })) ?? [blank()],
})
/** As it stood when it was opened. */
const shown = props.of && {
  name: props.of.name,
  rates: props.of.rates.map((rate) => ({ ...rate })),
}
/** The same tax once more, at another rate, from a day on. */
const follow = (i: number) =>
  form.values.rates.splice(i + 1, 0, { ...blank(), name: form.values.rates[i]!.name })
const wanted = ref(false)
/** What is said of when and where is seen, and so is asked for. */
const when = computed({
  get: () => wanted.value || form.values.rates.some((r) => r.from || r.until || r.postcodes),
  set: (on) => (wanted.value = on),
})
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
    width="560"
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
      <fieldset
        v-for="(rate, i) in form.values.rates"
        :key="i"
        class="rate"
      >
        <div class="row">
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
        <div
          v-if="when"
          class="row"
        >
          <Field
            :name="`rates[${i}].from`"
            label="From the day"
          >
            <DateInput v-model="rate.from" />
          </Field>
          <Field
            :name="`rates[${i}].until`"
            label="Until the day"
          >
            <DateInput v-model="rate.until" />
          </Field>
          <ActButton
            quiet
            :aria-label="`${rate.name || 'This tax'} at another rate later`"
            @click="follow(i)"
            >Another rate later</ActButton
          >
        </div>
        <Field
          v-if="when"
          :name="`rates[${i}].postcodes`"
          label="Only where the postcode begins with"
        >
          <TextInput
            v-model="rate.postcodes"
            placeholder="everywhere"
          />
        </Field>
      </fieldset>
      <p
        v-if="!form.values.rates.length"
        class="quiet"
      >
        Nothing is taxed.
      </p>
      <ActButton
        quiet
        @click="form.values.rates.push(blank())"
        >A further rate</ActButton
      >
      <Check v-model="when">Some hold only from a day, or only at some places</Check>
      <p
        v-if="when"
        class="quiet small"
      >
        A rate from a day on takes the place of the one before it. Where is the place of the work:
        802, 8031 are those whose postcode begins so.
      </p>
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
.rate {
  display: flex;
  flex-direction: column;
  gap: 8px;
  margin: 0;
  padding: 0;
  border: 0;
}
/* Level with what is typed, also when something is wrong beneath it. */
.row {
  align-items: flex-start;
}
.row > .btn {
  margin-top: 22px;
}
</style>
