<script setup lang="ts">
// Mail address and password of whoever comes in.
import { ref, watch } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Field from '~/base/Field.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import SecondStepField from './SecondStepField.vue'
import { formAround } from '~/base/useForm'

const form = formAround()!
const values = form.values as { email: string; password: string; code: string }
/** Whoever has a second step is asked for it once the password was right. */
const asksCode = ref(false)
watch(
  () => form.problem,
  (problem) => (asksCode.value ||= Boolean(problem?.errors.some(({ path }) => path === 'code'))),
)
</script>

<template>
  <Field label="Mail address">
    <TextInput
      v-model="values.email"
      type="email"
      name="email"
      autocomplete="username"
      :autofocus="!values.email"
      required
    />
  </Field>
  <Field label="Password">
    <TextInput
      v-model="values.password"
      type="password"
      name="password"
      autocomplete="current-password"
      :autofocus="Boolean(values.email)"
      required
    />
  </Field>
  <SecondStepField v-if="asksCode" />
  <Notice />
  <ActButton
    primary
    submit
  >
    Sign in
  </ActButton>
</template>
