<script setup lang="ts">
// How an entry was sold in twelve months, and how long its work took.
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'
import { useSession } from '~/stores/session'
import type { Entry } from './entryForm'
import { useFigures } from './useEntry'

defineProps<{ entry: Entry; owns: boolean; busy: boolean }>()
const emit = defineEmits<{ takeHours: [] }>()
const session = useSession()
const { amount } = useFigures()
</script>

<template>
  <div class="sheet box">
    <h2>Sold in twelve months</h2>
    <p
      v-if="entry.sold.lines"
      class="num"
    >
      {{ entry.sold.quantity }} on {{ entry.sold.lines }}
      {{ entry.sold.lines === 1 ? 'line' : 'lines' }}, {{ session.money(entry.sold.net)
      }}{{ entry.sold.usual ? `, usually at ${amount(entry.sold.usual)}` : '' }}
    </p>
    <p
      v-else
      class="quiet"
    >
      Not once.
    </p>
    <DataTable
      v-if="entry.sold.where.length"
      :rows="entry.sold.where"
      :row-key="(w) => w.workOrderId"
      :columns="[
        { key: 'on', look: 'nowrap', text: (w) => session.day(w.on, 'withYear') },
        { key: 'where' },
        { key: 'price', figures: true, text: (w) => `${w.quantity} × ${w.unitPrice}` },
      ]"
    >
      <template #where="{ row: w }">
        <NuxtLink
          :to="`/work/${w.workOrderId}`"
          class="num"
          >{{ w.number }}</NuxtLink
        >
        {{ ' ' }}
        <span class="quiet small">{{ w.customer }}</span>
      </template>
    </DataTable>
  </div>
  <div
    v-if="entry.hours"
    class="sheet box"
  >
    <h2>Hours as they were worked</h2>
    <p>
      Half of {{ entry.hours.of }} took between
      <b class="num">{{ hoursMinutes(entry.hours.fromSeconds) }}</b> and
      <b class="num">{{ hoursMinutes(entry.hours.toSeconds) }}</b>, the middle one
      <b class="num">{{ hoursMinutes(entry.hours.medianSeconds) }}</b>; the book says
      {{ hoursMinutes(entry.hours.quotedSeconds) }}.
    </p>
    <ActButton
      v-if="owns && entry.hours.proposedSeconds !== null"
      :disabled="busy"
      @click="emit('takeHours')"
    >
      Let the book say {{ hoursMinutes(entry.hours.proposedSeconds) }}
    </ActButton>
  </div>
</template>
