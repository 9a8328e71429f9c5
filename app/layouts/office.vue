<script setup lang="ts">
// The office: the run across the top, the index down the right edge, the shortcuts of every screen.
import { computed, defineAsyncComponent, onBeforeUnmount, ref } from 'vue'
import { ElMessage } from 'element-plus'
import FindAnything from '~/components/base/FindAnything.vue'
import RunBand from '~/components/base/RunBand.vue'
import { call } from '~/lib/api'
import { connected } from '~/lib/live'
import { INDEX, linkAt, RUN } from '~/lib/officeIndex'
import { useShortcuts } from '~/lib/shortcuts'
import { useSignOut } from '~/lib/useSignOut'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import UnansweredStrip from '~/base/UnansweredStrip.vue'

const ShortcutList = defineAsyncComponent(() => import('~/components/base/ShortcutList.vue'))
const session = useSession()
const route = useRoute()
const finding = ref(false)
const helping = ref(false)
const quotes = ref(0)
/** What this person may open of it; a group that holds nothing for them is not there. */
const index = computed(() =>
  INDEX.map(({ group, links }) => ({
    group,
    links: links.filter(([, , may]) => session.may(may)),
  })).filter(({ links }) => links.length),
)
/** An address that was typed, or kept from before: what this person may not open asks the server for nothing. */
const closed = computed(() => {
  const [, name, may] = linkAt(route.path) ?? []
  return may && !session.may(may) ? name : null
})
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
    { keys: '?', press: '[Shift]+?', does: 'this page', run: help },
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
const leave = useSignOut()
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
          Set it to now
        </ActButton>
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
      <slot v-else />
    </main>
    <nav
      class="index no-print"
      aria-label="Reference books"
    >
      <template
        v-for="{ group, links } in index"
        :key="group"
      >
        <h2>{{ group }}</h2>
        <NuxtLink
          v-for="[to, name] in links"
          :key="to"
          :to="to"
          :class="{ here: route.path.startsWith(to) }"
          >{{ name
          }}<b
            v-if="to === '/quotes' && quotes"
            class="num"
            title="waiting"
            >{{ quotes }}</b
          ></NuxtLink
        >
      </template>
      <h2 class="me">{{ session.me?.person.name.split(' ')[0] }}</h2>
      <NuxtLink
        to="/me"
        :class="{ here: route.path === '/me' }"
        >My sign-in</NuxtLink
      >
      <button
        class="who"
        :title="`${session.me?.person.name}, ${session.role}`"
        @click="leave"
      >
        Sign out
      </button>
    </nav>
    <FindAnything
      v-model="finding"
      @help="helping = true"
    />
    <ShortcutList
      v-if="helping"
      @close="helping = false"
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
.index {
  background: #e8eeea;
  border-left: 1px solid var(--rule-2);
  display: flex;
  flex-direction: column;
  padding: 4px 0 10px;
  overflow-y: auto;
}
.index h2 {
  margin: 10px 10px 3px;
  font-size: 0.75rem;
  font-weight: 600;
  color: var(--ink-2);
}
.index a,
.who {
  display: flex;
  justify-content: space-between;
  padding: 5px 8px 5px 10px;
  font-size: 0.78125rem;
  text-align: left;
  text-decoration: none;
  color: var(--ink);
  border: 0;
  background: none;
  cursor: pointer;
}
.index a:hover,
.who:hover {
  background: var(--paper);
}
.index a.here {
  background: var(--sheet);
  color: var(--green);
  font-weight: 650;
  box-shadow: inset 3px 0 var(--green);
}
.index .me {
  margin-top: auto;
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
@media print {
  .office {
    display: block;
    height: auto;
  }
}
</style>
