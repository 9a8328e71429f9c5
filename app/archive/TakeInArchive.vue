<script setup lang="ts">
// A firm that was elsewhere: its archive is taken in, with the code that was printed.
import { computed, ref } from 'vue'
import FileInput from '~/base/FileInput.vue'
import Form from '~/base/Form.vue'
import Notice from '~/base/Notice.vue'
import CodeField from '~/begin/CodeField.vue'
import { useForm } from '~/base/useForm'
import { sendFile } from '~/lib/sendFile'
import type { Answer } from '~~/shared/api'

const emit = defineEmits<{ taken: [firm: Answer<'takeInArchive'>] }>()
const form = useForm({ code: '' })
/** How much of it is sent; what follows is done by the server. */
const sent = ref<number | null>(null)
const news = computed(() => {
  if (sent.value === null) return ''
  return sent.value < 1
    ? `Sending: ${Math.round(sent.value * 100)} per cent`
    : 'It is taken in. With many photos this takes some minutes; leave this page open.'
})
const take = ([file]: File[]) =>
  file &&
  form.send(async () => {
    sent.value = 0
    try {
      const firm = await sendFile('takeInArchive', file, {
        headers: { 'Begin-Code': form.values.code },
        told: (share) => (sent.value = share),
      })
      emit('taken', firm)
    } finally {
      sent.value = null
    }
  })
</script>

<template>
  <Form :of="form">
    <p>
      An archive of everything holds customers, work, papers, the ledger and photos, and no
      passwords: everybody gets a new way in. Stop the other Open Ledger first, so that nothing is
      sent twice.
    </p>
    <CodeField v-model="form.values.code" />
    <Notice />
    <FileInput
      primary
      label="Choose the archive"
      accept=".zip"
      :disabled="form.busy"
      @choose="take"
    />
    <p
      v-if="news"
      role="status"
    >
      {{ news }}
    </p>
  </Form>
</template>
