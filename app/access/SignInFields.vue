<script setup lang="ts">
// Mail address and password of whoever comes in.
import ActButton from '~/base/ActButton.vue'
import Field from '~/base/Field.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { formAround } from '~/base/useForm'

const form = formAround()!
const values = form.values as { email: string; password: string }
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
  <Notice :of="form.problem" />
  <ActButton
    primary
    submit
  >
    Sign in
  </ActButton>
</template>
