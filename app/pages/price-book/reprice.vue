<script setup lang="ts">
// Changing many prices: a rule over a selection, looked at entry by entry before anything changes; made from a day on; taken back in one act.
import { computed, reactive, ref, watch } from 'vue'
import type { Answer } from '~~/shared/api'
import MarginChart from '~/components/pricebook/MarginChart.vue'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useLoad } from '~/lib/useLoad'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
const session = useSession()
const { data: rules } = useLoad(() => call('pricing'))
const { data: past, refresh } = useLoad(() => call('priceChanges'))
const { busy, problem, act } = useAct()
const KINDS = [['part', 'parts'], ['task', 'tasks'], ['labour', 'labour rates'], ['charge', 'charges']] as const
const RULES = [['price_percent', 'move the price by per cent'], ['cost_percent', 'move the cost by per cent'], ['set', 'set the price to'], ['by_rule', 'price by the rules again']] as const
const wish = reactive({ kind: 'part' as '' | 'part' | 'task' | 'labour' | 'charge', category: '', supplier: '', rule: 'price_percent' as 'price_percent' | 'cost_percent' | 'set' | 'by_rule', percent: '', price: '' })
const title = ref('')
const holdsFrom = ref('')
const preview = ref<Answer<'previewPrices'> | null>(null)
const said = ref('')
const meant = ref(false)
const body = computed(() => ({ kind: wish.kind || undefined, category: wish.category, supplier: wish.supplier, rule: wish.rule, percent: wish.rule.endsWith('percent') ? wish.percent.trim() : '', price: wish.rule === 'set' ? wish.price.trim() : '' }))
// What was looked at is what is done: another wish wants another look.
watch(wish, () => { preview.value = null })
const look = () => act(async () => {
  said.value = ''
  meant.value = false
  preview.value = null
  preview.value = await call('previewPrices', { body: body.value })
})
let actId = newId()
const change = () => act(async () => {
  const name = title.value || `${KINDS.find(k => k[0] === wish.kind)?.[1] ?? 'all'}${wish.category ? `, ${wish.category}` : ''}: ${RULES.find(r => r[0] === wish.rule)![1]} ${wish.percent || wish.price}`.trim()
  const done = await call('changePrices', { body: { id: actId, title: name, holdsFrom: holdsFrom.value || null, stamp: preview.value!.stamp, ...body.value } })
  actId = newId()
  preview.value = null
  said.value = done.state === 'waiting' ? `${done.entries} prices change on ${session.day(done.holdsFrom)}.` : `${done.entries} prices changed.`
  await refresh()
})
const undo = (id: string) => act(async () => {
  const { left } = await call('undoPrices', { params: { id } })
  said.value = left ? `Taken back, but for ${left} that somebody changed since.` : 'Taken back.'
  preview.value = null
  await refresh()
})
const show = (amount: string | null) => (amount === null ? '–' : session.money({ amount, currency: session.me!.company.currency }, false))
const percent = (f: string | null) => (f === null ? '–' : `${(Number(f) * 100).toFixed(1)} %`)
const wrong = (path: string) => problem.value?.at(path) ?? ''
</script>

