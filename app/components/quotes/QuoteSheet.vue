<script setup lang="ts">
// A quote: who pays, what is offered, how long the price is held; sent, answered; the same in the office and on a phone.
import { computed, reactive, ref, watch } from 'vue'
import { PRICE_FROM } from '~~/core/pricebook/priceOrder'
import type { Answer, Body } from '~~/shared/api'
import OwnLineForm, { type OwnLine } from '~/components/pricebook/OwnLine.vue'
import PriceSearch from '~/components/pricebook/PriceSearch.vue'
import SupplierSheet, { type BasketLine } from '~/components/pricebook/SupplierSheet.vue'
import PayerChoice from '~/components/quotes/PayerChoice.vue'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import type { Found } from '~/lib/book'
import { SHOWS } from '~/lib/live'
import { useLoad } from '~/lib/useLoad'
import { useSession } from '~/stores/session'

const props = defineProps<{ id: string; field?: boolean }>()
type Quote = Answer<'quote'>
type Line = Quote['lines'][number]
const session = useSession()
const { data: quote, problem } = useLoad(() => call('quote', { params: { id: props.id } }), 0, {
  subjects: ['quote', 'message', 'customer', 'settings'],
})
const { data: setUp } = useLoad(
  () => (props.field ? Promise.resolve(null) : call('setUp')),
  0,
  SHOWS.setUp,
)
const { busy, problem: failed, act } = useAct()
const writes = computed(() => session.role !== 'books')
const draft = computed(() => writes.value && quote.value?.state === 'draft')
const words = reactive({ title: '', scope: '', orderNumber: '', expiresOn: '' })
// What somebody is typing is not taken away by a change that arrives.
watch(quote, (q) => {
  if (q && !document.activeElement?.closest('.words'))
    Object.assign(words, {
      title: q.title,
      scope: q.scope,
      orderNumber: q.orderNumber,
      expiresOn: q.expiresOn,
    })
})
/** What is changed is worked out when its turn comes: one act after the other, each on what the one before left. */
const change = (what: () => Partial<Body<'changeQuote'>>) =>
  act(async () => {
    quote.value = await call('changeQuote', {
      params: { id: props.id },
      body: { version: quote.value!.version, ...what() },
    })
  }, 'wait')
const keepWords = () => {
  const q = quote.value!
  if (
    words.title !== q.title ||
    words.scope !== q.scope ||
    words.orderNumber !== q.orderNumber ||
    words.expiresOn !== q.expiresOn
  )
    void change(() => ({ ...words }))
}
const asWanted = (l: Line) => ({
  id: l.id,
  entryId: l.entryId,
  kind: l.kind as 'task',
  name: l.name,
  quantity: l.quantity,
  unitPrice: l.unitPrice,
})
const setLine = (line: Line, values: Partial<{ quantity: string; unitPrice: string }>) =>
  change(() => ({
    lines: quote.value!.lines.map((l) => ({ ...asWanted(l), ...(l.id === line.id ? values : {}) })),
  }))
const takeOut = (line: Line) =>
  change(() => ({ lines: quote.value!.lines.filter((l) => l.id !== line.id).map(asWanted) }))
const add = (entries: Found[]) =>
  change(() => ({
    lines: [
      ...quote.value!.lines.map(asWanted),
      ...entries.map((e) => ({
        id: newId(),
        entryId: e.id,
        kind: 'other' as const,
        name: undefined,
        quantity: '1',
        unitPrice: undefined,
      })),
    ],
  }))
const writing = ref(false)
const addOwn = async (line: OwnLine) => {
  await change(() => ({ lines: [...quote.value!.lines.map(asWanted), line] }))
  if (!failed.value) writing.value = false
}
const buying = ref(false)
const basket = (items: BasketLine[]) =>
  act(async () => {
    quote.value = await call('addQuoteBasket', {
      params: { id: props.id },
      body: { version: quote.value!.version, items },
    })
    buying.value = false
  }, 'wait')
const own = (id: string) => change(() => ({ ownerId: id || null }))
const paying = ref(false)
const pays = async (customerId: string) => {
  await change(() => ({ customerId }))
  paying.value = false
}
// Sending and answering are acts of their own, each with what it will do.
const open = ref<'' | 'send' | 'yes' | 'no'>('')
const mail = reactive({ first: '', second: '', body: '' })
const said = ref('')
const ids = { workOrderId: newId(), visitId: newId() }
function begin(what: 'send' | 'yes' | 'no') {
  const q = quote.value!
  open.value = what
  failed.value = null
  said.value = ''
  Object.assign(mail, {
    first: q.customer.mails ? q.customer.email : '',
    second: q.customer.mails ? q.customer.email2 : '',
    body: `Here is our quote for “${q.title}”. The price is held until ${session.day(q.expiresOn, true)}.\n\nAnswer this mail or ring us; we begin once you have agreed.\n\n${session.me?.company.name ?? ''}`,
  })
}
const send = (byMail: boolean) =>
  act(async () => {
    quote.value = await call('sendQuote', {
      params: { id: props.id },
      body: {
        version: quote.value!.version,
        to: byMail ? [mail.first, mail.second].map((a) => a.trim()).filter(Boolean) : [],
        body: mail.body,
      },
    })
    open.value = ''
  })
