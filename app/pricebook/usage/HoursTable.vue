<script setup lang="ts">
// How long tasks take in truth, beside what the book says of them.
import { computed } from 'vue'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import type { Answer } from '~~/shared/api'
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'

type Hours = Answer<'bookUsage'>['hours']
const props = defineProps<{ hours: Hours; owns: boolean; busy: boolean }>()
const emit = defineEmits<{ take: [hours: Hours] }>()
const proposed = computed(() => props.hours.filter((h) => h.actual.proposedSeconds !== null))
</script>

<template>
  <p class="quiet">
    Work orders with one task alone, so that the hours on site are that task’s. New hours are
    proposed where at least four are known and the book’s lie outside the middle half of them.
  </p>
  <div
    v-if="owns && proposed.length > 1"
    class="row"
  >
    <span class="grow" /><ActButton
      primary
      :disabled="busy"
      @click="emit('take', proposed)"
    >
      Take all {{ proposed.length }}
    </ActButton>
  </div>
  <DataTable
    v-if="hours.length"
    :rows="hours"
    :row-key="(h) => h.id"
    :columns="[
      { key: 'code', label: 'Code', look: 'num' },
      { key: 'name', label: 'Name', text: (h) => h.name },
      { key: 'known', label: 'Known', figures: true, text: (h) => h.actual.of },
      {
        key: 'book',
        label: 'Book',
        figures: true,
        text: (h) => hoursMinutes(h.actual.quotedSeconds),
      },
      {
        key: 'middle',
        label: 'Middle',
        figures: true,
        tone: (h) => ({ late: h.actual.medianSeconds > h.actual.quotedSeconds }),
        text: (h) => hoursMinutes(h.actual.medianSeconds),
      },
      { key: 'halfOfThem', label: 'Half of them', figures: true, look: 'quiet' },
      { key: 'act', right: true },
    ]"
    ><template #code="{ row: h }"
      ><NuxtLink :to="`/price-book/${h.id}`">{{ h.code }}</NuxtLink></template
    >

    <template #halfOfThem="{ row: h }"
      >{{ hoursMinutes(h.actual.fromSeconds) }}–{{ hoursMinutes(h.actual.toSeconds) }}</template
    >
    <template #act="{ row: h }"
      ><ActButton
        v-if="owns && h.actual.proposedSeconds !== null"
        :disabled="busy"
        :aria-label="`Let ${h.name} take ${hoursMinutes(h.actual.proposedSeconds)}`"
        @click="emit('take', [h])"
      >
        Let it be {{ hoursMinutes(h.actual.proposedSeconds) }}
      </ActButton></template
    ></DataTable
  >
  <p
    v-else
    class="empty sheet"
  >
    No finished work order has one task alone yet.
  </p>
</template>
