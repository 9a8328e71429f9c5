<script setup lang="ts">
// What is written with papers and in reminders: each mail as it goes out, changed in a dialog.
import { ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'
import Pending from '~/base/Pending.vue'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import type { Answer } from '~~/shared/api'
import MailWordsForm from './MailWordsForm.vue'
import { MAIL_NAMES } from './setUp'

defineProps<{ may: boolean }>()
type Mail = Answer<'mailWords'>['items'][number]
const { data, problem, refresh } = useAnswer('mailWords', undefined, SHOWS.setUp)
const editing = ref<Mail | null>(null)
</script>

<template>
  <h2 id="mails">What we write with papers, and in reminders</h2>
  <template v-if="data">
    <DataTable
      :rows="data.items"
      :row-key="(m) => m.kind"
      label="What we write"
      :columns="[
        { key: 'what', label: 'Mail', text: (m) => MAIL_NAMES[m.kind] },
        {
          key: 'words',
          label: 'Words',
          look: 'quiet',
          text: (m) => (m.text === m.usual ? 'as is usual' : 'our own'),
        },
        ...(may ? [{ key: 'act', right: true }] : []),
      ]"
    >
      <template #act="{ row: m }">
        <ActButton
          :aria-label="`Change the words of ${MAIL_NAMES[m.kind]}`"
          @click="editing = m"
          >Change</ActButton
        >
      </template>
    </DataTable>
    <MailWordsForm
      v-if="editing"
      :of="editing"
      @kept="data = $event"
      @close="editing = null"
    />
  </template>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
  />
</template>
