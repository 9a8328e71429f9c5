<script setup lang="ts">
// A call on one screen, by keyboard: who, what, when, and one key books it.
import { computed, nextTick, onBeforeUnmount, onMounted, reactive, ref, watch } from 'vue'
import { ElMessage } from 'element-plus'
import { CALL_KINDS } from '~~/shared/calls'
import type { Answer } from '~~/shared/api'
import { documentTotals } from '~~/core/documents/documentTotals'
import { localDate, localTime, localToInstant, plusDays } from '~~/core/time/zone'
import { minorToDecimal } from '~~/core/money/formatMinor'
import DayStrip from '~/components/calls/DayStrip.vue'
import PriceSearch from '~/components/pricebook/PriceSearch.vue'
import { call, newId, type Problem } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { useCall } from '~/stores/call'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office', key: route => route.fullPath })
type Match = Answer<'newCustomer'>
const session = useSession()
const store = useCall()
const route = useRoute()
const draft = computed(() => store.draft)
const matches = ref<Match[]>([])
const at = ref(0)
const chosen = ref<Match | null>(null)
const lines = ref<(Answer<'searchPriceBook'>['items'][number] & { quantity: string })[]>([])
const schedule = ref<Answer<'schedule'> | null>(null)
const warnings = ref<{ code: string, text: string }[]>([])
const ready = ref(false)
const ending = reactive({ open: '' as '' | 'put_off' | 'declined', reason: '', on: '' })
const { busy, problem, act } = useAct()
const who = ref<HTMLInputElement>()
const problemBox = ref<HTMLTextAreaElement>()

onMounted(async () => {
  if (route.params.id === 'new') return void navigateTo({ path: `/calls/${newId()}`, query: { fresh: 1 } }, { replace: true })
  await store.open(String(route.params.id), Boolean(route.query.fresh), session.today)
  if (store.draft.customerId) {
    const found = await call('matches', { query: { q: store.draft.query || 'a' } }).catch(() => ({ items: [] }))
    chosen.value = found.items.find(m => m.customerId === store.draft.customerId) ?? null
  }
  if (store.draft.entries.length) {
    const names = await Promise.all(store.draft.entries.map(e => call('searchPriceBook', { query: { q: (e as { code?: string }).code ?? '' } }).then(r => r.items.find(i => i.id === e.entryId))))
    lines.value = store.draft.entries.flatMap((e, i) => (names[i] ? [{ ...names[i]!, quantity: e.quantity }] : []))
  }
  ready.value = true
  await nextTick()
  who.value?.focus()
})
watch(draft, () => ready.value && store.changed(summary.value), { deep: true })
const summary = computed(() => [chosen.value?.name ?? (draft.value.name || draft.value.query), draft.value.problem.split(/[.\n]/)[0]].filter(Boolean).join(', ').slice(0, 190))

let turn = 0
async function search() {
  const words = draft.value.query.trim()
  const mine = ++turn
  if (words.length < 2) return void (matches.value = [])
  const got = await call('matches', { query: { q: words } }).catch(() => ({ items: [] as Match[] }))
  if (mine === turn) {
    matches.value = got.items
    at.value = 0
  }
}
watch(() => draft.value.query, () => {
  if (ready.value && draft.value.query !== chosen.value?.name) void search()
})
function choose(m: Match) {
  chosen.value = m
  matches.value = []
  Object.assign(draft.value, { customerId: m.customerId, siteId: m.siteId ?? (m.sites.length === 1 ? m.sites[0]!.id : null), query: m.name, phone: draft.value.phone || m.phone, isNew: false })
  problemBox.value?.focus()
}
function other() {
  chosen.value = null
  Object.assign(draft.value, { customerId: null, siteId: null })
  who.value?.focus()
}
function beginNew() {
  const q = draft.value.query
  const number = /^[\d\s().+-]{4,}$/.test(q)
  Object.assign(draft.value, { isNew: true, name: number ? '' : q, phone: number ? q : '' })
  matches.value = []
}
const saveNew = () => act(async () => {
  const d = draft.value
  const id = newId()
  choose(await call('newCustomer', { body: { id, siteId: newId(), name: d.name, phone: d.phone, email: d.email, line1: d.line1, town: d.town, postcode: d.postcode, source: d.source } }))
})
function keyWho(e: KeyboardEvent) {
  const last = matches.value.length
  if (e.key === 'ArrowDown') at.value = Math.min(last, at.value + 1)
  else if (e.key === 'ArrowUp') at.value = Math.max(0, at.value - 1)
  else if (e.key === 'Enter' && !e.ctrlKey) {
    if (matches.value[at.value]) choose(matches.value[at.value]!)
    else beginNew()
  }
  else return
  e.preventDefault()
}

