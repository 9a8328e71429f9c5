<script setup lang="ts">
// What a customer said about what they owe: noted for the one that it was opened from, with the sum that was shown.
import { reactive } from 'vue'
import ActButton from '~/base/ActButton.vue'
import DateInput from '~/base/DateInput.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import type { Owing } from './useOwing'

export type SaidKind = 'promise' | 'dispute' | 'settled' | 'note'
const props = defineProps<{ about: Owing; kind: SaidKind }>()
const emit = defineEmits<{ done: []; close: [] }>()
const TITLES: Readonly<Record<SaidKind, string>> = {
  promise: 'Promised to pay',
  dispute: 'Disputes it',
  settled: 'Dispute settled',
  note: 'What was said',
}
const { busy, problem, act } = useAct()
const id = newId()
const said = reactive({ amount: props.about.owed.amount, onDate: '', text: '' })
const note = () =>
  act(async () => {
    const promised = props.kind === 'promise'
    await call('collectionNote', {
      params: { id: props.about.customerId },
      key: `note-${id}`,
      body: {
        id,
        kind: props.kind,
        amount: promised ? said.amount : null,
        onDate: promised ? said.onDate : null,
        text: said.text,
      },
    })
    emit('done')
  })
</script>

<template>
  <Dialog
    :title="`${TITLES[kind]}: ${about.name}`"
    width="420"
    @close="emit('close')"
  >
    <form
      class="stack"
      @submit.prevent="note"
    >
      <div
        v-if="kind === 'promise'"
        class="row"
      >
        <Field
          class="grow"
          label="Amount"
          :error="problem?.at('amount')"
        >
          <TextInput
            v-model="said.amount"
            class="num"
          />
        </Field>
        <Field
          class="grow"
          label="By"
          :error="problem?.at('onDate')"
        >
          <DateInput v-model="said.onDate" />
        </Field>
      </div>
      <Field
        label="In their words"
        :error="problem?.at('text')"
      >
        <TextInput v-model="said.text" />
      </Field>
      <Notice
        :of="problem"
        unplaced
      />
      <ActButton
        primary
        submit
        :disabled="busy"
      >
        Note it
      </ActButton>
    </form>
  </Dialog>
</template>
