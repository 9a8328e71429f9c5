<script setup lang="ts">
// The office: the run across the top, the index down the right edge, the shortcuts of every screen.
import { computed, defineAsyncComponent, onBeforeUnmount, ref } from 'vue'
import { ElMessage } from 'element-plus'
import FindAnything from '~/components/base/FindAnything.vue'
import OfficeIndex from '~/components/base/OfficeIndex.vue'
import RunBand from '~/components/base/RunBand.vue'
import { call } from '~/lib/api'
import { connected, onLive, SHOWS } from '~/lib/live'
import { linkAt, RUN } from '~/lib/officeIndex'
import { homeOf } from '~/lib/homeOf'
import { useShortcuts } from '~/lib/shortcuts'
import { telling } from '~/dispatch/visit/telling'
import { useSession } from '~/stores/session'
import { useTourHere } from '~/tour/useTour'
import ActButton from '~/base/ActButton.vue'
import OwnFirm from '~/begin/OwnFirm.vue'
import UnansweredStrip from '~/base/UnansweredStrip.vue'

const TellSheet = defineAsyncComponent(() => import('~/dispatch/visit/TellSheet.vue'))
const MyTasks = defineAsyncComponent(() => import('~/tasks/MyTasks.vue'))
const HelpPanel = defineAsyncComponent(() => import('~/help/HelpPanel.vue'))
const TourGuide = defineAsyncComponent(() => import('~/tour/TourGuide.vue'))
const session = useSession()
const route = useRoute()
const finding = ref(false)
const helping = ref(false)
const quotes = ref(0)
const { seen: shownRound } = useTourHere()
/** An address that was typed, or kept from before: what this person may not open asks the server for nothing. */
const closed = computed(() => {
  const [, name = 'This page', may = route.meta.may] = linkAt(route.path) ?? []
  return may && !session.may(may) ? name : null
})
onLive(() => void session.again(), 0, SHOWS.setUp)
const takesCalls = () => session.may('calls.take')
const walk = ([to, , may]: (typeof RUN)[number]) => {
  if (session.may(may)) void navigateTo(to)
}
const find = () => {
  finding.value = !finding.value
}
const help = () => {
  helping.value = true
}
const toFilter = () => document.querySelector<HTMLInputElement>('[data-filter]')?.focus()
useShortcuts(
  [
    {
      keys: 'N',
      press: ['n', 'Shift+n'],
      does: 'take a call',
      when: takesCalls,
      run: () => void navigateTo('/calls/new'),
    },
    {
      keys: 'Ctrl K',
      press: ['Control+k', 'Meta+k'],
      typing: true,
      does: 'find anything, run any command',
      run: find,
    },
    {
      keys: 'Alt 1 … 5',
      press: RUN.map((_, i) => `Alt+Digit${i + 1}`),
      typing: true,
      does: 'walk the run',
      run: ({ code }) => walk(RUN[Number(code.at(-1)) - 1]!),
    },
    { keys: '/', press: '[Shift]+/', does: 'go to the filter of the list', run: toFilter },
    { keys: '?', press: '[Shift]+?', does: 'what this screen is for, and its keys', run: help },
  ],
  'everywhere',
)
/** The demo runs on a clock of its own until somebody sets it. */
const clock = ref('')
const tick = setInterval(() => {
  clock.value = session.me?.demoClock ? session.dayTime(new Date(session.now()).toISOString()) : ''
}, 1000)
onBeforeUnmount(() => clearInterval(tick))
async function setClock() {
  try {
    await call('demoClockToNow')
    window.location.reload()
  } catch (error) {
    ElMessage({ type: 'error', message: (error as Error).message })
  }
}
</script>

