<script setup lang="ts">
// The price book: found by words, kind and category; prices are typed into it, looked at and kept in one act; an entry opens with what its
// price is made of.
import { computed, nextTick, onMounted, ref, shallowRef, watch } from 'vue'
import LedgerList from '~/components/base/LedgerList.vue'
import BookGrid from '~/components/pricebook/BookGrid.vue'
import BookPaper from '~/components/pricebook/BookPaper.vue'
import PricePreview from '~/components/pricebook/PricePreview.vue'
import type { Answer } from '~~/shared/api'
import { call, newId } from '~/lib/api'
import type { Found } from '~/lib/book'
import { useBook } from '~/lib/useBook'
import { useAct } from '~/lib/useAct'
import { usePriceEdits } from '~/stores/priceEdits'
import { useSession } from '~/stores/session'
import type { SortKey } from '~/workers/book.worker'
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import TextInput from '~/base/TextInput.vue'
import Notice from '~/base/Notice.vue'

definePageMeta({ layout: 'office' })
const session = useSession()
const edits = usePriceEdits()
const { state, turn, list, refresh } = useBook()
const owns = computed(() => session.may('pricebook.change'))
const show = (amount: string | null) =>
  amount === null ? '' : session.money({ amount, currency: session.me!.company.currency }, false)
const kind = ref<'' | Found['kind']>('')
const category = ref('')
const words = ref('')
const sort = ref<SortKey>('code')
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
// Keeping what was typed: looked at first, made, and taken back in one act.
const { busy, problem, act } = useAct()
const preview = ref<Answer<'previewPrices'> | null>(null)
const done = ref<Answer<'changePrices'> | null>(null)
const said = ref('')
const left = ref('')
const look = () =>
  act(async () => {
    if (!edits.ids.length || edits.wrong.length) return
    done.value = null
    said.value = left.value = ''
    preview.value = await call('previewPrices', {
      body: { rule: 'each', each: edits.each() },
    })
  })
/** Leads to the first amount that cannot be read, also where the filters hide its row. */
function showWrong() {
  const { id, column } = edits.wrong[0]!
  if (grid.value?.show(id, column)) return
  words.value = ''
  kind.value = ''
  category.value = ''
  watch(rows, () => void nextTick(() => grid.value?.show(id, column)), { once: true })
}
const propose = async (ids: string[]) => {
  edits.follow(ids)
  await look()
}
let actId = newId()
const change = (how: { title: string; holdsFrom: string }) =>
  act(async () => {
    done.value = await call('changePrices', {
      body: {
        id: actId,
        title: how.title || `${edits.ids.length} prices by hand`,
        holdsFrom: how.holdsFrom || null,
        stamp: preview.value!.stamp,
        rule: 'each',
        each: edits.each(),
      },
    })
    actId = newId()
    preview.value = null
    edits.clear()
    await refresh()
  })
const undo = () =>
  act(async () => {
    const { left } = await call('undoPrices', { params: { id: done.value!.id } })
    said.value = left ? `Taken back, but for ${left} that somebody changed since.` : 'Taken back.'
    done.value = null
    await refresh()
  })
function back() {
  preview.value = null
  problem.value = null
}
const paper = ref(false)
const gone = (q: string, after?: string) =>
  call('priceBook', {
    query: {
      q,
      after,
      kind: kind.value || undefined,
      category: category.value || undefined,
      retired: 'yes',
    },
  })
</script>

<template>
  <LedgerList
    v-if="retired"
    title="Retired"
    filter="Code, name, category"
    :load="gone"
    :watch-key="`${kind} ${category}`"
    empty="Nothing was retired."
    picks
    :columns="[
      { key: 'code', label: 'Code', look: 'num' },
      { key: 'name', label: 'Name', text: (item) => item.name },
      { key: 'category', label: 'Category', look: 'quiet', text: (item) => item.category },
      { key: 'price', label: 'Price', figures: true, text: (item) => show(item.price) },
    ]"
    @pick="(item) => navigateTo(`/price-book/${item.id}`)"
  >
    <template #acts
      ><ActButton @click="retired = false"> Back to what is on sale </ActButton></template
    >

    <template #code="{ row: item }"
      ><NuxtLink :to="`/price-book/${item.id}`">{{ item.code }}</NuxtLink></template
    >
  </LedgerList>
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
        ><ActButton
          v-for="[k, name] in KINDS"
          :key="k"
          :on="kind === k"
          :aria-pressed="kind === k"
          @click="kind = k"
        >
          {{ name }}
        </ActButton></span
      >
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
    <p
      v-if="state?.kept"
      class="note warn"
      role="status"
    >
      The server does not answer. This is the price book as it was last here.
    </p>
    <Notice :of="problem" />
    <p
      v-if="said"
      class="note"
      role="status"
    >
      {{ said }}
    </p>
    <p
      v-if="done"
      class="note row"
      role="status"
    >
      <span class="grow">{{
        done.state === 'waiting'
          ? `${done.entries} prices change on ${session.day(done.holdsFrom)}.`
          : `${done.entries} prices changed.`
      }}</span><ActButton
        :disabled="busy"
        @click="undo"
      >
        Undo
      </ActButton>
    </p>
    <div
      v-if="edits.ids.length && !preview"
      class="row note warn"
      role="status"
    >
      <span class="grow"
        ><b>{{ edits.ids.length }}</b>
        {{ edits.ids.length === 1 ? 'entry is' : 'entries are' }} typed over and not kept yet.<span
          v-if="edits.wrong.length"
          class="late"
        >
          “{{ edits.wrong[0]!.text }}” is no amount<template v-if="edits.wrong.length > 1"
            >, and {{ edits.wrong.length - 1 }} more</template
          >.
          <ActButton
            quiet
            class="small"
            @click="showWrong"
          >
            Show it
          </ActButton></span
        ></span
      ><ActButton
        :disabled="!edits.past.length"
        @click="edits.undo()"
      >
        Undo typing</ActButton
      ><ActButton
        @click="
          () => {
            edits.step({})
            left = ''
          }
        "
      >
        Forget them</ActButton
      ><ActButton
        primary
        :disabled="busy || edits.wrong.length > 0"
        @click="look"
      >
        Look at {{ edits.ids.length }} {{ edits.ids.length === 1 ? 'change' : 'changes' }}
        <kbd>Ctrl ↵</kbd>
      </ActButton>
    </div>
    <p
      v-if="left && !preview"
      class="note warn"
      role="status"
    >
      Not everything that was pasted has a place: {{ left }}.
    </p>
    <template v-if="preview"
      ><div class="row">
        <ActButton @click="back"> ← Go on typing </ActButton>
      </div>
      <p
        v-if="!preview.rows.length"
        class="empty sheet"
      >
        This changes no price.
      </p>
      <PricePreview
        v-else
        :preview="preview"
        :busy="busy"
        act
        @change="change"
        @propose="propose"
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
        @look="look"
        @left="left = $event"
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
