<script setup lang="ts">
// Takes back the payment that it was opened for: its cheque came back from the bank.
import { ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useSession } from '~/stores/session'
import type { Invoice } from './useInvoice'

const props = defineProps<{ payment: Invoice['payments'][number] }>()
const emit = defineEmits<{ done: []; close: [] }>()
const session = useSession()
const { busy, problem, act } = useAct()
const reason = ref('')
const reverse = () =>
  act(async () => {
    await call('bounce', { params: { id: props.payment.id }, body: { reason: reason.value } })
    emit('done')
  })
</script>

<template>
  <Dialog
    title="The cheque came back"
    width="420"
    @close="emit('close')"
  >
    <form
      class="stack"
      @submit.prevent="reverse"
    >
      <p>
        The payment of <b class="num">{{ session.money(payment.amount) }}</b> ({{ payment.number }})
        is reversed in the books, and what it paid is open again.
      </p>
      <Field
        label="What the bank said"
        :error="problem?.at('reason')"
      >
        <TextInput v-model="reason" />
      </Field>
      <Notice :of="problem" />
      <ActButton
        primary
        submit
        :disabled="busy"
      >
        Reverse the payment
      </ActButton>
    </form>
  </Dialog>
</template>