// What: entries to read out, with the price as the customer would pay it.
function addEntry(e: Answer<'searchPriceBook'>['items'][number]) {
  lines.value = [...lines.value, { ...e, quantity: '1' }]
  if (e.seconds && lines.value.length === 1) draft.value.durationSeconds = Math.max(1800, Math.round(e.seconds / 900) * 900)
  if (!draft.value.problem) draft.value.problem = e.name
}
watch(lines, () => { draft.value.entries = lines.value.map(l => ({ entryId: l.id, quantity: l.quantity, code: l.code })) as never })
const readOut = computed(() => {
  const { currency } = session.me!.company
  const own = Boolean(chosen.value?.agreement)
  const totals = documentTotals(lines.value.map((l, i) => ({ quantity: l.quantity, unitPrice: i > 0 && l.kind === 'task' && l.furtherPrice && lines.value.slice(0, i).some(x => x.kind === 'task') ? l.furtherPrice : l.price, taxes: [] })), { mode: 'added', currency })
  const saving = lines.value.reduce((sum, l) => sum + Math.round(Number(l.agreementSaving.amount) * 100), 0)
  const money = (minor: number) => ({ amount: minorToDecimal(minor, currency), currency })
  return { nets: totals.lineNets.map(money), own, saving: money(saving), net: money(totals.netMinor - (own ? saving : 0)) }
})

// When: technicians' days side by side; warnings before booking.
const times = computed(() => Array.from({ length: 45 }, (_, i) => `${String(7 + Math.floor(i / 4)).padStart(2, '0')}:${String(i % 4 * 15).padStart(2, '0')}`))
watch(() => draft.value.date, async (date) => {
  if (date) schedule.value = await call('schedule', { query: { date } }).catch(() => null)
}, { immediate: true })
const startMs = computed(() => (draft.value.date && /^\d\d:\d\d$/.test(draft.value.start) ? localToInstant(draft.value.date, draft.value.start, session.zone) : null))
function pick(technicianId: string, ms: number) {
  Object.assign(draft.value, { technicianId, start: localTime(ms, session.zone) })
  proposeWindow()
}
function proposeWindow() {
  const [h] = draft.value.start.split(':').map(Number)
  if (h === undefined || Number.isNaN(h)) return
  Object.assign(draft.value, { promiseFrom: `${String(h).padStart(2, '0')}:00`, promiseTo: `${String(Math.min(23, h + 2)).padStart(2, '0')}:00` })
}
watch(() => [draft.value.technicianId, startMs.value, draft.value.durationSeconds, draft.value.promiseFrom, draft.value.promiseTo] as const, async ([technicianId, ms, durationSeconds, promiseFrom, promiseTo]) => {
  warnings.value = technicianId && ms !== null
    ? (await call('checkPlacement', { body: { visitId: null, technicianId, startAt: new Date(ms).toISOString(), durationSeconds, promiseFrom, promiseTo } }).catch(() => ({ warnings: [] }))).warnings
    : []
})
const technician = computed(() => schedule.value?.technicians.find(t => t.id === draft.value.technicianId))
const bookLabel = computed(() => (startMs.value !== null && technician.value ? `Book ${session.day(draft.value.date!)} ${draft.value.start}, ${technician.value.name.split(' ')[0]}` : 'Book without a time'))

