<script setup lang="ts">
// One visit: the clock, the lines with their price, the customer's agreement, the invoice and the money, step by step.
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import SignaturePad from 'signature_pad'
import type { Answer } from '~~/shared/api'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import NowCard from '~/components/visits/NowCard.vue'
import OwnLineForm, { type OwnLine } from '~/components/pricebook/OwnLine.vue'
import SupplierSheet, { type BasketLine } from '~/components/pricebook/SupplierSheet.vue'
import PriceSearch from '~/components/pricebook/PriceSearch.vue'
import PaySheet from '~/components/payments/PaySheet.vue'
import { call, newId } from '~/lib/api'
import { dataUrl } from '~/lib/dataUrl'
import { useAct } from '~/lib/useAct'
import type { Found } from '~/lib/book'
import { useLoad } from '~/lib/useLoad'
import { useSession } from '~/stores/session'
import Pending from '~/base/Pending.vue'

definePageMeta({ layout: 'field', key: (route) => route.fullPath })
type Line = Answer<'workOrder'>['lines'][number]
const session = useSession()
const id = String(useRoute().params.id)
const { data, problem, refresh } = useLoad(() => call('fieldVisit', { params: { id } }))
const { busy, problem: failed, act } = useAct()
const step = ref<'work' | 'add' | 'agree' | 'bill'>('work')
const work = computed(() => data.value?.workOrder ?? null)
function keep(w: Answer<'workOrder'>) {
  if (data.value) data.value = { ...data.value, workOrder: w }
}
const clock = (what: 'set_off' | 'arrive' | 'pause' | 'resume' | 'finish' | 'no_access') =>
  act(async () => {
    // What was typed a moment ago is kept first.
    await write()
    data.value = await call('clock', { params: { id }, body: { act: what } })
  })
const added = ref('')
const add = (entries: Found[]) =>
  act(async () => {
    keep(
      await call('addLines', {
        params: { id: work.value!.id },
        body: {
          visitId: id,
          lines: entries.map((e) => ({
            id: newId(),
            entryId: e.id,
            quantity: '1',
            kind: 'other' as const,
            done: true,
            name: undefined,
            unitPrice: undefined,
          })),
        },
      }),
    )
    added.value = entries.map((e) => e.name).join(', ')
  }, 'wait')
const writing = ref(false)
const addOwn = (line: OwnLine) =>
  act(async () => {
    keep(
      await call('addLines', {
        params: { id: work.value!.id },
        body: { visitId: id, lines: [{ ...line, done: true }] },
      }),
    )
    added.value = line.name ?? 'a line'
    writing.value = false
  }, 'wait')
const buying = ref(false)
const basket = (items: BasketLine[]) =>
  act(async () => {
    keep(await call('addBasket', { params: { id: work.value!.id }, body: { visitId: id, items } }))
    added.value = `${items.length} from a supplier`
    buying.value = false
  })
const editing = ref('')
const quantity = ref('')
const price = ref('')
function edit(l: Line) {
  editing.value = editing.value === l.id ? '' : l.id
  quantity.value = l.quantity
  price.value = l.unitPrice
}
const change = (
  l: Line,
  body: Partial<{ quantity: string; unitPrice: string; done: boolean; removed: boolean }>,
) =>
  act(async () => {
    keep(await call('changeLine', { params: { id: l.id }, body: { version: l.version, ...body } }))
    editing.value = ''
  })
// Agreeing: what the customer sees has no internal figures; the total they saw is sent along with the signature.
const canvas = ref<HTMLCanvasElement>()
const pad = shallowRef<SignaturePad | null>(null)
const signer = ref('')
watch(step, async (s) => {
  failed.value = null
  window.scrollTo(0, 0)
  if (s !== 'agree') return
  await nextTick()
  const box = canvas.value!
  const ratio = Math.max(1, window.devicePixelRatio)
  box.width = box.offsetWidth * ratio
  box.height = box.offsetHeight * ratio
  box.getContext('2d')!.scale(ratio, ratio)
  pad.value = new SignaturePad(box, { penColor: '#16241f' })
})
const sign = () =>
  act(async () => {
    const w = await call('sign', {
      params: { id: work.value!.id },
      body: {
        id: newId(),
        visitId: id,
        name: signer.value,
        image: pad.value?.isEmpty() ? '' : pad.value!.toDataURL('image/png'),
        shownTotal: work.value!.price.total.amount,
      },
    })
    keep(w)
    step.value = 'work'
  })
