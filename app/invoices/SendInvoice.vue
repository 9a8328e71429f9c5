<script setup lang="ts">
// Sends the invoice that it was opened for: by mail, or handed over on paper.
import { watch } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Form from '~/base/Form.vue'
import Dialog from '~/base/Dialog.vue'
import MailFields from '~/base/MailFields.vue'
import Notice from '~/base/Notice.vue'
import { call } from '~/lib/api'
import { useForm } from '~/base/useForm'
import { useSession } from '~/stores/session'
import type { Invoice } from './useInvoice'

const props = defineProps<{ invoice: Invoice; mails: string[] }>()
const emit = defineEmits<{ done: [invoice: Invoice]; close: [] }>()
const { id, paper } = props.invoice
const firm = useSession().me?.company.name ?? ''
const form = useForm(
  {
    first: props.mails[0] ?? '',
    second: props.mails[1] ?? '',
    subject: `${firm}: invoice ${paper.number}`,
    body: props.invoice.mail,
  },
  { draft: `send invoice ${id}` },
)
// Whom it may go to can be known a moment later than the invoice.
watch(
  () => props.mails,
  ([first = '', second = '']) => form.follow({ first, second }),
)
const send = (to: string[]) =>
  form.send(async () => {
    const { subject, body } = form.values
    const words = to.length ? { subject, body } : {}
    emit('done', await call('sendInvoice', { params: { id }, body: { to, ...words } }))
  })
const byMail = () => send([form.values.first, form.values.second].filter(Boolean))
</script>

<template>
  <Dialog
    :title="`Send invoice ${paper.number}`"
    width="560"
    @close="emit('close')"
  >
    <Form
      :of="form"
      @submit="byMail"
    >
      <MailFields :rows="7" />
      <Notice />
      <div class="row">
        <ActButton
          primary
          submit
          :disabled="!form.values.first"
        >
          Send it
        </ActButton>
        <ActButton
          :disabled="form.busy"
          @click="send([])"
        >
          It was handed over
        </ActButton>
      </div>
    </Form>
  </Dialog>
</template>
