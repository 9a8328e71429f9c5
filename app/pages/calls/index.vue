<script setup lang="ts">
import { call } from '~/lib/api'
import { useLoad } from '~/lib/useLoad'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
const session = useSession()
const { data, problem } = useLoad(() => call('calls'))
</script>

<template>
  <section class="page">
    <h1>Calls <span class="quiet num">{{ data?.items.length ?? '' }}</span></h1>
    <p class="quiet">Half-filled calls and promised call-backs, the most pressing first.</p>
    <p v-if="problem" class="note bad" role="alert">{{ problem.message }}</p>
    <table v-if="data?.items.length" class="book">
      <thead><tr><th>Call</th><th>Why it waits</th><th>Taken</th><th /></tr></thead>
      <tbody>
        <tr v-for="c in data.items" :key="c.id">
          <td><b>{{ c.summary }}</b><br><span class="quiet small">{{ c.draft.problem }}</span></td>
          <td :class="{ late: c.waiting.includes('overdue') }">{{ c.waiting }}</td>
          <td class="quiet nowrap">{{ session.dayTime(c.createdAt) }} · {{ c.takenBy }}</td>
          <td class="right"><NuxtLink class="btn" :to="`/calls/${c.id}`">{{ c.state === 'put_off' ? 'Call back' : 'Go on' }}</NuxtLink></td>
        </tr>
      </tbody>
    </table>
    <p v-else-if="data" class="empty sheet">No call waits. Press <kbd>N</kbd> when the telephone rings.</p>
  </section>
</template>

<style scoped>
.page { padding: 18px 20px; display: flex; flex-direction: column; gap: 12px; }
</style>