// Billing at the door.
const first = ref('')
const second = ref('')
const invoice = ref<Answer<'invoice'> | null>(null)
let invoiceId = newId()
async function openBill() {
  step.value = 'bill'
  first.value = work.value!.customer.email
  second.value = work.value!.customer.email2
  invoiceId = newId()
  const open =
    work.value!.invoices.find((i) => Number(i.open.amount) > 0) ?? work.value!.invoices.at(-1)
  invoice.value =
    Number(work.value!.totals.toBill.amount) === 0 && open
      ? await call('invoice', { params: { id: open.id } })
      : null
}
const bill = (send: boolean) =>
  act(async () => {
    invoice.value = await call('makeInvoice', {
      params: { id: work.value!.id },
      key: `${invoiceId}${send}`,
      body: {
        id: invoiceId,
        to: send ? [first.value, second.value].map((x) => x.trim()).filter(Boolean) : [],
        shownTotal: work.value!.bill.total.amount,
      },
    })
    await refresh()
  })
const paying = ref(false)
async function paid() {
  invoice.value = await call('invoice', {
    params: { id: invoice.value!.paper ? invoice.value!.id : '' },
  })
  await refresh()
}
// What is typed stays until it is kept: no answer to anything else writes over it, and keeping it holds up no other button.
const findings = ref('')
const typed = ref(false)
const { problem: unwritten, act: keepWords } = useAct()
watch(
  data,
  (d) => {
    if (d && !typed.value) findings.value = d.findings
  },
  { immediate: true },
)
const write = () =>
  keepWords(async () => {
    if (!typed.value) return
    const words = findings.value
    const kept = await call('findings', {
      params: { id },
      body: { version: data.value!.version, findings: words },
    })
    // What was typed since is not kept yet.
    typed.value = findings.value !== words
    data.value = kept
  }, 'wait')
const photo = (e: Event) =>
  act(async () => {
    const file = (e.target as HTMLInputElement).files?.[0]
    if (!file) return
    const text = await dataUrl(file)
    await call('addPhoto', { params: { id: work.value!.id }, body: { id: newId(), data: text } })
    await refresh()
  })
// Not finished in one go: the office finds the time, and reads here why.
const again = ref('')
const asking = ref(false)
const further = () =>
  act(async () => {
    await call('furtherVisit', {
      params: { id },
      body: { id: newId(), version: data.value!.version, durationSeconds: 3600, note: again.value },
    })
    again.value = ''
    asking.value = false
    await refresh()
  })
const charge = () =>
  act(async () =>
    keep(await call('chargeTime', { params: { id: work.value!.id }, body: { lineId: newId() } })),
  )
const quote = () =>
  act(async () => {
    const made = await call('beginQuote', { body: { id: newId(), workOrderId: work.value!.id } })
    await navigateTo(`/field/quotes/${made.id}`)
  })
const why = ref('')
const explaining = ref(false)
const explain = () =>
  act(async () => {
    keep(
      await call('explainTime', {
        params: { id: work.value!.id },
        body: { seconds: work.value!.time.uncoveredSeconds, reason: why.value },
      }),
    )
    explaining.value = false
  })
const notDone = computed(() => work.value?.lines.filter((l) => !l.done).length ?? 0)
const otherOpen = computed(() =>
  data.value?.openVisitId && data.value.openVisitId !== id
    ? data.value.openVisitId
    : (failed.value?.extra.openVisitId as string | undefined),
)
</script>

