<script setup lang="ts">
// How the book is used: what sells, how long tasks really take, what nobody sells, what is easily taken for something else.
import { computed, ref } from 'vue'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useLoad } from '~/lib/useLoad'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
const session = useSession()
const owns = computed(() => ['owner', 'office'].includes(session.role))
const { data: usage, problem, refresh } = useLoad(() => call('bookUsage'))
const { busy, problem: failed, act } = useAct()
const VIEWS = [
  ['sold', 'What sells'],
  ['hours', 'Hours, quoted and worked'],
  ['dormant', 'What nobody sells'],
  ['alike', 'Easily mistaken'],
] as const
const view = ref<(typeof VIEWS)[number][0]>('sold')
const proposed = computed(
  () => usage.value?.hours.filter((h) => h.actual.proposedSeconds !== null) ?? [],
)
const said = ref<{ text: string; undo: () => Promise<unknown> } | null>(null)
const hours = (ids: string[]) =>
  act(async () => {
    const batchId = newId()
    const entries = proposed.value
      .filter((h) => ids.includes(h.id))
      .map((h) => ({ id: h.id, seconds: h.actual.proposedSeconds!, was: h.actual.quotedSeconds }))
    await call('takeHours', {
      body: { id: batchId, entries: entries.map(({ id, seconds }) => ({ id, seconds })) },
    })
    // The hours of before, taken as hours: the prices that followed follow back.
    said.value = {
      text: `${entries.length} ${entries.length === 1 ? 'task has' : 'tasks have'} the hours that were worked.`,
      undo: () =>
        call('takeHours', {
          body: { id: newId(), entries: entries.map((e) => ({ id: e.id, seconds: e.was })) },
        }),
    }
    await refresh()
  })
const picked = ref<string[]>([])
const retire = () =>
  act(async () => {
    const ids = [...picked.value]
    const { count } = await call('retireEntries', { body: { ids, retired: true } })
    picked.value = []
    said.value = {
      text: `${count} retired. They stay on the papers that have them.`,
      undo: () => call('retireEntries', { body: { ids, retired: false } }),
    }
    await refresh()
  })
const undo = () =>
  act(async () => {
    await said.value!.undo()
    said.value = null
    await refresh()
  })
const show = (amount: string) =>
  session.money({ amount, currency: session.me!.company.currency }, false)
const differs = (a: string, b: string) => Number(a) !== Number(b)
</script>

