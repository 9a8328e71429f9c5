<script setup lang="ts">
// One visit: the clock, the lines with their price, the customer's agreement, the invoice and the money, step by step.
import { computed, ref, shallowRef, watch } from 'vue'
import type { Answer } from '~~/shared/api'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'
import NowCard from '~/visits/field/NowCard.vue'
import { call } from '~/lib/api'
import AddStep from '~/visits/field/AddStep.vue'
import AgreeStep from '~/visits/field/AgreeStep.vue'
import BillStep from '~/visits/field/BillStep.vue'
import { useFieldVisit } from '~/visits/field/useFieldVisit'
import WorkStep from '~/visits/field/WorkStep.vue'

definePageMeta({ layout: 'field', key: (route) => route.fullPath })
const id = String(useRoute().params.id)
const of = useFieldVisit(id)
const { data, work, problem, failed, busy, clock } = of
const step = ref<'work' | 'add' | 'agree' | 'bill'>('work')
/** what is open already, when nothing is left to bill */
const made = shallowRef<Answer<'invoice'> | null>(null)
watch(step, () => {
  failed.value = null
  window.scrollTo(0, 0)
})
const openBill = () =>
  of.act(async () => {
    const { invoices, totals } = work.value!
    const open = invoices.find((i) => Number(i.open.amount) > 0) ?? invoices.at(-1)
    const left = Number(totals.toBill.amount)
    made.value = !left && open ? await call('invoice', { params: { id: open.id } }) : null
    step.value = 'bill'
  })
const otherOpen = computed(() => {
  const open = data.value?.openVisitId
  return open && open !== id ? open : (failed.value?.extra.openVisitId as string | undefined)
})
</script>

<template>
  <div
    v-if="data && work"
    class="visit"
  >
    <header v-if="step !== 'agree'">
      <NuxtLink
        v-if="step === 'work'"
        class="btn plain"
        to="/field"
        aria-label="Back to the day"
        >←</NuxtLink
      >
      <button
        v-else
        class="btn plain"
        aria-label="Back to the visit"
        @click="step = 'work'"
      >
        ←
      </button>
      <div class="grow">
        <h1 class="clip">{{ data.visit.customer }}</h1>
        <p class="quiet small">
          {{ [data.visit.place, data.visit.accessNote].filter(Boolean).join(' · ') }}
        </p>
      </div>
    </header>
    <template v-if="step === 'work'">
      <p
        v-if="data.visit.lead"
        class="note gap"
      >
        You go along with {{ data.visit.lead }}; the clock of this visit is theirs.
      </p>
      <NowCard
        v-else
        :detail="data"
        :busy="busy"
        @act="clock"
      />
    </template>
    <Notice
      class="gap"
      :of="failed ?? problem"
    />
    <NuxtLink
      v-if="otherOpen && step === 'work'"
      class="btn gap"
      :to="`/field/visits/${otherOpen}`"
      >Go to the open visit →</NuxtLink
    >
    <WorkStep
      v-if="step === 'work'"
      :of="of"
      @add="step = 'add'"
      @agree="step = 'agree'"
      @bill="openBill"
    />
    <AddStep
      v-else-if="step === 'add'"
      :of="of"
      @done="step = 'work'"
    />
    <AgreeStep
      v-else-if="step === 'agree'"
      :visit-id="id"
      :work="work"
      :of="of"
      @done="step = 'work'"
    />
    <BillStep
      v-else
      :work="work"
      :of="of"
      :made="made"
      @done="step = 'work'"
    />
  </div>
  <Pending
    v-else
    :problem="problem"
    says="Opening the visit…"
  />
</template>

<style scoped>
.visit {
  display: flex;
  flex-direction: column;
  min-height: 100vh;
}
header {
  display: flex;
  gap: 4px;
  align-items: center;
  padding: 8px 16px 8px 4px;
  background: var(--sheet);
  border-bottom: 1px solid var(--rule-2);
}
h1 {
  font-size: 18px;
}
.visit :deep(.gap) {
  margin: 12px 16px 0;
}
.visit :deep(.block) {
  padding: 14px 16px;
  display: flex;
  flex-direction: column;
  gap: 12px;
}
</style>
