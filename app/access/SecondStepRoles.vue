<script setup lang="ts">
// Of which roles a second step is asked when they sign in.
import { watch } from 'vue'
import { ROLES } from '~~/core/access/permissions'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import { useForm } from '~/base/useForm'
import { call } from '~/lib/api'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'

const session = useSession()
const { data, problem } = useAnswer('secondStepRoles', undefined, SHOWS.setUp)
const form = useForm({ roles: [] as (typeof ROLES)[number][] })
watch(data, (now) => now && form.follow({ roles: [...now.roles] }), { immediate: true })
const keep = () =>
  form.send(async () => {
    data.value = await call('keepSecondStepRoles', { body: form.values })
  })
</script>

<template>
  <h2 id="second-step">A second step when signing in</h2>
  <p class="quiet">
    Besides the password, a code of an app. Everybody may set it up under “My sign-in”; of these
    roles it is asked.
  </p>
  <Form
    v-if="data"
    :of="form"
    @submit="keep"
  >
    <div class="row">
      <Check
        v-for="role in ROLES"
        :key="role"
        v-model="form.values.roles"
        :value="role"
        :disabled="!session.may('limits.change')"
        >{{ role }}</Check
      >
      <ActButton
        v-if="session.may('limits.change')"
        submit
        :disabled="!form.changed"
        >Ask it of these</ActButton
      >
    </div>
    <Notice />
  </Form>
  <Notice :of="problem" />
</template>
