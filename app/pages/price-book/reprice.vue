<script setup lang="ts">
// Changing many prices: a rule over a selection, looked at entry by entry before anything changes; made from a day on; taken back in one act.
import { ref, shallowRef } from 'vue'
import type { Answer } from '~~/shared/api'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'
import PricePreview from '~/components/pricebook/PricePreview.vue'
import { call, newId } from '~/lib/api'
import { SHOWS } from '~/lib/live'
import { useAct } from '~/lib/useAct'
import { useAnswer } from '~/lib/useAnswer'
import BookMargins from '~/pricebook/reprice/BookMargins.vue'
import PastChanges from '~/pricebook/reprice/PastChanges.vue'
import { titleOf, type PriceWish } from '~/pricebook/reprice/priceRules'
import RepriceForm from '~/pricebook/reprice/RepriceForm.vue'
import { useSession } from '~/stores/session'

definePageMeta({ layout: 'office' })
const session = useSession()
const {
  data: rules,
  problem: away,
  refresh: askRules,
} = useAnswer('pricing', undefined, SHOWS.book)
const { data: past, refresh } = useAnswer('priceChanges', undefined, SHOWS.book)
const { busy, problem, act } = useAct()
/** what was looked at: the wish, and what it would do */
const seen = shallowRef<{ wish: PriceWish; preview: Answer<'previewPrices'> } | null>(null)
const said = ref('')
const forget = () => {
  seen.value = null
}
const look = (wish: PriceWish) =>
  act(async () => {
    said.value = ''
    forget()
    seen.value = { wish, preview: await call('previewPrices', { body: wish }) }
  })
let actId = newId()
const change = (how: { title: string; holdsFrom: string }) =>
  act(async () => {
    const { wish, preview } = seen.value!
    const done = await call('changePrices', {
      body: {
        ...wish,
        id: actId,
        title: how.title || titleOf(wish),
        holdsFrom: how.holdsFrom || null,
        stamp: preview.stamp,
      },
    })
    actId = newId()
    forget()
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
    forget()
    await refresh()
  })
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
    <RepriceForm
      :rules="rules"
      :problem="problem"
      :busy="busy"
      @change="forget"
      @look="look"
    />
    <Notice :of="problem" />
    <p
      v-if="said"
      class="note"
      role="status"
    >
      {{ said }}
    </p>
    <p
      v-if="seen && !seen.preview.rows.length"
      class="empty sheet"
    >
      This changes no price.
    </p>
    <PricePreview
      v-else-if="seen"
      :preview="seen.preview"
      :busy="busy"
      act
      @change="change"
    />
    <p
      v-else-if="busy"
      class="quiet"
      role="status"
    >
      Working it out…
    </p>
    <BookMargins v-else />
    <template v-if="past?.items.length">
      <h2>Changes so far</h2>
      <PastChanges
        :changes="past.items"
        :busy="busy"
        @undo="undo"
      />
    </template>
  </section>
  <Pending
    v-else
    :problem="away"
    :again="askRules"
  />
</template>
