<script setup lang="ts">
// The four-column account of a work order: promised, done, billed, paid; its gaps can be acted on where they stand.
import { computed, onMounted, reactive, ref } from 'vue'
import { PRICE_FROM } from '~~/core/pricebook/priceOrder'
import type { Answer } from '~~/shared/api'
import { hoursMinutes } from '~~/core/hours/workedSeconds'
import BillSheet from '~/components/invoices/BillSheet.vue'
import PaySheet from '~/components/payments/PaySheet.vue'
import OwnLineForm, { type OwnLine } from '~/components/pricebook/OwnLine.vue'
import PriceSearch from '~/components/pricebook/PriceSearch.vue'
import SupplierSheet, { type BasketLine } from '~/components/pricebook/SupplierSheet.vue'
import WorkRates from '~/components/visits/WorkRates.vue'
import WorkWords from '~/components/visits/WorkWords.vue'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import type { Found } from '~/lib/book'
import { useLoad } from '~/lib/useLoad'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
type Work = Answer<'workOrder'>
const session = useSession()
const route = useRoute()
const id = String(route.params.id)
const {
  data: work,
  problem,
  refresh,
} = useLoad(() => call('workOrder', { params: { id } }), 0, { about: () => [id] })
const { busy, problem: failed, act } = useAct()
const billing = ref(false)
const paying = ref<Work['invoices'][number] | null>(null)
const adding = ref(false)
const explaining = ref(false)
const why = ref('')
const editing = reactive({ id: '', name: '', quantity: '', unitPrice: '', discount: '' })
onMounted(() => {
  if (route.query.bill) billing.value = true
})
const edits = computed(() => ['owner', 'office', 'dispatch'].includes(session.role))
const bills = computed(() => ['owner', 'office', 'books'].includes(session.role))
const zero = (m: { amount: string }) => Number(m.amount) === 0
const show = (m: { amount: string; currency: string }) => (zero(m) ? '–' : session.money(m, false))
const change = (
  line: Work['lines'][number],
  body: Partial<{
    name: string
    quantity: string
    unitPrice: string
    discount: string
    done: boolean
    removed: boolean
  }>,
) =>
  act(async () => {
    work.value = await call('changeLine', {
      params: { id: line.id },
      body: { version: line.version, ...body },
    })
    editing.id = ''
  })
