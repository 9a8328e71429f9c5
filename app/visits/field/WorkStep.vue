<script setup lang="ts">
// The visit itself: what it is about, its lines, its time, what was found; at the foot the way to the customer and to the bill.
import { QUOTE_VISIT } from '~~/core/visits/workKinds'
import { computed } from 'vue'
import { useSession } from '~/stores/session'
import { sayContact } from '~~/core/visits/workContacts'
import Notice from '~/base/Notice.vue'
import { saySupplied } from '~/visits/saySupplied'
import ClosedDoor from './ClosedDoor.vue'
import Findings from './Findings.vue'
import FurtherVisit from './FurtherVisit.vue'
import Asks from '~/access/Asks.vue'
import WorkTimes from '~/visits/WorkTimes.vue'
import UncoveredTime from './UncoveredTime.vue'
import type { useFieldVisit } from './useFieldVisit'
import VisitLines from './VisitLines.vue'

const props = defineProps<{ of: ReturnType<typeof useFieldVisit> }>()
const emit = defineEmits<{ add: []; agree: []; bill: [] }>()
const session = useSession()
const visit = computed(() => props.of.data.value!.visit)
const work = computed(() => props.of.work.value!)
const busy = computed(() => props.of.busy.value)
/** Something came or grew since the customer agreed. */
const outdated = computed(() => Number(work.value.totals.notAgreed.amount) > 0)
const notDone = computed(() => work.value.lines.filter((line) => !line.done).length)
const billed = computed(
  () => Number(work.value.totals.toBill.amount) === 0 && work.value.invoices.length > 0,
)
function takePhotos({ target }: Event) {
  const input = target as HTMLInputElement
  const files = [...(input.files ?? [])]
  // The same file can be chosen again.
  input.value = ''
  void props.of.addPhotos(files)
}
</script>

<template>
  <ClosedDoor
    v-if="of.data.value!.proposed"
    :of="of"
    @add="emit('add')"
  />
  <section class="block">
    <p class="quiet small">{{ work.number }} · {{ work.title }}</p>
    <p>{{ work.problem }}</p>
    <p v-if="work.equipment"><span class="quiet small">About</span> {{ work.equipment }}</p>
    <p v-if="work.supplied">
      <span class="quiet small">About what we supplied</span> {{ saySupplied(work.supplied) }}
    </p>
    <p
      v-for="asked in work.answers"
      :key="asked.question"
      class="small"
    >
      <span class="quiet">{{ asked.question }}</span> {{ asked.answer }}
    </p>
    <p v-if="visit.tags.length">
      <span
        v-for="tag in visit.tags"
        :key="tag"
        class="chip"
        >{{ tag }}</span
      >
    </p>
    <p
      v-if="visit.officeNote"
      class="soon small"
    >
      {{ visit.officeNote }}
    </p>
    <a
      v-if="visit.phone"
      class="btn"
      :href="`tel:${visit.phone.replace(/[^\d+]/g, '')}`"
      >Ring {{ visit.contact }} · {{ visit.phone }}</a
    >
    <a
      v-if="visit.phone2"
      class="btn"
      :href="`tel:${visit.phone2.replace(/[^\d+]/g, '')}`"
      >Ring their second number · {{ visit.phone2 }}</a
    >
    <a
      v-for="other in visit.otherContacts.filter((who) => who.phone)"
      :key="other.phone"
      class="btn"
      :href="`tel:${other.phone.replace(/[^\d+]/g, '')}`"
      >Ring {{ sayContact(other) }}</a
    >
  </section>
  <section
    v-if="work.kind === QUOTE_VISIT || work.quotes.length"
    class="block stack"
  >
    <NuxtLink
      v-for="q in work.quotes"
      :key="q.id"
      class="btn"
      :to="`/field/quotes/${q.id}`"
      >Quote {{ q.number }} · {{ q.state }} {{ session.money(q.total) }}</NuxtLink
    >
    <button
      v-if="!work.quotes.length"
      class="btn act"
      :disabled="busy"
      @click="of.beginQuote()"
    >
      Begin the quote
    </button>
  </section>
  <div
    class="row title"
    data-tour="visit.lines"
  >
    <h2 class="grow">Lines</h2>
    <button
      class="btn plain good"
      @click="emit('add')"
    >
      + Price book
    </button>
  </div>
  <VisitLines
    :work="work"
    :busy="busy"
    :refresh="of.refresh"
    @changed="of.takeWork"
    @done="of.toggleDone"
    @back="of.putBack"
  />
  <p
    v-if="notDone && visit.state === 'finished'"
    class="note warn gap"
  >
    {{ notDone }} {{ notDone === 1 ? 'line was' : 'lines were' }} promised and
    {{ notDone === 1 ? 'is' : 'are' }} not marked done. Open
    {{ notDone === 1 ? 'it' : 'them' }} above.
  </p>
  <UncoveredTime
    v-if="work.time.uncoveredSeconds"
    class="gap"
    :time="work.time"
    :busy="busy"
    @charge="of.chargeTime()"
    @explain="of.explainTime(work.time.uncoveredSeconds, $event)"
  />
  <Asks
    :asks="work.asks"
    @answered="of.refresh()"
  />
  <WorkTimes
    class="gap"
    :work="work"
    :visit-id="visit.id"
    @changed="of.refresh()"
  />
  <section class="block">
    <Findings
      :visit-id="visit.id"
      :of="of"
    />
    <div class="row pics">
      <img
        v-for="p in work.photos"
        :key="p.id"
        :src="`/api/v1/photos/${p.id}?size=small`"
        alt="Photo from this visit"
      />
      <label class="btn">
        Add photos
        <input
          class="visually-hidden"
          type="file"
          accept="image/*"
          multiple
          @change="takePhotos"
        />
      </label>
    </div>
    <p
      v-if="of.sending.value"
      class="quiet"
      role="status"
    >
      {{ of.sending.value }} on the way…
    </p>
    <Notice :of="of.unsent.value" />
    <p
      v-for="s in work.signatures"
      :key="s.id"
      class="quiet small"
    >
      ✓ {{ s.name }} signed for {{ session.money(s.total) }}, {{ session.dayTime(s.signedAt) }}
    </p>
  </section>
  <p
    v-if="outdated"
    class="note warn gap"
    role="status"
  >
    {{ session.money(work.totals.notAgreed) }} before tax came or grew after the customer agreed;
    now it comes to {{ session.money(work.price.total) }}. Show it to them once more.
  </p>
  <section
    v-if="!visit.lead"
    class="block"
  >
    <FurtherVisit
      :visits="work.visits"
      :busy="busy"
      :ask="of.askFurther"
    />
  </section>
  <footer v-if="work.lines.length">
    <p class="row">
      <span class="grow">Total with tax</span>
      <b class="num big"
        ><span class="double">{{ session.money(work.price.total) }}</span></b
      >
    </p>
    <div class="row">
      <button
        class="btn grow"
        :class="{ act: !work.signatures.length || outdated }"
        @click="emit('agree')"
      >
        Show the customer
      </button>
      <button
        v-if="billed || session.may('invoices.make')"
        data-tour="visit.bill"
        class="btn grow"
        :class="{ act: work.signatures.length && !outdated }"
        @click="emit('bill')"
      >
        {{ billed ? 'Take payment' : 'Bill' }}
      </button>
    </div>
  </footer>
</template>

<style scoped>
.title {
  padding: 4px 16px;
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
  font-size: 1.4375rem;
}
</style>
