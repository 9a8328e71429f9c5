<script setup lang="ts">
// One entry of the book: what it is beside what it costs and why; changes are worked out while they are typed and kept in one act.
import { computed, onBeforeUnmount, reactive, ref, watch } from 'vue'
import { onBeforeRouteLeave } from 'vue-router'
import type { Answer, Body } from '~~/shared/api'
import PriceSearch from '~/components/pricebook/PriceSearch.vue'
import PriceWhy from '~/components/pricebook/PriceWhy.vue'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import { call, newId, type Problem } from '~/lib/api'
import type { Found } from '~/lib/book'
import { dataUrl } from '~/lib/dataUrl'
import { useAct } from '~/lib/useAct'
import { SHOWS } from '~/lib/live'
import { useLoad } from '~/lib/useLoad'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Choice from '~/base/Choice.vue'
import DateInput from '~/base/DateInput.vue'
import Field from '~/base/Field.vue'
import FigureInput from '~/base/FigureInput.vue'
import TextInput from '~/base/TextInput.vue'
import FileInput from '~/base/FileInput.vue'
import DataTable from '~/base/DataTable.vue'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'

definePageMeta({ layout: 'office' })
type Entry = Answer<'priceEntry'>
type Part = Entry['parts'][number]
const session = useSession()
const route = useRoute()
const fresh = computed(() => route.params.id === 'new')
const id = fresh.value ? newId() : String(route.params.id)
const owns = computed(() => session.may('pricebook.change'))
const { data: rules } = useLoad(() => call('pricing'), 0, SHOWS.book)
const {
  data: entry,
  problem,
  refresh,
} = useLoad<Entry | null>(() =>
  fresh.value ? Promise.resolve(null) : call('priceEntry', { params: { id } }),
)
const { busy, problem: failed, act } = useAct()
const BLANK = {
  kind: 'part' as Entry['kind'],
  code: '',
  category: '',
  name: '',
  description: '',
  technicianNote: '',
  synonyms: '',
  unit: 'each',
  taxClass: '',
  hours: '',
  furtherHours: '',
  skills: '',
  pinned: false,
  labourId: null as string | null,
  supplier: '',
  partNumber: '',
  incomeCode: '',
  activeFrom: '',
  activeTo: '',
  retired: false,
  pricing: 'rule' as 'rule' | 'fixed',
  cost: '',
  price: '',
  furtherPrice: '',
  parts: [] as Part[],
}
const form = reactive({ ...BLANK })
const version = ref(0)
let kept = JSON.stringify(form)
const asForm = (e: Entry): typeof BLANK => ({
  kind: e.kind,
  code: e.code,
  category: e.category,
  name: e.name,
  description: e.description,
  technicianNote: e.technicianNote,
  synonyms: e.synonyms,
  unit: e.unit,
  taxClass: e.taxClass,
  hours: e.seconds ? String(e.seconds / 3600) : '',
  furtherHours: e.furtherSeconds ? String(e.furtherSeconds / 3600) : '',
  skills: e.skills.join(', '),
  pinned: e.pinned,
  labourId: e.labourId,
  supplier: e.supplier,
  partNumber: e.partNumber,
  incomeCode: e.incomeCode,
  activeFrom: e.activeFrom ?? '',
  activeTo: e.activeTo ?? '',
  retired: e.retired,
  pricing: e.pricing as 'rule' | 'fixed',
  cost: e.cost ?? '0',
  price: e.price,
  furtherPrice: e.furtherPrice ?? '',
  parts: e.parts.map((p) => ({ ...p })),
})
const dirty = computed(() => JSON.stringify(form) !== kept)
const tried = ref<Answer<'tryPrice'> | null>(null)
const odd = ref('')
let turn = 0
let timer: ReturnType<typeof setTimeout> | undefined
const theirs = ref<Entry | null>(null)
function overrule(e: Entry) {
  version.value = e.version
  theirs.value = null
}
watch(
  entry,
  (e) => {
    if (!e || e.version === version.value) return
    // Somebody else kept a change while this one is typed: what is typed stays, and theirs is said.
    if (version.value && dirty.value) return void (theirs.value = e)
    take(e)
  },
  { immediate: true },
)
function take(e: Entry) {
  theirs.value = null
  // What was tried before belongs to what was there before.
  turn++
  tried.value = null
  version.value = e.version
  Object.assign(form, asForm(e))
  kept = JSON.stringify(form)
}
watch(
  rules,
  (r) => {
    if (!fresh.value || !r || form.taxClass) return
    Object.assign(form, {
      taxClass: r.taxClasses.find((t) => t.id === 'goods')?.id ?? r.taxClasses[0]?.id ?? '',
      labourId: r.labour[0]?.id ?? null,
    })
    kept = JSON.stringify(form)
  },
  { immediate: true },
)
/** a task has parts inside, an assembly anything of the book */
const holds = computed(() => form.kind === 'task' || form.kind === 'assembly')
const seconds = (hours: string) => Math.round(Number(hours || 0) * 3600) || 0
const pricing = computed(() => {
  if (form.kind === 'assembly') return 'rule'
  return form.kind === 'part' || form.kind === 'task' ? form.pricing : 'fixed'
})
const priced = computed(() => ({
  kind: form.kind,
  name: form.name,
  category: form.category,
  supplier: form.supplier,
  pricing: pricing.value,
  cost: form.cost || '0',
  price: form.price || '0',
  furtherPrice: form.furtherPrice || null,
  seconds: seconds(form.hours),
  furtherSeconds: seconds(form.furtherHours || form.hours),
  labourId: form.kind === 'task' ? form.labourId : null,
  sundriesRate: null,
  parts: holds.value ? form.parts.map((p) => ({ partId: p.partId, quantity: p.quantity })) : [],
}))
watch(
  () => JSON.stringify(priced.value),
  () => {
    clearTimeout(timer)
    // Nothing is tried before the entry is there: an empty form has no price.
    const empty = form.kind === 'assembly' && !form.parts.length
    if (empty) tried.value = null
    else if (owns.value && (fresh.value || version.value))
      timer = setTimeout(() => void attempt(), 150)
  },
  { immediate: true },
)
onBeforeUnmount(() => clearTimeout(timer))
async function attempt() {
  const mine = ++turn
  const got = await call('tryPrice', { body: { id, ...priced.value } }).catch(
    (error: Problem) => error,
  )
  if (mine !== turn) return
  odd.value = got instanceof Error ? got.message : ''
  if (!(got instanceof Error)) tried.value = got
}
const shown = computed(() => tried.value ?? entry.value)
const keep = (over: Partial<typeof BLANK> = {}) =>
  act(async () => {
    const f = { ...form, ...over }
    const body: Body<'keepPriceEntry'> = {
      ...priced.value,
      version: version.value,
      code: f.code,
      description: f.description,
      technicianNote: f.technicianNote,
      synonyms: f.synonyms,
      unit: f.unit || 'each',
      taxClass: f.taxClass,
      skills: f.skills
        .split(',')
        .map((s) => s.trim())
        .filter(Boolean),
      pinned: f.pinned,
      partNumber: f.partNumber,
      incomeCode: f.incomeCode,
      activeFrom: f.activeFrom || null,
      activeTo: f.activeTo || null,
      retired: f.retired,
    }
    const got = await call('keepPriceEntry', { params: { id }, body })
    take(got)
    if (fresh.value) await navigateTo(`/price-book/${id}`, { replace: true })
    else await refresh()
  })
