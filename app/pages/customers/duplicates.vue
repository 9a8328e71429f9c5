<script setup lang="ts">
// Pairs that are perhaps one customer: side by side, with the reasons; merged with a look at what moves first, or told apart.
import { computed, reactive, ref } from 'vue'
import { ElMessage } from 'element-plus'
import type { Answer } from '~~/shared/api'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import Dialog from '~/base/Dialog.vue'
import DataTable from '~/base/DataTable.vue'
import Radio from '~/base/Radio.vue'
import Notice from '~/base/Notice.vue'

definePageMeta({ layout: 'office' })
const session = useSession()
const mayMerge = computed(() => session.may('customers.merge'))
const { data, problem, refresh } = useAnswer('duplicates', undefined, {
  subjects: ['customer', 'import'],
})
const { busy, problem: failed, act } = useAct()
const looking = ref<Answer<'mergePreview'> | null>(null)
const take = reactive(new Set<string>())
const last = ref<{ id: string; text: string } | null>(null)
const look = (keep: string, other: string) =>
  act(async () => {
    take.clear()
    looking.value = await call('mergePreview', { params: { id: keep }, query: { other } })
  })
/** Named once for each pair: a merge whose answer was lost is the same one when it is asked for again. */
const merges = new Map<string, string>()
function mergeOf(pair: string): string {
  const id = merges.get(pair) ?? newId()
  merges.set(pair, id)
  return id
}
const merge = () =>
  act(async () => {
    const { kept, merged } = looking.value!
    const pair = `${kept.id} ${merged.id}`
    const id = mergeOf(pair)
    await call('merge', {
      params: { id: kept.id },
      body: { id, otherId: merged.id, take: [...take] },
    })
    last.value = { id, text: `${merged.name} is now part of ${kept.name}.` }
    // Taken apart again, they may be merged again, as another merge.
    merges.delete(pair)
    looking.value = null
    await refresh()
  })
const undo = () =>
  act(async () => {
    await call('undoMerge', { params: { id: last.value!.id } })
    last.value = null
    ElMessage({ type: 'success', message: 'Taken apart again.' })
    await refresh()
  })
const apart = (a: string, b: string) =>
  act(async () => {
    await call('notDuplicates', { params: { id: a }, body: { otherId: b } })
    await refresh()
  })
const NAMES: Record<string, string> = {
  name: 'Name',
  phone: 'Telephone',
  phone2: 'Second telephone',
  email: 'Mail address',
  email2: 'Second mail address',
  line1: 'Billing address',
  town: 'Town',
  postcode: 'Postcode',
  officeNote: 'Office only',
  printedNote: 'Printed note',
  stopWork: 'Stop work',
  certificate: 'Tax certificate',
}
</script>

<template>
  <section class="page">
    <h1>
      Perhaps the same <span class="quiet num">{{ data?.items.length ?? '' }}</span>
    </h1>
    <p class="quiet">
      Records that share a number, a mail address, an address or a name. The surest first.
    </p>
    <div
      v-if="last"
      class="note row"
      role="status"
    >
      <span class="grow">{{ last.text }}</span><ActButton
        :disabled="busy"
        @click="undo"
      >
        Undo
      </ActButton>
    </div>
    <p
      v-if="problem || failed"
      class="note bad"
      role="alert"
    >
      {{ failed?.message ?? problem?.message }}
    </p>
    <DataTable
      v-if="data?.items.length"
      :rows="data.items"
      :row-key="(p) => p.first.id + p.second.id"
      :columns="[
        { key: 'first', label: 'One' },
        { key: 'second', label: 'The other' },
        { key: 'why', label: 'Why' },
        { key: 'act', right: true, look: 'nowrap' },
      ]"
    >
      <template
        v-for="side in ['first', 'second'] as const"
        :key="side"
        #[side]="{ row: { [side]: s } }"
        ><NuxtLink :to="`/customers/${s.id}`">{{ s.name }}</NuxtLink
        ><br /><span class="small quiet"
          >{{ [s.phone, s.place].filter(Boolean).join(' · ') }}<br />{{ s.sites }}
          {{ s.sites === 1 ? 'site' : 'sites' }} · {{ s.work }} work orders<template
            v-if="Number(s.owed.amount)"
          >
            · owes {{ session.money(s.owed) }}</template
          ></span
        ></template
      >
      <template #why="{ row: p }"
        >{{ p.reasons.join(', ') }}<br /><span class="small quiet num"
          >{{ Math.round(p.score * 100) }} % sure</span
        ></template
      >
      <template #act="{ row: p }"
        ><template v-if="mayMerge"
          ><ActButton
            :disabled="busy"
            @click="
              look(
                p.first.work >= p.second.work ? p.first.id : p.second.id,
                p.first.work >= p.second.work ? p.second.id : p.first.id,
              )
            "
          >
            Look at both</ActButton
          >{{ ' '
          }}<ActButton
            :disabled="busy"
            @click="apart(p.first.id, p.second.id)"
          >
            Not the same
          </ActButton></template
        ></template
      >
    </DataTable>
    <p
      v-else-if="data"
      class="empty sheet"
    >
      Nobody seems to be here twice.
    </p>
    <p
      v-else
      class="empty"
      role="status"
    >
      Comparing…
    </p>
    <Dialog
      :model-value="looking !== null"
      title="Merge two customers"
      width="640"
      @close="looking = null"
    >
      <div
        v-if="looking"
        class="stack"
      >
        <p>
          <b>{{ looking.kept.name }}</b> stays. Everything of <b>{{ looking.merged.name }}</b> moves
          to it:
          {{
            looking.moves.map((m) => `${m.count} ${m.what}`).join(', ') || 'nothing but the name'
          }}.
          <ActButton
            quiet
            :disabled="busy"
            @click="look(looking.merged.id, looking.kept.id)"
          >
            The other way round
          </ActButton>
        </p>
        <DataTable
          v-if="looking.fields.length"
          :rows="looking.fields"
          :row-key="(f) => f.name"
          :columns="[
            { key: 'c1', look: 'quiet', text: (f) => NAMES[f.name] },
            { key: 'stays', label: 'Stays' },
            { key: 'fromTheOther', label: 'From the other' },
          ]"
        >
          <template #stays="{ row: f }"
            ><Radio
              :model-value="f.kept === '' || take.has(f.name)"
              :value="false"
              :name="f.name"
              :disabled="f.kept === ''"
              @change="take.delete(f.name)"
            >
              {{ f.kept || '–' }}
            </Radio></template
          >
          <template #fromTheOther="{ row: f }"
            ><Radio
              :model-value="f.kept === '' || take.has(f.name)"
              :value="true"
              :name="f.name"
              @change="take.add(f.name)"
            >
              {{ f.merged }}
            </Radio></template
          ></DataTable
        >
        <p class="small quiet">
          Numbers and mail addresses that find no place become a contact. This can be taken apart
          again.
        </p>
        <Notice :of="failed" />
        <ActButton
          primary
          :disabled="busy"
          @click="merge"
        >
          Merge into {{ looking.kept.name }}
        </ActButton>
      </div>
    </Dialog>
  </section>
</template>
