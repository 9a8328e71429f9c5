<script setup lang="ts">
// A reminder to the customer that it was opened from, sent with the sum that it showed.
import { computed, reactive } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Dialog from '~/base/Dialog.vue'
import MailFields from '~/base/MailFields.vue'
import Notice from '~/base/Notice.vue'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useSession } from '~/stores/session'
import type { Owing } from './useOwing'

const props = defineProps<{ about: Owing }>()
const emit = defineEmits<{ done: []; close: [] }>()
const session = useSession()
const { busy, problem, act } = useAct()
const id = newId()
const mail = reactive({
  first: props.about.email,
  second: props.about.email2,
  subject: props.about.reminder.subject,
  body: props.about.reminder.body,
})
/** Two sums where they differ: what the words ask for, and what is owed in all. */
const title = computed(() => {
  const { name, owed, reminder } = props.about
  const all = reminder.asked.amount === owed.amount ? '' : `; ${session.money(owed)} is owed in all`
  return `Reminder ${reminder.step} to ${name}: ${session.money(reminder.asked)}${all}`
})
const remind = () =>
  act(async () => {
    const { first, second, subject, body } = mail
    await call('remind', {
      params: { id: props.about.customerId },
      key: `reminder-${id}`,
      body: {
        id,
        to: [first, second].filter(Boolean),
        subject,
        body,
        shownOwed: props.about.owed.amount,
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
    <form
      class="stack"
      @submit.prevent="remind"
    >
      <MailFields
        :model-value="mail"
        :rows="10"
      />
      <Notice :of="problem" />
      <ActButton
        primary
        submit
        :disabled="busy || !mail.first"
      >
        Send this reminder
      </ActButton>
    </form>
  </Dialog>
</template>
