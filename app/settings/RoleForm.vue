<script setup lang="ts">
// A role of the firm's own: what it is called, and as what it begins.
import { BASE_ROLES } from '~~/core/access/ownRoles'
import ActButton from '~/base/ActButton.vue'
import Dialog from '~/base/Dialog.vue'
import Form from '~/base/Form.vue'
import FormFields from '~/base/FormFields.vue'
import Notice from '~/base/Notice.vue'
import { field, type FormRows } from '~/base/fields'
import { useForm } from '~/base/useForm'
import { call } from '~/lib/api'
import type { Answer } from '~~/shared/api'
import { ROLE_WORDS } from './setUp'

type Rights = Answer<'limits'>
const props = defineProps<{ of: Rights['roles'][number] | null }>()
const emit = defineEmits<{ kept: [rights: Rights]; close: [] }>()
type Base = (typeof BASE_ROLES)[number]
const form = useForm(
  { name: props.of?.name ?? '', base: (props.of?.base ?? 'technician') as Base },
  { draft: `role ${props.of?.role ?? ''}` },
)
const FIELDS: FormRows = [
  field('name', 'What it is called'),
  ...(props.of
    ? []
    : [
        field('base', 'It begins as', {
          options: BASE_ROLES.map((role) => ({ value: role, label: ROLE_WORDS[role] })),
        }),
      ]),
]
const shown = props.of?.name ?? ''
const keep = () =>
  form.send(async () => {
    const body = { code: props.of?.role ?? '', ...form.values, shown }
    emit('kept', await call('keepRole', { body }))
    emit('close')
  })
</script>

<template>
  <Dialog
    :title="of ? `Role: ${of.name}` : 'A further role'"
    width="440"
    @close="emit('close')"
  >
    <Form
      :of="form"
      @submit="keep"
    >
      <FormFields :fields="FIELDS" />
      <p class="quiet small">
        Whoever has it sees the screens of the one that it begins as. Give it to somebody under
        People.
      </p>
      <Notice />
      <ActButton
        primary
        submit
        >Keep this role</ActButton
      >
    </Form>
  </Dialog>
</template>
