<script setup lang="ts">
// A quote, or something to bill without a visit, begins for a customer: where it is for, and what it is.
import { saySite } from '~~/core/customers/saySite'
import ActButton from '~/base/ActButton.vue'
import Dialog from '~/base/Dialog.vue'
import { field, namesOf } from '~/base/fields'
import Form from '~/base/Form.vue'
import FormFields from '~/base/FormFields.vue'
import Notice from '~/base/Notice.vue'
import { useForm } from '~/base/useForm'
import { call, newId } from '~/lib/api'
import type { Customer } from './rowForms'

export type Paper = 'quote' | 'bill'
const props = defineProps<{ customer: Customer; as: Paper }>()
const emit = defineEmits<{ close: [] }>()
const SAYS = {
  quote: { title: 'A quote for', what: 'What is quoted', begin: 'Begin the quote' },
  bill: { title: 'Bill something to', what: 'What is billed', begin: 'Begin the bill' },
} as const
const says = SAYS[props.as]
const { id: customerId, sites } = props.customer
const form = useForm(
  { siteId: sites[0]?.id ?? '', title: '' },
  { draft: `${props.as} ${customerId}` },
)
/** Sent again, it is the same one. */
const id = newId()
const where = namesOf(sites.map((site) => ({ id: site.id, name: saySite(site) })))
const fields = [
  ...(sites.length > 1 ? [field('siteId', 'Where', { options: where })] : []),
  field('title', says.what),
]
const BEGIN = {
  async quote() {
    const { siteId, title } = form.values
    await call('beginQuote', { body: { id, customerId, siteId, title: title || 'Work to quote' } })
    return `/quotes/${id}`
  },
  async bill() {
    await call('beginBill', { body: { id, customerId, ...form.values } })
    return `/work/${id}?add=1`
  },
} as const
async function begin() {
  const to = await form.send(BEGIN[props.as])
  if (!to) return
  emit('close')
  await navigateTo(to)
}
</script>

<template>
  <Dialog
    :title="`${says.title} ${customer.name}`"
    width="440"
    @close="emit('close')"
  >
    <Form
      :of="form"
      @submit="begin"
    >
      <p
        v-if="!sites.length"
        class="note warn"
      >
        {{ customer.name }} has no site yet. Add one first; its address may follow.
      </p>
      <FormFields :fields="fields" />
      <p
        v-if="as === 'bill'"
        class="quiet small"
      >
        For what nobody goes out for: sold over the counter, or done already. Its lines are added
        next.
      </p>
      <Notice />
      <div class="row">
        <ActButton
          primary
          submit
          :disabled="!sites.length"
        >
          {{ says.begin }}
        </ActButton>
        <ActButton @click="emit('close')"> Leave </ActButton>
      </div>
    </Form>
  </Dialog>
</template>
