<script setup lang="ts">
// An empty price book begins with a short list, whose prices follow from what an hour costs the customer.
import { ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import FigureInput from '~/base/FigureInput.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import { useForm } from '~/base/useForm'
import { call } from '~/lib/api'
import { useSession } from '~/stores/session'

const emit = defineEmits<{ kept: [] }>()
const session = useSession()
const open = ref(false)
const form = useForm({ hour: '', cost: '' })
const start = () =>
  form.send(async () => {
    await call('startPriceBook', { body: form.values })
    open.value = false
    emit('kept')
  })
</script>

<template>
  <ActButton @click="open = true">Begin with a short list</ActButton>
  <Dialog
    v-model="open"
    title="A short list to begin with"
    width="460"
  >
    <Form
      :of="form"
      @submit="start"
    >
      <p>
        A dozen entries that most trades have: the hour, a visit, the usual small tasks. What a task
        costs follows from its hours and from what you charge for one. Change or retire each of them
        in the price book.
      </p>
      <Field
        name="hour"
        :label="`What you charge for an hour, ${session.me?.company.currency}`"
      >
        <FigureInput
          v-model="form.values.hour"
          autofocus
        />
      </Field>
      <Field
        name="cost"
        :label="`What an hour costs you, ${session.me?.company.currency}; empty if you do not know yet`"
      >
        <FigureInput v-model="form.values.cost" />
      </Field>
      <Notice />
      <ActButton
        primary
        submit
        >Make the list</ActButton
      >
    </Form>
  </Dialog>
</template>
