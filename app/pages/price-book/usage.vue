<script setup lang="ts">
// How the book is used: what sells, how long tasks really take, what nobody sells, what is easily taken for something else.
import { computed, ref } from 'vue'
import type { Answer } from '~~/shared/api'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useAnswer } from '~/lib/useAnswer'
import AlikeTables from '~/pricebook/usage/AlikeTables.vue'
import DormantTable from '~/pricebook/usage/DormantTable.vue'
import HoursTable from '~/pricebook/usage/HoursTable.vue'
import SoldTable from '~/pricebook/usage/SoldTable.vue'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
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
const takeHours = (entries: { id: string; seconds: number }[]) =>
  call('takeHours', { body: { id: newId(), entries } })
const take = (hours: Answer<'bookUsage'>['hours']) =>
  act(async () => {
    const becomes = hours.map((h) => ({ id: h.id, seconds: h.actual.proposedSeconds! }))
    const was = hours.map((h) => ({ id: h.id, seconds: h.actual.quotedSeconds }))
    await takeHours(becomes)
    const tasks = hours.length === 1 ? 'task has' : 'tasks have'
    said.value = {
      text: `${hours.length} ${tasks} the hours that were worked.`,
      // The hours of before, taken as hours: the prices that followed follow back.
      undo: () => takeHours(was),
    }
    await refresh()
  })
const retire = (ids: string[]) =>
  act(async () => {
    const { count } = await call('retireEntries', { body: { ids, retired: true } })
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
    <SoldTable
      v-if="view === 'sold'"
      :sold="usage.sold"
    />
    <HoursTable
      v-else-if="view === 'hours'"
      :hours="usage.hours"
      :owns="owns"
      :busy="busy"
      @take="take"
    />
    <DormantTable
      v-else-if="view === 'dormant'"
      :dormant="usage.dormant"
      :count="usage.dormantCount"
      :owns="owns"
      :busy="busy"
      @retire="retire"
    />
    <AlikeTables
      v-else
      :alike="usage.alike"
    />
  </section>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
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
</style>
