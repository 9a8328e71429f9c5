<script setup lang="ts">
// A token for a program: what it is for, how long it holds, whether it may change anything. Shown once.
import { ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Choice from '~/base/Choice.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { useForm } from '~/base/useForm'
import { call } from '~/lib/api'

const emit = defineEmits<{ made: [] }>()
const BLANK = { label: '', days: 90, readsOnly: true }
const form = useForm(BLANK)
const LASTS = [
  { value: 7, label: 'a week' },
  { value: 90, label: 'three months' },
  { value: 365, label: 'a year' },
] as const
const token = ref('')
const make = () =>
  form.send(async () => {
    ;({ token: token.value } = await call('newToken', { body: form.values }))
    form.begin(BLANK)
    emit('made')
  })
</script>

<template>
  <p class="quiet">
    A program that has it may do what you may, until it ends or you end it above. What only reads
    needs no more than that.
  </p>
  <Form
    :of="form"
    @submit="make"
  >
    <Field
      name="label"
      label="What it is for"
      ><TextInput
        v-model="form.values.label"
        maxlength="80"
    /></Field>
    <Field
      name="days"
      label="It holds for"
      ><Choice
        v-model="form.values.days"
        :options="LASTS"
    /></Field>
    <Field name="readsOnly"><Check v-model="form.values.readsOnly">It only reads</Check></Field>
    <Notice />
    <ActButton submit>Make a token</ActButton>
  </Form>
  <p
    v-if="token"
    class="note"
    role="status"
  >
    Copy it now; it is not shown again: <code class="num token">{{ token }}</code>
  </p>
</template>

<style scoped>
.token {
  overflow-wrap: anywhere;
  white-space: normal;
}
</style>
