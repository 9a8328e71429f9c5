<script setup lang="ts">
// Where a service is, and how we are known there.
import ActButton from '~/base/ActButton.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { useForm } from '~/base/useForm'
import { call } from '~/lib/api'
import type { Answer } from '~~/shared/api'
import { SERVICES, type Connection } from './words'

const props = defineProps<{ of: Connection }>()
const emit = defineEmits<{ kept: [now: Answer<'connections'>]; close: [] }>()
const { kind, version, from, address, user, hasSecret } = props.of
const service = SERVICES[kind]
const isHere = from === 'here'
/** Of devices that come to us there is nothing else. */
const secretLabel =
  isHere && hasSecret && service.example ? 'Secret; left empty, it stays as it is' : 'Secret'
const form = useForm({
  ...{ address: isHere ? address : '', user: isHere ? user : '', secret: '' },
})
const keep = (body = form.values) =>
  form.send(async () => {
    emit('kept', await call('keepConnection', { body: { kind, version, ...body } }))
    emit('close')
  })
</script>

<template>
  <Dialog
    :title="`Connection: ${service.name}`"
    width="480"
    @close="emit('close')"
  >
    <Form
      :of="form"
      @submit="keep()"
    >
      <Field
        v-if="service.example"
        name="address"
        label="Address"
      >
        <TextInput
          v-model="form.values.address"
          :placeholder="service.example"
        />
      </Field>
      <Field
        v-if="service.user"
        name="user"
        label="User"
      >
        <TextInput
          v-model="form.values.user"
          autocomplete="off"
        />
      </Field>
      <Field
        name="secret"
        :label="secretLabel"
      >
        <TextInput
          v-model="form.values.secret"
          type="password"
          autocomplete="new-password"
        />
      </Field>
      <p class="quiet small">
        The secret is kept sealed, and shown to nobody. It goes into no archive.
      </p>
      <Notice />
      <div class="row">
        <ActButton
          primary
          submit
          >Keep this connection</ActButton
        >
        <ActButton
          v-if="isHere"
          quiet
          @click="keep({ address: '', user: '', secret: '' })"
          >As the server was set up</ActButton
        >
      </div>
    </Form>
  </Dialog>
</template>