const add = (entries: Found[]) =>
  act(async () => {
    work.value = await call('addLines', {
      params: { id },
      body: {
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
    })
  }, 'wait')
const writing = ref(false)
const addOwn = (line: OwnLine) =>
  act(async () => {
    work.value = await call('addLines', {
      params: { id },
      body: { lines: [{ ...line, done: true }] },
    })
    writing.value = false
  }, 'wait')
const off = reactive({ open: false, text: '' })
const discountAll = () =>
  act(async () => {
    work.value = await call('discountLines', { params: { id }, body: { discount: off.text } })
    Object.assign(off, { open: false, text: '' })
  })
const buying = ref(false)
const basket = (items: BasketLine[]) =>
  act(async () => {
    work.value = await call('addBasket', { params: { id }, body: { items } })
    buying.value = false
  })
const charge = () =>
  act(async () => {
    work.value = await call('chargeTime', { params: { id }, body: { lineId: newId() } })
  })
const explain = () =>
  act(async () => {
    work.value = await call('explainTime', {
      params: { id },
      body: { seconds: work.value!.time.uncoveredSeconds, reason: why.value },
    })
    explaining.value = false
  })
const quote = () =>
  act(async () => {
    const made = await call('beginQuote', { body: { id: newId(), workOrderId: id } })
    await navigateTo(`/quotes/${made.id}`)
  })
const closing = ref(false)
const back = reactive({
  open: false,
  kind: 'call-back' as 'call-back' | 'warranty',
  problem: '',
  workOrderId: newId(),
  visitId: newId(),
})
const comeBack = () =>
  act(async () => {
    const made = await call('callBack', {
      params: { id },
      body: {
        workOrderId: back.workOrderId,
        visitId: back.visitId,
        kind: back.kind,
        problem: back.problem,
      },
    })
    back.open = false
    await navigateTo(`/work/${made.workOrderId}`)
  })
const close = () =>
  act(async () => {
    work.value = await call('closeWorkOrder', { params: { id }, body: { reason: why.value } })
    closing.value = false
  })
function edit(l: Work['lines'][number]) {
  Object.assign(editing, {
    id: l.id,
    name: l.name,
    quantity: l.quantity,
    unitPrice: l.unitPrice,
    discount: l.discount.amount,
  })
}
const printPage = () => window.print()
const mails = computed(() =>
  [work.value?.customer.email, work.value?.customer.email2].filter((m): m is string => Boolean(m)),
)
const groups = computed(() => {
  const w = work.value
  if (!w) return []
  const byVisit = w.visits.map((v, i) => ({
    key: v.id,
    title: `Visit ${i + 1} · ${v.technician || 'nobody yet'}${v.startAt ? ` · ${session.dayTime(v.startAt)}` : ' · no time yet'} · ${v.state.replace('_', ' ')}${v.siteSeconds ? ` · ${hoursMinutes(v.siteSeconds)} h on site, ${hoursMinutes(v.driveSeconds)} h driving` : ''}${v.along.map((a) => ` · ${a.name} along, ${hoursMinutes(a.seconds)} h`).join('')}`,
    lines: w.lines.filter((l) => l.visitId === v.id),
  }))
  const rest = w.lines.filter((l) => !l.visitId)
  return rest.length
    ? [...byVisit, { key: 'rest', title: 'Added in the office', lines: rest }]
    : byVisit
})
</script>

<template>
  <div
    v-if="work"
    class="paper"
  >
    <div class="body">
      <div class="row top">
        <div class="grow">
          <h1>
            <span class="quiet num">{{ work.number }}</span> {{ work.title }}
            <span
              class="chip"
              :class="{
                late: work.state === 'to_bill',
                good: work.state === 'on_site' || work.state === 'closed',
              }"
              >{{ session.state(work.state) }}</span
            >
          </h1>
          <p class="quiet">
            {{ [work.site.name, work.site.line1, work.site.town].filter(Boolean).join(', ') }} ·
            bill to
            <NuxtLink :to="`/customers/${work.customer.id}`">{{ work.customer.name }}</NuxtLink> ·
            terms {{ work.customer.terms
            }}<template v-if="work.orderNumber"> · their order {{ work.orderNumber }}</template
            ><template v-if="work.source"> · heard of us by {{ work.source }}</template
            ><template v-if="work.customer.level"> · {{ work.customer.level }}</template
            ><template v-if="work.customer.exempt"> · tax exempt</template
            ><template v-if="work.contact.name">
              · speak to <b>{{ work.contact.name }}</b> {{ work.contact.phone }}</template
            >{{ ' '
            }}<span
              v-for="t in work.customer.tags"
              :key="t"
              class="chip"
              >{{ t }}</span
            >
          </p>
        </div>
        <NuxtLink
          v-for="q in work.quotes"
          :key="q.id"
          class="btn no-print"
          :to="`/quotes/${q.id}`"
          >{{ q.number }} · {{ q.state }} {{ session.money(q.total) }}</NuxtLink
        >
        <button
          v-if="edits && !work.quotes.length && work.state !== 'cancelled'"
          class="btn no-print"
          :class="{ act: work.kind === 'quote visit' }"
          :disabled="busy"
          @click="quote"
        >
          Begin a quote
        </button>
        <button
          v-if="edits && !work.callbackOf && ['to_bill', 'billed', 'closed'].includes(work.state)"
          class="btn no-print"
          @click="back.open = true"
        >
          Call-back…
        </button>
        <button
          v-if="edits"
          class="btn no-print"
          @click="adding = !adding"
        >
          Add line</button
        ><button
          v-if="bills && session.role !== 'books' && work.lines.some((l) => zero(l.billed))"
          class="btn no-print"
          @click="off.open = !off.open"
        >
          Discount…</button
        ><button
          class="btn no-print"
          @click="printPage"
        >
          Print
        </button>
        <button
          v-if="bills && !zero(work.totals.toBill)"
          class="btn act no-print"
          @click="billing = true"
        >
          Bill what is open {{ session.money(work.totals.toBill) }}
        </button>
      </div>
      <p
        v-if="work.customer.stopWork"
        class="note bad"
      >
        <b>Stop work.</b> {{ work.customer.stopWork }}
      </p>
      <p
        v-if="work.callbackOf"
        class="note"
      >
        Without charge: comes back to
        <NuxtLink
          :to="`/work/${work.callbackOf.id}`"
          class="num"
          >{{ work.callbackOf.number }}</NuxtLink>. What it costs counts there.
      </p>
      <p
        v-if="work.callBacks.length"
        class="note warn"
      >
        Had to be looked at again:
        <template
          v-for="(b, i) in work.callBacks"
          :key="b.id"
          ><template v-if="i">, </template
          ><NuxtLink
            :to="`/work/${b.id}`"
            class="num"
            >{{ b.number }}</NuxtLink
          >
          ({{ b.kind }}, {{ session.state(b.state)
          }}<template v-if="b.siteSeconds">, {{ hoursMinutes(b.siteSeconds) }} h</template
          ><template v-if="b.cost"
            >, cost {{ session.money(b.cost) }}, counted in the margin here</template
          >)</template
        >
      </p>
      <p
        v-if="problem || failed"
        class="note bad"
        role="alert"
      >
        {{ (failed ?? problem)?.message }}
      </p>
      <p class="sheet asked">
        <span class="quiet small">Asked for</span><br />{{ work.problem
        }}<template
          v-for="v in work.visits"
          :key="v.id"
          ><template v-if="v.findings"
            ><br /><span class="quiet small">Found by {{ v.technician }}</span
            ><br />{{ v.findings }}</template
          ></template
        >
      </p>
      <WorkWords
        :work="work"
        :edits="edits"
        @changed="(got) => (work = got)"
      />
      <div
        v-if="adding"
        class="sheet pad no-print stack"
      >
        <PriceSearch
          label="Add from the price book"
          at-hand
          @choose="add"
        />
        <div class="row">
          <button
            class="btn side"
            @click="buying = true"
          >
            From a supplier…</button
          ><button
            class="btn side"
            @click="writing = !writing"
          >
            Not in the book…
          </button>
        </div>
        <OwnLineForm
          v-if="writing"
          :busy="busy"
          @add="addOwn"
          @close="writing = false"
        />
      </div>
      <form
        v-if="off.open"
        class="sheet pad no-print row off"
        @submit.prevent="discountAll"
      >
        <label class="field"
          ><span>Take off all that is not billed, besides the price level</span
          ><input
            v-model="off.text"
            class="plain num"
            autofocus
            placeholder="25.00 or 10 %"
          /><i
            v-if="failed?.at('discount')"
            class="wrong"
            >{{ failed.at('discount') }}</i
          ></label
        ><button
          class="btn act"
          :disabled="busy || !off.text.trim()"
        >
          Take it off
        </button>
      </form>
      <SupplierSheet
        v-if="buying"
        :busy="busy"
        :problem="failed"
        @take="basket"
        @close="buying = false"
      />
      <WorkRates
        :work="work"
        :may="bills && session.role !== 'books'"
        @changed="(got) => (work = got)"
      />
      <table class="book account">
        <thead>
          <tr>
            <th>Work and material</th>
            <th class="right">Promised</th>
            <th class="right">Done</th>
            <th class="right">Billed</th>
            <th class="right">Paid</th>
            <th class="no-print" />
          </tr>
        </thead>
        <tbody
          v-for="g in groups"
          :key="g.key"
        >
          <tr class="group">
            <td colspan="6">{{ g.title }}</td>
          </tr>
          <tr
            v-for="l in g.lines"
            :key="l.id"
          >
            <td>
              <template v-if="editing.id === l.id">
                <form
                  class="row edit"
                  @submit.prevent="
                    change(l, {
                      name: editing.name,
                      quantity: editing.quantity,
                      unitPrice: editing.unitPrice,
                      discount: editing.discount,
                    })
                  "
                >
                  <label class="field grow"
                    ><span>Called, here only</span
                    ><input
                      v-model="editing.name"
                      class="plain" /></label
                  ><label class="field"
                    ><span>Quantity</span
                    ><input
                      v-model="editing.quantity"
                      class="plain num" /></label
                  ><label class="field"
                    ><span>Each, here only</span
                    ><input
                      v-model="editing.unitPrice"
                      class="plain num" /></label
                  ><label class="field"
                    ><span>Discount, or %</span
                    ><input
                      v-model="editing.discount"
                      class="plain num" /></label
                  ><button
                    class="btn act"
                    :disabled="busy"
                  >
                    Keep</button
                  ><button
                    type="button"
                    class="btn"
                    @click="editing.id = ''"
                  >
                    Leave
                  </button>
                </form></template
              >
              <template v-else
                >{{ l.name }}<br /><span class="quiet small"
                  >{{ l.kind === 'task' ? 'flat rate' : l.kind }} · {{ l.quantity }} ×
                  {{ l.unitPrice
                  }}<template v-if="l.bookPrice && l.bookPrice !== l.unitPrice">
                    <span class="soon">(book {{ l.bookPrice }})</span></template
                  ><template v-if="!zero(l.discount)"> · less {{ l.discount.amount }}</template
                  ><template v-if="l.coversSeconds">
                    · covers {{ hoursMinutes(l.coversSeconds) }} h</template
                  ><template v-if="l.unitCost"> · cost {{ l.unitCost }}</template
                  ><template v-if="l.priceFrom && l.priceFrom !== PRICE_FROM.book">
                    · {{ l.priceFrom }}</template
                  ><template v-if="l.partNumber">
                    · {{ l.supplier }} {{ l.partNumber }}</template
                  ></span
                ></template
              >
            </td>
            <td class="right num">{{ show(l.promised) }}</td>
            <td
              class="right num"
              :class="{ gap: !zero(l.toBill) }"
            >
              {{ show(l.doneAmount) }}
            </td>
            <td
              class="right num"
              :class="{ owed: !zero(l.unpaid) }"
            >
              {{ show(l.billed) }}
            </td>
            <td class="right num">{{ show(l.paid) }}</td>
            <td class="right nowrap no-print">
              <template v-if="edits && zero(l.billed)"
                ><button
                  v-if="!l.done"
                  class="btn plain small"
                  :disabled="busy"
                  @click="change(l, { done: true })"
                >
                  Mark done</button
                ><button
                  class="btn plain small"
                  @click="edit(l)"
                >
                  Change</button
                ><button
                  class="btn plain small"
                  :disabled="busy"
                  @click="change(l, { removed: true })"
                >
                  Take out
                </button></template
              >
            </td>
          </tr>
        </tbody>
        <tbody>
          <tr v-if="!work.lines.length">
            <td
              colspan="6"
              class="empty"
            >
              Nothing is priced yet. Add a line from the price book.
            </td>
          </tr>
          <tr class="sum">
            <td>Before tax</td>
            <td
              v-for="k in ['promised', 'done', 'billed', 'paid'] as const"
              :key="k"
              class="right num"
            >
              <span class="double">{{ session.money(work.totals[k], false) }}</span>
            </td>
            <td class="no-print" />
          </tr>
          <tr class="gaps">
            <td class="quiet small">
              {{
                work.price.margin === null
                  ? ''
                  : `margin over material ${(work.price.margin * 100).toFixed(1)} %`
              }}
            </td>
            <td class="right small">
              <span class="quiet">done − promised</span><br /><b class="num">{{
                session.money(work.totals.beyondPromise, false)
              }}</b>
            </td>
            <td class="right small">
              <span class="quiet">done − billed</span><br /><b
                class="num"
                :class="{ late: !zero(work.totals.toBill) }"
                >{{ session.money(work.totals.toBill, false) }}</b
              >
            </td>
            <td class="right small">
              <span class="quiet">billed − paid</span><br /><b
                class="num"
                :class="{ soon: !zero(work.totals.unpaid) }"
                >{{ session.money(work.totals.unpaid, false) }}</b
              >
            </td>
            <td colspan="2" />
          </tr>
        </tbody>
      </table>
      <div
        v-if="work.time.uncoveredSeconds"
        class="note warn row"
      >
        <span class="grow"
          ><b
            >{{ Math.round(work.time.uncoveredSeconds / 60) }} minutes were worked that no line
            charges for.</b
          >
          The clock shows {{ hoursMinutes(work.time.siteSeconds) }} h on site; lines cover
          {{ hoursMinutes(work.time.coveredSeconds) }} h.</span
        ><button
          class="btn"
          :disabled="busy"
          @click="charge"
        >
          Charge {{ session.money(work.time.charge) }}</button
        ><button
          class="btn"
          @click="
            () => {
              explaining = true
              why = ''
            }
          "
        >
          Leave out, say why
        </button>
      </div>
      <p
        v-if="bills && work.state === 'to_bill' && zero(work.totals.toBill)"
        class="note warn row"
      >
        <span class="grow"
          ><b>Finished, and nothing is priced.</b> Add what was done, or close it and say why
          nothing is billed.</span
        ><button
          class="btn"
          @click="
            () => {
              closing = true
              why = ''
            }
          "
        >
          Close without a bill…
        </button>
      </p>
      <table
        v-if="work.invoices.length"
        class="book"
      >
        <thead>
          <tr>
            <th>Invoice</th>
            <th>Issued</th>
            <th>Due</th>
            <th class="right">Total</th>
            <th class="right">Open</th>
            <th>State</th>
            <th />
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="i in work.invoices"
            :key="i.id"
          >
            <td>
              <NuxtLink
                class="num"
                :to="`/invoices/${i.id}`"
                >{{ i.number }}</NuxtLink
              >
            </td>
            <td>{{ session.day(i.issueOn) }}</td>
            <td>{{ session.day(i.dueOn) }}</td>
            <td class="right num">{{ session.money(i.total) }}</td>
            <td
              class="right num"
              :class="{ soon: !zero(i.open) }"
            >
              {{ session.money(i.open) }}
            </td>
            <td>{{ i.sent || i.state !== 'sent' ? i.state : 'not sent' }}</td>
            <td class="right">
              <button
                v-if="bills && !zero(i.open)"
                class="btn"
                @click="paying = i"
              >
                Take payment…
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <div
        v-if="work.signatures.length || work.photos.length"
        class="row kept"
      >
        <figure
          v-for="s in work.signatures"
          :key="s.id"
          class="sheet"
        >
          <img
            :src="`/api/v1/signatures/${s.id}`"
            :alt="`Signature of ${s.name}`"
          />
          <figcaption>
            <b>{{ s.name }}</b> for <span class="num">{{ session.money(s.total) }}</span><br /><span
              class="quiet small"
              >{{ session.dayTime(s.signedAt) }}, on {{ s.takenBy }}’s phone</span
            >
          </figcaption>
        </figure>
        <figure
          v-for="p in work.photos"
          :key="p.id"
          class="sheet"
        >
          <img
            :src="`/api/v1/photos/${p.id}`"
            alt="Photo from the visit"
          />
          <figcaption class="quiet small">{{ session.dayTime(p.takenAt) }}</figcaption>
        </figure>
      </div>
    </div>
    <aside class="no-print">
      <h2>History</h2>
      <ol>
        <li
          v-for="h in work.history"
          :key="h.id"
        >
          <span>{{ h.text }}</span><br /><span class="quiet small"
            >{{ session.dayTime(h.at) }} · {{ h.who }}</span
          >
        </li>
      </ol>
    </aside>
    <el-dialog
      v-model="back.open"
      title="Come back without charge"
      width="460"
    >
      <form
        class="stack"
        @submit.prevent="comeBack"
      >
        <label class="field"
          ><span>It is</span
          ><select
            v-model="back.kind"
            class="plain"
          >
            <option value="call-back">a call-back: our work did not hold</option>
            <option value="warranty">a warranty visit: the part did not</option>
          </select></label
        ><label class="field"
          ><span>What is wrong again</span
          ><textarea
            v-model="back.problem"
            class="plain"
            rows="3"
          /><span
            v-if="failed?.at('problem')"
            class="wrong"
            >{{ failed.at('problem') }}</span
          ></label
        ><button
          class="btn act"
          :disabled="busy"
        >
          Put it among what needs a slot
        </button>
      </form>
    </el-dialog>
    <BillSheet
      v-if="bills"
      v-model="billing"
      :work="work"
      @made="refresh"
    />
    <PaySheet
      v-if="paying"
      :model-value="true"
      :customer-id="work.customer.id"
      :invoice-id="paying.id"
      :number="paying.number"
      :due="paying.open"
      :mails="mails"
      @update:model-value="paying = null"
      @paid="refresh"
    />
    <el-dialog
      :model-value="explaining || closing"
      :title="closing ? 'Close without a bill' : 'Leave these minutes out'"
      width="420"
      @close="explaining = closing = false"
    >
      <form
        class="stack"
        @submit.prevent="closing ? close() : explain()"
      >
        <label class="field"
          ><span>Why</span
          ><input
            v-model="why"
            class="plain"
          /><span
            v-if="failed?.at('reason')"
            class="wrong"
            >{{ failed.at('reason') }}</span
          ></label
        ><button
          class="btn act"
          :disabled="busy"
        >
          {{ closing ? 'Close it' : 'Leave them out' }}
        </button>
      </form>
    </el-dialog>
  </div>
  <p
    v-else
    class="empty"
    role="status"
  >
    {{ problem?.message ?? 'Opening the account…' }}
  </p>
