<script setup lang="ts">
// Takes a person's data out for good, once their name was written.
import { ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import type { Customer } from './rowForms'

const props = defineProps<{ customer: Customer }>()
const emit = defineEmits<{ close: [] }>()
const { busy, problem, act } = useAct()
const name = ref('')
const erase = () =>
  act(async () => {
    const { id, version } = props.customer
    await call('erase', { params: { id }, body: { version, name: name.value } })
    await navigateTo('/customers')
  })
</script>

<template>
  <Dialog
    title="Take this person’s data out"
    width="460"
    @close="emit('close')"
  >
    <div class="stack">
      <p>
        Names, numbers, addresses, notes, pictures and mails are taken out for good. Invoices and
        receipts stay as they were sent, because the law wants them. This cannot be undone.
      </p>
      <Field
        :label="`Write “${customer.name}” to say that you mean it`"
        :error="problem?.at('name')"
      >
        <TextInput v-model="name" />
      </Field>
      <Notice
        :of="problem"
        unplaced
      />
      <ActButton
        :disabled="busy || !name"
        @click="erase"
      >
        Take it out
      </ActButton>
    </div>
  </Dialog>
</template>
