<script setup lang="ts">
// The price book: found by words, kind and category; prices are typed into it, looked at and kept in one act; an entry opens with what its
// price is made of.
import { computed, nextTick, onMounted, ref, shallowRef, watch } from 'vue'
import BookGrid from '~/components/pricebook/BookGrid.vue'
import BookPaper from '~/components/pricebook/BookPaper.vue'
import PricePreview from '~/components/pricebook/PricePreview.vue'
import type { Found } from '~/lib/book'
import { useFilter } from '~/lib/useFilter'
import { useBook } from '~/lib/useBook'
import RetiredEntries from '~/pricebook/book/RetiredEntries.vue'
import TypedOver from '~/pricebook/book/TypedOver.vue'
import { usePriceChanges } from '~/pricebook/book/usePriceChanges'
import { usePriceEdits } from '~/stores/priceEdits'
import { useSession } from '~/stores/session'
import type { SortKey } from '~/workers/book.worker'
import ActButton from '~/base/ActButton.vue'
import PressOne from '~/base/PressOne.vue'
import Choice from '~/base/Choice.vue'
import TextInput from '~/base/TextInput.vue'
import Notice from '~/base/Notice.vue'

definePageMeta({ layout: 'office' })
const session = useSession()
const edits = usePriceEdits()
const { state, turn, list, refresh } = useBook()
const owns = computed(() => session.may('pricebook.change'))
const kind = useFilter<'' | Found['kind']>('kind')
const category = useFilter('category')
const words = useFilter('words')
const sort = useFilter<SortKey>('sort', 'code')
const descending = ref(false)
const retired = ref(false)
const rows = shallowRef<Found[] | null>(null)
const grid = ref<InstanceType<typeof BookGrid>>()
onMounted(() => edits.open(session.me!.person.id))
let asked = 0
watch([words, kind, category, sort, descending, turn], async () => {
  if (!state.value) return
  const mine = ++asked
  const got = await list(words.value.trim(), {
    kind: kind.value || undefined,
    category: category.value || undefined,
    sort: sort.value,
    descending: descending.value,
  })
  if (mine === asked) rows.value = got
})
function order(by: SortKey) {
  descending.value = sort.value === by ? !descending.value : by === 'used' || by === 'lastSold'
  sort.value = by
}
const KINDS = [
  ['', 'All'],
  ['task', 'Tasks'],
  ['part', 'Parts'],
  ['assembly', 'Assemblies'],
  ['labour', 'Labour'],
  ['charge', 'Charges'],
] as const
const changes = usePriceChanges(refresh)
/** Leads to the first amount that cannot be read, also where the filters hide its row. */
function showWrong() {
  const { id, column } = edits.wrong[0]!
  if (grid.value?.show(id, column)) return
  words.value = ''
  kind.value = ''
  category.value = ''
  watch(rows, () => void nextTick(() => grid.value?.show(id, column)), { once: true })
}
const paper = ref(false)
</script>

<template>
  <RetiredEntries
    v-if="retired"
    :kind="kind"
    :category="category"
    @close="retired = false"
  />
  <section
    v-else
    class="page"
  >
    <div class="row head">
      <h1>
        Price book <span class="quiet num">{{ rows?.length ?? '' }}</span>
      </h1>
      <span
        class="row kinds"
        role="group"
        aria-label="Kind"
        ><PressOne
          v-model="kind"
          :options="KINDS"
      /></span>
      <Choice
        v-model="category"
        aria-label="Category"
        style="width: 150px"
        :options="[
          { value: '', label: 'any category' },
          ...(state?.categories ?? []).map((c) => ({
            value: c.path,
            label: c.path,
          })),
        ]"
      />
      <TextInput
        v-model="words"
        data-filter
        placeholder="Code, name, category"
        aria-label="Code, name, category"
        style="width: 210px"
        @keydown.enter.prevent="grid?.focus()"
      />
    </div>
    <div class="row acts">
      <NuxtLink
        v-if="owns"
        class="btn act"
        to="/price-book/new"
        >New entry</NuxtLink
      ><NuxtLink
        v-if="owns"
        class="btn"
        to="/price-book/reprice"
        >Change prices…</NuxtLink
      ><NuxtLink
        class="btn"
        to="/price-book/rules"
        >Rules</NuxtLink
      ><NuxtLink
        class="btn"
        to="/price-book/usage"
        >What sells</NuxtLink
      ><NuxtLink
        v-if="owns"
        class="btn"
        to="/price-book/lists"
        >Price lists…</NuxtLink
      ><ActButton @click="paper = true"> On paper…</ActButton><span class="grow" /><ActButton
        quiet
        @click="retired = true"
      >
        Retired
      </ActButton>
    </div>
    <Notice :of="changes.problem" />
    <p
      v-if="changes.said"
      class="note"
      role="status"
    >
      {{ changes.said }}
    </p>
    <p
      v-if="changes.done"
      class="note row"
      role="status"
    >
      <span class="grow">{{
        changes.done.state === 'waiting'
          ? `${changes.done.entries} prices change on ${session.day(changes.done.holdsFrom)}.`
          : `${changes.done.entries} prices changed.`
      }}</span><ActButton
        :disabled="changes.busy"
        @click="changes.undo"
      >
        Undo
      </ActButton>
    </p>
    <TypedOver
      v-if="edits.ids.length && !changes.preview"
      :busy="changes.busy"
      @look="changes.look"
      @wrong="showWrong"
      @forget="changes.left = ''"
    />
    <p
      v-if="changes.left && !changes.preview"
      class="note warn"
      role="status"
    >
      Not everything that was pasted has a place: {{ changes.left }}.
    </p>
    <template v-if="changes.preview"
      ><div class="row">
        <ActButton @click="changes.back"> ← Go on typing </ActButton>
      </div>
      <p
        v-if="!changes.preview.rows.length"
        class="empty sheet"
      >
        This changes no price.
      </p>
      <PricePreview
        v-else
        :preview="changes.preview"
        :busy="changes.busy"
        act
        @change="changes.change"
        @propose="changes.propose"
    /></template>
    <template v-else>
      <BookGrid
        v-if="rows?.length"
        ref="grid"
        :rows="rows"
        :may="owns"
        :sort="words.trim() ? '' : sort"
        :descending="descending"
        @sort="order"
        @look="changes.look"
        @left="changes.left = $event"
      />
      <p
        v-else-if="rows"
        class="empty sheet"
      >
        {{
          words || kind || category
            ? 'Nothing fits these words.'
            : 'The price book is empty. Make an entry, or take a price list in.'
        }}
      </p>
      <p
        v-else
        class="empty"
        role="status"
      >
        Opening the price book…
      </p>
      <p
        v-if="rows?.length && owns"
        class="small quiet keys"
      >
        Type over a cost or a price · <kbd>Enter</kbd> next · <kbd>Shift ↓</kbd> choose several ·
        <kbd>Ctrl D</kbd> fill down · <kbd>Ctrl V</kbd> paste from a spreadsheet ·
        <kbd>Ctrl Z</kbd> undo
      </p>
    </template>
    <BookPaper
      v-if="paper"
      :categories="state?.categories ?? []"
      @close="paper = false"
    />
  </section>
</template>

<style scoped>
.page {
  height: 100%;
  min-height: 560px;
}
.head {
  gap: 10px;
  flex-wrap: wrap;
}
.head h1 {
  white-space: nowrap;
  flex: 1;
}
.kinds {
  gap: 0;
}
.kinds .btn + .btn {
  margin-left: -1px;
}
.acts {
  flex-wrap: wrap;
}
.keys {
  flex: none;
}
</style>
