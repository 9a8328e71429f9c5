<script setup lang="ts">
// Takes a person's data out for good, once their name was written.
import ReasonDialog from '~/base/ReasonDialog.vue'
import { call } from '~/lib/api'
import type { Customer } from './rowForms'

const props = defineProps<{ customer: Customer }>()
const emit = defineEmits<{ close: [] }>()
async function erase(name: string) {
  const { id, version } = props.customer
  await call('erase', { params: { id }, body: { version, name } })
  await navigateTo('/customers')
}
</script>

<template>
  <ReasonDialog
    title="Take this person’s data out"
    name="name"
    act="Take it out"
    width="460"
    :label="`Write “${customer.name}” to say that you mean it`"
    :send="erase"
    @close="emit('close')"
  >
    <p>
      Names, numbers, addresses, notes, pictures and mails are taken out for good. Invoices and
      receipts stay as they were sent, because the law wants them. This cannot be undone.
    </p>
  </ReasonDialog>
</template>