<template>
  <div class="office">
    <header class="no-print">
      <NuxtLink
        to="/"
        class="mark"
        ><span>Open Ledger</span></NuxtLink
      >
      <RunBand @quotes="(n) => (quotes = n)" />
      <div class="acts">
        <ActButton
          class="find"
          @click="finding = true"
        >
          <span class="quiet">Find…</span><kbd>Ctrl K</kbd>
        </ActButton>
        <NuxtLink
          v-if="takesCalls()"
          to="/calls/new"
          class="btn act"
          >Take a call <kbd>N</kbd></NuxtLink
        >
      </div>
    </header>
    <main>
      <p
        v-if="clock"
        class="demo no-print"
      >
        The demo has a clock of its own: it reads <b class="num">{{ clock }}</b> and runs
        on.<ActButton
          v-if="session.may('settings.change')"
          quiet
          class="small"
          @click="setClock"
        >
          Set it to now </ActButton
        ><OwnFirm v-if="session.may('settings.change')" />
      </p>
      <p
        v-if="!connected"
        class="away"
        role="status"
      >
        The connection is interrupted. What you see may be old; it comes back by itself.
      </p>
      <UnansweredStrip />
      <div
        v-if="closed"
        class="empty"
      >
        <h1>{{ closed }}</h1>
        <p>This is not for your role. Whoever sets up access can change that.</p>
      </div>
      <template v-else>
        <MyTasks v-if="route.path === homeOf(session.role)" />
        <slot />
      </template>
    </main>
    <OfficeIndex
      :quotes="quotes"
      @help="helping = true"
    />
    <FindAnything
      v-model="finding"
      @help="helping = true"
    />
    <HelpPanel
      v-if="helping"
      @close="helping = false"
    />
    <TourGuide v-if="shownRound" />
    <TellSheet
      v-if="telling"
      :visit-id="telling"
      @close="telling = null"
    />
  </div>
</template>

<style scoped>
.office {
  display: grid;
  grid-template: 60px minmax(0, 1fr) / minmax(0, 1fr) var(--index);
  height: 100vh;
}
header {
  grid-column: 1 / 3;
  display: flex;
  background: var(--sheet);
  border-bottom: 1px solid var(--rule-2);
}
.mark {
  width: 132px;
  flex: none;
  padding: 15px 0 0 16px;
  border-right: 1px solid var(--rule);
  text-decoration: none;
  color: var(--ink);
  font-weight: 700;
  font-size: 1.0625rem;
}
.mark span {
  border-bottom: 3px double var(--green);
  padding-bottom: 3px;
  white-space: nowrap;
}
.acts {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 0 12px;
  flex: none;
}
.find {
  font-weight: 400;
}
main {
  overflow: auto;
  min-width: 0;
  position: relative;
}
.demo {
  background: var(--green-1);
  padding: 3px 16px;
  font-size: 0.8125rem;
  border-bottom: 1px solid var(--rule);
}
.away {
  background: var(--marigold-1);
  padding: 6px 16px;
  border-bottom: 1px solid #e6cf9a;
}
/* A narrow window, or a large one that is magnified: one beneath the other, and nothing runs off to the side. */
@media (max-width: 1000px) {
  .office {
    grid-template: auto auto minmax(0, 1fr) / minmax(0, 1fr);
  }
  header {
    grid-column: 1;
    flex-wrap: wrap;
  }
  .mark {
    border-right: 0;
    padding-bottom: 8px;
  }
  .acts {
    margin-left: auto;
  }
  header :deep(.run) {
    order: 1;
    flex: 1 0 100%;
    overflow-x: auto;
    border-top: 1px solid var(--rule);
  }
  header :deep(.stop) {
    flex-shrink: 0;
    padding-bottom: 6px;
  }
}
/* Hardly any height is left for the page: all of it scrolls. */
@media (max-width: 1000px) and (max-height: 520px) {
  .office {
    height: auto;
  }
}
@media (max-width: 480px) {
  .find kbd,
  .acts kbd {
    display: none;
  }
}
@media print {
  .office {
    display: block;
    height: auto;
  }
}
</style>
