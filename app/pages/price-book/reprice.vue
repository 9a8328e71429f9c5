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
        <label class="field"
          ><span>Which</span
          ><select
            v-model="wish.kind"
            class="plain"
          >
            <option value="">everything</option>
            <option
              v-for="[k, name] in KINDS"
              :key="k"
              :value="k"
            >
              {{ name }}
            </option></select
          ><i
            v-if="wrong('kind')"
            class="wrong"
            >{{ wrong('kind') }}</i
          ></label
        ><label class="field"
          ><span>Category</span
          ><select
            v-model="wish.category"
            class="plain"
          >
            <option value="">any</option>
            <option
              v-for="c in rules.categories"
              :key="c"
              :value="c"
            >
              {{ c }}
            </option>
          </select></label
        ><label
          v-if="rules.suppliers.length"
          class="field"
          ><span>Supplier</span
          ><select
            v-model="wish.supplier"
            class="plain"
          >
            <option value="">any</option>
            <option
              v-for="s in rules.suppliers"
              :key="s"
            >
              {{ s }}
            </option>
          </select></label
        >
        <label class="field"
          ><span>What is done</span
          ><select
            v-model="wish.rule"
            class="plain"
          >
            <option
              v-for="[k, name] in RULES"
              :key="k"
              :value="k"
            >
              {{ name }}
            </option>
          </select></label
        ><label
          v-if="wish.rule.endsWith('percent')"
          class="field"
          ><span>Per cent</span
          ><input
            v-model="wish.percent"
            class="plain num"
            inputmode="decimal"
            placeholder="4 or -2.5"
            style="width: 110px"
          /><i
            v-if="wrong('percent')"
            class="wrong"
            >{{ wrong('percent') }}</i
          ></label
        ><label
          v-if="wish.rule === 'set'"
          class="field"
          ><span>Price</span
          ><input
            v-model="wish.price"
            class="plain num"
            inputmode="decimal"
            style="width: 110px"
          /><i
            v-if="wrong('price')"
            class="wrong"
            >{{ wrong('price') }}</i
          ></label
        >
        <span class="grow" /><button
          class="btn act look"
          :disabled="busy"
        >
          Look at it first
        </button>
      </div>
    </form>
    <p
      v-if="problem"
      class="note bad"
      role="alert"
    >
      {{ problem.message }}
    </p>
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
      <table class="book">
        <thead>
          <tr>
            <th>Made</th>
            <th>What</th>
            <th>Holds from</th>
            <th class="right">Prices</th>
            <th>By</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="b in past.items"
            :key="b.id"
          >
            <td class="nowrap">{{ session.dayTime(b.madeAt) }}</td>
            <td>{{ b.title }}</td>
            <td class="nowrap">
              {{ session.day(b.holdsFrom) }}
              <span
                v-if="b.state === 'waiting'"
                class="chip soon"
                >waits for its day</span
              >
            </td>
            <td class="right num">{{ b.entries }}</td>
            <td class="quiet">{{ b.madeBy }}</td>
            <td class="right">
              <span
                v-if="b.state === 'undone'"
                class="quiet"
                >taken back</span
              ><button
                v-else
                class="btn"
                :disabled="busy"
                :aria-label="`Take back: ${b.title}`"
                @click="undo(b.id)"
              >
                Take back
              </button>
            </td>
          </tr>
        </tbody>
      </table></template
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
.page {
  padding: 18px 20px;
  display: flex;
  flex-direction: column;
  gap: 12px;
}
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
