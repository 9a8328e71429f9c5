<script setup lang="ts">
// An act that wants its reason: asked for in a dialog that is about the thing it was opened from.
import type { PhraseListName } from '~~/core/settings/phrases'
import ActButton from './ActButton.vue'
import Dialog from './Dialog.vue'
import Field from './Field.vue'
import Form from './Form.vue'
import Notice from './Notice.vue'
import Phrases from './Phrases.vue'
import TextInput from './TextInput.vue'
import { useForm } from './useForm'

const props = defineProps<{
  title: string
  /** what is asked */
  label: string
  /** what the reason is called in what is sent */
  name: string
  /** what the act does, on its button */
  act: string
  send: (reason: string) => Promise<unknown>
  width?: number | string
  /** what is proposed, where it is often the same */
  phrases?: PhraseListName | undefined
}>()
const emit = defineEmits<{ close: [] }>()
const form = useForm({ reason: '' })
const give = () =>
  form.send(async () => {
    await props.send(form.values.reason)
    emit('close')
  })
</script>

<template>
  <Dialog
    :title="title"
    :width="width ?? 420"
    @close="emit('close')"
  >
    <Form
      :of="form"
      @submit="give"
    >
      <slot />
      <Field
        :name="name"
        :label="label"
      >
        <TextInput v-model="form.values.reason" />
      </Field>
      <Phrases
        v-if="phrases"
        v-model="form.values.reason"
        :of="phrases"
      />
      <Notice />
      <ActButton
        primary
        submit
      >
        {{ act }}
      </ActButton>
    </Form>
  </Dialog>
</template>