<template>
  <div
    v-if="data && work"
    class="visit"
  >
    <template v-if="step !== 'agree'">
      <header>
        <NuxtLink
          v-if="step === 'work'"
          class="btn plain"
          to="/field"
          aria-label="Back to the day"
          >←</NuxtLink
        ><button
          v-else
          class="btn plain"
          aria-label="Back to the visit"
          @click="step = 'work'"
        >
          ←
        </button>
        <div class="grow">
          <h1 class="clip">{{ data.visit.customer }}</h1>
          <p class="quiet small">
            {{ data.visit.place
            }}<template v-if="data.visit.accessNote"> · {{ data.visit.accessNote }}</template>
          </p>
        </div>
      </header>
      <p
        v-if="data.visit.lead && step === 'work'"
        class="note gap"
      >
        You go along with {{ data.visit.lead }}; the clock of this visit is theirs.
      </p>
      <NowCard
        v-else-if="step === 'work'"
        :detail="data"
        :busy="busy"
        @act="clock"
      />
    </template>
    <p
      v-if="failed || problem"
      class="note bad gap"
      role="alert"
    >
      {{ (failed ?? problem)?.message }}
    </p>
    <NuxtLink
      v-if="otherOpen && step === 'work'"
      class="btn gap"
      :to="`/field/visits/${otherOpen}`"
      >Go to the open visit →</NuxtLink
    >

    <template v-if="step === 'work'">
      <section class="block">
        <p class="quiet small">{{ work.number }} · {{ work.title }}</p>
        <p>{{ work.problem }}</p>
        <p
          v-if="data.visit.officeNote"
          class="soon small"
        >
          {{ data.visit.officeNote }}
        </p>
        <a
          v-if="data.visit.phone"
          class="btn"
          :href="`tel:${data.visit.phone.replace(/[^\d+]/g, '')}`"
          >Ring {{ data.visit.contact }} · {{ data.visit.phone }}</a
        >
      </section>
      <section
        v-if="work.kind === 'quote_visit' || work.quotes.length"
        class="block stack"
      >
        <NuxtLink
          v-for="q in work.quotes"
          :key="q.id"
          class="btn"
          :to="`/field/quotes/${q.id}`"
          >Quote {{ q.number }} · {{ q.state }} {{ session.money(q.total) }}</NuxtLink
        ><button
          v-if="!work.quotes.length"
          class="btn act"
          :disabled="busy"
          @click="quote"
        >
          Begin the quote
        </button>
      </section>
      <div class="row title">
        <h2 class="grow">Lines</h2>
        <button
          class="btn plain good"
          @click="
            () => {
              step = 'add'
              added = ''
            }
          "
        >
          + Price book
        </button>
      </div>
      <ul class="lines">
        <li
          v-for="l in work.lines"
          :key="l.id"
        >
          <button
            type="button"
            class="line"
            :aria-expanded="editing === l.id"
            @click="edit(l)"
          >
            <span class="grow"
              ><b>{{ l.name }}</b
              >{{ ' '
              }}<span class="quiet small"
                >{{ l.kind === 'task' ? 'flat rate' : l.kind }} · {{ l.quantity }} × {{ l.unitPrice
                }}{{ l.done ? '' : ' · promised, not done yet'
                }}<template v-if="l.unitCost !== null"> · cost {{ l.unitCost }}</template></span
              ></span
            ><span class="num">{{ session.money(l.net, false) }}</span>
          </button>
          <form
            v-if="editing === l.id"
            class="edit"
            @submit.prevent="change(l, { quantity, unitPrice: price })"
          >
            <p
              v-if="Number(l.billed.amount)"
              class="quiet small"
            >
              This line is on an invoice.
            </p>
            <template v-else
              ><div class="row">
                <label class="field grow"
                  ><span>Quantity</span
                  ><input
                    v-model="quantity"
                    class="plain num"
                    inputmode="decimal"
                  /><span
                    v-if="failed?.at('quantity')"
                    class="wrong"
                    >{{ failed.at('quantity') }}</span
                  ></label
                ><label class="field grow"
                  ><span>Each, on this work order only</span
                  ><input
                    v-model="price"
                    class="plain num"
                    inputmode="decimal"
                  /><span
                    v-if="failed?.at('unitPrice')"
                    class="wrong"
                    >{{ failed.at('unitPrice') }}</span
                  ></label
                >
              </div>
              <div class="row">
                <button
                  class="btn act grow"
                  :disabled="busy"
                >
                  Keep</button
                ><button
                  type="button"
                  class="btn"
                  :disabled="busy"
                  @click="change(l, { done: !l.done })"
                >
                  {{ l.done ? 'Not done' : 'Done' }}</button
                ><button
                  type="button"
                  class="btn"
                  :disabled="busy"
                  @click="change(l, { removed: true })"
                >
                  Take out
                </button>
              </div></template
            >
          </form>
        </li>
        <li
          v-if="!work.lines.length"
          class="empty"
        >
          Nothing is priced yet.
        </li>
      </ul>
      <section
        v-if="work.lines.length"
        class="sums"
      >
        <p
          v-if="Number(work.price.saving.amount)"
          class="row quiet"
        >
          <span class="grow">{{
            work.customer.level
              ? `Taken off by ${work.customer.level.toLowerCase()}`
              : `With a ${work.price.savingLevel.toLowerCase()}`
          }}</span><span class="num">−{{ session.money(work.price.saving, false) }}</span>
        </p>
        <p
          v-for="t in work.price.taxes"
          :key="t.name"
          class="row quiet"
        >
          <span class="grow">{{ t.name }}</span><span class="num">{{
            session.money(t.tax, false)
          }}</span>
        </p>
        <p
          v-if="work.customer.exempt"
          class="quiet"
        >
          Tax exempt
        </p>
        <p
          v-if="work.price.cost"
          class="row quiet"
        >
          <span class="grow">Material cost, margin over it</span
          ><span class="num"
            >{{ session.money(work.price.cost, false) }},
            {{ ((work.price.margin ?? 0) * 100).toFixed(1) }} %</span
          >
        </p>
      </section>
      <p
        v-if="notDone && data.visit.state === 'finished'"
        class="note warn gap"
      >
        {{ notDone }} {{ notDone === 1 ? 'line was' : 'lines were' }} promised and
        {{ notDone === 1 ? 'is' : 'are' }} not marked done. Open
        {{ notDone === 1 ? 'it' : 'them' }} above.
      </p>
      <div
        v-if="work.time.uncoveredSeconds"
        class="note warn gap stack"
      >
        <p>
          <b
            >{{ Math.round(work.time.uncoveredSeconds / 60) }} minutes were worked that no line
            charges for.</b
          >
          {{ hoursMinutes(work.time.siteSeconds) }} h on site, lines cover
          {{ hoursMinutes(work.time.coveredSeconds) }} h.
        </p>
        <div class="row">
          <button
            class="btn act grow"
            :disabled="busy"
            @click="charge"
          >
            Charge {{ session.money(work.time.charge) }}</button
          ><button
            class="btn grow"
            @click="explaining = true"
          >
            Leave out
          </button>
        </div>
        <form
          v-if="explaining"
          class="row"
          @submit.prevent="explain"
        >
          <input
            v-model="why"
            class="plain"
            placeholder="Say why"
            aria-label="Why these minutes are not charged"
          /><button
            class="btn"
            :disabled="busy"
          >
            Keep
          </button>
        </form>
      </div>
      <section class="block">
        <label class="field"
          ><span>What was found and done</span
          ><textarea
            v-model="findings"
            class="plain"
            rows="3"
            @input="typed = true"
            @blur="write"
          /><span
            v-if="unwritten"
            class="wrong"
            role="alert"
            >{{ unwritten.message }} What you typed is still here.</span
          ></label
        >
        <div class="row pics">
          <img
            v-for="p in work.photos"
            :key="p.id"
            :src="`/api/v1/photos/${p.id}`"
            alt="Photo from this visit"
          /><label class="btn"
            >Add a photo<input
              class="visually-hidden"
              type="file"
              accept="image/*"
              capture="environment"
              @change="photo"
          /></label>
        </div>
        <p
          v-for="s in work.signatures"
          :key="s.id"
          class="quiet small"
        >
          ✓ {{ s.name }} signed for {{ session.money(s.total) }}, {{ session.dayTime(s.signedAt) }}
        </p>
      </section>
      <section
        v-if="!data.visit.lead"
        class="block"
      >
        <button
          v-if="!asking"
          class="btn"
          @click="asking = true"
        >
          A further visit is needed…
        </button>
        <form
          v-else
          class="stack"
          @submit.prevent="further"
        >
          <label class="field"
            ><span>What for: a part, more time, a second pair of hands</span
            ><input
              v-model="again"
              class="plain" /></label
          ><button
            class="btn act"
            :disabled="busy || !again.trim()"
          >
            Ask the office for a further visit
          </button>
        </form>
        <p
          v-for="v in work.visits.filter((x) => !x.startAt && x.state === 'planned')"
          :key="v.id"
          class="quiet small"
        >
          A further visit is asked for; the office finds the time.
        </p>
      </section>
      <footer v-if="work.lines.length">
        <p class="row">
          <span class="grow">Total with tax</span
          ><b class="num big"
            ><span class="double">{{ session.money(work.price.total) }}</span></b
          >
        </p>
        <div class="row">
          <button
            class="btn grow"
            :class="{ act: !work.signatures.length }"
            @click="step = 'agree'"
          >
            Show the customer</button
          ><button
            class="btn grow"
            :class="{ act: work.signatures.length }"
            @click="openBill"
          >
            {{
              Number(work.totals.toBill.amount)
                ? 'Bill'
                : work.invoices.length
                  ? 'Take payment'
                  : 'Bill'
            }}
          </button>
        </div>
      </footer>
    </template>

    <section
      v-else-if="step === 'add'"
      class="block"
    >
      <p
        v-if="added"
        class="note"
        role="status"
      >
        Added: {{ added }}
      </p>
      <PriceSearch
        label="Search the price book"
        at-hand
        autofocus
        large
        @choose="add"
      /><button
        class="btn"
        @click="writing = !writing"
      >
        Not in the book…</button
      ><OwnLineForm
        v-if="writing"
        :busy="busy"
        @add="addOwn"
        @close="writing = false"
      />
      <p
        v-if="writing && failed"
        class="wrong"
        role="alert"
      >
        {{ failed.message }}
      </p>
      <button
        class="btn"
        @click="buying = true"
      >
        From a supplier…</button
      ><SupplierSheet
        v-if="buying"
        field
        :busy="busy"
        :problem="failed"
        @take="basket"
        @close="buying = false"
      /><button
        class="btn act"
        @click="step = 'work'"
      >
        Back to the lines
      </button>
    </section>

    <section
      v-else-if="step === 'agree'"
      class="block agree"
    >
      <h1>{{ session.me?.company.name }}</h1>
      <p>For {{ work.customer.name }}, {{ work.site.line1 }}, {{ work.site.town }}</p>
      <table class="book">
        <tbody>
          <tr
            v-for="l in work.lines"
            :key="l.id"
          >
            <td>
              {{ l.name
              }}<span
                v-if="l.quantity !== '1'"
                class="quiet"
              >
                × {{ l.quantity }}</span
              >
            </td>
            <td class="right num">{{ session.money(l.net, false) }}</td>
          </tr>
          <tr
            v-for="t in work.price.taxes"
            :key="t.name"
          >
            <td class="quiet">{{ t.name }}</td>
            <td class="right num">{{ session.money(t.tax, false) }}</td>
          </tr>
          <tr class="sum">
            <td>Total with tax</td>
            <td class="right num">
              <span class="double">{{ session.money(work.price.total) }}</span>
            </td>
          </tr>
        </tbody>
      </table>
      <p
        v-if="!work.customer.level && Number(work.price.saving.amount)"
        class="quiet"
      >
        With a {{ work.price.savingLevel.toLowerCase() }} this would be
        {{ session.money(work.price.saving) }} less, before tax.
      </p>
      <div>
        <p class="quiet small">Sign here with your finger</p>
        <canvas
          ref="canvas"
          class="pad"
          aria-label="Signature"
        />
      </div>
      <label class="field"
        ><span>Your name</span
        ><input
          v-model="signer"
          class="plain"
          autocomplete="off"
        /><span
          v-if="failed?.at('name')"
          class="wrong"
          >{{ failed.at('name') }}</span
        ></label
      >
      <p
        v-if="failed?.at('image')"
        class="wrong"
      >
        {{ failed.at('image') }}
      </p>
      <button
        class="btn act"
        :disabled="busy"
        @click="sign"
      >
        I agree to {{ session.money(work.price.total) }}
      </button>
      <div class="row">
        <button
          class="btn grow"
          @click="pad?.clear()"
        >
          Sign again</button
        ><button
          class="btn grow"
          @click="step = 'work'"
        >
          Not now
        </button>
      </div>
    </section>

    <section
      v-else
      class="block"
    >
      <template v-if="!invoice">
        <h2>Bill {{ session.money(work.bill.total) }}</h2>
        <p
          v-if="!Number(work.bill.total.amount)"
          class="note warn"
        >
          Nothing is done and not billed.
        </p>
        <template v-else
          ><p class="quiet">Due {{ session.day(work.bill.dueOn) }} ({{ work.customer.terms }})</p>
          <ul
            v-if="work.bill.missing.length"
            class="note warn"
          >
            <li
              v-for="m in work.bill.missing"
              :key="m"
            >
              {{ m }}
            </li>
          </ul>
          <label class="field"
            ><span>Send to</span
            ><input
              v-model="first"
              class="plain"
              type="email" /></label
          ><label class="field"
            ><span>and to</span
            ><input
              v-model="second"
              class="plain"
              type="email"
          /></label>
          <button
            class="btn act"
            :disabled="busy || !first.trim()"
            @click="bill(true)"
          >
            Make and send invoice {{ session.money(work.bill.total) }}</button
          ><button
            class="btn"
            :disabled="busy"
            @click="bill(false)"
          >
            Make it, send later
          </button></template
        >
      </template>
      <template v-else>
        <h2>Invoice {{ invoice.paper.number }}</h2>
        <p>
          {{ invoice.state }} · open <b class="num">{{ session.money(invoice.open) }}</b>
        </p>
        <p
          v-for="p in invoice.payments"
          :key="p.id"
          class="quiet"
        >
          <span class="num">{{ session.money(p.amount) }}</span> by {{ p.method }} {{ p.reference }}
        </p>
        <p
          v-for="m in invoice.messages"
          :key="m.id"
          class="quiet small"
        >
          Mail to {{ m.to }}: {{ m.state }}
        </p>
        <button
          v-if="Number(invoice.open.amount) && session.me?.person.takesMoney"
          class="btn act"
          @click="paying = true"
        >
          Take payment</button
        ><button
          class="btn"
          @click="step = 'work'"
        >
          Back to the visit
        </button>
        <PaySheet
          v-if="paying"
          v-model="paying"
          :customer-id="invoice.customerId"
          :invoice-id="invoice.id"
          :number="invoice.paper.number"
          :due="invoice.open"
          :mails="[first, second].filter(Boolean)"
          @paid="paid"
        />
      </template>
    </section>
  </div>
  <Pending
    v-else
    :problem="problem"
    says="Opening the visit…"
  />
