<script setup lang="ts">
// Somebody who was invited, or forgot a password, chooses one here and is signed in.
import { ref, watch } from 'vue'
import DoorPage from '~/access/DoorPage.vue'
import SecondStepField from '~/access/SecondStepField.vue'
import { useAtDoor } from '~/access/useAtDoor'
import ActButton from '~/base/ActButton.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'
import PasswordStrength from '~/base/PasswordStrength.vue'
import TextInput from '~/base/TextInput.vue'
import { useForm } from '~/base/useForm'
import { call } from '~/lib/api'
import { useSession } from '~/stores/session'

definePageMeta({ layout: false })
const token = useRoute().params.token as string
const session = useSession()
const { data, problem, refresh } = useAtDoor('door', { params: { token } })
const form = useForm({ password: '', code: '' })
/** Whoever has a second step is asked for it, too: a mail alone opens nothing. */
const asksCode = ref(false)
watch(
  () => form.problem,
  (why) => (asksCode.value ||= Boolean(why?.errors.some(({ path }) => path === 'code'))),
)
const comeIn = () =>
  form.send(async () => {
    session.keep(await call('comeIn', { params: { token }, body: form.values }))
    await navigateTo('/')
  })
</script>

<template>
  <DoorPage
    v-if="data"
    :title="data.isNew ? `${data.firm} invites you` : 'Another password'"
  >
    <Form
      :of="form"
      light
      @submit="comeIn"
    >
      <p>
        {{ data.name }}, you sign in with <b>{{ data.email }}</b> and a password of your own.
      </p>
      <Field
        name="password"
        label="Password, twelve characters or more"
      >
        <TextInput
          v-model="form.values.password"
          type="password"
          autocomplete="new-password"
          autofocus
        />
      </Field>
      <PasswordStrength
        :of="form.values.password"
        :known="[data.name, data.email, data.firm]"
      />
      <SecondStepField v-if="asksCode" />
      <Notice />
      <ActButton
        primary
        submit
        >{{ data.isNew ? 'Come in' : 'Keep it and come in' }}</ActButton
      >
    </Form>
  </DoorPage>
  <DoorPage
    v-else-if="problem?.status === 404"
    title="This link has ended"
  >
    <p>It was used, another one was sent after it, or its time is over.</p>
    <p>
      Who forgot a password asks for another link at the
      <NuxtLink to="/sign-in">sign-in</NuxtLink>. Who was invited asks whoever invited them.
    </p>
  </DoorPage>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
  />
</template>
