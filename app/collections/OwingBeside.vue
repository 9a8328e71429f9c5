<script setup lang="ts">
// Beside the list: what one customer owes, what can be done after the call, what was said.
import { computed } from 'vue'
import ActButton from '~/base/ActButton.vue'
import DataTable from '~/base/DataTable.vue'
import CreditUse from '~/customers/CreditUse.vue'
import { useSession } from '~/stores/session'
import type { Owing } from './useOwing'

const props = defineProps<{
  owing: Owing
  busy: boolean
  /** a day that has passed */ past: string
}>()
const emit = defineEmits<{
  note: [kind: 'promise' | 'dispute' | 'note']
  pay: []
  noAnswer: []
  remind: []
  today: []
}>()
const session = useSession()
/** The open invoices, and what was paid ahead among them. */
const rows = computed(() => [
  ...props.owing.invoices,
  ...(Number(props.owing.credits.amount) ? [{ id: 'credits' as const }] : []),
])
</script>

<template>
  <aside :aria-label="owing.name">
    <h2>
      <NuxtLink :to="`/customers/${owing.customerId}`">{{ owing.name }}</NuxtLink>
    </h2>
    <p class="quiet">
      {{ owing.phone }} · {{ owing.sites }} {{ owing.sites === 1 ? 'site' : 'sites' }} · terms
      {{ owing.terms }}<br />{{ owing.habit }}
    </p>
    <DataTable
      :rows="rows"
      :row-key="(i) => i.id"
      :columns="[
        { key: 'invoice', label: 'Invoice' },
        { key: 'due', label: 'Due', look: 'nowrap' },
        {
          key: 'open',
          label: 'Open',
          figures: true,
          text: (i) =>
            'number' in i
              ? session.money(i.open, false)
              : `−${session.money(owing.credits, false)}`,
        },
      ]"
      :sums="{ invoice: 'Owes', open: session.money(owing.owed, false) }"
    >
      <template #invoice="{ row: i }">
        <template v-if="'number' in i">
          <NuxtLink
            class="num"
            :to="`/invoices/${i.id}`"
            >{{ i.number }}</NuxtLink
          >
          <br /><span class="quiet small">{{ i.work }}</span>
        </template>
        <template v-else>Credits</template>
      </template>
      <template #due="{ row: i }">
        <template v-if="'number' in i">
          {{ session.day(i.dueOn, 'dayOfMonth') }}
          <template v-if="i.late">
            <br /><span class="late small">{{ i.late }} d late</span>
          </template>
        </template>
      </template>
    </DataTable>
    <CreditUse v-if="Number(owing.credits.amount)" />
    <h3>After the call</h3>
    <p
      v-if="past"
      class="note"
    >
      This is how it stood on {{ session.day(past, 'withYear') }}. What is agreed and paid belongs
      to today.
      <ActButton @click="emit('today')"> Show today</ActButton>
    </p>
    <div
      v-else
      class="row wrap"
    >
      <ActButton @click="emit('note', 'promise')"> Promised…</ActButton>
      <ActButton
        :disabled="!owing.invoices.length"
        @click="emit('pay')"
      >
        Paid now…
      </ActButton>
      <ActButton @click="emit('note', 'dispute')"> Disputes…</ActButton>
      <ActButton
        :disabled="busy"
        @click="emit('noAnswer')"
      >
        No answer
      </ActButton>
      <ActButton @click="emit('note', 'note')"> Said…</ActButton>
      <ActButton
        :disabled="!owing.invoices.length"
        @click="emit('remind')"
      >
        Reminder {{ owing.reminder.step }}…
      </ActButton>
    </div>
    <h3>What was said</h3>
    <ol>
      <li
        v-for="s in owing.said"
        :key="s.id"
      >
        {{ s.text }}<br />
        <span class="quiet small">{{ session.dayTime(s.on) }} · {{ s.who }}</span>
      </li>
      <li
        v-if="!owing.said.length"
        class="quiet"
      >
        Nothing yet.
      </li>
    </ol>
  </aside>
</template>

<style scoped>
.wrap {
  flex-wrap: wrap;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0 0 0 12px;
  border-left: 2px solid var(--green-2);
}
li {
  margin-bottom: 9px;
}
</style>