const book = () => act(async () => {
  const d = draft.value
  const done = await call('bookCall', {
    params: { id: store.id }, key: `${store.book.key}`,
    body: {
      workOrderId: store.book.workOrderId, visitId: store.book.visitId, customerId: d.customerId ?? undefined, siteId: d.siteId ?? undefined, speaking: d.speaking, phone: d.phone, problem: d.problem, kind: d.kind as 'repair', source: d.source, orderNumber: d.orderNumber,
      entries: lines.value.map(l => ({ entryId: l.id, quantity: l.quantity })), technicianId: d.technicianId, date: d.date, start: d.start || null, durationSeconds: d.durationSeconds, promiseFrom: d.promiseFrom || null, promiseTo: d.promiseTo || null, override: warnings.value.length > 0,
    },
  }).catch((error: Problem) => {
    // Another try is another request: what was typed may have changed.
    store.book.key = newId()
    throw error
  })
  store.end()
  ElMessage({ type: 'success', message: `Booked as ${done.number}`, duration: 6000 })
  await navigateTo(startMs.value === null ? `/work/${done.workOrderId}` : { path: '/schedule', query: { date: d.date!, visit: done.visitId } })
})
const finish = () => act(async () => {
  await store.save(summary.value)
  await call('endCall', { params: { id: store.id }, body: { state: ending.open as 'declined', reason: ending.reason, callBackOn: ending.on || null } })
  store.end()
  await navigateTo('/calls')
})
function keys(e: KeyboardEvent) {
  if ((e.ctrlKey || e.metaKey) && e.key === 'Enter') {
    e.preventDefault()
    void book()
  }
  else if (e.key === 'Escape' && !ending.open && !document.querySelector('.veil')) void navigateTo('/calls')
}
onMounted(() => window.addEventListener('keydown', keys))
onBeforeUnmount(() => window.removeEventListener('keydown', keys))
const wrong = (path: string) => problem.value?.at(path) ?? ''
const shortDays = computed(() => Array.from({ length: 5 }, (_, i) => plusDays(session.today || localDate(Date.now(), 'UTC'), i)))
</script>

