<script setup lang="ts">
// Price lists in and out: what each column means, a look at what would change row by row and price by price, then all that is right in one
// act, with progress and undo.
import { ref } from 'vue'
import type { Answer } from '~~/shared/api'
import { call } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import ListLook from '~/pricebook/lists/ListLook.vue'
import ListMeaning from '~/pricebook/lists/ListMeaning.vue'
import ListsSoFar from '~/pricebook/lists/ListsSoFar.vue'
import { usePriceList } from '~/pricebook/lists/usePriceList'
import ActButton from '~/base/ActButton.vue'
import Field from '~/base/Field.vue'
import FileInput from '~/base/FileInput.vue'
import Notice from '~/base/Notice.vue'
import TextInput from '~/base/TextInput.vue'

definePageMeta({ layout: 'office' })
const { data: rules, problem: noRules } = useAnswer('pricing', undefined, SHOWS.book)
const { data: earlier, problem: unseen, refresh } = useAnswer('priceImports', undefined, SHOWS.book)
const { busy, problem, act } = useAct()
const said = ref('')
const done = ref<Answer<'takePrices'> | null>(null)
const list = usePriceList(rules)
async function read([file]: File[]) {
  said.value = ''
  if (!file) return
  done.value = problem.value = null
  try {
    await list.read(file)
  } catch (error) {
    said.value = `${file.name}: ${(error as Error).message}`
  }
}
const look = () => act(list.look)
const take = () =>
  act(async () => {
    done.value = await list.take()
    await refresh()
  })
const undo = (id: string) =>
  act(async () => {
    const { left } = await call('undoPriceImport', { params: { id } })
    said.value = left ? `Taken back, but for ${left} that somebody changed since.` : 'Taken back.'
    done.value = null
    await refresh()
  })
function propose() {
  list.options.fixed = 'by_rule'
  void look()
}
</script>

<template>
  <section class="page">
    <div class="row">
      <NuxtLink
        class="btn plain"
        to="/price-book"
        aria-label="Back to the price book"
        >←</NuxtLink
      >
      <h1 class="grow">Price lists</h1>
      <a
        class="btn"
        href="/api/v1/export/price-book.csv"
        >Our book as a file (CSV)</a
      >
    </div>
    <p class="quiet">
      A file with comma-separated values: our own list, or a supplier’s, which is matched by its
      part numbers. Nothing is taken in before you have seen what would happen.
    </p>
    <div class="row top">
      <Field label="Whose list"
        ><TextInput
          v-model="list.supplier"
          list="list-suppliers"
          placeholder="our own"
          style="width: 220px" /></Field
      ><datalist id="list-suppliers">
        <option
          v-for="s in rules?.suppliers ?? []"
          :key="s"
          :value="s"
        /></datalist
      ><FileInput
        primary
        class="pick"
        label="Choose a file"
        accept=".csv,.txt,.tsv,text/csv"
        :disabled="busy"
        @choose="read"
      />
    </div>
    <p
      v-if="said"
      class="note warn"
      role="status"
    >
      {{ said }}
    </p>
    <Notice :of="problem ?? noRules ?? unseen" />
    <div
      v-if="done"
      class="note row"
      role="status"
    >
      <span class="grow"
        ><b>{{ done.counts.new }} new and {{ done.counts.changed }} changed</b>,
        {{ done.counts.wrong }} rows left out.</span
      ><ActButton
        :disabled="busy"
        @click="undo(done.id)"
      >
        Undo the list
      </ActButton>
    </div>
    <p
      v-if="busy && list.progress.of"
      role="status"
      class="row"
    >
      <progress
        :value="list.progress.done"
        :max="list.progress.of"
        aria-label="Progress"
      />
      {{ list.progress.what }} {{ list.progress.done }} of {{ list.progress.of }}
    </p>
    <template v-if="list.table">
      <h2>
        {{ list.fileName }}: {{ list.table.rows.length }} rows
        <span
          v-if="list.remembered"
          class="chip good"
          >columns as the last time</span
        >
      </h2>
      <ListMeaning
        :model-value="list"
        :rules="rules"
        :busy="busy"
        @look="look"
      />
      <ListLook
        v-if="list.seen"
        :seen="list.seen"
        :retiring="list.options.vanished === 'retire'"
        :busy="busy"
        @take="take"
        @propose="propose"
      />
    </template>
    <template v-if="earlier?.items.length"
      ><h2>Lists so far</h2>
      <ListsSoFar
        :lists="earlier.items"
        :busy="busy"
        @undo="undo"
    /></template>
  </section>
</template>

<style scoped>
.top {
  align-items: flex-end;
  gap: 12px;
  flex-wrap: wrap;
}
progress {
  width: 260px;
}
</style>
