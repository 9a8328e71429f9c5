<script setup lang="ts">
// Calls of the last days that no work came of; one that was ended by mistake is taken up again.
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'
import Notice from '~/base/Notice.vue'
import { call } from '~/lib/api'
import { SHOWS } from '~/lib/live'
import { useAct } from '~/lib/useAct'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'

const session = useSession()
const { data } = useAnswer('endedCalls', undefined, SHOWS.calls)
const { busy, problem, act } = useAct()
const SAID = { answered: 'answered', declined: 'no' } as const
const takeUp = (id: string) =>
  act(async () => {
    await call('reopenCall', { params: { id } })
    await navigateTo(`/calls/${id}`)
  })
</script>

<template>
  <details
    v-if="data?.items.length"
    class="sheet ended"
  >
    <summary>Ended lately without work: {{ data.items.length }}</summary>
    <DataTable
      label="Ended without work"
      :rows="data.items"
      :row-key="(c) => c.id"
      :columns="[
        { key: 'call', text: (c) => c.summary },
        { key: 'why', text: (c) => `${SAID[c.state]}: ${c.reason}` },
        { key: 'taken', look: 'quiet nowrap', text: (c) => session.dayTime(c.createdAt) },
        { key: 'act', right: true },
      ]"
    >
      <template #act="{ row: c }">
        <ActButton
          quiet
          class="small"
          :disabled="busy"
          :aria-label="`Take it up again: ${c.summary}`"
          @click="takeUp(c.id)"
        >
          Take it up again
        </ActButton>
      </template>
    </DataTable>
    <Notice :of="problem" />
  </details>
</template>

<style scoped>
.ended {
  padding: 8px 12px;
}
</style>
