<script setup lang="ts">
// The customer's answer to the quote that it was opened for. A yes becomes promised work.
import { ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import TextInput from '~/base/TextInput.vue'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useSession } from '~/stores/session'
import type { Quote } from './useQuote'

const props = defineProps<{ quote: Quote; accepted: boolean; field?: boolean }>()
const emit = defineEmits<{ done: [quote: Quote]; close: [] }>()
const session = useSession()
const { busy, problem, act } = useAct()
const words = ref('')
const ids = { workOrderId: newId(), visitId: newId() }
const answer = () =>
  act(async () => {
    const { id, version } = props.quote
    const body = { version, accepted: props.accepted, words: words.value, ...ids }
    emit('done', await call('answerQuote', { params: { id }, body }))
  })
</script>

<template>
  <Dialog
    :title="accepted ? 'They said yes' : 'They said no'"
    :width="field ? '94%' : 560"
    @close="emit('close')"
  >
    <form
      class="stack"
      @submit.prevent="answer"
    >
      <p v-if="accepted">
        {{ session.money(quote.price.total) }} becomes promised work that waits for its slot.
      </p>
      <Field
        :label="accepted ? 'Who agreed, and how' : 'Why not'"
        :error="problem?.at('words')"
      >
        <TextInput v-model="words" />
      </Field>
      <p
        v-if="problem && !problem.at('words')"
        class="note bad"
        role="alert"
      >
        {{ problem.message }}
      </p>
      <ActButton
        primary
        submit
        :disabled="busy"
      >
        {{ accepted ? 'Make it work to schedule' : 'Close the quote' }}
      </ActButton>
    </form>
  </Dialog>
</template>