<template>
  <section v-if="rules" class="page">
    <div class="row"><NuxtLink class="btn plain" to="/price-book" aria-label="Back to the price book">←</NuxtLink><h1 class="grow">Change prices</h1></div>
    <form class="sheet box" @submit.prevent="look">
      <div class="row top"><label class="field"><span>Which</span><select v-model="wish.kind" class="plain"><option value="">everything</option><option v-for="[k, name] in KINDS" :key="k" :value="k">{{ name }}</option></select><i v-if="wrong('kind')" class="wrong">{{ wrong('kind') }}</i></label><label class="field"><span>Category</span><select v-model="wish.category" class="plain"><option value="">any</option><option v-for="c in rules.categories" :key="c">{{ c }}</option></select></label><label v-if="rules.suppliers.length" class="field"><span>Supplier</span><select v-model="wish.supplier" class="plain"><option value="">any</option><option v-for="s in rules.suppliers" :key="s">{{ s }}</option></select></label>
        <label class="field"><span>What is done</span><select v-model="wish.rule" class="plain"><option v-for="[k, name] in RULES" :key="k" :value="k">{{ name }}</option></select></label><label v-if="wish.rule.endsWith('percent')" class="field"><span>Per cent</span><input v-model="wish.percent" class="plain num" inputmode="decimal" placeholder="4 or -2.5" style="width: 110px"><i v-if="wrong('percent')" class="wrong">{{ wrong('percent') }}</i></label><label v-if="wish.rule === 'set'" class="field"><span>Price</span><input v-model="wish.price" class="plain num" inputmode="decimal" style="width: 110px"><i v-if="wrong('price')" class="wrong">{{ wrong('price') }}</i></label>
        <span class="grow" /><button class="btn act look" :disabled="busy">Look at it first</button></div>
    </form>
    <p v-if="problem" class="note bad" role="alert">{{ problem.message }}</p><p v-if="said" class="note" role="status">{{ said }}</p><p v-if="busy && !preview" class="quiet" role="status">Working it out…</p>
    <template v-if="preview">
      <p v-if="!preview.rows.length" class="empty sheet">This changes no price.</p>
      <div v-else class="sheet box">
        <div class="row top"><div class="grow"><p><b class="num">{{ preview.changed }}</b> {{ preview.changed === 1 ? 'entry changes' : 'entries change' }}<template v-if="preview.follow">, <b class="num">{{ preview.follow }}</b> {{ preview.follow === 1 ? 'task follows' : 'tasks follow' }}</template>. Nothing has changed yet.</p>
          <p>The last twelve months sold at these prices would have brought <b class="num">{{ session.money(preview.effect) }}</b> more ({{ preview.soldLines }} lines).</p>
          <label v-for="q in preview.questions" :key="q" class="row note warn"><input v-model="meant" type="checkbox"> {{ q }} Yes, it is meant.</label></div><MarginChart :margins="preview.margins" class="chart" /></div>
        <div class="row end"><label class="field grow"><span>Called</span><input v-model="title" class="plain" placeholder="spring list, new wages…"></label><label class="field"><span>Holds from</span><input v-model="holdsFrom" class="plain" type="date" :min="session.today"></label><button class="btn act" :disabled="busy || (preview.questions.length > 0 && !meant)" @click="change">Change {{ preview.changed + preview.follow }} {{ preview.changed + preview.follow === 1 ? 'price' : 'prices' }}</button></div>
        <table class="book"><thead><tr><th>Code</th><th>Name</th><th class="right">Cost</th><th class="right">Now</th><th class="right">Then</th><th class="right">Difference</th><th class="right">Margin</th><th class="right">Sold</th><th class="right">Effect</th></tr></thead><tbody>
          <tr v-for="r in preview.rows" :key="r.id"><td class="num">{{ r.code }}</td><td>{{ r.name }} <span v-if="r.follows" class="chip">follows</span></td><td class="right num quiet">{{ r.becomes.cost === r.was.cost ? show(r.was.cost) : `${show(r.was.cost)} → ${show(r.becomes.cost)}` }}</td><td class="right num">{{ show(r.was.price) }}</td><td class="right num"><b>{{ show(r.becomes.price) }}</b></td><td class="right num">{{ show(r.difference) }}</td><td class="right num nowrap">{{ percent(r.marginWas) }} → {{ percent(r.marginBecomes) }}</td><td class="right num quiet">{{ r.sold === '0' ? '' : r.sold }}</td><td class="right num">{{ r.effect === '0.00' ? '' : show(r.effect) }}</td></tr></tbody></table>
        <p v-if="preview.changed + preview.follow > preview.rows.length" class="quiet small">and {{ preview.changed + preview.follow - preview.rows.length }} more, counted above</p>
      </div>
    </template>
    <template v-if="past?.items.length"><h2>Changes so far</h2>
      <table class="book"><thead><tr><th>Made</th><th>What</th><th>Holds from</th><th class="right">Prices</th><th>By</th><th /></tr></thead><tbody><tr v-for="b in past.items" :key="b.id"><td class="nowrap">{{ session.dayTime(b.madeAt) }}</td><td>{{ b.title }}</td><td class="nowrap">{{ session.day(b.holdsFrom) }} <span v-if="b.state === 'waiting'" class="chip soon">waits for its day</span></td><td class="right num">{{ b.entries }}</td><td class="quiet">{{ b.madeBy }}</td><td class="right"><span v-if="b.state === 'undone'" class="quiet">taken back</span><button v-else class="btn" :disabled="busy" :aria-label="`Take back: ${b.title}`" @click="undo(b.id)">Take back</button></td></tr></tbody></table></template>
  </section>
  <p v-else class="empty" role="status">Opening…</p>
</template>

<style scoped>
.page { padding: 18px 20px; display: flex; flex-direction: column; gap: 12px; } .box { padding: 14px; display: flex; flex-direction: column; gap: 10px; } .top { align-items: flex-start; gap: 12px; } .look { margin-top: 22px; } .end { align-items: flex-end; } .chart { width: 480px; } i.wrong { font-style: normal; max-width: 180px; } p { margin: 0 0 6px; }
</style>
