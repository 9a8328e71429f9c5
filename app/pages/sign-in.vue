<script setup lang="ts">
// Who comes in: by mail address and password, back to where one wanted to go.
import ActButton from '~/base/ActButton.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { useForm } from '~/base/useForm'
import { call } from '~/lib/api'
import { useSession } from '~/stores/session'

const session = useSession()
const route = useRoute()
const form = useForm({ email: '', password: '' })
const signIn = () =>
  form.send(async () => {
    session.keep(await call('signIn', { body: form.values }))
    const { to } = route.query
    await navigateTo(typeof to === 'string' && /^\/[^/\\]/.test(to) ? to : '/')
  })
</script>

<template>
  <main class="door">
    <Form
      :of="form"
      light
      class="sheet"
      @submit="signIn"
    >
      <h1><span>Open Ledger</span></h1>
      <p class="quiet">Promised, done, billed, paid.</p>
      <Field label="Mail address">
        <TextInput
          v-model="form.values.email"
          type="email"
          name="email"
          autocomplete="username"
          autofocus
          required
        />
      </Field>
      <Field label="Password">
        <TextInput
          v-model="form.values.password"
          type="password"
          name="password"
          autocomplete="current-password"
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
    </Form>
  </main>
</template>

<style scoped>
.door {
  min-height: 100vh;
  display: grid;
  place-items: center;
  padding: 20px;
}
.sheet {
  width: 340px;
  padding: 28px;
  border-radius: 5px;
  gap: 14px;
}
h1 span {
  border-bottom: 3px double var(--green);
  padding-bottom: 3px;
}
.btn {
  min-height: 40px;
}
</style>
