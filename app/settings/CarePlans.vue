<script setup lang="ts">
// The plans that care agreements are made from: visits, price, what is done.
import { ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'
import Pending from '~/base/Pending.vue'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'
import type { Answer } from '~~/shared/api'
import CarePlanForm from './CarePlanForm.vue'

type Plan = Answer<'plans'>['items'][number]
const session = useSession()
const { data, problem, refresh } = useAnswer('plans', undefined, SHOWS.setUp)
const editing = ref<Plan | 'new' | null>(null)
const visits = ({ visitsAYear }: Plan) => (visitsAYear === 1 ? 'one' : String(visitsAYear))
</script>

<template>
  <h2 id="plans">Care plans</h2>
  <template v-if="data">
    <p
      v-if="!data.items.length"
      class="quiet"
    >
      There is no plan yet, so that no agreement can be made.
    </p>
    <DataTable
      v-else
      :rows="data.items"
      :row-key="(p) => p.id"
      label="Care plans"
      :columns="[
        { key: 'name', label: 'Plan' },
        { key: 'visits', label: 'Visits a year', text: visits },
        {
          key: 'price',
          label: 'Price of a year',
          figures: true,
          text: (p) => session.figure(p.price),
        },
        ...(session.may('agreements.bill') ? [{ key: 'act', right: true }] : []),
      ]"
    >
      <template #name="{ row: p }"
        >{{ p.name
        }}<span class="quiet small"
          ><br />{{ p.retired ? 'not offered any more' : p.work }}</span
        ></template
      >
      <template #act="{ row: p }">
        <ActButton
          :aria-label="`Change the plan ${p.name}`"
          @click="editing = p"
          >Change</ActButton
        >
      </template>
    </DataTable>
    <ActButton
      v-if="session.may('agreements.bill')"
      @click="editing = 'new'"
      >A further plan</ActButton
    >
    <CarePlanForm
      v-if="editing"
      :of="editing === 'new' ? null : editing"
      :levels="data.levels"
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
