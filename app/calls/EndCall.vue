<script setup lang="ts">
// A call that is not booked: rung back on a day, answered, or declined, with the reason.
import type { Answer } from '~~/shared/api'
import { call } from '~/lib/api'
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import DateInput from '~/base/DateInput.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import Phrases from '~/base/Phrases.vue'
import TextInput from '~/base/TextInput.vue'
import { useForm } from '~/base/useForm'
import { END_WORDS, type CallEnd } from './words'

const props = defineProps<{
  callId: string
  state: CallEnd
  people: Answer<'setUp'>['people']
  /** keeps the draft before the call is ended */
  save: () => Promise<unknown>
}>()
const emit = defineEmits<{ close: []; ended: [] }>()
const form = useForm({ reason: '', callBackOn: '', assignedTo: null as string | null })
const finish = () =>
  form.send(async () => {
    await props.save()
    const { reason, callBackOn, assignedTo } = form.values
    const body = { state: props.state, reason, callBackOn: callBackOn || null, assignedTo }
    await call('endCall', { params: { id: props.callId }, body })
    emit('ended')
  })
</script>

<template>
  <Dialog
    :title="END_WORDS[state].title"
    width="420"
    @close="emit('close')"
  >
    <Form
      :of="form"
      @submit="finish"
    >
      <template v-if="state === 'put_off'">
        <Field
          name="callBackOn"
          label="On which day"
          ><DateInput v-model="form.values.callBackOn"
        /></Field>
        <Field label="Who rings"
          ><Choice
            v-model="form.values.assignedTo"
            :options="[
              { value: null, label: 'whoever is in the office' },
              ...people
                .filter((p) => p.role !== 'technician')
                .map((p) => ({ value: p.id, label: p.name })),
            ]"
        /></Field>
      </template>
      <Field
        name="reason"
        :label="END_WORDS[state].reason"
        ><TextInput v-model="form.values.reason"
      /></Field>
      <Phrases
        v-if="state === 'declined'"
        v-model="form.values.reason"
        of="call_declined"
      />
      <Notice />
      <ActButton
        primary
        submit
      >
        {{ END_WORDS[state].act }}
      </ActButton>
    </Form>
  </Dialog>
</template>
