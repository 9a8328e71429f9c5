<script setup lang="ts">
// Whatever waits for somebody, place by place: why, and what to do next. Each place leads to its own list.
import { watch } from 'vue'
import { telling } from '~/dispatch/visit/telling'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'
import DataTable from '~/base/DataTable.vue'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'

definePageMeta({ layout: 'office' })
const session = useSession()
const { data, problem, refresh } = useAnswer('toActOn', undefined, SHOWS.waiting)
// A customer who has to be told is told here.
const route = useRoute()
watch(
  () => route.query.tell,
  (visitId) => {
    if (!visitId) return
    telling.value = String(visitId)
    void navigateTo({ hash: route.hash, query: {} }, { replace: true })
  },
  { immediate: true },
)
const COLUMNS = [
  { key: 'what', label: 'What' },
  { key: 'whose', label: 'Whose' },
  { key: 'reason', label: 'Why it waits' },
  { key: 'next', label: 'What to do' },
  { key: 'sum', label: 'Comes to', figures: true },
] as const
</script>

<template>
  <div
    v-if="data"
    class="page stack"
  >
    <h1>To act on</h1>
    <p class="quiet">
      Everything that waits for somebody stands in one of these places, and in no other. What is not
      here is on its way, or at rest.
    </p>
    <Notice :of="problem" />
    <nav
      class="row wrap"
      aria-label="Places"
    >
      <a
        v-for="p in data.places.filter(({ count }) => count)"
        :key="p.place"
        class="btn"
        :href="`#${p.place}`"
        >{{ p.says }} <b class="num">{{ p.count }}</b></a
      >
    </nav>
    <p
      v-if="data.places.every(({ count }) => !count)"
      class="empty"
    >
      Nothing waits for anybody.
    </p>
    <template
      v-for="p in data.places"
      :key="p.place"
    >
      <section
        v-if="p.count"
        :aria-labelledby="p.place"
      >
        <h2
          :id="p.place"
          class="row"
        >
          <NuxtLink :to="p.to">{{ p.says }}</NuxtLink>
          <span class="num">{{ p.count }}</span>
          <span class="grow" />
          <span
            v-if="p.sum"
            class="num"
            >{{ session.money(p.sum) }}</span
          >
        </h2>
        <div class="sheet">
          <DataTable
            :label="p.says"
            :rows="p.items"
            :row-key="(item) => `${item.kind} ${item.id}`"
            :columns="COLUMNS"
          >
            <template #what="{ row: item }"
              ><NuxtLink :to="item.to">{{ item.label }}</NuxtLink></template
            >
            <template #whose="{ row: item }">{{ item.whose }}</template>
            <template #reason="{ row: item }">{{ item.reason }}</template>
            <template #next="{ row: item }">{{ item.next }}</template>
            <template #sum="{ row: item }">{{ item.sum ? session.money(item.sum) : '' }}</template>
          </DataTable>
        </div>
        <p
          v-if="p.count > p.items.length"
          class="quiet small"
        >
          The oldest {{ p.items.length }} of {{ p.count }}.
          <NuxtLink :to="p.to">All of them</NuxtLink>
        </p>
      </section>
    </template>
  </div>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
    says="Looking through everything that waits…"
  />
</template>