const wrong = (path: string) => failed.value?.at(path) ?? ''
function addParts(entries: Found[]) {
  for (const e of entries)
    if (
      (form.kind === 'task' ? e.kind === 'part' : e.kind !== 'assembly') &&
      !form.parts.some((p) => p.partId === e.id)
    )
      form.parts.push({
        partId: e.id,
        code: e.code,
        name: e.name,
        kind: e.kind,
        quantity: '1',
        price: e.price,
      })
}
/** A new cost proposes a price: taken as a fixed one, or followed from now on. */
function takeProposed() {
  form.price = tried.value!.byRule!
}
const picture = ([file]: File[]) =>
  act(async () => {
    if (!file) return
    const data = await dataUrl(file)
    await keepPicture(data)
  })
async function keepPicture(data: string) {
  const got = await call('keepPricePicture', {
    params: { id },
    body: { version: version.value, data },
  })
  // What is typed beside it stays.
  version.value = got.version
  entry.value = got
}
const asHours = () =>
  act(async () => {
    await call('takeHours', {
      body: { id: newId(), entries: [{ id, seconds: entry.value!.hours!.proposedSeconds! }] },
    })
    await refresh()
  })
const show = (amount: string | null) =>
  amount === null ? '–' : session.money({ amount, currency: session.me!.company.currency }, false)