<template>
  <form v-if="ready" class="call" @submit.prevent>
    <header>
      <h1>Call</h1><span class="quiet grow" role="status">{{ store.saving ? 'keeping…' : 'kept as you type' }}</span>
      <button type="button" class="btn" @click="ending.open = 'put_off'">Call back…</button>
      <button type="button" class="btn" @click="ending.open = 'declined'">No, because…</button>
      <button type="button" class="btn act" :disabled="busy" @click="book">{{ bookLabel }} <kbd>Ctrl ⏎</kbd></button>
    </header>
    <p v-if="problem && !ending.open" class="note bad" role="alert">{{ problem.message }}</p>
    <div class="columns">
      <section class="who">
        <label class="field"><span>Who is calling</span>
          <input ref="who" v-model="draft.query" class="plain big" placeholder="Name, telephone number, address" autocomplete="off" role="combobox" :aria-expanded="matches.length > 0" aria-controls="matches" @keydown="keyWho"></label>
        <p v-if="wrong('customerId')" class="wrong">{{ wrong('customerId') }}</p>
        <ul v-if="!chosen && !draft.isNew && draft.query.trim().length > 1" id="matches" role="listbox" aria-label="Who it could be">
          <li v-for="(m, i) in matches" :key="m.customerId" role="option" :aria-selected="i === at" :class="{ at: i === at }" @mousedown.prevent="choose(m)">
            <b>{{ m.name }}</b> <span v-if="m.late" class="late small">owes {{ session.money(m.owed) }}, {{ m.late }} days late</span>
            <br><span class="quiet small">{{ m.phone }} · {{ m.place }}<template v-if="m.openWork.length"> · {{ m.openWork.length }} open</template></span>
          </li>
          <li role="option" :aria-selected="at === matches.length" :class="{ at: at === matches.length }" @mousedown.prevent="beginNew"><b class="good">New customer “{{ draft.query }}”</b></li>
        </ul>
        <div v-if="draft.isNew && !chosen" class="new stack">
          <label class="field"><span>Name</span><input v-model="draft.name" class="plain"><span v-if="wrong('name')" class="wrong">{{ wrong('name') }}</span></label>
          <label class="field"><span>Telephone</span><input v-model="draft.phone" class="plain" inputmode="tel"></label>
          <label class="field"><span>Address of the site</span><input v-model="draft.line1" class="plain"><span v-if="wrong('line1')" class="wrong">{{ wrong('line1') }}</span></label>
          <div class="row"><label class="field grow"><span>Town</span><input v-model="draft.town" class="plain"></label><label class="field" style="width: 90px"><span>Postcode</span><input v-model="draft.postcode" class="plain"></label></div>
          <label class="field"><span>Mail address</span><input v-model="draft.email" class="plain" type="email"><span v-if="wrong('email')" class="wrong">{{ wrong('email') }}</span></label>
          <div class="row"><button type="button" class="btn act" :disabled="busy" @click="saveNew">Keep this customer</button><button type="button" class="btn" @click="draft.isNew = false">Not new</button></div>
        </div>
        <template v-if="chosen">
          <div class="row"><b class="grow">{{ chosen.name }}</b><button type="button" class="btn plain" @click="other">Someone else</button></div>
          <p v-if="chosen.stopWork" class="note bad"><b>Stop work.</b> {{ chosen.stopWork }}</p>
          <label class="field"><span>Where</span><select v-model="draft.siteId" class="plain"><option :value="null" disabled>Choose the site</option><option v-for="s in chosen.sites" :key="s.id" :value="s.id">{{ [s.name, s.line1, s.town].filter(Boolean).join(', ') }}</option></select></label>
          <p v-if="wrong('siteId')" class="wrong">{{ wrong('siteId') }}</p>
          <div class="row"><label class="field grow"><span>Speaking with</span><input v-model="draft.speaking" class="plain"></label><label class="field grow"><span>Their number</span><input v-model="draft.phone" class="plain" inputmode="tel"></label></div>
          <dl>
            <div><dt>Owes</dt><dd class="num" :class="{ late: chosen.late }">{{ session.money(chosen.owed) }}<template v-if="chosen.late"> · {{ chosen.late }} days late</template></dd></div>
            <div v-if="chosen.agreement"><dt>Care agreement</dt><dd>{{ chosen.agreement }}</dd></div>
            <div v-if="chosen.lastVisit"><dt>Last here</dt><dd>{{ chosen.lastVisit }}</dd></div>
            <div v-if="chosen.equipment.length"><dt>On site</dt><dd>{{ chosen.equipment.join(', ') }}</dd></div>
            <div v-if="chosen.officeNote"><dt>Office only</dt><dd>{{ chosen.officeNote }}</dd></div>
            <div v-if="chosen.exempt"><dt>Tax</dt><dd>exempt</dd></div>
            <div v-for="w in chosen.openWork" :key="w.id"><dt><NuxtLink :to="`/work/${w.id}`">{{ w.number }}</NuxtLink></dt><dd>{{ w.title }} · {{ w.state.replace('_', ' ') }}</dd></div>
          </dl>
        </template>
      </section>
      <section class="what">
        <label class="field"><span>What is wrong</span><textarea ref="problemBox" v-model="draft.problem" class="plain" rows="4" /></label>
        <p v-if="wrong('problem')" class="wrong">{{ wrong('problem') }}</p>
        <div class="row"><label class="field grow"><span>Kind of call</span><select v-model="draft.kind" class="plain"><option v-for="k in CALL_KINDS" :key="k">{{ k }}</option></select></label>
          <label class="field grow"><span>Their order number</span><input v-model="draft.orderNumber" class="plain"></label></div>
        <PriceSearch label="Price to read out" @choose="addEntry" />
        <table v-if="lines.length" class="book read"><tbody>
          <tr v-for="(l, i) in lines" :key="i"><td>{{ l.name }}</td><td class="right num">{{ session.money(readOut.nets[i]!, false) }}</td><td><button type="button" class="btn plain" :aria-label="`Take out ${l.name}`" @click="lines = lines.filter((_, j) => j !== i)">×</button></td></tr>
          <tr v-if="!readOut.own"><td class="quiet">With a care agreement</td><td class="right num quiet">−{{ session.money(readOut.saving, false) }}</td><td /></tr>
          <tr v-else><td class="quiet">With their agreement</td><td class="right num quiet">−{{ session.money(readOut.saving, false) }}</td><td /></tr>
          <tr class="sum"><td>Before tax, about</td><td class="right num"><span class="double">{{ session.money(readOut.net) }}</span></td><td /></tr>
        </tbody></table>
      </section>
      <section class="when">
        <div class="row wrap">
          <span class="quiet small">When</span>
          <button v-for="d in shortDays" :key="d" type="button" class="btn" :class="{ on: draft.date === d }" :aria-pressed="draft.date === d" @click="draft.date = d">{{ session.day(d) }}</button>
          <input v-model="draft.date" class="plain" type="date" aria-label="Day" style="width: 140px">
        </div>
        <div class="row wrap">
          <label class="field"><span>Technician</span><select v-model="draft.technicianId" class="plain"><option :value="null">nobody yet</option><option v-for="t in schedule?.technicians ?? []" :key="t.id" :value="t.id">{{ t.name }}</option></select></label>
          <label class="field"><span>Start</span><select v-model="draft.start" class="plain" @change="proposeWindow"><option value="">no time yet</option><option v-for="t in times" :key="t">{{ t }}</option></select></label>
          <label class="field"><span>Takes</span><select v-model.number="draft.durationSeconds" class="plain"><option v-for="n in 32" :key="n" :value="n * 900">{{ Math.floor(n / 4) }}:{{ String(n % 4 * 15).padStart(2, '0') }} h</option></select></label>
          <label class="field"><span>Promised from</span><select v-model="draft.promiseFrom" class="plain"><option value="">–</option><option v-for="t in times" :key="t">{{ t }}</option></select></label>
          <label class="field"><span>to</span><select v-model="draft.promiseTo" class="plain"><option value="">–</option><option v-for="t in times" :key="t">{{ t }}</option></select></label>
        </div>
        <p v-if="wrong('promiseTo')" class="wrong">{{ wrong('promiseTo') }}</p>
        <p v-if="warnings.length" class="note warn" role="status"><b>Before you promise it:</b> {{ warnings.map(w => w.text).join('; ') }}. Booking goes ahead with your name to it.</p>
        <div v-if="schedule" class="days">
          <div v-for="t in schedule.technicians" :key="t.id" class="one" :class="{ on: t.id === draft.technicianId }">
            <button type="button" class="btn plain name" @click="draft.technicianId = t.id">{{ t.name }}<span class="quiet small">{{ t.skills.join(', ') }}</span></button>
            <DayStrip :schedule="schedule" :technician-id="t.id" :start="t.id === draft.technicianId ? startMs : null" :seconds="draft.durationSeconds" :name="chosen?.name ?? ''" @pick="ms => pick(t.id, ms)" />
          </div>
        </div>
      </section>
    </div>
    <el-dialog :model-value="ending.open !== ''" :title="ending.open === 'put_off' ? 'Call back' : 'No, because'" width="420" @close="ending.open = ''">
      <div class="stack">
        <label v-if="ending.open === 'put_off'" class="field"><span>On which day</span><input v-model="ending.on" class="plain" type="date"><span v-if="wrong('callBackOn')" class="wrong">{{ wrong('callBackOn') }}</span></label>
        <label class="field"><span>Why</span><input v-model="ending.reason" class="plain" @keydown.enter="finish"><span v-if="wrong('reason')" class="wrong">{{ wrong('reason') }}</span></label>
        <button type="button" class="btn act" :disabled="busy" @click="finish">{{ ending.open === 'put_off' ? 'Put it on the list' : 'End the call' }}</button>
      </div>
    </el-dialog>
  </form>
  <p v-else class="empty">Opening the call…</p>
