<script setup lang="ts">
// Beside an invoice: what came in for it, and what was mailed.
import { BACK_REASONS } from '~~/core/payments/takingBack'
import ActButton from '~/base/ActButton.vue'
import { useSession } from '~/stores/session'
import type { Invoice } from './useInvoice'

defineProps<{ invoice: Invoice }>()
const emit = defineEmits<{ returned: [payment: Invoice['payments'][number]] }>()
const session = useSession()
const mayReturn = (p: Invoice['payments'][number]) =>
  session.may('payments.takeBack') && !p.takenBack
</script>

<template>
  <h2>Payments</h2>
  <ul>
    <li
      v-for="p in invoice.payments"
      :key="p.id"
    >
      <b class="num">{{ session.money(p.amount) }}</b> by {{ p.method }} {{ p.reference }}
      <span class="quiet small beneath">
        {{ session.day(p.on) }} · {{ p.number }}
        <template v-if="p.takenBack">
          · <span class="late">{{ BACK_REASONS[p.takenBack].said }}</span></template
        >
      </span>
      <ActButton
        v-if="mayReturn(p)"
        quiet
        class="small"
        @click="emit('returned', p)"
      >
        Take it back…
      </ActButton>
    </li>
    <li
      v-if="!invoice.payments.length"
      class="quiet"
    >
      None yet.
    </li>
  </ul>
  <h2>Mail</h2>
  <ul>
    <li
      v-for="m in invoice.messages"
      :key="m.id"
    >
      {{ m.kind }} to {{ m.to }}
      <span class="quiet small beneath">
        {{ session.dayTime(m.createdAt) }} ·
        {{ m.openedAt ? `opened ${session.dayTime(m.openedAt)}` : m.state }}
      </span>
    </li>
    <li
      v-if="!invoice.messages.length"
      class="quiet"
    >
      Nothing was sent.
    </li>
  </ul>
</template>

<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  padding: 5px 0;
  border-bottom: 1px solid var(--rule);
  overflow-wrap: anywhere;
}
.beneath {
  display: block;
}
</style>