</template>

<style scoped>
.visit {
  display: flex;
  flex-direction: column;
  min-height: 100vh;
}
header {
  display: flex;
  gap: 4px;
  align-items: center;
  padding: 8px 16px 8px 4px;
  background: var(--sheet);
  border-bottom: 1px solid var(--rule-2);
}
h1 {
  font-size: 18px;
}
.gap {
  margin: 12px 16px 0;
}
.block {
  padding: 14px 16px;
  display: flex;
  flex-direction: column;
  gap: 12px;
}
.title {
  padding: 4px 16px;
}
.lines {
  list-style: none;
  margin: 0;
  padding: 0;
  background: var(--sheet);
  border-top: 1px solid var(--rule);
}
.lines li {
  border-bottom: 1px solid var(--rule);
}
.line {
  display: flex;
  gap: 12px;
  width: 100%;
  text-align: left;
  border: 0;
  background: none;
  padding: 10px 16px;
  align-items: baseline;
  cursor: pointer;
}
.line .grow {
  display: flex;
  flex-direction: column;
}
.edit {
  padding: 0 16px 14px;
  display: flex;
  flex-direction: column;
  gap: 10px;
}
.sums {
  padding: 8px 16px;
}
.pics {
  flex-wrap: wrap;
}
.pics img {
  height: 64px;
  border-radius: 6px;
}
footer {
  position: sticky;
  bottom: 0;
  margin-top: auto;
  background: var(--sheet);
  border-top: 1px solid var(--rule-2);
  padding: 12px 16px;
  display: flex;
  flex-direction: column;
  gap: 10px;
}
.big {
  font-size: 23px;
}
.agree {
  background: var(--sheet);
  min-height: 100vh;
}
.pad {
  width: 100%;
  height: 170px;
  border: 1px solid var(--rule-2);
  border-radius: 8px;
  background: #fff;
  touch-action: none;
  display: block;
}
</style>