</template>

<style scoped>
.call { display: flex; flex-direction: column; height: 100%; } header { display: flex; gap: 8px; align-items: center; padding: 10px 16px; background: var(--sheet); border-bottom: 1px solid var(--rule-2); }
.call > .note { margin: 8px 16px 0; } .columns { display: grid; grid-template-columns: 300px 310px minmax(0, 1fr); flex: 1; min-height: 0; } section { padding: 14px 16px; overflow: auto; display: flex; flex-direction: column; gap: 10px; border-right: 1px solid var(--rule-2); }
.when { background: var(--sheet); border-right: 0; } .big { font-size: 16px !important; padding: 9px 11px !important; } .wrap { flex-wrap: wrap; gap: 6px; } .wrap .btn { padding: 0 8px; min-height: 30px; }
ul { list-style: none; margin: -8px 0 0; padding: 0; border: 1px solid var(--rule-2); background: var(--sheet); } li { padding: 7px 10px; cursor: pointer; } li + li { border-top: 1px solid var(--rule); } li.at { background: var(--green-1); }
dl { margin: 0; } dl div { display: flex; justify-content: space-between; gap: 12px; padding: 6px 0; border-bottom: 1px solid var(--rule); } dt { color: var(--ink-2); flex: none; } dd { margin: 0; text-align: right; }
.read td { padding: 6px 4px; vertical-align: middle; } .read .btn { min-height: 22px; padding: 0 6px; } .days { display: flex; flex-direction: column; gap: 6px; } .one { display: grid; grid-template-columns: 118px minmax(0, 1fr); } .one .name { flex-direction: column; align-items: flex-start; gap: 0; padding: 6px 4px; height: auto; text-align: left; white-space: normal; } .one.on .name { background: var(--green-1); }
</style>
