<script setup lang="ts">
// How the book is used: what sells, how long tasks really take, what nobody sells, what is easily taken for something else.
import { computed, ref } from 'vue'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import DataTable from '~/base/DataTable.vue'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'

definePageMeta({ layout: 'office' })
const session = useSession()
const owns = computed(() => session.may('pricebook.change'))
const { data: usage, problem, refresh } = useAnswer('bookUsage')
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
        ><ActButton
          v-for="[v, name] in VIEWS"
          :key="v"
          :on="view === v"
          :aria-pressed="view === v"
          @click="view = v"
        >
          {{ name
          }}<template v-if="v === 'hours' && proposed.length"> · {{ proposed.length }}</template
          ><template v-if="v === 'alike' && usage.alike.length">
            · {{ usage.alike.length }}</template
          >
        </ActButton></span
      >
    </div>
    <Notice :of="failed" />
    <p
      v-if="said"
      class="note row"
      role="status"
    >
      <span class="grow">{{ said.text }}</span><ActButton
        :disabled="busy"
        @click="undo"
      >
        Undo
      </ActButton>
    </p>
    <template v-if="view === 'sold'"
      ><DataTable
        v-if="usage.sold.length"
        :rows="usage.sold"
        :row-key="(s) => s.id"
        picks
        :columns="[
          { key: 'code', label: 'Code', look: 'num' },
          { key: 'name', label: 'Name', text: (s) => s.name },
          { key: 'lines', label: 'Lines', figures: true, text: (s) => s.lines },
          { key: 'sold', label: 'Sold', figures: true, text: (s) => s.quantity },
          { key: 'net', label: 'Net', figures: true },
          { key: 'book', label: 'Book', figures: true, look: 'quiet', text: (s) => show(s.book) },
          {
            key: 'usuallyAt',
            label: 'Usually at',
            figures: true,
            tone: (s) => ({ soon: differs(s.book, s.usual) }),
            text: (s) => show(s.usual),
          },
          {
            key: 'last',
            label: 'Last',
            right: true,
            look: 'nowrap',
            text: (s) => (s.last ? session.day(s.last) : ''),
          },
        ]"
        @pick="(s) => navigateTo(`/price-book/${s.id}`)"
        ><template #code="{ row: s }"
          ><NuxtLink :to="`/price-book/${s.id}`">{{ s.code }}</NuxtLink></template
        >

        <template #net="{ row: s }"
          ><b>{{ session.money(s.net, false) }}</b></template
        >
      </DataTable>
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
        <span class="grow" /><ActButton
          primary
          :disabled="busy"
          @click="hours(proposed.map((p) => p.id))"
        >
          Take all {{ proposed.length }}
        </ActButton>
      </div>
      <DataTable
        v-if="usage.hours.length"
        :rows="usage.hours"
        :row-key="(h) => h.id"
        :columns="[
          { key: 'code', label: 'Code', look: 'num' },
          { key: 'name', label: 'Name', text: (h) => h.name },
          { key: 'known', label: 'Known', figures: true, text: (h) => h.actual.of },
          {
            key: 'book',
            label: 'Book',
            figures: true,
            text: (h) => hoursMinutes(h.actual.quotedSeconds),
          },
          {
            key: 'middle',
            label: 'Middle',
            figures: true,
            tone: (h) => ({ late: h.actual.medianSeconds > h.actual.quotedSeconds }),
            text: (h) => hoursMinutes(h.actual.medianSeconds),
          },
          { key: 'halfOfThem', label: 'Half of them', figures: true, look: 'quiet' },
          { key: 'act', right: true },
        ]"
        ><template #code="{ row: h }"
          ><NuxtLink :to="`/price-book/${h.id}`">{{ h.code }}</NuxtLink></template
        >

        <template #halfOfThem="{ row: h }"
          >{{ hoursMinutes(h.actual.fromSeconds) }}–{{ hoursMinutes(h.actual.toSeconds) }}</template
        >
        <template #act="{ row: h }"
          ><ActButton
            v-if="owns && h.actual.proposedSeconds !== null"
            :disabled="busy"
            :aria-label="`Let ${h.name} take ${hoursMinutes(h.actual.proposedSeconds)}`"
            @click="hours([h.id])"
          >
            Let it be {{ hoursMinutes(h.actual.proposedSeconds) }}
          </ActButton></template
        ></DataTable
      >
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
          ><ActButton @click="picked = picked.length ? [] : usage.dormant.map((d) => d.id)">
            {{ picked.length ? 'Choose none' : `Choose these ${usage.dormant.length}` }}</ActButton
          ><ActButton
            primary
            :disabled="busy || !picked.length"
            @click="retire"
          >
            Retire {{ picked.length || '' }}
          </ActButton></template
        >
      </div>
      <DataTable
        v-if="usage.dormant.length"
        :rows="usage.dormant"
        :row-key="(d) => d.id"
        :columns="[
          ...(owns ? [{ key: 'c1' }] : []),
          { key: 'code', label: 'Code', look: 'num' },
          { key: 'name', label: 'Name', text: (d) => d.name },
          { key: 'category', label: 'Category', look: 'quiet', text: (d) => d.category },
          { key: 'price', label: 'Price', figures: true, text: (d) => show(d.price) },
        ]"
        ><template #c1="{ row: d }"
          ><Check
            v-model="picked"
            :value="d.id"
            :label="`Choose ${d.name}`"
        /></template>
        <template #code="{ row: d }"
          ><NuxtLink :to="`/price-book/${d.id}`">{{ d.code }}</NuxtLink></template
        >
      </DataTable>
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
        <DataTable
          :rows="g.entries"
          :row-key="(e) => e.id"
          :columns="[
            { key: 'c1', look: 'code num' },
            { key: 'c2', text: (e) => e.name },
            { key: 'c3', figures: true, text: (e) => show(e.price) },
            {
              key: 'c4',
              right: true,
              look: 'last',
              text: (e) => (e.last ? `last sold ${session.day(e.last)}` : 'never sold'),
            },
          ]"
          ><template #c1="{ row: e }"
            ><NuxtLink :to="`/price-book/${e.id}`">{{ e.code }}</NuxtLink></template
          >
        </DataTable>
      </div></template
    >
  </section>
  <Pending
    v-else
    :problem="problem"
    says="Adding up…"
  />
</template>

<style scoped>
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
