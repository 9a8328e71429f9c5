<script setup lang="ts">
// Sends the quote that it was opened for: by mail, or handed over on paper.
import { reactive } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useSession } from '~/stores/session'
import type { Quote } from './useQuote'
import Notice from '~/base/Notice.vue'

const props = defineProps<{ quote: Quote; field?: boolean }>()
const emit = defineEmits<{ done: [quote: Quote]; close: [] }>()
const session = useSession()
const { busy, problem, act } = useAct()
const { customer, title, expiresOn } = props.quote
const mail = reactive({
  first: customer.mails ? customer.email : '',
  second: customer.mails ? customer.email2 : '',
  body: [
    `Here is our quote for “${title}”. The price is held until ${session.day(expiresOn, 'long')}.`,
    'Answer this mail or ring us; we begin once you have agreed.',
    session.me?.company.name ?? '',
  ].join('\n\n'),
})
const addresses = () => [mail.first, mail.second].map((to) => to.trim()).filter(Boolean)
const send = (to: string[]) =>
  act(async () => {
    const sent = await call('sendQuote', {
      params: { id: props.quote.id },
      body: { version: props.quote.version, to, body: mail.body },
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
    <div class="stack">
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
            v-model="mail.first"
            type="email"
          />
        </Field>
        <Field
          class="grow"
          label="and to"
        >
          <TextInput
            v-model="mail.second"
            type="email"
          />
        </Field>
      </div>
      <Field label="Text of the mail; the quote is attached as PDF">
        <TextInput
          v-model="mail.body"
          rows="6"
        />
      </Field>
      <Notice :of="problem" />
      <div class="row">
        <ActButton
          primary
          :disabled="busy || !mail.first.trim()"
          @click="send(addresses())"
        >
          Send it
        </ActButton>
        <ActButton
          :disabled="busy"
          @click="send([])"
        >
          Handed over on paper
        </ActButton>
      </div>
    </div>
  </Dialog>
</template>
