<script setup lang="ts">
// The words of one mail, with the fields that it may name; sent to oneself, to see it as it arrives.
import { ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { useForm } from '~/base/useForm'
import { call } from '~/lib/api'
import { useSession } from '~/stores/session'
import type { Answer } from '~~/shared/api'
import { MAIL_NAMES } from './setUp'

const props = defineProps<{ of: Answer<'mailWords'>['items'][number] }>()
const emit = defineEmits<{ kept: [words: Answer<'mailWords'>]; close: [] }>()
const session = useSession()
const { kind, text: shown, usual } = props.of
const form = useForm({ text: shown }, { draft: `mail ${kind}` })
const fields = props.of.fields.map((name) => `{${name}}`).join(' ')
const sent = ref(false)
const keep = () =>
  form.send(async () => {
    const body = { kind, text: form.values.text, shown }
    emit('kept', await call('keepMailWords', { body }))
    emit('close')
  })
const tryIt = () =>
  form.send(async () => {
    sent.value = false
    await call('tryMailWords', { body: { kind, text: form.values.text } })
    sent.value = true
  })
</script>

<template>
  <Dialog
    :title="`What we write: ${MAIL_NAMES[kind]}`"
    width="560"
    @close="emit('close')"
  >
    <Form
      :of="form"
      @submit="keep"
    >
      <Field
        name="text"
        label="Words"
      >
        <TextInput
          v-model="form.values.text"
          rows="10"
        />
      </Field>
      <p class="quiet small">
        Filled in: <span class="num">{{ fields }}</span>
      </p>
      <Notice />
      <p
        v-if="sent"
        role="status"
        class="note"
      >
        It is on its way to {{ session.me?.person.email }}, with what is made up in its fields.
      </p>
      <div class="row">
        <ActButton
          primary
          submit
          >Keep these words</ActButton
        >
        <ActButton @click="tryIt">Send me one</ActButton>
        <ActButton
          v-if="form.values.text !== usual"
          quiet
          @click="form.values.text = usual"
          >As is usual</ActButton
        >
      </div>
    </Form>
  </Dialog>
</template>