const percent = (fraction: string | null) =>
  fraction === null
    ? ''
    : new Intl.NumberFormat(session.me?.company.locale, {
        style: 'percent',
        maximumFractionDigits: 1,
      }).format(Number(fraction))
const KINDS = [
  ['task', 'Task, at a flat rate'],
  ['part', 'Part'],
  ['labour', 'Labour rate'],
  ['charge', 'Charge'],
  ['assembly', 'Assembly of several'],
] as const
const stay = (e: BeforeUnloadEvent) => dirty.value && e.preventDefault()
if (import.meta.client) window.addEventListener('beforeunload', stay)
onBeforeUnmount(() => window.removeEventListener('beforeunload', stay))
onBeforeRouteLeave(
  () => !dirty.value || window.confirm('What you typed here is not kept yet. Leave it?'),
)
</script>

<template>
  <section
    v-if="(entry || fresh) && rules"
    class="page"
  >
    <div class="row">
      <NuxtLink
        class="btn plain"
        to="/price-book"
        aria-label="Back to the price book"
        >←</NuxtLink
      >
      <h1 class="grow">
        {{ fresh ? 'New entry' : form.name }}
        <span
          v-if="entry"
          class="num quiet"
          >{{ entry.code }}</span>{{ ' '
        }}<span
          v-if="entry?.retired"
          class="chip soon"
          >retired</span
        >
      </h1>
      <template v-if="owns"
        ><ActButton
          v-if="entry"
          :disabled="busy"
          @click="keep({ retired: !entry.retired })"
        >
          {{ entry.retired ? 'Bring back' : 'Retire' }}</ActButton
        ><ActButton
          primary
          :disabled="busy || !dirty"
          @click="keep()"
        >
          Keep this entry
        </ActButton></template
      >
    </div>
    <Notice :of="failed" />
    <p
      v-if="theirs"
      class="note warn row"
      role="status"
    >
      <span class="grow"
        ><b>Someone changed this entry meanwhile</b>: {{ theirs.name }}, {{ show(theirs.price) }}.
        What you typed is still here.</span
      ><ActButton @click="take(theirs)"> Take theirs</ActButton
      ><ActButton @click="overrule(theirs)"> Keep mine over it </ActButton>
    </p>
    <div class="two">
      <form
        class="sheet box"
        @submit.prevent="keep()"
      >
        <fieldset :disabled="!owns">
          <div class="row top">
            <Field label="Kind"
              ><Choice
                v-model="form.kind"
                :disabled="!fresh"
                :options="KINDS.map(([k, name]) => ({ value: k, label: name }))" /></Field
            ><Field
              label="Code"
              :error="wrong('code')"
              ><TextInput
                v-model="form.code"
                class="num"
                style="width: 110px" /></Field
            ><Field
              class="grow"
              label="Category, with “ / ” before one inside it"
              :error="wrong('category')"
              ><TextInput
                v-model="form.category"
                list="categories" /></Field
            ><datalist id="categories">
              <option
                v-for="c in rules.categories"
                :key="c"
                :value="c"
              />
            </datalist>
          </div>
          <Field
            label="Name"
            :error="wrong('name')"
            ><TextInput v-model="form.name"
          /></Field>
          <p
            v-if="tried?.alike.length && (fresh || form.name !== entry?.name)"
            class="note warn small"
            role="status"
          >
            Named alike:
            <template
              v-for="(a, i) in tried.alike"
              :key="a.id"
              ><template v-if="i">, </template
              ><NuxtLink
                :to="`/price-book/${a.id}`"
                target="_blank"
                >{{ a.code }} {{ a.name }}</NuxtLink
              >
              {{ show(a.price) }}</template
            >
          </p>
          <div
            v-if="form.kind === 'task'"
            class="row top"
          >
            <Field label="Hours, as the first"><FigureInput v-model="form.hours" /></Field
            ><Field label="Hours, as a further one"
              ><FigureInput v-model="form.furtherHours" /></Field
            ><Field
              class="grow"
              label="Labour rate"
              :error="wrong('labourId')"
              ><Choice
                v-model="form.labourId"
                :options="
                  rules.labour.map((l) => ({ value: l.id, label: `${l.name}, ${show(l.price)}` }))
                "
            /></Field>
          </div>
          <div
            v-if="holds"
            class="field"
          >
            <span>{{ form.kind === 'task' ? 'Parts inside' : 'Becomes these lines' }}</span>
            <div
              v-for="(p, i) in form.parts"
              :key="p.partId"
              class="row"
            >
              <FigureInput
                v-model="p.quantity"
                style="width: 64px"
                :aria-label="`How many: ${p.name}`"
              /><span class="grow"
                >{{ p.name }} <span class="quiet num small">{{ p.code }}</span></span
              ><span class="num">{{ show(p.price) }}</span
              ><ActButton
                quiet
                :aria-label="`Take out ${p.name}`"
                @click="form.parts.splice(i, 1)"
              >
                ×
              </ActButton>
            </div>
            <i
              v-if="wrong('parts')"
              class="wrong"
              >{{ wrong('parts') }}</i
            >
            <PriceSearch
              v-if="owns && form.kind === 'task'"
              key="parts"
              label="Put a part in"
              only="part"
              @choose="addParts"
            /><PriceSearch
              v-else-if="owns"
              key="any"
              label="Put something in"
              not="assembly"
              @choose="addParts"
            />
          </div>
          <div class="row top">
            <Field
              v-if="form.kind === 'task' || form.kind === 'part'"
              label="Priced"
              ><Choice
                v-model="form.pricing"
                :options="[
                  { value: 'rule', label: 'by the rule' },
                  { value: 'fixed', label: 'at a fixed price' },
                ]" /></Field
            ><Field
              v-if="session.me?.person.seesCost && form.kind !== 'assembly'"
              label="Cost"
              ><TextInput
                v-if="form.kind === 'task' && form.parts.length"
                class="num"
                :model-value="shown?.costs ? show(shown.costs.material) : ''"
                disabled
                title="What the parts inside cost" /><FigureInput
                v-else
                v-model="form.cost"
            /></Field>
            <template
              v-if="form.pricing === 'fixed' || form.kind === 'labour' || form.kind === 'charge'"
              ><Field label="Price"><FigureInput v-model="form.price" /></Field
              ><Field
                v-if="form.kind === 'task'"
                label="As a further one"
                ><FigureInput v-model="form.furtherPrice" /></Field
            ></template>
          </div>
          <p
            v-if="
              tried?.byRule &&
              form.pricing === 'fixed' &&
              (form.kind === 'part' || form.kind === 'task')
            "
            class="note row"
            role="status"
          >
            <span class="grow"
              >By the rule it would be <b class="num">{{ show(tried.byRule) }}</b> instead of
              {{ show(form.price || '0')
              }}<template v-if="tried.marginByRule !== null"
                >, a margin of {{ percent(tried.marginByRule) }} instead of
                {{ percent(tried.margin) }}</template
              >.</span
            ><template v-if="owns"
              ><ActButton @click="takeProposed"> Take that price</ActButton
              ><ActButton @click="form.pricing = 'rule'"> Follow the rule </ActButton></template
            >
          </p>
          <div class="row top">
            <Field label="Sold by"
              ><TextInput
                v-model="form.unit"
                style="width: 90px"
                placeholder="each"
                list="units" /></Field
            ><datalist id="units">
              <option
                v-for="u in rules.units"
                :key="u"
                :value="u"
              /></datalist
            ><Field
              class="grow"
              label="Taxed as"
              ><Choice
                v-model="form.taxClass"
                :options="rules.taxClasses.map((t) => ({ value: t.id, label: t.name }))" /></Field
            ><Field label="Income code"
              ><TextInput
                v-model="form.incomeCode"
                class="num"
                style="width: 110px" /></Field
            ><Check
              v-model="form.pinned"
              class="pin"
            >
              at hand</Check
            >
          </div>
          <Field label="Found by these words, too"><TextInput v-model="form.synonyms" /></Field>
          <details
            :open="
              Boolean(
                form.description ||
                form.technicianNote ||
                form.supplier ||
                form.skills ||
                form.activeFrom ||
                form.activeTo,
              )
            "
          >
            <summary>Words, supplier, skills, dates</summary>
            <div class="stack">
              <Field label="For the customer"
                ><TextInput
                  v-model="form.description"
                  rows="2" /></Field
              ><Field label="For the technician"
                ><TextInput
                  v-model="form.technicianNote"
                  rows="2"
                />
              </Field>
              <div class="row top">
                <Field
                  class="grow"
                  label="Supplier"
                  ><TextInput
                    v-model="form.supplier"
                    list="suppliers" /></Field
                ><Field label="Their part number"
                  ><TextInput
                    v-model="form.partNumber"
                    class="num" /></Field
                ><datalist id="suppliers">
                  <option
                    v-for="s in rules.suppliers"
                    :key="s"
                    :value="s"
                  />
                </datalist>
              </div>
              <Field label="Skills that it wants, with commas between"
                ><TextInput v-model="form.skills"
              /></Field>
              <div class="row top">
                <Field label="On sale from"><DateInput v-model="form.activeFrom" /></Field
                ><Field
                  label="until"
                  :error="wrong('activeTo')"
                  ><DateInput v-model="form.activeTo"
                /></Field>
              </div>
            </div>
          </details>
        </fieldset>
      </form>
      <aside>
        <div
          v-if="entry && (entry.pictureId || owns)"
          class="sheet box picture"
        >
          <img
            v-if="entry.pictureId"
            :src="`/api/v1/price-pictures/${entry.pictureId}`"
            :alt="`Picture of ${entry.name}`"
          />
          <div
            v-if="owns"
            class="row"
          >
            <FileInput
              :label="entry.pictureId ? 'Another picture' : 'Add a picture'"
              accept="image/png,image/jpeg,image/webp"
              :disabled="busy"
              @choose="picture"
            /><ActButton
              v-if="entry.pictureId"
              quiet
              :disabled="busy"
              @click="act(() => keepPicture(''))"
            >
              Take it away
            </ActButton>
          </div>
        </div>
        <div
          v-if="shown"
          class="sheet box"
        >
          <h2>Why this price</h2>
          <p
            v-if="odd"
            class="wrong"
            role="alert"
          >
            {{ odd }}
          </p>
          <PriceWhy
            :why="shown.why"
            :title="form.kind === 'task' ? 'As the first task of a visit' : 'Its price'"
          /><PriceWhy
            v-if="shown.whyFurther"
            :why="shown.whyFurther"
            title="As a further one"
          /><template v-if="shown.costs"
            ><p
              v-if="form.kind === 'task' || form.kind === 'assembly'"
              class="row quiet small"
            >
              <span class="grow"
                >It costs us: bought {{ show(shown.costs.material) }}, its hours
                {{ show(shown.costs.labour) }}</span
              >
            </p>
            <p
              v-if="shown.margin !== null"
              class="row"
            >
              <span class="grow">Margin</span><b class="num">{{ percent(shown.margin) }}</b>
            </p></template
          >
          <p
            v-if="entry && tried && tried.why.price !== entry.price"
            class="note warn"
            role="status"
          >
            Now {{ show(entry.price) }}; it would be {{ show(tried.why.price) }}.
          </p>
          <p class="small quiet">
            {{ entry?.pricedOn ? `Holds since ${session.day(entry.pricedOn)}. ` : ''
            }}<NuxtLink to="/price-book/rules">The rules</NuxtLink>
          </p>
        </div>
        <div
          v-if="entry"
          class="sheet box"
        >
          <h2>Sold in twelve months</h2>
          <p
            v-if="entry.sold.lines"
            class="num"
          >
            {{ entry.sold.quantity }} on {{ entry.sold.lines }}
            {{ entry.sold.lines === 1 ? 'line' : 'lines' }}, {{ session.money(entry.sold.net)
            }}<template v-if="entry.sold.usual">, usually at {{ show(entry.sold.usual) }}</template>
          </p>
          <p
            v-else
            class="quiet"
          >
            Not once.
          </p>
          <DataTable
            v-if="entry.sold.where.length"
            :rows="entry.sold.where"
            :row-key="(w) => w.workOrderId"
            :columns="[
              { key: 'c1', look: 'nowrap', text: (w) => session.day(w.on) },
              { key: 'c2' },
              { key: 'c3', figures: true },
            ]"
          >
            <template #c2="{ row: w }"
              ><NuxtLink
                :to="`/work/${w.workOrderId}`"
                class="num"
                >{{ w.number }}</NuxtLink
              >{{ ' ' }}<span class="quiet small">{{ w.customer }}</span></template
            >
            <template #c3="{ row: w }">{{ w.quantity }} × {{ w.unitPrice }}</template></DataTable
          >
        </div>
        <div
          v-if="entry?.hours"
          class="sheet box"
        >
          <h2>Hours as they were worked</h2>
          <p>
            Half of {{ entry.hours.of }} took between
            <b class="num">{{ hoursMinutes(entry.hours.fromSeconds) }}</b> and
            <b class="num">{{ hoursMinutes(entry.hours.toSeconds) }}</b>, the middle one
            <b class="num">{{ hoursMinutes(entry.hours.medianSeconds) }}</b>; the book says
            {{ hoursMinutes(entry.hours.quotedSeconds) }}.
          </p>
          <ActButton
            v-if="owns && entry.hours.proposedSeconds !== null"
            :disabled="busy || dirty"
            @click="asHours"
          >
            Let the book say {{ hoursMinutes(entry.hours.proposedSeconds) }}
          </ActButton>
        </div>
        <div
          v-if="entry?.alike.length"
          class="sheet box"
        >
          <h2>Easily taken for it</h2>
          <DataTable
            :rows="entry.alike"
            :row-key="(a) => a.id"
            :columns="[
              { key: 'c1', look: 'num' },
              { key: 'c2' },
              { key: 'c3', figures: true, text: (a) => show(a.price) },
            ]"
            ><template #c1="{ row: a }"
              ><NuxtLink :to="`/price-book/${a.id}`">{{ a.code }}</NuxtLink></template
            >
            <template #c2="{ row: a }"
              >{{ a.name }}
              <span class="quiet small">{{
                a.last ? `last sold ${session.day(a.last)}` : 'never sold'
              }}</span></template
            >
          </DataTable>
        </div>
        <div
          v-if="entry?.standsIn.length"
          class="sheet box"
        >
          <h2>Stands in</h2>
          <DataTable
            :rows="entry.standsIn"
            :row-key="(a) => a.id"
            :columns="[
              { key: 'c1', look: 'num' },
              { key: 'c2', text: (a) => a.name },
              { key: 'c3', figures: true, text: (a) => a.quantity },
            ]"
            ><template #c1="{ row: a }"
              ><NuxtLink :to="`/price-book/${a.id}`">{{ a.code }}</NuxtLink></template
            >
          </DataTable>
        </div>
        <div
          v-if="entry?.history.length"
          class="sheet box"
        >
          <h2>History of the price</h2>
          <DataTable
            :rows="entry.history"
            :row-key="(h, i) => i"
            :tone="(h, i) => ({ undone: h.state === 'undone' })"
            :columns="[
              { key: 'c1', look: 'nowrap', text: (h) => session.day(h.holdsFrom) },
              { key: 'c2' },
              { key: 'c3', figures: true, look: 'nowrap' },
            ]"
          >
            <template #c2="{ row: h }"
              >{{ h.title }}
              <span class="quiet small"
                >{{ h.madeBy }}{{ h.state === 'applied' ? '' : `, ${h.state}` }}</span
              ></template
            >
            <template #c3="{ row: h }"
              >{{ show(h.was.price) }} → {{ show(h.became.price) }}</template
            ></DataTable
          >
        </div>
      </aside>
    </div>
  </section>
  <Pending
    v-else
    :problem="problem"
  />
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 400px;
  gap: 12px;
  align-items: start;
}
.box {
  padding: 14px;
  display: flex;
  flex-direction: column;
  gap: 10px;
}
aside {
  display: flex;
  flex-direction: column;
  gap: 12px;
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: flex;
  flex-direction: column;
  gap: 10px;
  min-width: 0;
}
.top {
  align-items: flex-start;
  gap: 10px;
}
.pin {
  margin-top: 26px;
  white-space: nowrap;
}
.picture img {
  width: 100%;
  max-height: 200px;
  object-fit: contain;
}
.undone {
  text-decoration: line-through;
  color: var(--ink-2);
}
details .stack {
  margin-top: 8px;
}
.field .figures {
  width: 110px;
}
</style>
