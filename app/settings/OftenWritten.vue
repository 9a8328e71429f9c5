<script setup lang="ts">
// What is often written, place by place: proposed there, one press each.
import { ref } from 'vue'
import { PHRASE_LISTS } from '~~/core/settings/phrases'
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'
import Pending from '~/base/Pending.vue'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'
import type { Answer } from '~~/shared/api'
import PhraseForm from './PhraseForm.vue'

type Lists = Answer<'phrases'>
type Listed = Lists['items'][number]
defineProps<{ may: boolean }>()
const session = useSession()
const { data, problem, refresh } = useAnswer('phrases', undefined, SHOWS.setUp)
const editing = ref<Listed | null>(null)
/** Every screen proposes them. */
async function kept(lists: Lists) {
  data.value = lists
  await session.again()
}
</script>

<template>
  <h2 id="often">Often written</h2>
  <p class="quiet">
    Reasons, findings and lists that are proposed where they are written; anything else may be
    written there, too.
  </p>
  <template v-if="data">
    <DataTable
      :rows="data.items"
      :row-key="(l) => l.name"
      label="Often written"
      :columns="[
        { key: 'name', label: 'Where', text: (l) => PHRASE_LISTS[l.name].words },
        {
          ...{ key: 'phrases', label: 'Proposed', look: 'quiet' },
          text: (l) => l.phrases.join(' · ') || 'nothing',
        },
        ...(may ? [{ key: 'act', right: true }] : []),
      ]"
    >
      <template #act="{ row: l }">
        <ActButton
          :aria-label="`Change what is proposed: ${PHRASE_LISTS[l.name].words}`"
          @click="editing = l"
          >Change</ActButton
        >
      </template>
    </DataTable>
    <PhraseForm
      v-if="editing"
      :of="editing"
      @kept="kept"
      @close="editing = null"
    />
  </template>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
  />
</template>
