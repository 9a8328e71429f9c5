<script setup lang="ts">
// The owner of a firm that was taken in comes in with a new password.
import ActButton from '~/base/ActButton.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import PasswordStrength from '~/base/PasswordStrength.vue'
import TextInput from '~/base/TextInput.vue'
import CodeField from '~/begin/CodeField.vue'
import { useForm } from '~/base/useForm'
import { call } from '~/lib/api'
import { useSession } from '~/stores/session'

const session = useSession()
const form = useForm({ code: '', email: '', password: '' })
const comeIn = () =>
  form.send(async () => {
    session.keep(await call('beginAsOwner', { body: form.values }))
    await navigateTo('/')
  })
</script>

<template>
  <Form
    :of="form"
    @submit="comeIn"
  >
    <p>
      Everything is here; only passwords are not in an archive. An owner chooses one now, and then
      invites the others anew, under People.
    </p>
    <CodeField v-model="form.values.code" />
    <Field
      name="email"
      label="The mail address that you signed in with before"
    >
      <TextInput
        v-model="form.values.email"
        type="email"
        autocomplete="username"
      />
    </Field>
    <Field
      name="password"
      label="A new password, twelve characters or more"
    >
      <TextInput
        v-model="form.values.password"
        type="password"
        autocomplete="new-password"
      />
    </Field>
    <PasswordStrength
      :of="form.values.password"
      :known="[form.values.email]"
    />
    <Notice />
    <ActButton
      primary
      submit
      >Come in</ActButton
    >
  </Form>
</template>
