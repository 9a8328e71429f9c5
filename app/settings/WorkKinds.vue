<script setup lang="ts">
// The kinds of work that the firm does, with what each proposes to a call.
import { ref } from 'vue'
import { counted } from '~~/core/text/counted'
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'
import Pending from '~/base/Pending.vue'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'
import type { Answer } from '~~/shared/api'
import WorkKindForm from './WorkKindForm.vue'

type Kinds = Answer<'workKinds'>
type Kind = Kinds['items'][number]
defineProps<{ may: boolean }>()
const session = useSession()
const { data, problem, refresh } = useAnswer('workKinds', undefined, SHOWS.setUp)
const editing = ref<Kind | 'new' | null>(null)
function sayProposed({ minutes, skills, charges, gone, retired }: Kind): string {
  if (retired) return 'not proposed any more'
  const charged = charges.length - gone
  return [
    ...[`${minutes} min`, ...skills],
    ...(charged ? [counted(charged, 'charge')] : []),
    ...(gone ? [`${counted(gone, 'charge')} gone from the price book`] : []),
  ].join(', ')
}
/** Every screen says them. */
async function kept(kinds: Kinds) {
  data.value = kinds
  await session.again()
}
</script>

<template>
  <h2 id="kinds">Kinds of work</h2>
  <template v-if="data">
    <DataTable
      :rows="data.items"
      :row-key="(k) => k.code"
      label="Kinds of work"
      :columns="[
        { key: 'name', label: 'Kind', text: (k) => k.name },
        {
          key: 'proposed',
          label: 'Proposes',
          tone: (k) => ({ soon: k.gone > 0, quiet: !k.gone }),
          text: sayProposed,
        },
        ...(may ? [{ key: 'act', right: true }] : []),
      ]"
    >
      <template #act="{ row: k }">
        <ActButton
          :aria-label="`Change the kind ${k.name}`"
          @click="editing = k"
          >Change</ActButton
        >
      </template>
    </DataTable>
    <ActButton
      v-if="may"
      @click="editing = 'new'"
      >A further kind of work</ActButton
    >
    <WorkKindForm
      v-if="editing"
      :of="editing === 'new' ? null : editing"
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