const answer = (accepted: boolean) =>
  act(async () => {
    quote.value = await call('answerQuote', {
      params: { id: props.id },
      body: { version: quote.value!.version, accepted, words: said.value, ...ids },
    })
    open.value = ''
  })
const reopen = () =>
  act(async () => {
    quote.value = await call('reopenQuote', {
      params: { id: props.id },
      body: { version: quote.value!.version },
    })
  })
const zero = (m: { amount: string }) => Number(m.amount) === 0
const home = computed(() => (props.field ? '/field' : '/quotes'))
</script>

<template>
  <div
    v-if="quote"
    class="quote"
    :class="{ field }"
  >
    <div class="body">
      <div class="row top">
        <div class="grow">
          <h1>
            <span class="quiet num">{{ quote.number }}</span> {{ quote.title }}
            <span
              class="chip"
              :class="{
                good: quote.state === 'accepted',
                late: quote.state === 'expired' || quote.state === 'declined',
              }"
              >{{ quote.state }}</span
            >
          </h1>
          <p
            v-if="quote.waiting"
            :class="quote.late ? 'late' : 'quiet'"
          >
            {{ quote.waiting }}
          </p>
          <p v-if="quote.answer">{{ quote.answer }}</p>
        </div>
        <NuxtLink
          v-if="field"
          class="btn"
          :to="home"
          >My day</NuxtLink
        >
      </div>
      <div class="row acts no-print">
        <button
          v-if="draft"
          class="btn act"
          :disabled="!quote.lines.length"
          @click="begin('send')"
        >
          Send quote {{ session.money(quote.price.total) }}…
        </button>
        <template v-if="writes && (quote.state === 'sent' || quote.state === 'expired')"
          ><button
            v-if="quote.state === 'sent'"
            class="btn act"
            @click="begin('yes')"
          >
            They said yes…</button
          ><button
            class="btn"
            @click="begin('no')"
          >
            They said no…
          </button></template
        >
        <button
          v-if="writes && ['sent', 'expired', 'declined'].includes(quote.state)"
          class="btn"
          :disabled="busy"
          @click="reopen"
        >
          Take it back to change it
        </button>
        <button
          v-if="draft"
          class="btn"
          @click="begin('no')"
        >
          They do not want it…
        </button>
        <a
          class="btn"
          :href="`/api/v1/quotes/${quote.id}.pdf`"
          target="_blank"
          >PDF</a
        >
        <NuxtLink
          v-if="quote.workOrder && !field"
          class="btn"
          :to="`/work/${quote.workOrder.id}`"
          >{{ quote.workOrder.number }} · {{ session.state(quote.workOrder.state) }}</NuxtLink
        >
      </div>
      <p
        v-if="(failed && !open) || problem"
        class="note bad"
        role="alert"
      >
        {{ (failed ?? problem)?.message }}
      </p>
      <dl class="facts">
        <div>
          <dt>Who pays</dt>
          <dd>
            <NuxtLink
              v-if="!field"
              :to="`/customers/${quote.customer.id}`"
              >{{ quote.customer.name }}</NuxtLink><template v-else>{{
              quote.customer.name
            }}</template
            >{{ ' '
            }}<span
              v-if="quote.customer.prospect"
              class="chip"
              >prospect</span
            >{{ ' '
            }}<span
              v-if="quote.customer.level"
              class="chip"
              >{{ quote.customer.level }}</span
            >{{ ' '
            }}<span
              v-if="quote.customer.exempt"
              class="chip"
              >tax exempt</span
            >{{ ' '
            }}<button
              v-if="draft && !field"
              class="btn plain"
              @click="paying = !paying"
            >
              Somebody else
            </button>
          </dd>
        </div>
        <div>
          <dt>Where</dt>
          <dd>
            {{ quote.site.text
            }}<span
              v-if="quote.site.belongsTo"
              class="quiet"
              >, of {{ quote.site.belongsTo }}</span
            >
          </dd>
        </div>
        <div v-if="quote.contact.name || quote.contact.phone">
          <dt>Speak to</dt>
          <dd>{{ quote.contact.name }} {{ quote.contact.phone }}</dd>
        </div>
        <div>
          <dt>Who has it</dt>
          <dd>
            <select
              v-if="writes && setUp"
              class="plain"
              aria-label="Who has it"
              :disabled="quote.state !== 'draft'"
              :value="quote.owner?.id ?? ''"
              @change="own(($event.target as HTMLSelectElement).value)"
            >
              <option value="">nobody</option>
              <option
                v-for="p in setUp.people"
                :key="p.id"
                :value="p.id"
              >
                {{ p.name }}
              </option></select
            ><template v-else>{{ quote.owner?.name ?? 'nobody' }}</template>
          </dd>
        </div>
      </dl>
      <PayerChoice
        v-if="paying"
        :place="quote.site"
        @choose="pays"
      />
      <div
        class="words stack"
        @focusout="keepWords"
      >
        <div class="row wrap">
          <label class="field grow"
            ><span>For</span
            ><input
              v-model="words.title"
              class="plain"
              :disabled="!draft" /></label
          ><label class="field"
            ><span>Their order number</span
            ><input
              v-model="words.orderNumber"
              class="plain"
              :disabled="!draft"
              style="width: 130px" /></label
          ><label class="field"
            ><span>Price held until</span
            ><input
              v-model="words.expiresOn"
              class="plain"
              type="date"
              :disabled="!draft"
          /></label>
        </div>
        <label class="field"
          ><span>What is to be done</span
          ><textarea
            v-model="words.scope"
            class="plain"
            rows="2"
            :disabled="!draft"
          />
        </label>
      </div>
      <table class="book">
        <thead>
          <tr>
            <th>Work and material</th>
            <th class="right">Quantity</th>
            <th class="right">Each</th>
            <th class="right">Net</th>
            <th v-if="draft" />
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="l in quote.lines"
            :key="l.id"
          >
            <td>
              {{ l.name }}<br /><span class="quiet small"
                >{{ l.kind === 'task' ? 'flat rate' : l.kind
                }}<template v-if="!zero(l.discount)">
                  · less {{ session.money(l.discount, false) }}</template
                ><template v-if="l.unitCost"> · cost {{ l.unitCost }}</template
                ><template v-if="l.priceFrom && l.priceFrom !== PRICE_FROM.book">
                  · {{ l.priceFrom }}</template
                ></span
              >
            </td>
            <td class="right num">
              <input
                v-if="draft"
                class="plain num"
                :aria-label="`Quantity of ${l.name}`"
                :value="l.quantity"
                inputmode="decimal"
                @change="setLine(l, { quantity: ($event.target as HTMLInputElement).value })"
              /><template v-else>{{ l.quantity }}</template>
            </td>
            <td class="right num">
              <input
                v-if="draft"
                class="plain num"
                :aria-label="`Price of ${l.name}, here only`"
                :value="l.unitPrice"
                inputmode="decimal"
                @change="setLine(l, { unitPrice: ($event.target as HTMLInputElement).value })"
              /><template v-else>{{ l.unitPrice }}</template>
            </td>
            <td class="right num">{{ session.money(l.net, false) }}</td>
            <td
              v-if="draft"
              class="right"
            >
              <button
                class="btn plain small"
                :disabled="busy"
                :aria-label="`Take out ${l.name}`"
                @click="takeOut(l)"
              >
                Take out
              </button>
            </td>
          </tr>
          <tr v-if="!quote.lines.length">
            <td
              :colspan="draft ? 5 : 4"
              class="empty"
            >
              Nothing is offered yet. Add a line from the price book.
            </td>
          </tr>
          <tr
            v-for="t in quote.price.taxes"
            :key="t.name"
          >
            <td
              class="quiet"
              colspan="3"
            >
              {{ t.name }}
            </td>
            <td class="right num">{{ session.money(t.tax, false) }}</td>
            <td v-if="draft" />
          </tr>
          <tr class="sum">
            <td colspan="3">Total</td>
            <td class="right num">
              <span class="double">{{ session.money(quote.price.total) }}</span>
            </td>
            <td v-if="draft" />
          </tr>
        </tbody>
      </table>
      <div
        v-if="draft"
        class="sheet pad no-print"
      >
        <PriceSearch
          label="Add from the price book"
          at-hand
          :large="field"
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
      <SupplierSheet
        v-if="buying"
        :busy="busy"
        :problem="failed"
        :field="field"
        @take="basket"
        @close="buying = false"
      />
      <p class="quiet small">
        <template v-if="!quote.customer.level && !zero(quote.price.saving)"
          >With {{ quote.price.savingLevel }} {{ session.money(quote.price.saving) }} less, before
          tax. </template
        ><template v-if="quote.price.margin !== null"
          >Margin {{ (quote.price.margin * 100).toFixed(1) }} %, office only.</template
        >
      </p>
      <div
        v-if="quote.photos.length"
        class="row kept"
      >
        <img
          v-for="p in quote.photos"
          :key="p"
          :src="`/api/v1/photos/${p}`"
          alt="Photo from the visit"
        />
      </div>
    </div>
    <aside
      v-if="!field"
      class="no-print"
    >
      <h2>History</h2>
      <ol class="time">
        <li
          v-for="h in quote.history"
          :key="h.id"
        >
          <span>{{ h.text }}</span><br /><span class="quiet small"
            >{{ session.dayTime(h.at) }} · {{ h.who }}</span
          >
        </li>
      </ol>
    </aside>
    <el-dialog
      :model-value="open !== ''"
      :title="
        open === 'send' ? `Send ${quote.number}` : open === 'yes' ? 'They said yes' : 'They said no'
      "
      :width="field ? '94%' : 560"
      @close="open = ''"
    >
      <div class="stack">
        <template v-if="open === 'send'">
          <p
            v-if="!quote.customer.mails"
            class="note warn"
          >
            This customer wants no mails. Hand it over on paper, or ask.
          </p>
          <div class="row">
            <label class="field grow"
              ><span>Send to</span
              ><input
                v-model="mail.first"
                class="plain"
                type="email" /></label
            ><label class="field grow"
              ><span>and to</span
              ><input
                v-model="mail.second"
                class="plain"
                type="email"
            /></label>
          </div>
          <label class="field"
            ><span>Text of the mail; the quote is attached as PDF</span
            ><textarea
              v-model="mail.body"
              class="plain"
              rows="6"
            />
          </label>
          <p
            v-if="failed"
            class="note bad"
            role="alert"
          >
            {{ failed.message }}
          </p>
          <div class="row">
            <button
              class="btn act"
              :disabled="busy || !mail.first.trim()"
              @click="send(true)"
            >
              Send it</button
            ><button
              class="btn"
              :disabled="busy"
              @click="send(false)"
            >
              Handed over on paper
            </button>
          </div>
        </template>
        <template v-else>
          <p v-if="open === 'yes'">
            {{ session.money(quote.price.total) }} becomes promised work that waits for its slot.
          </p>
          <label class="field"
            ><span>{{ open === 'yes' ? 'Who agreed, and how' : 'Why not' }}</span
            ><input
              v-model="said"
              class="plain"
              @keydown.enter="answer(open === 'yes')"
            /><span
              v-if="failed?.at('words')"
              class="wrong"
              >{{ failed.at('words') }}</span
            ></label
          >
          <p
            v-if="failed && !failed.at('words')"
            class="note bad"
            role="alert"
          >
            {{ failed.message }}
          </p>
          <button
            class="btn act"
            :disabled="busy"
            @click="answer(open === 'yes')"
          >
            {{ open === 'yes' ? 'Make it work to schedule' : 'Close the quote' }}
          </button>
        </template>
      </div>
    </el-dialog>
  </div>
  <p
    v-else
    class="empty"
    role="status"
  >
    {{ problem?.message ?? 'Opening the quote…' }}
  </p>
