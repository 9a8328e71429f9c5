<script setup lang="ts">
// What goes out by itself: how often, where to, when it last did, what was in its way.
import { ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'
import Notice from '~/base/Notice.vue'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useSession } from '~/stores/session'
import type { Answer } from '~~/shared/api'
import GoesOutForm from './GoesOutForm.vue'
import { EVERY_WORDS, OUT } from './words'

const props = defineProps<{ of: Answer<'inAndOut'> }>()
const emit = defineEmits<{ kept: [everything: Answer<'inAndOut'>] }>()
type Schedule = Answer<'inAndOut'>['schedules'][number]
const session = useSession()
const { busy, problem, act } = useAct()
const adding = ref(false)
const whereTo = ({ way, email }: Schedule) => (way === 'mail' ? email : props.of.folder)
const came = ({ lastAt, problem: why, dueOn }: Schedule) =>
  why || (lastAt ? session.dayTime(lastAt) : `is due ${session.day(dueOn)}`)
const end = ({ id, version }: Schedule) =>
  act(async () =>
    emit('kept', await call('endExportSchedule', { params: { id }, body: { version } })),
  )
</script>

<template>
  <h2>Goes out by itself</h2>
  <Notice :of="problem" />
  <DataTable
    v-if="of.schedules.length"
    label="Goes out by itself"
    :rows="of.schedules"
    :row-key="(s) => s.id"
    :columns="[
      { key: 'what', label: 'What', text: (s) => OUT[s.what].name },
      { key: 'every', label: 'Each', text: (s) => EVERY_WORDS[s.every] },
      { key: 'to', label: 'To', look: 'clip', text: whereTo },
      { key: 'last', label: 'Last', tone: (s) => s.problem && 'late', text: came },
      { key: 'act', right: true },
    ]"
  >
    <template #act="{ row: schedule }">
      <ActButton
        :busy="busy"
        :aria-label="`End: ${OUT[schedule.what].name}, each ${schedule.every}`"
        @click="end(schedule)"
        >End</ActButton
      >
    </template>
  </DataTable>
  <p
    v-else
    class="quiet"
  >
    Nothing does yet. An archive each day into a folder that is copied elsewhere is a second string
    to the backup.
  </p>
  <p>
    <ActButton @click="adding = true">Let something go out…</ActButton>
  </p>
  <template v-if="of.history.length">
    <h2>What went along and out</h2>
    <DataTable
      label="What went along and out"
      :rows="of.history"
      :row-key="(e) => e.id"
      :columns="[
        { key: 'at', label: 'When', look: 'nowrap', text: (e) => session.dayTime(e.at) },
        { key: 'who', label: 'Who', text: (e) => e.who },
        { key: 'what', label: 'What', text: (e) => e.text },
      ]"
    />
  </template>
  <GoesOutForm
    v-if="adding"
    :folder="of.folder"
    @kept="emit('kept', $event)"
    @close="adding = false"
  />
</template>
