<script setup lang="ts">
// Something goes out by itself from now on.
import { computed } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import Dialog from '~/base/Dialog.vue'
import Field from '~/base/Field.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'
import { useForm } from '~/base/useForm'
import { call, newId } from '~/lib/api'
import { EXPORTED, EXPORT_WAYS, EVERY } from '~~/shared/archive'
import type { Answer, Body } from '~~/shared/api'
import { EVERY_WORDS, OUT } from './words'

const props = defineProps<{ folder: string }>()
const emit = defineEmits<{ kept: [everything: Answer<'inAndOut'>]; close: [] }>()
const id = newId()
type Typed = Omit<Body<'keepExportSchedule'>, 'id'>
const form = useForm<Typed>({
  ...{ what: 'archive', every: 'day', way: props.folder ? 'folder' : 'mail', email: '' },
})
const ways = computed(() =>
  EXPORT_WAYS.map((value) => ({
    value,
    label: value === 'mail' ? 'by mail' : `into the folder ${props.folder || '(none is set up)'}`,
  })),
)
const keep = () =>
  form.send(async () => {
    emit('kept', await call('keepExportSchedule', { body: { id, ...form.values } }))
    emit('close')
  })
</script>

<template>
  <Dialog
    title="Let something go out by itself"
    width="460"
    @close="emit('close')"
  >
    <Form
      :of="form"
      @submit="keep"
    >
      <Field
        name="what"
        label="What"
        ><Choice
          v-model="form.values.what"
          :options="EXPORTED.map((value) => ({ value, label: OUT[value].name }))"
      /></Field>
      <Field
        name="every"
        label="How often"
        ><Choice
          v-model="form.values.every"
          :options="EVERY.map((value) => ({ value, label: `each ${EVERY_WORDS[value]}` }))"
      /></Field>
      <Field
        name="way"
        label="Where to"
        ><Choice
          v-model="form.values.way"
          :options="ways"
      /></Field>
      <Field
        v-if="form.values.way === 'mail'"
        name="email"
        label="Mail address"
        ><TextInput
          v-model="form.values.email"
          type="email"
      /></Field>
      <p class="quiet small">
        The first goes out now. In the folder the newest thirty are kept, each under its day.
      </p>
      <Notice />
      <ActButton
        primary
        submit
        >Let it go out</ActButton
      >
    </Form>
  </Dialog>
</template>
