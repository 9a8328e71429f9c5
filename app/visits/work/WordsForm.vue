<script setup lang="ts">
// What a work order says and who is spoken to about it, while somebody changes it.
import { isFreeKind } from '~~/core/visits/workKinds'
import { MOST_CONTACTS } from '~~/core/visits/workContacts'
import ActButton from '~/base/ActButton.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import FormFields from '~/base/FormFields.vue'
import { field, type FormRows } from '~/base/fields'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { useSession } from '~/stores/session'
import { useFormAbout } from '~/base/useForm'
import { call } from '~/lib/api'
import type { Work } from './useWorkOrder'

const props = defineProps<{ work: Work; refresh: () => Promise<unknown> }>()
const emit = defineEmits<{ changed: [work: Work]; close: [] }>()
const form = useFormAbout(
  () => props.work,
  (now) => ({
    ...{ title: now.title, kind: now.kind, orderNumber: now.orderNumber, problem: now.problem },
    ...{ printedNote: now.printedNote, officeNote: now.officeNote },
    ...{ contact: now.contact, otherContacts: now.otherContacts },
  }),
  props.refresh,
  { draft: `words ${props.work.id}` },
)
const session = useSession()
const isFree = isFreeKind(props.work.kind)
const kinds = session.kindOptions(props.work.kind)
const words: FormRows = [
  field('title', 'Title'),
  [
    ...(isFree ? [] : [field('kind', 'Kind of work', { options: kinds })]),
    field('orderNumber', 'Their order number'),
  ],
  field('problem', 'What is to be done', { kind: 'area', rows: 3 }),
]
const notes: FormRows = [
  field('printedNote', 'Printed on the invoice', { kind: 'area', rows: 2 }),
  field('officeNote', 'For the office alone', { kind: 'area', rows: 2 }),
]
const addContact = () =>
  (form.values.otherContacts = [...form.values.otherContacts, { name: '', phone: '', role: '' }])
const keep = () =>
  form.keep(async (version) => {
    const body = { version, ...form.changes() } as { version: number }
    emit('changed', await call('writeWorkOrder', { params: { id: props.work.id }, body }))
    emit('close')
  })
</script>

<template>
  <Dialog
    :title="`What ${work.number} says`"
    width="560"
    @close="emit('close')"
  >
    <Form
      :of="form"
      @submit="keep"
    >
      <FormFields :fields="words" />
      <div
        v-for="(who, i) in [form.values.contact, ...form.values.otherContacts]"
        :key="i"
        class="row"
      >
        <Field
          class="grow"
          :name="i ? `otherContacts[${i - 1}].name` : 'contact.name'"
          :label="i ? 'Also' : 'Speak to'"
          ><TextInput v-model="who.name" /></Field
        ><Field
          class="grow"
          :name="i ? `otherContacts[${i - 1}].role` : 'contact.role'"
          label="as"
          ><TextInput
            v-model="who.role"
            placeholder="tenant, caretaker" /></Field
        ><Field
          class="grow"
          :name="i ? `otherContacts[${i - 1}].phone` : 'contact.phone'"
          label="at"
          ><TextInput
            v-model="who.phone"
            inputmode="tel"
        /></Field>
      </div>
      <ActButton
        v-if="form.values.otherContacts.length < MOST_CONTACTS"
        quiet
        class="small"
        @click="addContact"
      >
        + somebody else to speak to
      </ActButton>
      <FormFields :fields="notes" />
      <Notice />
      <div class="row">
        <ActButton
          primary
          submit
        >
          Keep
        </ActButton>
        <ActButton @click="emit('close')"> Leave </ActButton>
      </div>
    </Form>
  </Dialog>
</template>
