<script setup lang="ts">
// One's own second step: set up with an app, ended with a code of it.
import { ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'
import { useForm } from '~/base/useForm'
import { counted } from '~~/core/text/counted'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'
import type { Answer } from '~~/shared/api'
import SecondStepField from './SecondStepField.vue'

const session = useSession()
const { data, problem, refresh } = useAnswer('mySecondStep')
const { busy, problem: failed, act } = useAct()
const beginning = ref<(Answer<'secondStepSecret'> & { picture: string }) | null>(null)
const codes = ref<readonly string[]>([])
const ending = ref(false)
const form = useForm({ code: '' })
const begin = () =>
  act(async () => {
    const made = await call('secondStepSecret')
    const { toDataURL } = await import('qrcode')
    beginning.value = { ...made, picture: await toDataURL(made.address, { margin: 2, scale: 5 }) }
  })
const set = () =>
  form.send(async () => {
    codes.value = (await call('setSecondStep', { body: form.values })).codes
    beginning.value = null
    form.begin({ code: '' })
    await refresh()
    await session.again()
  })
const end = () =>
  form.send(async () => {
    data.value = await call('endMySecondStep', { body: form.values })
    ending.value = false
    codes.value = []
    form.begin({ code: '' })
    await session.again()
  })
</script>

<template>
  <template v-if="data">
    <p
      v-if="data.asked && !data.on"
      class="note warn"
    >
      The owner asks it of your role: set it up before you go on.
    </p>
    <p v-if="data.on">
      You sign in with your password and a code.
      <span class="quiet">{{ counted(data.codesLeft, 'recovery code') }} left.</span>
    </p>
    <p
      v-else
      class="quiet"
    >
      Besides the password, a code that an app on your phone shows, another one every thirty
      seconds. Any app that makes such codes (TOTP) will do.
    </p>
    <div
      v-if="codes.length"
      class="note"
      role="status"
    >
      <p>
        <b>It holds from now on.</b> Write these recovery codes down and keep them apart from the
        phone; each opens once. They are not shown again.
      </p>
      <ul class="codes num">
        <li
          v-for="code in codes"
          :key="code"
        >
          {{ code }}
        </li>
      </ul>
    </div>
    <Notice :of="failed" />
    <Form
      v-if="beginning"
      :of="form"
      light
      @submit="set"
    >
      <p>Read this with the app, or type the secret into it. Then write the code that it shows.</p>
      <img
        :src="beginning.picture"
        alt="A code that holds the secret for the app"
      />
      <code class="num secret">{{ beginning.secret }}</code>
      <SecondStepField from-app />
      <Notice />
      <ActButton
        primary
        submit
        >It shows this code</ActButton
      >
    </Form>
    <ActButton
      v-else-if="!data.on"
      :disabled="busy"
      @click="begin"
      >Set up a second step</ActButton
    >
    <Form
      v-else-if="ending"
      :of="form"
      light
      @submit="end"
    >
      <SecondStepField />
      <Notice />
      <ActButton submit>End the second step</ActButton>
    </Form>
    <ActButton
      v-else
      @click="ending = true"
      >End the second step…</ActButton
    >
  </template>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
  />
</template>

<style scoped>
.codes {
  columns: 2;
  max-width: 360px;
  margin: 8px 0 0;
  padding: 0;
  list-style: none;
}
img {
  width: 200px;
  height: 200px;
}
.secret {
  overflow-wrap: anywhere;
  white-space: normal;
}
</style>
