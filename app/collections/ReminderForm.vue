<script setup lang="ts">
// A reminder to the customer that it was opened from, sent with the sum that it showed.
import { computed } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Form from '~/base/Form.vue'
import Dialog from '~/base/Dialog.vue'
import MailFields from '~/base/MailFields.vue'
import Notice from '~/base/Notice.vue'
import { call, newId } from '~/lib/api'
import { useForm } from '~/base/useForm'
import { useSession } from '~/stores/session'
import type { Owing } from './useOwing'

const props = defineProps<{ about: Owing }>()
const emit = defineEmits<{ done: []; close: [] }>()
const session = useSession()
const id = newId()
const form = useForm(
  {
    first: props.about.email,
    second: props.about.email2,
    subject: props.about.reminder.subject,
    body: props.about.reminder.body,
  },
  { draft: `reminder ${props.about.customerId} ${props.about.reminder.step}` },
)
/** Two sums where they differ: what the words ask for, and what is owed in all. */
const title = computed(() => {
  const { name, owed, reminder } = props.about
  const all = reminder.asked.amount === owed.amount ? '' : `; ${session.money(owed)} is owed in all`
  return `Reminder ${reminder.step} to ${name}: ${session.money(reminder.asked)}${all}`
})
const remind = () =>
  form.send(async () => {
    const { first, second, subject, body } = form.values
    await call('remind', {
      params: { id: props.about.customerId },
      body: {
        id,
        to: [first, second].filter(Boolean),
        subject,
        body,
        shownOwed: props.about.owed.amount,
        step: props.about.reminder.step,
      },
    })
    emit('done')
  })
</script>

<template>
  <Dialog
    :title="title"
    width="600"
    @close="emit('close')"
  >
    <Form
      :of="form"
      @submit="remind"
    >
      <MailFields :rows="10" />
      <Notice />
      <ActButton
        primary
        submit
        :disabled="!form.values.first"
      >
        Send this reminder
      </ActButton>
    </Form>
  </Dialog>
</template>
