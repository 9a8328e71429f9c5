<script setup lang="ts">
// Who comes in: by mail address and password, back to where one wanted to go.
import { onBeforeUnmount, onMounted, ref } from 'vue'
import ForgotPassword from '~/access/ForgotPassword.vue'
import SignInFields from '~/access/SignInFields.vue'
import ActButton from '~/base/ActButton.vue'
import Form from '~/base/Form.vue'
import { useForm } from '~/base/useForm'
import { call } from '~/lib/api'
import { useSession } from '~/stores/session'

const session = useSession()
const route = useRoute()
const form = useForm({ email: '', password: '', code: '' })
const forgot = ref(false)
async function goOn() {
  const { to } = route.query
  await navigateTo(typeof to === 'string' && /^\/[^/\\]/.test(to) ? to : '/')
}
const signIn = () =>
  form.send(async () => {
    session.keep(await call('signIn', { body: form.values }))
    await goOn()
  })
/** Whoever is signed in and could not be asked about needs no password once the server is back. */
const again = async () => {
  if (session.away && (await session.load())) await goOn()
}
const AGAIN_MS = 5000
const timer = setInterval(() => void again(), AGAIN_MS)
onMounted(() => {
  window.addEventListener('online', again)
  // Where nobody is there yet, nobody can sign in: the firm begins first.
  void call('beginning')
    .then(async ({ waits }) => void (waits && (await navigateTo('/begin'))))
    .catch(() => {})
})
onBeforeUnmount(() => {
  clearInterval(timer)
  window.removeEventListener('online', again)
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
      <div
        v-if="session.away"
        class="note warn"
        role="status"
      >
        <p>{{ session.away }} You are still signed in; this page goes on by itself.</p>
        <ActButton @click="again"> Try again </ActButton>
      </div>
      <SignInFields />
      <ActButton
        quiet
        @click="forgot = true"
        >I forgot my password</ActButton
      >
    </Form>
    <ForgotPassword
      v-if="forgot"
      :email="form.values.email"
      @close="forgot = false"
    />
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
  width: min(340px, 100%);
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
