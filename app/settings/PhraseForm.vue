<script setup lang="ts">
// What is proposed in one place: a phrase in each line.
import { PHRASE_LISTS, readPhrases } from '~~/core/settings/phrases'
import ActButton from '~/base/ActButton.vue'
import Dialog from '~/base/Dialog.vue'
import Form from '~/base/Form.vue'
import FormFields from '~/base/FormFields.vue'
import Notice from '~/base/Notice.vue'
import { field } from '~/base/fields'
import { useForm } from '~/base/useForm'
import { call } from '~/lib/api'
import type { Answer } from '~~/shared/api'

type Lists = Answer<'phrases'>
const props = defineProps<{ of: Lists['items'][number] }>()
const emit = defineEmits<{ kept: [lists: Lists]; close: [] }>()
const form = useForm(
  { phrases: props.of.phrases.join('\n') },
  { draft: `phrases ${props.of.name}` },
)
const FIELDS = [
  field('phrases', 'One in each line, what is most frequent first', { rows: 6, kind: 'area' }),
]
const { name } = props.of
const { words, usual } = PHRASE_LISTS[name]
/** As they stood when it was opened. */
const shown = [...props.of.phrases]
const keep = () =>
  form.send(async () => {
    const phrases = readPhrases(form.values.phrases)
    emit('kept', await call('keepPhrases', { body: { name, phrases, shown } }))
    emit('close')
  })
</script>

<template>
  <Dialog
    :title="words"
    width="460"
    @close="emit('close')"
  >
    <Form
      :of="form"
      @submit="keep"
    >
      <FormFields :fields="FIELDS" />
      <Notice />
      <div class="row">
        <ActButton
          primary
          submit
          >Keep these phrases</ActButton
        >
        <ActButton @click="form.values.phrases = usual.join('\n')">What is usual</ActButton>
      </div>
    </Form>
  </Dialog>
</template>
