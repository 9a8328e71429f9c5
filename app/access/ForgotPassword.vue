<script setup lang="ts">
// Who forgot a password is sent a link; whether anybody has that address is not said.
import { ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { useForm } from '~/base/useForm'
import { call } from '~/lib/api'

const props = defineProps<{ email: string }>()
const emit = defineEmits<{ close: [] }>()
const form = useForm({ email: props.email })
const sent = ref(false)
const ask = () =>
  form.send(async () => {
    await call('forgotPassword', { body: form.values })
    sent.value = true
  })
</script>

<template>
  <Dialog
    title="Another password"
    width="420"
    @close="emit('close')"
  >
    <p
      v-if="sent"
      role="status"
    >
      If somebody signs in with this address, a link is on its way there. It holds for 30 minutes.
    </p>
    <Form
      v-else
      :of="form"
      light
      @submit="ask"
    >
      <Field
        name="email"
        label="Your mail address"
      >
        <TextInput
          v-model="form.values.email"
          type="email"
          autocomplete="username"
        />
      </Field>
      <Notice />
      <ActButton
        primary
        submit
        >Send me a link</ActButton
      >
    </Form>
  </Dialog>
</template>
