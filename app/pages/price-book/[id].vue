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

definePageMeta({ layout: 'office' })
type Entry = Answer<'priceEntry'>
type Part = Entry['parts'][number]
const session = useSession()
const route = useRoute()
const fresh = computed(() => route.params.id === 'new')
const id = fresh.value ? newId() : String(route.params.id)
const owns = computed(() => ['owner', 'office'].includes(session.role))
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
const priced = computed(() => ({
  kind: form.kind,
  name: form.name,
  category: form.category,
  supplier: form.supplier,
  pricing:
    form.kind === 'assembly'
      ? ('rule' as const)
      : form.kind === 'part' || form.kind === 'task'
        ? form.pricing
        : ('fixed' as const),
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
const picture = (e: Event) =>
  act(async () => {
    const input = e.target as HTMLInputElement
    const file = input.files?.[0]
    input.value = ''
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
        ><button
          v-if="entry"
          class="btn"
          :disabled="busy"
          @click="keep({ retired: !entry.retired })"
        >
          {{ entry.retired ? 'Bring back' : 'Retire' }}</button
        ><button
          class="btn act"
          :disabled="busy || !dirty"
          @click="keep()"
        >
          Keep this entry
        </button></template
      >
    </div>
    <p
      v-if="failed"
      class="note bad"
      role="alert"
    >
      {{ failed.message }}
    </p>
    <p
      v-if="theirs"
      class="note warn row"
      role="status"
    >
      <span class="grow"
        ><b>Someone changed this entry meanwhile</b>: {{ theirs.name }}, {{ show(theirs.price) }}.
        What you typed is still here.</span
      ><button
        class="btn"
        @click="take(theirs)"
      >
        Take theirs</button
      ><button
        class="btn"
        @click="overrule(theirs)"
      >
        Keep mine over it
      </button>
    </p>
    <div class="two">
      <form
        class="sheet box"
        @submit.prevent="keep()"
      >
        <fieldset :disabled="!owns">
          <div class="row top">
            <label class="field"
              ><span>Kind</span
              ><select
                v-model="form.kind"
                class="plain"
                :disabled="!fresh"
              >
                <option
                  v-for="[k, name] in KINDS"
                  :key="k"
                  :value="k"
                >
                  {{ name }}
                </option>
              </select></label
            ><label class="field"
              ><span>Code</span
              ><input
                v-model="form.code"
                class="plain num"
                style="width: 110px"
              /><i
                v-if="wrong('code')"
                class="wrong"
                >{{ wrong('code') }}</i
              ></label
            ><label class="field grow"
              ><span>Category, with “ / ” before one inside it</span
              ><input
                v-model="form.category"
                class="plain"
                list="categories"
              /><i
                v-if="wrong('category')"
                class="wrong"
                >{{ wrong('category') }}</i
              ></label
            ><datalist id="categories">
              <option
                v-for="c in rules.categories"
                :key="c"
                :value="c"
              />
            </datalist>
          </div>
          <label class="field"
            ><span>Name</span
            ><input
              v-model="form.name"
              class="plain"
            /><i
              v-if="wrong('name')"
              class="wrong"
              >{{ wrong('name') }}</i
            ></label
          >
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
            <label class="field"
              ><span>Hours, as the first</span
              ><input
                v-model="form.hours"
                class="plain num"
                inputmode="decimal" /></label
            ><label class="field"
              ><span>Hours, as a further one</span
              ><input
                v-model="form.furtherHours"
                class="plain num"
                inputmode="decimal" /></label
            ><label class="field grow"
              ><span>Labour rate</span
              ><select
                v-model="form.labourId"
                class="plain"
              >
                <option
                  v-for="l in rules.labour"
                  :key="l.id"
                  :value="l.id"
                >
                  {{ l.name }}, {{ show(l.price) }}
                </option></select
              ><i
                v-if="wrong('labourId')"
                class="wrong"
                >{{ wrong('labourId') }}</i
              ></label
            >
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
              <input
                v-model="p.quantity"
                class="plain num"
                inputmode="decimal"
                style="width: 64px"
                :aria-label="`How many: ${p.name}`"
              /><span class="grow"
                >{{ p.name }} <span class="quiet num small">{{ p.code }}</span></span
              ><span class="num">{{ show(p.price) }}</span
              ><button
                type="button"
                class="btn plain"
                :aria-label="`Take out ${p.name}`"
                @click="form.parts.splice(i, 1)"
              >
                ×
              </button>
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
            <label
              v-if="form.kind === 'task' || form.kind === 'part'"
              class="field"
              ><span>Priced</span
              ><select
                v-model="form.pricing"
                class="plain"
              >
                <option value="rule">by the rule</option>
                <option value="fixed">at a fixed price</option>
              </select></label
            ><label
              v-if="session.me?.person.seesCost && form.kind !== 'assembly'"
              class="field"
              ><span>Cost</span
              ><input
                v-if="form.kind === 'task' && form.parts.length"
                class="plain num"
                :value="shown?.costs ? show(shown.costs.material) : ''"
                disabled
                title="What the parts inside cost" /><input
                v-else
                v-model="form.cost"
                class="plain num"
                inputmode="decimal"
            /></label>
            <template
              v-if="form.pricing === 'fixed' || form.kind === 'labour' || form.kind === 'charge'"
              ><label class="field"
                ><span>Price</span
                ><input
                  v-model="form.price"
                  class="plain num"
                  inputmode="decimal" /></label
              ><label
                v-if="form.kind === 'task'"
                class="field"
                ><span>As a further one</span
                ><input
                  v-model="form.furtherPrice"
                  class="plain num"
                  inputmode="decimal" /></label
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
              ><button
                type="button"
                class="btn"
                @click="takeProposed"
              >
                Take that price</button
              ><button
                type="button"
                class="btn"
                @click="form.pricing = 'rule'"
              >
                Follow the rule
              </button></template
            >
          </p>
          <div class="row top">
            <label class="field"
              ><span>Sold by</span
              ><input
                v-model="form.unit"
                class="plain"
                style="width: 90px"
                placeholder="each"
                list="units" /></label
            ><datalist id="units">
              <option
                v-for="u in rules.units"
                :key="u"
                :value="u"
              /></datalist
            ><label class="field grow"
              ><span>Taxed as</span
              ><select
                v-model="form.taxClass"
                class="plain"
              >
                <option
                  v-for="t in rules.taxClasses"
                  :key="t.id"
                  :value="t.id"
                >
                  {{ t.name }}
                </option>
              </select></label
            ><label class="field"
              ><span>Income code</span
              ><input
                v-model="form.incomeCode"
                class="plain num"
                style="width: 110px" /></label
            ><label class="row pin"
              ><input
                v-model="form.pinned"
                type="checkbox"
              />
              at hand</label
            >
          </div>
          <label class="field"
            ><span>Found by these words, too</span
            ><input
              v-model="form.synonyms"
              class="plain"
          /></label>
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
              <label class="field"
                ><span>For the customer</span
                ><textarea
                  v-model="form.description"
                  class="plain"
                  rows="2"
                /></label
              ><label class="field"
                ><span>For the technician</span
                ><textarea
                  v-model="form.technicianNote"
                  class="plain"
                  rows="2"
                />
              </label>
              <div class="row top">
                <label class="field grow"
                  ><span>Supplier</span
                  ><input
                    v-model="form.supplier"
                    class="plain"
                    list="suppliers" /></label
                ><label class="field"
                  ><span>Their part number</span
                  ><input
                    v-model="form.partNumber"
                    class="plain num" /></label
                ><datalist id="suppliers">
                  <option
                    v-for="s in rules.suppliers"
                    :key="s"
                    :value="s"
                  />
                </datalist>
              </div>
              <label class="field"
                ><span>Skills that it wants, with commas between</span
                ><input
                  v-model="form.skills"
                  class="plain"
              /></label>
              <div class="row top">
                <label class="field"
                  ><span>On sale from</span
                  ><input
                    v-model="form.activeFrom"
                    class="plain"
                    type="date" /></label
                ><label class="field"
                  ><span>until</span
                  ><input
                    v-model="form.activeTo"
                    class="plain"
                    type="date"
                  /><i
                    v-if="wrong('activeTo')"
                    class="wrong"
                    >{{ wrong('activeTo') }}</i
                  ></label
                >
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
            <label class="btn"
              ><input
                type="file"
                class="visually-hidden"
                accept="image/png,image/jpeg,image/webp"
                :disabled="busy"
                @change="picture"
              />{{ entry.pictureId ? 'Another picture' : 'Add a picture' }}</label
            ><button
              v-if="entry.pictureId"
              type="button"
              class="btn plain"
              :disabled="busy"
              @click="act(() => keepPicture(''))"
            >
              Take it away
            </button>
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
          <table
            v-if="entry.sold.where.length"
            class="book"
          >
            <tbody>
              <tr
                v-for="w in entry.sold.where"
                :key="w.workOrderId"
              >
                <td class="nowrap">{{ session.day(w.on) }}</td>
                <td>
                  <NuxtLink
                    :to="`/work/${w.workOrderId}`"
                    class="num"
                    >{{ w.number }}</NuxtLink>{{ ' '
                  }}<span class="quiet small">{{ w.customer }}</span>
                </td>
                <td class="right num">{{ w.quantity }} × {{ w.unitPrice }}</td>
              </tr>
            </tbody>
          </table>
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
          <button
            v-if="owns && entry.hours.proposedSeconds !== null"
            type="button"
            class="btn"
            :disabled="busy || dirty"
            @click="asHours"
          >
            Let the book say {{ hoursMinutes(entry.hours.proposedSeconds) }}
          </button>
        </div>
        <div
          v-if="entry?.alike.length"
          class="sheet box"
        >
          <h2>Easily taken for it</h2>
          <table class="book">
            <tbody>
              <tr
                v-for="a in entry.alike"
                :key="a.id"
              >
                <td class="num">
                  <NuxtLink :to="`/price-book/${a.id}`">{{ a.code }}</NuxtLink>
                </td>
                <td>
                  {{ a.name }}
                  <span class="quiet small">{{
                    a.last ? `last sold ${session.day(a.last)}` : 'never sold'
                  }}</span>
                </td>
                <td class="right num">{{ show(a.price) }}</td>
              </tr>
            </tbody>
          </table>
        </div>
        <div
          v-if="entry?.standsIn.length"
          class="sheet box"
        >
          <h2>Stands in</h2>
          <table class="book">
            <tbody>
              <tr
                v-for="a in entry.standsIn"
                :key="a.id"
              >
                <td class="num">
                  <NuxtLink :to="`/price-book/${a.id}`">{{ a.code }}</NuxtLink>
                </td>
                <td>{{ a.name }}</td>
                <td class="right num">{{ a.quantity }}</td>
              </tr>
            </tbody>
          </table>
        </div>
        <div
          v-if="entry?.history.length"
          class="sheet box"
        >
          <h2>History of the price</h2>
          <table class="book">
            <tbody>
              <tr
                v-for="(h, i) in entry.history"
                :key="i"
                :class="{ undone: h.state === 'undone' }"
              >
                <td class="nowrap">{{ session.day(h.holdsFrom) }}</td>
                <td>
                  {{ h.title }}
                  <span class="quiet small"
                    >{{ h.madeBy }}{{ h.state === 'applied' ? '' : `, ${h.state}` }}</span
                  >
                </td>
                <td class="right num nowrap">
                  {{ show(h.was.price) }} → {{ show(h.became.price) }}
                </td>
              </tr>
            </tbody>
          </table>
        </div>
      </aside>
    </div>
  </section>
  <p
    v-else
    class="empty"
    role="status"
  >
    {{ problem?.message ?? 'Opening…' }}
  </p>
</template>

<style scoped>
.page {
  padding: 18px 20px;
  display: flex;
  flex-direction: column;
  gap: 12px;
}
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
i.wrong {
  font-style: normal;
}
.field input.num {
  width: 110px;
}
.field input[style*='width'] {
  min-width: 0;
}
</style>
