<script setup lang="ts">
// The run: Calls → Schedule → On site → To bill → Unpaid, live, and the way to each list.
import { computed, watch } from 'vue'
import type { Money } from '~~/core/money/formatMinor'
import { SHOWS } from '~/lib/live'
import { RUN } from '~/lib/officeIndex'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'

const session = useSession()
const route = useRoute()
const { data: run } = useAnswer('run', undefined, { ...SHOWS.run, patience: 300 })
const emit = defineEmits<{ quotes: [count: number] }>()
// Quotes stand in the index, not in the run; how many wait is told with it.
watch(run, (r) => r && emit('quotes', r.quotes.count))
const late = (count: number | undefined, word: string) => (count ? `${count} ${word}` : '')
const sum = (of: { sum: Money } | undefined) => (of ? session.money(of.sum) : '')
interface Says {
  count?: number | undefined
  word?: string
  sum?: string
  late?: string
}
/** What each stop says, by its address: how many, and what of them matters. */
const says = computed((): Record<string, Says> => {
  const { calls, schedule, onSite, toBill, unpaid } = run.value ?? {}
  return {
    '/calls': { count: calls?.count, word: 'waiting', late: late(calls?.late, 'overdue') },
    '/schedule': {
      count: schedule?.count,
      word: 'today',
      late: late(schedule?.atRisk, 'at risk'),
    },
    '/on-site': { count: onSite?.count, word: 'working' },
    '/to-bill': { count: toBill?.count, sum: sum(toBill) },
    '/unpaid': { count: unpaid?.count, sum: sum(unpaid), late: late(unpaid?.late, 'late') },
  }
})
const stops = computed(() =>
  RUN.filter(([, , may]) => session.may(may)).map(([to, name]) => ({
    ...says.value[to],
    to,
    name,
  })),
)
</script>

<template>
  <nav
    class="run"
    data-tour="home.run"
    aria-label="The run"
  >
    <NuxtLink
      v-for="(s, i) in stops"
      :key="s.to"
      :to="s.to"
      class="stop"
      :class="{ here: route.path.startsWith(s.to) }"
      :title="`Alt ${i + 1}`"
    >
      <span class="name">{{ s.name }}</span>
      <span class="figures"
        ><b class="num">{{ s.count ?? '·' }}</b
        >{{ ' ' }}<span v-if="s.word">{{ s.word }}</span
        >{{ ' '
        }}<span
          v-if="s.sum"
          class="num"
          >{{ s.sum }}</span
        >{{ ' '
        }}<span
          v-if="s.late"
          class="late num"
          >{{ s.late }}</span
        ></span
      >
    </NuxtLink>
  </nav>
</template>

<style scoped>
/* It fills the bar: a mark around it would be cut. */
.run[data-pointed] {
  outline-offset: -3px;
}
.run {
  display: flex;
  flex: 1;
  min-width: 0;
}
.stop {
  flex: 1 1 auto;
  padding: 9px 14px 0;
  border-right: 1px solid var(--rule);
  text-decoration: none;
  color: var(--ink);
  position: relative;
  min-width: 0;
}
.stop:hover {
  background: var(--paper);
}
.stop .name {
  display: block;
  font-size: 0.75rem;
  color: var(--ink-2);
}
.figures {
  white-space: nowrap;
  font-size: 0.8125rem;
  display: flex;
  gap: 6px;
}
.here {
  background: linear-gradient(var(--green-1), var(--sheet));
}
.here::after {
  content: '';
  position: absolute;
  left: 14px;
  right: 14px;
  bottom: 0;
  border-bottom: 3px double var(--green);
}
</style>
