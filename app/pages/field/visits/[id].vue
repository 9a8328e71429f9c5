<script setup lang="ts">
// One visit: the clock, the lines with their price, the customer's agreement, the invoice and the money, step by step.
import { computed, watch } from 'vue'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'
import NowCard from '~/visits/field/NowCard.vue'
import { useStep } from '~/lib/useStep'
import AddStep from '~/visits/field/AddStep.vue'
import AgreeStep from '~/visits/field/AgreeStep.vue'
import BillStep from '~/visits/field/BillStep.vue'
import { useFieldVisit } from '~/visits/field/useFieldVisit'
import WorkStep from '~/visits/field/WorkStep.vue'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'field', key: (route) => route.path })
const id = String(useRoute().params.id)
const session = useSession()
const of = useFieldVisit(id)
const { data, work, problem, failed, busy, clock, refresh } = of
const { step, go, leave } = useStep(['work', 'add', 'agree', 'bill'])
watch(step, () => {
  failed.value = null
  window.scrollTo(0, 0)
})
/** Who clocks for somebody else came from the work order. */
const back = computed(() =>
  session.role === 'technician' || session.me?.person.bookable
    ? '/field'
    : `/work/${work.value?.id}`,
)
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
        :to="back"
        :aria-label="back === '/field' ? 'Back to the day' : 'Back to the work order'"
        >←</NuxtLink
      >
      <button
        v-else
        class="btn plain"
        aria-label="Back to the visit"
        @click="leave"
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
      @add="go('add')"
      @agree="go('agree')"
      @bill="go('bill')"
    />
    <AddStep
      v-else-if="step === 'add'"
      :of="of"
      @done="leave"
    />
    <AgreeStep
      v-else-if="step === 'agree'"
      :visit-id="id"
      :work="work"
      :of="of"
      @done="leave"
    />
    <BillStep
      v-else
      :work="work"
      :of="of"
      @done="leave"
    />
  </div>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
    says="Opening the visit…"
    ><NuxtLink
      class="btn"
      to="/field"
      >Back to the day</NuxtLink
    ></Pending
  >
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
  font-size: 1.125rem;
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