</template>

<style scoped>
.side {
  align-self: flex-start;
}
.paper {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 290px;
  min-height: 100%;
}
.body {
  padding: 16px 20px;
  display: flex;
  flex-direction: column;
  gap: 12px;
  min-width: 0;
}
.top {
  align-items: flex-start;
}
.pad {
  padding: 12px;
}
.asked {
  padding: 9px 12px;
  white-space: pre-line;
}
aside {
  border-left: 1px solid var(--rule-2);
  background: #fbfcfb;
  padding: 16px;
}
ol {
  list-style: none;
  margin: 12px 0 0;
  padding: 0 0 0 16px;
  border-left: 2px solid var(--green-2);
}
li {
  position: relative;
  margin-bottom: 12px;
}
li::before {
  content: '';
  position: absolute;
  left: -22px;
  top: 5px;
  width: 8px;
  height: 8px;
  border: 2px solid var(--green);
  border-radius: 50%;
  background: var(--sheet);
}
.account {
  border: 1px solid var(--rule-2);
}
.account td.num {
  border-left: 1px solid var(--rule);
}
.group td {
  background: #eff4f1;
  font-weight: 600;
  font-size: 12.5px;
}
.gap {
  background: var(--brick-1);
  color: var(--brick);
  font-weight: 700;
}
.owed {
  background: var(--marigold-1);
}
.gaps td {
  border: 0;
}
.edit {
  margin-top: 6px;
  align-items: flex-end;
  flex-wrap: wrap;
}
.edit input {
  width: 92px;
}
.off {
  align-items: flex-end;
}
.off input {
  width: 200px;
}
.off i {
  font-style: normal;
  display: block;
}
.edit .grow {
  flex: 1 0 100%;
}
.edit .grow input {
  width: 100%;
}
.account .btn.plain {
  min-height: 24px;
  padding: 0 5px;
  font-weight: 500;
  color: var(--green);
}
.kept {
  flex-wrap: wrap;
  align-items: stretch;
}
figure {
  margin: 0;
  padding: 8px;
}
figure img {
  display: block;
  height: 70px;
  max-width: 200px;
  object-fit: contain;
}
@media print {
  .paper {
    display: block;
  }
}
</style>
