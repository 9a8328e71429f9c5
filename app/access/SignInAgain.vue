<script setup lang="ts">
// The session ended while the window was open: signed in again in place, so that nothing typed is lost.
import Dialog from '~/base/Dialog.vue'
import Form from '~/base/Form.vue'
import { useForm } from '~/base/useForm'
import { call } from '~/lib/api'
import { askAllAnew } from '~/lib/live'
import { useSession } from '~/stores/session'
import SignInFields from './SignInFields.vue'

const session = useSession()
const before = session.me?.person.id
const form = useForm({ email: session.me?.person.email ?? '', password: '', code: '' })
const signIn = () =>
  form.send(async () => {
    const me = await call('signIn', { body: form.values })
    // Somebody else sees nothing of what stood there.
    if (me.person.id !== before) return navigateTo('/', { external: true })
    session.keep(me)
    return askAllAnew()
  })
</script>

<template>
  <Dialog
    title="Your session has ended"
    width="360"
    apart
    held
  >
    <Form
      :of="form"
      light
      @submit="signIn"
    >
      <p>Sign in again to go on where you were. What you typed is still there.</p>
      <SignInFields />
    </Form>
  </Dialog>
</template>
