<script setup lang="ts">
// Sends the quote that it was opened for: by mail, or handed over on paper.
import ActButton from '~/base/ActButton.vue'
import Form from '~/base/Form.vue'
import Choice from '~/base/Choice.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'
import { call } from '~/lib/api'
import { useForm } from '~/base/useForm'
import { useLayouts } from '~/papers/useLayouts'
import type { Quote } from './useQuote'
import Notice from '~/base/Notice.vue'

const props = defineProps<{ quote: Quote; field?: boolean }>()
const emit = defineEmits<{ done: [quote: Quote]; close: [] }>()
const { customer } = props.quote
const layouts = useLayouts('quote')
const form = useForm(
  {
    layoutId: null as string | null,
    first: customer.mails ? customer.email : '',
    second: customer.mails ? customer.email2 : '',
    body: props.quote.mail,
  },
  { draft: `send quote ${props.quote.id}` },
)
const addresses = () =>
  [form.values.first, form.values.second].map((to) => to.trim()).filter(Boolean)
const send = (to: string[]) =>
  form.send(async () => {
    const sent = await call('sendQuote', {
      params: { id: props.quote.id },
      body: {
        ...{ version: props.quote.version, to, body: form.values.body },
        layoutId: form.values.layoutId,
      },
    })
    emit('done', sent)
  })
</script>

<template>
  <Dialog
    :title="`Send ${quote.number}`"
    :width="field ? '94%' : 560"
    @close="emit('close')"
  >
    <Form
      :of="form"
      @submit="send(addresses())"
    >
      <p
        v-if="!customer.mails"
        class="note warn"
      >
        This customer wants no mails. Hand it over on paper, or ask.
      </p>
      <div class="row">
        <Field
          class="grow"
          label="Send to"
        >
          <TextInput
            v-model="form.values.first"
            type="email"
          />
        </Field>
        <Field
          class="grow"
          label="and to"
        >
          <TextInput
            v-model="form.values.second"
            type="email"
          />
        </Field>
      </div>
      <Field label="Text of the mail; the quote is attached as PDF and linked">
        <TextInput
          v-model="form.values.body"
          rows="6"
        />
      </Field>
      <Field
        v-if="layouts.length"
        name="layoutId"
        label="It looks"
      >
        <Choice
          v-model="form.values.layoutId"
          :options="layouts"
        />
      </Field>
      <Notice />
      <div class="row">
        <ActButton
          primary
          submit
          :disabled="!form.values.first.trim()"
        >
          Send it
        </ActButton>
        <ActButton
          :disabled="form.busy"
          @click="send([])"
        >
          Handed over on paper
        </ActButton>
      </div>
    </Form>
  </Dialog>
</template>