<template>
  <section
    v-if="usage"
    class="page"
  >
    <div class="row">
      <NuxtLink
        class="btn plain"
        to="/price-book"
        aria-label="Back to the price book"
        >←</NuxtLink
      >
      <h1 class="grow">How the book is used <span class="quiet small">twelve months</span></h1>
      <span
        class="row views"
        role="group"
        aria-label="What is shown"
        ><button
          v-for="[v, name] in VIEWS"
          :key="v"
          class="btn"
          :class="{ on: view === v }"
          :aria-pressed="view === v"
          @click="view = v"
        >
          {{ name
          }}<template v-if="v === 'hours' && proposed.length"> · {{ proposed.length }}</template
          ><template v-if="v === 'alike' && usage.alike.length">
            · {{ usage.alike.length }}</template
          >
        </button></span
      >
    </div>
    <p
      v-if="failed"
      class="note bad"
      role="alert"
    >
      {{ failed.message }}
    </p>
    <p
      v-if="said"
      class="note row"
      role="status"
    >
      <span class="grow">{{ said.text }}</span><button
        class="btn"
        :disabled="busy"
        @click="undo"
      >
        Undo
      </button>
    </p>
    <template v-if="view === 'sold'"
      ><table
        v-if="usage.sold.length"
        class="book"
      >
        <thead>
          <tr>
            <th>Code</th>
            <th>Name</th>
            <th class="right">Lines</th>
            <th class="right">Sold</th>
            <th class="right">Net</th>
            <th class="right">Book</th>
            <th class="right">Usually at</th>
            <th class="right">Last</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="s in usage.sold"
            :key="s.id"
            class="pick"
            @click="navigateTo(`/price-book/${s.id}`)"
          >
            <td class="num">
              <NuxtLink :to="`/price-book/${s.id}`">{{ s.code }}</NuxtLink>
            </td>
            <td>{{ s.name }}</td>
            <td class="right num">{{ s.lines }}</td>
            <td class="right num">{{ s.quantity }}</td>
            <td class="right num">
              <b>{{ session.money(s.net, false) }}</b>
            </td>
            <td class="right num quiet">{{ show(s.book) }}</td>
            <td
              class="right num"
              :class="{ soon: differs(s.book, s.usual) }"
            >
              {{ show(s.usual) }}
            </td>
            <td class="right nowrap">{{ s.last ? session.day(s.last) : '' }}</td>
          </tr>
        </tbody>
      </table>
      <p
        v-else
        class="empty sheet"
      >
        Nothing of the book was sold in twelve months.
      </p></template
    >
    <template v-else-if="view === 'hours'"
      ><p class="quiet">
        Work orders with one task alone, so that the hours on site are that task’s. New hours are
        proposed where at least four are known and the book’s lie outside the middle half of them.
      </p>
      <div
        v-if="owns && proposed.length > 1"
        class="row"
      >
        <span class="grow" /><button
          class="btn act"
          :disabled="busy"
          @click="hours(proposed.map((p) => p.id))"
        >
          Take all {{ proposed.length }}
        </button>
      </div>
      <table
        v-if="usage.hours.length"
        class="book"
      >
        <thead>
          <tr>
            <th>Code</th>
            <th>Name</th>
            <th class="right">Known</th>
            <th class="right">Book</th>
            <th class="right">Middle</th>
            <th class="right">Half of them</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="h in usage.hours"
            :key="h.id"
          >
            <td class="num">
              <NuxtLink :to="`/price-book/${h.id}`">{{ h.code }}</NuxtLink>
            </td>
            <td>{{ h.name }}</td>
            <td class="right num">{{ h.actual.of }}</td>
            <td class="right num">{{ hoursMinutes(h.actual.quotedSeconds) }}</td>
            <td
              class="right num"
              :class="{ late: h.actual.medianSeconds > h.actual.quotedSeconds }"
            >
              {{ hoursMinutes(h.actual.medianSeconds) }}
            </td>
            <td class="right num quiet">
              {{ hoursMinutes(h.actual.fromSeconds) }}–{{ hoursMinutes(h.actual.toSeconds) }}
            </td>
            <td class="right">
              <button
                v-if="owns && h.actual.proposedSeconds !== null"
                class="btn"
                :disabled="busy"
                :aria-label="`Let ${h.name} take ${hoursMinutes(h.actual.proposedSeconds)}`"
                @click="hours([h.id])"
              >
                Let it be {{ hoursMinutes(h.actual.proposedSeconds) }}
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <p
        v-else
        class="empty sheet"
      >
        No finished work order has one task alone yet.
      </p></template
    >
    <template v-else-if="view === 'dormant'"
      ><div class="row">
        <p class="quiet grow">
          {{ usage.dormantCount }} tasks, parts and assemblies were not sold, nor stood in anything
          that was.
        </p>
        <template v-if="owns && usage.dormant.length"
          ><button
            class="btn"
            @click="picked = picked.length ? [] : usage.dormant.map((d) => d.id)"
          >
            {{ picked.length ? 'Choose none' : `Choose these ${usage.dormant.length}` }}</button
          ><button
            class="btn act"
            :disabled="busy || !picked.length"
            @click="retire"
          >
            Retire {{ picked.length || '' }}
          </button></template
        >
      </div>
      <table
        v-if="usage.dormant.length"
        class="book"
      >
        <thead>
          <tr>
            <th v-if="owns" />
            <th>Code</th>
            <th>Name</th>
            <th>Category</th>
            <th class="right">Price</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="d in usage.dormant"
            :key="d.id"
          >
            <td v-if="owns">
              <input
                v-model="picked"
                type="checkbox"
                :value="d.id"
                :aria-label="`Choose ${d.name}`"
              />
            </td>
            <td class="num">
              <NuxtLink :to="`/price-book/${d.id}`">{{ d.code }}</NuxtLink>
            </td>
            <td>{{ d.name }}</td>
            <td class="quiet">{{ d.category }}</td>
            <td class="right num">{{ show(d.price) }}</td>
          </tr>
        </tbody>
      </table>
      <p
        v-else
        class="empty sheet"
      >
        Everything was sold.
      </p></template
    >
    <template v-else
      ><p
        v-if="!usage.alike.length"
        class="empty sheet"
      >
        No two entries are called alike.
      </p>
      <div
        v-for="(g, i) in usage.alike"
        :key="i"
        class="sheet"
      >
        <table class="book">
          <tbody>
            <tr
              v-for="e in g.entries"
              :key="e.id"
            >
              <td class="num code">
                <NuxtLink :to="`/price-book/${e.id}`">{{ e.code }}</NuxtLink>
              </td>
              <td>{{ e.name }}</td>
              <td class="right num">{{ show(e.price) }}</td>
              <td class="right last">
                {{ e.last ? `last sold ${session.day(e.last)}` : 'never sold' }}
              </td>
            </tr>
          </tbody>
        </table>
      </div></template
    >
  </section>
  <p
    v-else
    class="empty"
    role="status"
  >
    {{ problem?.message ?? 'Adding up…' }}
  </p>
</template>

<style scoped>
.page {
  padding: 18px 20px;
  display: flex;
  flex-direction: column;
  gap: 12px;
}
.views {
  gap: 0;
  flex-wrap: wrap;
}
.views .btn + .btn {
  margin-left: -1px;
}
.code {
  width: 90px;
}
.last {
  width: 160px;
  color: var(--ink-2);
}
</style>
