<script setup lang="ts">
// Sends the invoice that it was opened for: by mail, or handed over on paper.
import { reactive } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Dialog from '~/base/Dialog.vue'
import MailFields from '~/base/MailFields.vue'
import Notice from '~/base/Notice.vue'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useSession } from '~/stores/session'
import type { Invoice } from './useInvoice'

const props = defineProps<{ invoice: Invoice; mails: string[] }>()
const emit = defineEmits<{ done: [invoice: Invoice]; close: [] }>()
const { busy, problem, act } = useAct()
const { id, paper } = props.invoice
const firm = useSession().me?.company.name ?? ''
const mail = reactive({
  first: props.mails[0] ?? '',
  second: props.mails[1] ?? '',
  subject: `${firm}: invoice ${paper.number}`,
  body: `Your invoice is attached; you can also read it and pay here:\n\n{link}\n\n${firm}`,
})
const send = (to: string[]) =>
  act(async () => {
    const words = to.length ? { subject: mail.subject, body: mail.body } : {}
    emit('done', await call('sendInvoice', { params: { id }, body: { to, ...words } }))
  })
const byMail = () => send([mail.first, mail.second].filter(Boolean))
</script>

<template>
  <Dialog
    :title="`Send invoice ${paper.number}`"
    width="560"
    @close="emit('close')"
  >
    <form
      class="stack"
      @submit.prevent="byMail"
    >
      <MailFields
        :model-value="mail"
        :rows="7"
      />
      <Notice :of="problem" />
      <div class="row">
        <ActButton
          primary
          submit
          :disabled="busy || !mail.first"
        >
          Send it
        </ActButton>
        <ActButton
          :disabled="busy"
          @click="send([])"
        >
          It was handed over
        </ActButton>
      </div>
    </form>
  </Dialog>
</template>
