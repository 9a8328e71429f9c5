<script setup lang="ts">
// What scheduling needs: first what is still missing and for what, then hours, territories, time off, meetings, holidays, roads, calendars.
import { computed, ref } from 'vue'
import Pending from '~/base/Pending.vue'
import Notice from '~/base/Notice.vue'
import ClosingHour from '~/dispatch/setUp/ClosingHour.vue'
import DriveHours from '~/dispatch/setUp/DriveHours.vue'
import HolidayList from '~/dispatch/setUp/HolidayList.vue'
import MeetingForm from '~/dispatch/setUp/MeetingForm.vue'
import PostcodeFile from '~/dispatch/setUp/PostcodeFile.vue'
import RoadNetwork from '~/dispatch/setUp/RoadNetwork.vue'
import SetUpGuide from '~/dispatch/setUp/SetUpGuide.vue'
import TechnicianForm from '~/dispatch/setUp/TechnicianForm.vue'
import TechnicianTable from '~/dispatch/setUp/TechnicianTable.vue'
import TerritoryFile from '~/dispatch/setUp/TerritoryFile.vue'
import TerritoryList from '~/dispatch/setUp/TerritoryList.vue'
import TimeOffForm from '~/dispatch/setUp/TimeOffForm.vue'
import type { Person, SetUp } from '~/dispatch/setUp/useSetUp'
import VisitMessages from '~/dispatch/setUp/VisitMessages.vue'
import YardForm from '~/dispatch/setUp/YardForm.vue'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
const session = useSession()
const { data, problem, refresh } = useAnswer('scheduleSetUp')
const owns = computed(() => session.may('dispatch.setUp'))
const editing = ref<Person | null>(null)
function kept(setUp: SetUp) {
  data.value = setUp
}
</script>

<template>
  <section
    v-if="data"
    class="page set-up"
  >
    <div class="row">
      <h1 class="grow">Hours and areas</h1>
      <NuxtLink
        class="btn"
        to="/schedule"
        >Back to the schedule</NuxtLink
      >
    </div>
    <Notice :of="problem" />
    <SetUpGuide :guide="data.guide" />
    <h2 id="technicians">Technicians</h2>
    <TechnicianTable
      :set-up="data"
      :owns="owns"
      @kept="kept"
      @edit="editing = $event"
    />
    <DriveHours
      :outside="data.drivesOutside"
      :owns="owns"
      @kept="kept"
    />
    <ClosingHour
      :at="data.closesAt"
      :owns="owns"
      @kept="kept"
    />
    <div class="two stacks">
      <TimeOffForm
        :set-up="data"
        @kept="kept"
      />
      <MeetingForm
        :set-up="data"
        @kept="kept"
      />
    </div>
    <h2 id="where">Where places are</h2>
    <YardForm
      :yard="data.yard"
      :owns="owns"
      @kept="kept"
    />
    <PostcodeFile
      :owns="owns"
      @kept="refresh"
    />
    <h2 id="territories">
      Territories
      <span
        v-if="data.sitesNowhere"
        class="soon small"
        >{{ data.sitesNowhere }} {{ data.sitesNowhere === 1 ? 'site lies' : 'sites lie' }} in
        none</span
      >
    </h2>
    <TerritoryList
      :set-up="data"
      :owns="owns"
      @kept="kept"
    />
    <TerritoryFile
      v-if="owns"
      @kept="refresh"
    />
    <h2 id="messages">What customers are told by itself</h2>
    <VisitMessages
      :messages="data.messages"
      :owns="owns"
      @kept="kept"
    />
    <div class="two stacks">
      <HolidayList
        :holidays="data.holidays"
        :owns="owns"
        @kept="kept"
      />
      <RoadNetwork :owns="owns" />
    </div>
    <TechnicianForm
      v-if="editing"
      :set-up="data"
      :person="editing"
      @kept="kept"
      @close="editing = null"
    />
  </section>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
    says="Loading…"
  />
</template>

<style scoped>
.set-up :deep(.two) {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
.set-up :deep(.box) {
  padding: 12px;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.set-up :deep(.box .row:has(> .field)) {
  align-items: flex-start;
}
/* Beside a field, a button stands level with what is typed, also when something is wrong beneath it. */
.set-up :deep(.box .row > .field ~ .btn) {
  margin-top: 20px;
}
</style>
