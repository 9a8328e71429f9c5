<script setup lang="ts">
// What the firm takes over from its books before: what customers owe and have, what stood in the accounts, its numbers.
import OpeningBalances from '~/broughtForward/OpeningBalances.vue'
import OpenItems from '~/broughtForward/OpenItems.vue'
import Pending from '~/base/Pending.vue'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
const session = useSession()
const { data, problem, refresh } = useAnswer('broughtForward', undefined, {
  subjects: ['import', 'settings'],
})
</script>

<template>
  <section
    v-if="data"
    class="page brought"
  >
    <h1>From our books before</h1>
    <h2>Open invoices and credits</h2>
    <OpenItems
      :imports="data.imports"
      @changed="refresh"
    />
    <h2>What stood in the accounts</h2>
    <OpeningBalances
      :of="data"
      @kept="data = $event"
    />
    <template v-if="session.may('settings.see')">
      <h2>Numbers</h2>
      <p>
        So that no number is given twice, ours go on where the books before stopped:
        <NuxtLink to="/set-up#numbers">Numbers, in Set-up</NuxtLink>.
      </p>
    </template>
  </section>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
  />
</template>

<style scoped>
.brought {
  max-width: 860px;
}
</style>
