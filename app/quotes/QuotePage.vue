<script setup lang="ts">
// A quote: who pays, what is offered, how long the price is held; the same in the office and on a phone.
import { computed, ref } from 'vue'
import type { QuoteAct } from '~~/core/quotes/quoteLifecycle'
import Asks from '~/access/Asks.vue'
import ActButton from '~/base/ActButton.vue'
import TaskList from '~/tasks/TaskList.vue'
import DocumentPage from '~/base/DocumentPage.vue'
import StateTag from '~/base/StateTag.vue'
import LineSources from '~/components/pricebook/LineSources.vue'
import { call, newId } from '~/lib/api'
import { useSession } from '~/stores/session'
import AnswerQuote from './AnswerQuote.vue'
import QuoteFacts from './QuoteFacts.vue'
import QuoteLines from './QuoteLines.vue'
import QuoteWords from './QuoteWords.vue'
import SendQuote from './SendQuote.vue'
import { useQuote, type Quote } from './useQuote'
import { actWords, QUOTE_TONES } from './words'
import Pending from '~/base/Pending.vue'

const props = defineProps<{ id: string; field?: boolean }>()
const session = useSession()
const {
  quote,
  problem,
  refresh,
  busy,
  failed,
  draft,
  act: inTurn,
  change,
  write,
  setLine,
  takeOut,
  addOwn,
  addEntries,
  addBasket,
  reopen,
} = useQuote(props.id)
/** the act whose dialog is open, and the quote as it was when it was opened */
const asked = ref<{ act: QuoteAct; quote: Quote } | null>(null)
const acts = computed(() => quote.value?.acts.filter((act) => act !== 'change') ?? [])
const primary: readonly QuoteAct[] = ['send', 'accept']

/** After what was typed a moment ago is kept. */
const begin = (act: QuoteAct) =>
  act === 'reopen'
    ? reopen()
    : inTurn(() => Promise.resolve((asked.value = { act, quote: quote.value! })))
const copyId = newId()
const copy = () =>
  inTurn(async () => {
    await call('copyQuote', { params: { id: props.id }, body: { id: copyId } })
    await navigateTo(`/quotes/${copyId}`)
  })
function done(answered: Quote) {
  quote.value = answered
  asked.value = null
}
</script>

<template>
  <DocumentPage
    v-if="quote"
    :id="quote.id"
    :number="quote.number"
    :title="quote.title"
    of="quoteEarlier"
    :history="quote.history"
    :field="field"
    :problem="(failed ?? problem)?.message"
  >
    <template #state>
      <StateTag
        :word="quote.state"
        :tone="QUOTE_TONES[quote.state]"
      />
    </template>
    <template #standing>
      <Asks
        :asks="quote.asks"
        @answered="refresh"
      />
      <p
        v-if="quote.waiting"
        :class="quote.late ? 'late' : 'quiet'"
      >
        {{ quote.waiting }}
      </p>
      <p v-if="quote.answer">{{ quote.answer }}</p>
    </template>
    <template #way>
      <NuxtLink
        v-if="field"
        class="btn"
        to="/field"
        >My day</NuxtLink
      >
    </template>
    <template #acts>
      <ActButton
        v-for="act in acts"
        :key="act"
        :primary="primary.includes(act)"
        :disabled="busy || (act === 'send' && !quote.lines.length)"
        @click="begin(act)"
      >
        {{ actWords(act, { state: quote.state, total: session.money(quote.price.total) }) }}
      </ActButton>
      <ActButton
        v-if="session.may('quotes.copy')"
        :disabled="busy"
        @click="copy"
      >
        Another like it
      </ActButton>
      <a
        class="btn"
        :href="`/api/v1/quotes/${quote.id}.pdf`"
        target="_blank"
        >PDF</a
      >
      <a
        v-if="quote.link && !field"
        class="btn"
        :href="quote.link"
        target="_blank"
        rel="noopener"
        >The customer’s page</a
      >
      <NuxtLink
        v-if="quote.workOrder && !field"
        class="btn"
        :to="`/work/${quote.workOrder.id}`"
        >{{ quote.workOrder.number }} · {{ session.state(quote.workOrder.state) }}</NuxtLink
      >
    </template>

    <QuoteFacts
      :quote="quote"
      :draft="draft"
      :field="field"
      @change="(values) => change(() => values)"
    />
    <QuoteWords
      :quote="quote"
      :draft="draft"
      :field="field"
      :write="(values) => write(quote!, values)"
    />
    <TaskList
      v-if="!field"
      about="quote"
      :subject-id="id"
    />
    <QuoteLines
      :quote="quote"
      :draft="draft"
      :busy="busy"
      :field="field"
      :set="setLine"
      @take-out="takeOut"
    />
    <LineSources
      v-if="draft"
      :about="id"
      :busy="busy"
      :problem="failed"
      :field="field"
      :add-entries="addEntries"
      :add-own="addOwn"
      :add-basket="addBasket"
    />
    <p class="quiet small">
      <template v-if="!quote.customer.level && Number(quote.price.saving.amount)"
        >With {{ quote.price.savingLevel }} {{ session.money(quote.price.saving) }} less, before
        tax. </template
      ><template v-if="quote.price.margin !== null"
        >Margin {{ (quote.price.margin * 100).toFixed(1) }} %, office only.</template
      >
    </p>
    <div
      v-if="quote.photos.length"
      class="row photos"
    >
      <img
        v-for="photo in quote.photos"
        :key="photo"
        :src="`/api/v1/photos/${photo}?size=small`"
        alt="Photo from the visit"
      />
    </div>
    <SendQuote
      v-if="asked?.act === 'send'"
      :quote="asked.quote"
      :field="field"
      @done="done"
      @close="asked = null"
    />
    <AnswerQuote
      v-else-if="asked"
      :quote="asked.quote"
      :accepted="asked.act === 'accept'"
      :field="field"
      @done="done"
      @close="asked = null"
    />
  </DocumentPage>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
    says="Opening the quote…"
  />
</template>

<style scoped>
.sheet {
  padding: 12px;
}
.photos {
  flex-wrap: wrap;
}
.photos img {
  height: 80px;
  border: 1px solid var(--rule);
  border-radius: 4px;
}
</style>
