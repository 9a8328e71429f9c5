<script setup lang="ts">
// What is asked of a firm before anything else. The country proposes the rest, which stands there to be changed.
import { computed } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Choice from '~/base/Choice.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import PasswordStrength from '~/base/PasswordStrength.vue'
import TextInput from '~/base/TextInput.vue'
import { optionsOf } from '~/base/fields'
import { useForm } from '~/base/useForm'
import { call } from '~/lib/api'
import { surely } from '~/settings/oddRate'
import { useSession } from '~/stores/session'
import type { Answer } from '~~/shared/api'
import CodeField from './CodeField.vue'
import { localesFor, TAX_WORDS } from './words'

const props = defineProps<{ countries: Answer<'beginning'>['countries'] }>()
const session = useSession()
const named = (code: string) => props.countries.find((country) => country.code === code)
/** Where this window is: a guess, which stands there to be changed. */
const here = () => {
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone
  const region = new Intl.Locale(navigator.language).region ?? ''
  const there = props.countries.filter(({ timeZones }) => timeZones.includes(zone))
  return (there.find(({ code }) => code === region) ?? there[0] ?? named(region))?.code ?? 'US'
}
/** What a country proposes. */
function proposed(code: string) {
  const { locale, timeZones, taxMode, taxName } = named(code)!
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone
  const timeZone = timeZones.includes(zone) ? zone : timeZones[0]!
  return { country: code, locale, timeZone, taxMode, taxName }
}
const form = useForm({
  ...{ code: '', firm: '', name: '', email: '', password: '', alsoGoes: false, taxRate: '' },
  ...proposed(here()),
})
const country = computed(() => named(form.values.country)!)
const move = (code: string) => Object.assign(form.values, proposed(code))
const send = (sure: boolean) =>
  form.send(async () => {
    session.keep(await call('begin', { body: { ...form.values, sure } }))
    await navigateTo('/guide')
  })
const begin = () => surely(send, () => form.problem)
</script>

<template>
  <Form
    :of="form"
    @submit="begin"
  >
    <CodeField v-model="form.values.code" />
    <div class="row">
      <Field
        class="grow"
        name="firm"
        label="Name of the firm"
      >
        <TextInput
          v-model="form.values.firm"
          autocomplete="organization"
        />
      </Field>
      <Field
        name="country"
        label="Country"
      >
        <Choice
          v-model="form.values.country"
          :options="countries.map(({ code, name }) => ({ value: code, label: name }))"
          @change="move"
        />
      </Field>
    </div>
    <div class="row">
      <Field
        class="grow"
        name="name"
        label="Your name"
      >
        <TextInput
          v-model="form.values.name"
          autocomplete="name"
        />
      </Field>
      <Field
        class="grow"
        name="email"
        label="Your mail address"
      >
        <TextInput
          v-model="form.values.email"
          type="email"
          autocomplete="username"
        />
      </Field>
    </div>
    <Field
      name="password"
      label="Password, twelve characters or more"
    >
      <TextInput
        v-model="form.values.password"
        type="password"
        autocomplete="new-password"
      />
    </Field>
    <PasswordStrength
      :of="form.values.password"
      :known="[form.values.name, form.values.email, form.values.firm]"
    />
    <Check
      v-model="form.values.alsoGoes"
      name="alsoGoes"
      >I go to customers myself</Check
    >
    <h2>{{ country.name }}: what is usual there</h2>
    <p class="quiet small">
      Change what is otherwise with you. The books are kept in <b>{{ country.currency }}</b>, which
      stays.
    </p>
    <div class="row">
      <Field
        class="grow"
        name="timeZone"
        label="Time zone"
      >
        <Choice
          v-model="form.values.timeZone"
          :options="optionsOf(country.timeZones)"
        />
      </Field>
      <Field
        class="grow"
        name="locale"
        label="Days and figures are written"
      >
        <Choice
          v-model="form.values.locale"
          :options="localesFor(country)"
        />
      </Field>
    </div>
    <div class="row">
      <Field
        class="grow"
        name="taxName"
        label="What the tax is called"
      >
        <TextInput v-model="form.values.taxName" />
      </Field>
      <Field
        name="taxRate"
        label="Its rate, per cent"
      >
        <TextInput
          v-model="form.values.taxRate"
          inputmode="decimal"
          placeholder="none"
        />
      </Field>
      <Field
        class="grow"
        name="taxMode"
        label="Our prices are"
      >
        <Choice
          v-model="form.values.taxMode"
          :options="TAX_WORDS"
        />
      </Field>
    </div>
    <Notice />
    <ActButton
      primary
      submit
      >Begin</ActButton
    >
  </Form>
</template>

<style scoped>
/* Beside each other where there is room for what is typed. */
.row {
  flex-wrap: wrap;
}
.row > * {
  flex: 1 1 170px;
  min-width: 0;
}
</style>
