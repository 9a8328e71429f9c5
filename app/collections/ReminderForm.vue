<script setup lang="ts">
// A reminder to the customer that it was opened from, sent with the sum that it showed.
import { computed, ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Form from '~/base/Form.vue'
import Dialog from '~/base/Dialog.vue'
import Check from '~/base/Check.vue'
import FormFields from '~/base/FormFields.vue'
import { field } from '~/base/fields'
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
/** On paper where they are not to be had by mail, or where somebody wants it so. */
const byLetter = ref(!props.about.mails)
const form = useForm(
  {
    first: props.about.email,
    second: props.about.email2,
    subject: props.about.reminder.subject,
    body: props.about.reminder.body,
    letter: props.about.reminder.letter,
  },
  { draft: `reminder ${props.about.customerId} ${props.about.reminder.step}` },
)
const LETTER = [field('subject', 'Subject'), field('letter', 'Letter', { kind: 'area', rows: 12 })]
/** Two sums where they differ: what the words ask for, and what is owed in all. */
const title = computed(() => {
  const { name, owed, reminder } = props.about
  const all = reminder.asked.amount === owed.amount ? '' : `; ${session.money(owed)} is owed in all`
  return `Reminder ${reminder.step} to ${name}: ${session.money(reminder.asked)}${all}`
})
const remind = () =>
  form.send(async () => {
    const { first, second, subject, body, letter } = form.values
    const isLetter = byLetter.value
    // The window has to be opened by the press itself.
    const paper = isLetter ? window.open('', '_blank') : null
    const kept = call('remind', {
      params: { id: props.about.customerId },
      body: {
        ...{ id, subject, letter: isLetter },
        to: isLetter ? [] : [first, second].filter(Boolean),
        body: isLetter ? letter : body,
        shownOwed: props.about.owed.amount,
        step: props.about.reminder.step,
      },
    })
    const { messageId } = await kept.catch((error: unknown) => {
      paper?.close()
      throw error
    })
    if (paper) paper.location.href = `/api/v1/messages/${messageId}/letter.pdf`
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
      <Check v-model="byLetter">As a letter, to print and post</Check>
      <p
        v-if="!about.mails"
        class="quiet small"
      >
        They are not to be had by mail.
      </p>
      <FormFields
        v-if="byLetter"
        :fields="LETTER"
      />
      <MailFields
        v-else
        :rows="10"
      />
      <Notice />
      <ActButton
        primary
        submit
        :disabled="!byLetter && !form.values.first"
      >
        {{ byLetter ? 'Keep and print this letter' : 'Send this reminder' }}
      </ActButton>
    </Form>
  </Dialog>
</template>
