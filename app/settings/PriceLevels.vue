<script setup lang="ts">
// What some customers pay less, for each kind of line.
import { ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'
import Pending from '~/base/Pending.vue'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'
import type { Answer } from '~~/shared/api'
import PriceLevelForm from './PriceLevelForm.vue'
import { LINE_WORDS } from './setUp'

type Level = Answer<'priceLevels'>['items'][number]
const session = useSession()
const { data, problem, refresh } = useAnswer('priceLevels', undefined, SHOWS.book)
const editing = ref<Level | 'new' | null>(null)
const sayOff = ({ off }: Level) =>
  off.map(({ kind, percent }) => `${LINE_WORDS[kind]} ${percent} %`).join(', ') || 'nothing'
</script>

<template>
  <h2 id="levels">Price levels</h2>
  <template v-if="data">
    <p
      v-if="!data.items.length"
      class="quiet"
    >
      Everybody pays what the price book says.
    </p>
    <DataTable
      v-else
      :rows="data.items"
      :row-key="(l) => l.id"
      label="Price levels"
      :columns="[
        { key: 'name', label: 'Level' },
        { key: 'off', label: 'Less', look: 'quiet', text: sayOff },
        ...(session.may('pricebook.change') ? [{ key: 'act', right: true }] : []),
      ]"
    >
      <template #name="{ row: l }"
        >{{ l.name
        }}<span
          v-if="l.agreement"
          class="quiet small"
          ><br />with a care agreement</span
        ></template
      >
      <template #act="{ row: l }">
        <ActButton
          :aria-label="`Change the level ${l.name}`"
          @click="editing = l"
          >Change</ActButton
        >
      </template>
    </DataTable>
    <ActButton
      v-if="session.may('pricebook.change')"
      @click="editing = 'new'"
      >A further level</ActButton
    >
    <PriceLevelForm
      v-if="editing"
      :of="editing === 'new' ? null : editing"
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
