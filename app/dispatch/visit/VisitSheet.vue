<script setup lang="ts">
// One visit beside the schedule: what decides without opening anything, and every act that the mouse can do, by keyboard too.
import { computed, ref, watch } from 'vue'
import ActButton from '~/base/ActButton.vue'
import OneField from '~/base/OneField.vue'
import SidePanel from '~/base/SidePanel.vue'
import { call } from '~/lib/api'
import { useSession } from '~/stores/session'
import PlaceForm from './PlaceForm.vue'
import type { Technician, Visit } from './visit'
import PromiseForm from './PromiseForm.vue'
import { telling } from './telling'
import VisitActs from './VisitActs.vue'
import VisitFacts from './VisitFacts.vue'

const props = defineProps<{
  visit: Visit | null
  may: boolean
  technicians: Technician[]
  visits: Visit[]
}>()
const emit = defineEmits<{ close: []; changed: [] }>()
const session = useSession()
const invited = ref('')
watch(
  () => props.visit?.id,
  () => {
    invited.value = ''
  },
)
const open = computed(() => props.visit?.state === 'planned')
async function invite(to: string) {
  await call('inviteToVisit', { params: { id: props.visit!.id }, body: { to: [to] } })
  invited.value = to
  emit('changed')
}
const SAID: Record<string, string> = { on_site: 'on site', no_access: 'no access' }
</script>

<template>
  <SidePanel
    :model-value="visit !== null"
    :title="visit ? `${visit.title}, ${visit.customer}` : ''"
    :about="visit?.id ?? ''"
    @close="emit('close')"
  >
    <div
      v-if="visit"
      class="stack"
    >
      <p class="row">
        <NuxtLink
          :to="`/work/${visit.workOrderId}`"
          class="num"
          >{{ visit.number }}</NuxtLink><span class="chip">{{
          SAID[visit.state] ?? visit.state
        }}</span
        ><span
          v-if="visit.locked"
          class="chip soon"
          >locked</span
        ><span
          v-if="visit.atRisk"
          class="chip late"
          >expected {{ session.time(visit.arriveAt) }}</span
        ><span class="grow" /><span
          v-if="visit.quote"
          class="num small"
          >{{ visit.quote }}</span
        >
      </p>
      <VisitFacts :visit="visit" />
      <p
        v-if="visit.misfit"
        class="note warn"
      >
        {{ visit.misfit }}
      </p>
      <template v-if="may && open">
        <div class="box">
          <PlaceForm
            :key="visit.id"
            :visit="visit"
            :technicians="technicians"
            :visits="visits"
            @changed="emit('changed')"
          />
        </div>
        <div class="box">
          <PromiseForm
            :key="visit.id"
            :visit="visit"
            @changed="emit('changed')"
          />
        </div>
        <div class="box">
          <VisitActs
            :key="visit.id"
            :visit="visit"
            @changed="emit('changed')"
            @close="emit('close')"
          />
        </div>
      </template>
      <div
        v-if="visit.startAt"
        class="box"
      >
        <div class="row">
          <ActButton
            v-if="may"
            @click="telling = visit.id"
          >
            Tell the customer…
          </ActButton>
          <a
            class="btn"
            :href="`/api/v1/visits/${visit.id}/work-sheet.pdf`"
            target="_blank"
            >Work sheet</a
          >
        </div>
        <OneField
          v-if="may"
          :key="visit.id"
          type="email"
          label="Invite by mail"
          placeholder="mail address"
          act="Send as invitation"
          :draft="`invite ${visit.id}`"
          :send="invite"
        />
        <p
          v-if="invited"
          class="note"
          role="status"
        >
          The invitation is on its way to {{ invited }}. They hear by themselves when the visit is
          moved or cancelled.
        </p>
      </div>
      <NuxtLink
        class="btn"
        :to="`/work/${visit.workOrderId}`"
        >Open {{ visit.number }}</NuxtLink
      >
    </div>
  </SidePanel>
</template>

<style scoped>
.box {
  border-top: 1px solid var(--rule-2);
  padding-top: 10px;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
</style>
