<script setup lang="ts">
import { ref } from 'vue'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'

const session = useSession()
const email = ref('')
const password = ref('')
const { busy, problem, act } = useAct()
const signIn = () =>
  act(async () => {
    session.keep(await call('signIn', { body: { email: email.value, password: password.value } }))
    const to = useRoute().query.to
    await navigateTo(typeof to === 'string' && /^\/[^/\\]/.test(to) ? to : '/')
  })
</script>

<template>
  <main class="door">
    <form
      class="sheet"
      @submit.prevent="signIn"
    >
      <h1><span>Open Ledger</span></h1>
      <p class="quiet">Promised, done, billed, paid.</p>
      <Field label="Mail address"
        ><TextInput
          v-model="email"
          type="email"
          name="email"
          autocomplete="username"
          autofocus
          required
      /></Field>
      <Field label="Password"
        ><TextInput
          v-model="password"
          type="password"
          name="password"
          autocomplete="current-password"
          required
      /></Field>
      <p
        v-if="problem"
        class="wrong"
        role="alert"
      >
        {{ problem.message }}
      </p>
      <ActButton
        primary
        submit
        :disabled="busy"
      >
        Sign in
      </ActButton>
    </form>
  </main>
</template>

<style scoped>
.door {
  min-height: 100vh;
  display: grid;
  place-items: center;
  padding: 20px;
}
form {
  width: 340px;
  padding: 28px;
  border-radius: 5px;
  display: flex;
  flex-direction: column;
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
