<script setup lang="ts">
// What the firm sets up: standing questions, its own fields and words, where callers come from, how far each may go.
import { computed } from 'vue'
import Pending from '~/base/Pending.vue'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import { useHashPlace } from '~/lib/useHashPlace'
import { useSession } from '~/stores/session'
import BilledTime from '~/settings/BilledTime.vue'
import CallQuestions from '~/settings/CallQuestions.vue'
import CarePlans from '~/settings/CarePlans.vue'
import FirmDetails from '~/settings/FirmDetails.vue'
import CallSources from '~/settings/CallSources.vue'
import MailWords from '~/settings/MailWords.vue'
import PriceLevels from '~/settings/PriceLevels.vue'
import NumberSeries from '~/settings/NumberSeries.vue'
import OftenWritten from '~/settings/OftenWritten.vue'
import OwnFields from '~/settings/OwnFields.vue'
import RoleLimits from '~/settings/RoleLimits.vue'
import WarrantyGiven from '~/settings/WarrantyGiven.vue'
import TaxClasses from '~/settings/TaxClasses.vue'
import SettingsHistory from '~/settings/SettingsHistory.vue'
import StateWords from '~/settings/StateWords.vue'
import WorkKinds from '~/settings/WorkKinds.vue'

definePageMeta({ layout: 'office' })
const { data, problem, refresh } = useAnswer('setUp', undefined, SHOWS.setUp)
const session = useSession()
useHashPlace()
const may = computed(() => session.may('settings.change'))
</script>

<template>
  <section
    v-if="data"
    class="page"
  >
    <h1>Set-up</h1>
    <p v-if="may">
      <NuxtLink to="/papers">What our papers look like</NuxtLink>: layouts, words, columns, colour,
      conditions of quotes and invoices.
    </p>
    <p v-if="session.may('ledger.bring')">
      <NuxtLink to="/brought-forward">From our books before</NuxtLink>: open invoices, credits,
      opening balances.
    </p>
    <p v-if="session.may('figures.export')">
      <NuxtLink to="/in-and-out">Everything in and out</NuxtLink>: each file that can be taken along
      or in, the archive of everything, what goes out by itself.
    </p>
    <p v-if="session.may('connections.change')">
      <NuxtLink to="/connections">Connections</NuxtLink>: mail, texts, cards, suppliers, positions;
      each tried before anything depends on it.
    </p>
    <div class="two stacks">
      <div class="stack">
        <FirmDetails :may="may" />
        <TaxClasses :may="may" />
        <NumberSeries :may="may" />
        <CallQuestions
          :questions="data.questions"
          :may="may"
          @kept="refresh"
        />
        <WorkKinds :may="may" />
        <CallSources
          :sources="data.sources"
          :may="may"
          @kept="refresh"
        />
        <OftenWritten :may="may" />
        <WarrantyGiven
          :months="data.warrantyMonths"
          :may="may"
          @kept="refresh"
        />
        <BilledTime
          :time="data.billedTime"
          :may="may"
          @kept="refresh"
        />
        <RoleLimits />
      </div>
      <div class="stack">
        <OwnFields
          :fields="data.fields"
          :may="may"
          @kept="refresh"
        />
        <PriceLevels />
        <CarePlans />
        <StateWords :may="may" />
        <MailWords :may="may" />
        <h2 id="form">The request form</h2>
        <p class="quiet">
          Anybody can ask for work at
          <a
            href="/request"
            target="_blank"
            >/request</a
          >. To show it inside the firm’s own web page:
        </p>
        <code class="note"
          >&lt;iframe src="…/request" title="Ask for work" width="100%"
          height="760"&gt;&lt;/iframe&gt;</code
        >
      </div>
    </div>
    <SettingsHistory />
  </section>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
  />
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 24px;
}
code {
  font: 0.75rem var(--mono);
}
</style>
