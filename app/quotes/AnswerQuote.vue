<script setup lang="ts">
// The customer's answer to the quote that it was opened for. A yes becomes promised work.
import ReasonDialog from '~/base/ReasonDialog.vue'
import { call, newId } from '~/lib/api'
import { useSession } from '~/stores/session'
import type { Quote } from './useQuote'

const props = defineProps<{ quote: Quote; accepted: boolean; field?: boolean }>()
const emit = defineEmits<{ done: [quote: Quote]; close: [] }>()
const session = useSession()
const ids = { workOrderId: newId(), visitId: newId() }
async function answer(words: string) {
  const { id, version } = props.quote
  const body = { version, accepted: props.accepted, words, ...ids }
  emit('done', await call('answerQuote', { params: { id }, body }))
}
</script>

<template>
  <ReasonDialog
    name="words"
    :phrases="accepted ? undefined : 'quote_declined'"
    :title="accepted ? 'They said yes' : 'They said no'"
    :label="accepted ? 'Who agreed, and how' : 'Why not'"
    :act="accepted ? 'Make it work to schedule' : 'Close the quote'"
    :width="field ? '94%' : 560"
    :send="answer"
    @close="emit('close')"
  >
    <p v-if="accepted">
      {{ session.money(quote.price.total) }} becomes promised work that waits for its slot.
    </p>
  </ReasonDialog>
</template>
