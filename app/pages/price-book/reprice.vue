<script setup lang="ts">
// Changing many prices: a rule over a selection, looked at entry by entry before anything changes; made from a day on; taken back in one act.
import { computed, reactive, ref, watch } from 'vue'
import type { Answer } from '~~/shared/api'
import PricePreview from '~/components/pricebook/PricePreview.vue'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { SHOWS } from '~/lib/live'
import { useLoad } from '~/lib/useLoad'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import Field from '~/base/Field.vue'
import FigureInput from '~/base/FigureInput.vue'
import DataTable from '~/base/DataTable.vue'
import Notice from '~/base/Notice.vue'

definePageMeta({ layout: 'office' })
const session = useSession()
const { data: rules } = useLoad(() => call('pricing'), 0, SHOWS.book)
const { data: past, refresh } = useLoad(() => call('priceChanges'), 0, SHOWS.book)
const { busy, problem, act } = useAct()
const KINDS = [
  ['part', 'parts'],
  ['task', 'tasks'],
  ['assembly', 'assemblies'],
  ['labour', 'labour rates'],
  ['charge', 'charges'],
] as const
const RULES = [
  ['price_percent', 'move the price by per cent'],
  ['cost_percent', 'move the cost by per cent'],
  ['set', 'set the price to'],
  ['by_rule', 'price by the rules again'],
] as const
const wish = reactive({
  kind: 'part' as '' | 'part' | 'task' | 'labour' | 'charge' | 'assembly',
  category: '',
  supplier: '',
  rule: 'price_percent' as 'price_percent' | 'cost_percent' | 'set' | 'by_rule',
  percent: '',
  price: '',
})
const preview = ref<Answer<'previewPrices'> | null>(null)
const said = ref('')
const body = computed(() => ({
  kind: wish.kind || undefined,
  category: wish.category,
  supplier: wish.supplier,
  rule: wish.rule,
  percent: wish.rule.endsWith('percent') ? wish.percent.trim() : '',
  price: wish.rule === 'set' ? wish.price.trim() : '',
}))
// What was looked at is what is done: another wish wants another look.
watch(wish, () => {
  preview.value = null
})
const look = () =>
  act(async () => {
    said.value = ''
    preview.value = null
    preview.value = await call('previewPrices', { body: body.value })
  })
let actId = newId()
const change = (how: { title: string; holdsFrom: string }) =>
  act(async () => {
    const name =
      how.title ||
      `${KINDS.find((k) => k[0] === wish.kind)?.[1] ?? 'all'}${wish.category ? `, ${wish.category}` : ''}: ${RULES.find((r) => r[0] === wish.rule)![1]} ${wish.percent || wish.price}`.trim()
    const done = await call('changePrices', {
      body: {
        id: actId,
        title: name,
        holdsFrom: how.holdsFrom || null,
        stamp: preview.value!.stamp,
        ...body.value,
      },
    })
    actId = newId()
    preview.value = null
    said.value =
      done.state === 'waiting'
        ? `${done.entries} prices change on ${session.day(done.holdsFrom)}.`
        : `${done.entries} prices changed.`
    await refresh()
  })
const undo = (id: string) =>
  act(async () => {
    const { left } = await call('undoPrices', { params: { id } })
    said.value = left ? `Taken back, but for ${left} that somebody changed since.` : 'Taken back.'
    preview.value = null
    await refresh()
  })
const wrong = (path: string) => problem.value?.at(path) ?? ''
</script>

<template>
  <section
    v-if="rules"
    class="page"
  >
    <div class="row">
      <NuxtLink
        class="btn plain"
        to="/price-book"
        aria-label="Back to the price book"
        >←</NuxtLink
      >
      <h1 class="grow">Change prices</h1>
    </div>
    <form
      class="sheet box"
      @submit.prevent="look"
    >
      <div class="row top">
        <Field
          label="Which"
          :error="wrong('kind')"
          ><Choice
            v-model="wish.kind"
            :options="[
              { value: '', label: 'everything' },
              ...KINDS.map(([k, name]) => ({ value: k, label: name })),
            ]" /></Field
        ><Field label="Category"
          ><Choice
            v-model="wish.category"
            :options="[
              { value: '', label: 'any' },
              ...rules.categories.map((c) => ({ value: c, label: c })),
            ]" /></Field
        ><Field
          v-if="rules.suppliers.length"
          label="Supplier"
          ><Choice
            v-model="wish.supplier"
            :options="[
              { value: '', label: 'any' },
              ...rules.suppliers.map((s) => ({ value: s, label: s })),
            ]"
        /></Field>
        <Field label="What is done"
          ><Choice
            v-model="wish.rule"
            :options="RULES.map(([k, name]) => ({ value: k, label: name }))" /></Field
        ><Field
          v-if="wish.rule.endsWith('percent')"
          label="Per cent"
          :error="wrong('percent')"
          ><FigureInput
            v-model="wish.percent"
            placeholder="4 or -2.5"
            style="width: 110px" /></Field
        ><Field
          v-if="wish.rule === 'set'"
          label="Price"
          :error="wrong('price')"
          ><FigureInput
            v-model="wish.price"
            style="width: 110px"
        /></Field>
        <span class="grow" /><ActButton
          primary
          submit
          class="look"
          :disabled="busy"
        >
          Look at it first
        </ActButton>
      </div>
    </form>
    <Notice :of="problem" />
    <p
      v-if="said"
      class="note"
      role="status"
    >
      {{ said }}
    </p>
    <p
      v-if="busy && !preview"
      class="quiet"
      role="status"
    >
      Working it out…
    </p>
    <template v-if="preview">
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
      />
    </template>
    <template v-if="past?.items.length"
      ><h2>Changes so far</h2>
      <DataTable
        :rows="past.items"
        :row-key="(b) => b.id"
        :columns="[
          { key: 'made', label: 'Made', look: 'nowrap', text: (b) => session.dayTime(b.madeAt) },
          { key: 'what', label: 'What', text: (b) => b.title },
          { key: 'holdsFrom', label: 'Holds from', look: 'nowrap' },
          { key: 'prices', label: 'Prices', figures: true, text: (b) => b.entries },
          { key: 'by', label: 'By', look: 'quiet', text: (b) => b.madeBy },
          { key: 'act', right: true },
        ]"
      >
        <template #holdsFrom="{ row: b }"
          >{{ session.day(b.holdsFrom) }}
          <span
            v-if="b.state === 'waiting'"
            class="chip soon"
            >waits for its day</span
          ></template
        >

        <template #act="{ row: b }"
          ><span
            v-if="b.state === 'undone'"
            class="quiet"
            >taken back</span
          ><ActButton
            v-else
            :disabled="busy"
            :aria-label="`Take back: ${b.title}`"
            @click="undo(b.id)"
          >
            Take back
          </ActButton></template
        ></DataTable
      ></template
    >
  </section>
  <p
    v-else
    class="empty"
    role="status"
  >
    Opening…
  </p>
</template>

<style scoped>
.box {
  padding: 14px;
  display: flex;
  flex-direction: column;
  gap: 10px;
}
.top {
  align-items: flex-start;
  gap: 12px;
}
.look {
  margin-top: 22px;
}
i.wrong {
  font-style: normal;
  max-width: 180px;
}
p {
  margin: 0 0 6px;
}
</style>
