<script setup lang="ts">
// What was written to a customer, by mail, text and letter, in its own words.
import { ref } from 'vue'
import ActButton from '~/base/ActButton.vue'
import Notice from '~/base/Notice.vue'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'

const props = defineProps<{ customerId: string }>()
const session = useSession()
const MOST = 30
const { data, problem } = useAnswer(
  'messages',
  () => ({ query: { customerId: props.customerId, limit: MOST } }),
  SHOWS.money,
)
const open = ref('')
</script>

<template>
  <template v-if="data?.items.length">
    <h2>Written to them</h2>
    <ul>
      <li
        v-for="message in data.items"
        :key="message.id"
      >
        <ActButton
          quiet
          class="small"
          :aria-expanded="open === message.id"
          @click="open = open === message.id ? '' : message.id"
        >
          {{ message.subject || message.body.slice(0, 60) }}
        </ActButton>
        <span class="quiet small"
          >{{ session.dayTime(message.createdAt) }} · {{ message.channel }} · {{ message.to }} ·
          {{ message.state.replace('_', ' ') }}</span
        >
        <pre v-if="open === message.id">{{ message.body }}</pre>
      </li>
    </ul>
    <p
      v-if="data.total > MOST"
      class="quiet small"
    >
      The last {{ MOST }} of {{ data.total }}. <NuxtLink to="/messages">All mail</NuxtLink>
    </p>
  </template>
  <Notice :of="problem" />
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  overflow-wrap: anywhere;
}
.btn {
  padding: 0;
  text-align: left;
}
pre {
  white-space: pre-wrap;
  font: 0.8125rem/1.4 var(--text);
  margin: 6px 0;
  padding: 10px;
  background: var(--paper);
  border: 1px solid var(--rule);
}
</style>