</template>

<style scoped>
.quote {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 290px;
  min-height: 100%;
}
.quote.field {
  display: block;
}
.body {
  padding: 16px 20px;
  display: flex;
  flex-direction: column;
  gap: 12px;
  min-width: 0;
}
.field .body {
  padding: 12px;
}
.top {
  align-items: flex-start;
}
.acts,
.wrap {
  flex-wrap: wrap;
}
.pad {
  padding: 12px;
}
.side {
  margin-top: 8px;
}
.facts {
  margin: 0;
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
  gap: 6px 20px;
}
dt {
  color: var(--ink-2);
  font-size: 12px;
}
dd {
  margin: 0;
}
.field table.book,
.field tbody {
  display: block;
}
.field thead {
  display: none;
}
.field tbody tr {
  display: grid;
  grid-template-columns: 62px 86px 1fr auto;
  align-items: center;
  border-bottom: 1px solid var(--rule);
}
.field tbody td {
  border: 0;
  padding: 5px 6px;
}
.field tbody td:first-child {
  grid-column: 1 / -1;
}
.field td input.num {
  width: 100%;
}
.field .facts {
  grid-template-columns: 1fr;
}
.field .words .row > * {
  flex: 1 1 130px;
  min-width: 0;
}
td input.num {
  width: 76px;
  text-align: right;
}
.kept {
  flex-wrap: wrap;
}
.kept img {
  height: 80px;
  border: 1px solid var(--rule);
  border-radius: 4px;
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
</style>
