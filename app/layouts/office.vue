<script setup lang="ts">
// The office: the run across the top, the index down the right edge, the shortcuts of every screen.
import { onBeforeUnmount, onMounted, ref } from 'vue'
import IconCustomers from '~icons/lucide/user'
import IconBook from '~icons/lucide/book-open'
import IconInvoice from '~icons/lucide/file-text'
import IconQuote from '~icons/lucide/file-question'
import IconWork from '~icons/lucide/clipboard-list'
import IconSites from '~icons/lucide/map-pin'
import IconCare from '~icons/lucide/calendar-check'
import IconSetUp from '~icons/lucide/sliders-horizontal'
import IconMail from '~icons/lucide/mail'
import { ElMessage } from 'element-plus'
import IconMe from '~icons/lucide/key-round'
import FindAnything from '~/components/base/FindAnything.vue'
import RunBand from '~/components/base/RunBand.vue'
import { call } from '~/lib/api'
import { connected } from '~/lib/live'
import { useSession } from '~/stores/session'

const session = useSession()
const route = useRoute()
const finding = ref(false)
const helping = ref(false)
const quotes = ref(0)
const INDEX = [
  ['/customers', 'Customers', IconCustomers],
  ['/sites', 'Sites', IconSites],
  ['/agreements', 'Agreements', IconCare],
  ['/price-book', 'Price book', IconBook],
  ['/quotes', 'Quotes', IconQuote],
  ['/work', 'Work orders', IconWork],
  ['/invoices', 'Invoices', IconInvoice],
  ['/messages', 'Mail', IconMail],
  ['/set-up', 'Set-up', IconSetUp],
] as const
const STOPS = ['/calls', '/schedule', '/on-site', '/to-bill', '/unpaid']
const HERE: Record<string, [string, string][]> = {
  '/calls/': [
    ['Ctrl Enter', 'book the call'],
    ['↑ ↓ Enter', 'choose a match'],
    ['Alt W', 'go to the first free time; arrows move it'],
    ['Esc', 'back to the calls'],
  ],
  '/schedule': [
    ['Tab', 'go to the next visit'],
    ['← → ↑ ↓', 'move it by a quarter of an hour, or to another technician'],
    ['Shift ← →', 'shorten, lengthen'],
    ['Enter', 'save the move, or look at the visit'],
    ['Esc', 'leave it where it was'],
    ['Delete', 'take it off the schedule'],
    ['Ctrl Z', 'undo'],
    ['Ctrl Y', 'do it again'],
    ['S', 'swap with another: S on the one, S on the other'],
    ['L', 'lock it where it is, or unlock it'],
    ['C', 'a further visit of the same work order; Alt and drag puts it somewhere'],
    ['X', 'split it: the rest goes to the tray'],
    ['[ ]', 'day before, day after'],
  ],
}
const takesCalls = () => ['owner', 'office', 'dispatch'].includes(session.role)
function key(e: KeyboardEvent) {
  const typing = (e.target as HTMLElement).closest('input, textarea, select, [contenteditable]')
  if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'k') finding.value = !finding.value
  else if (e.altKey && /^[1-5]$/.test(e.key)) void navigateTo(STOPS[Number(e.key) - 1]!)
  else if (typing || e.ctrlKey || e.metaKey || e.altKey) return
  else if (e.key.toLowerCase() === 'n' && takesCalls()) void navigateTo('/calls/new')
  else if (e.key === '?') helping.value = true
  else if (e.key === '/') document.querySelector<HTMLInputElement>('[data-filter]')?.focus()
  else return
  e.preventDefault()
}
onMounted(() => window.addEventListener('keydown', key))
onBeforeUnmount(() => window.removeEventListener('keydown', key))
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
async function leave() {
  await session.signOut()
  await navigateTo('/sign-in')
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
        <button
          class="btn find"
          @click="finding = true"
        >
          <span class="quiet">Find…</span><kbd>Ctrl K</kbd>
        </button>
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
        The demo has a clock of its own: it reads <b class="num">{{ clock }}</b> and runs on.<button
          v-if="['owner', 'office'].includes(session.role)"
          class="btn plain small"
          @click="setClock"
        >
          Set it to now
        </button>
      </p>
      <p
        v-if="!connected"
        class="away"
        role="status"
      >
        The connection is interrupted. What you see may be old; it comes back by itself.
      </p>
      <slot />
    </main>
    <nav
      class="index no-print"
      aria-label="Reference books"
    >
      <NuxtLink
        v-for="[to, name, icon] in INDEX"
        :key="to"
        :to="to"
        :class="{ here: route.path.startsWith(to) }"
        ><component
          :is="icon"
          aria-hidden="true"
        />{{ name
        }}<b
          v-if="to === '/quotes' && quotes"
          class="num"
          >{{ quotes }} waiting</b
        ></NuxtLink
      >
      <NuxtLink
        to="/me"
        class="me"
        :class="{ here: route.path === '/me' }"
        ><IconMe aria-hidden="true" />My sign-in</NuxtLink
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
    <el-dialog
      v-model="helping"
      title="Shortcuts"
      width="480"
    >
      <table class="book">
        <tbody>
          <tr
            v-for="[k, what] in [
              ...(Object.entries(HERE).find(([p]) => route.path.startsWith(p))?.[1] ?? []),
              ['N', 'take a call'],
              ['Ctrl K', 'find anything, run any command'],
              ['Alt 1 … 5', 'walk the run'],
              ['/', 'go to the filter of the list'],
              ['?', 'this page'],
            ]"
            :key="k"
          >
            <td class="nowrap">
              <kbd>{{ k }}</kbd>
            </td>
            <td>{{ what }}</td>
          </tr>
        </tbody>
      </table>
    </el-dialog>
  </div>
</template>

<style scoped>
.office {
  display: grid;
  grid-template: 60px minmax(0, 1fr) / minmax(0, 1fr) 74px;
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
  font-size: 17px;
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
  padding-top: 10px;
  gap: 4px;
}
.index a,
.who {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 4px;
  padding: 8px 2px;
  font-size: 11px;
  text-align: center;
  text-decoration: none;
  color: var(--ink-2);
  border: 0;
  background: none;
  cursor: pointer;
}
.index svg {
  width: 17px;
  height: 17px;
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
.who {
  padding-bottom: 14px;
}
.demo {
  background: var(--green-1);
  padding: 3px 16px;
  font-size: 13px;
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
