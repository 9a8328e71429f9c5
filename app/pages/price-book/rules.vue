<script setup lang="ts">
// The rules that prices follow, and what an hour must cost.
import { computed } from 'vue'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import HourCost from '~/pricebook/rules/HourCost.vue'
import MarkupRules from '~/pricebook/rules/MarkupRules.vue'
import TimesOfDay from '~/pricebook/rules/TimesOfDay.vue'
import { useRules } from '~/pricebook/rules/useRules'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import Choice from '~/base/Choice.vue'
import CountInput from '~/base/CountInput.vue'
import Field from '~/base/Field.vue'
import FigureInput from '~/base/FigureInput.vue'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'

definePageMeta({ layout: 'office' })
const session = useSession()
const owns = computed(() => session.may('pricebook.change'))
const { data, problem, refresh } = useAnswer('pricing', undefined, SHOWS.book)
const { rules, form, year, isFull, keep, takeTheirs } = useRules(data)
const wrong = (path: string) => rules.problem?.at(path) ?? ''
async function keepAll() {
  await keep()
  // Somebody else was faster: what they changed is shown, and then kept over or taken.
  if (rules.problem?.code === 'stale') await refresh()
}
</script>

<template>
  <section
    v-if="data"
    class="page"
  >
    <div class="row">
      <NuxtLink
        class="btn plain"
        to="/price-book"
        aria-label="Back to the price book"
        >←</NuxtLink
      >
      <h1 class="grow">Rules of prices</h1>
      <ActButton
        v-if="owns"
        primary
        :disabled="rules.busy || !rules.changed"
        @click="keepAll"
      >
        Keep the rules
      </ActButton>
    </div>
    <Notice :of="rules.problem" />
    <p
      v-if="rules.meanwhile.size"
      class="note warn row"
      role="status"
    >
      <span class="grow"
        ><b>Somebody changed the same rules meanwhile.</b> What you typed is still here; what you
        keep replaces theirs.</span
      >
      <ActButton @click="takeTheirs"> Take theirs </ActButton>
    </p>
    <div class="two stacks">
      <fieldset
        class="sheet box"
        :disabled="!owns"
      >
        <MarkupRules
          v-model="form.markups"
          :categories="data.categories"
          :wrong="wrong"
        />
        <h2>Tasks</h2>
        <div class="row top">
          <Field
            label="Sundries, per cent"
            :error="wrong('sundriesRate')"
            ><FigureInput v-model="form.sundries" /></Field
          ><Field
            label="Not less than"
            :error="wrong('minimum')"
            ><FigureInput v-model="form.minimum"
          /></Field>
          <Field label="Ends"
            ><Choice
              v-model="form.rounding"
              :options="[
                { value: 'none', label: 'as it comes' },
                { value: 'whole', label: 'whole' },
                { value: 'ending', label: 'with an ending' },
              ]" /></Field
          ><Field
            v-if="form.rounding === 'ending'"
            label="Ending"
            ><CountInput
              v-model="form.ending"
              :min="0"
              :max="99"
          /></Field>
        </div>
        <TimesOfDay
          v-model="form.times"
          :wrong="wrong"
        />
        <p class="small quiet">
          What is kept here changes the prices that follow the rules, in one act that can be taken
          back under <NuxtLink to="/price-book/reprice">Change prices</NuxtLink>. Sent papers keep
          theirs.
        </p>
      </fieldset>
      <div
        v-if="session.me?.person.seesCost"
        class="sheet box"
      >
        <HourCost
          v-model="form.year"
          :in-fractions="year"
          :is-full="isFull"
          :owns="owns"
          :standard="data.labour[0]"
        />
      </div>
    </div>
  </section>
  <Pending
    v-else
    :problem="problem"
    :again="refresh"
  />
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 420px;
  gap: 12px;
  align-items: start;
}
.box {
  padding: 14px;
  display: flex;
  flex-direction: column;
  gap: 10px;
  margin: 0;
  border-radius: 0;
}
.box :deep(.rule) {
  border-left: 3px solid var(--green-2);
  padding-left: 10px;
  display: flex;
  flex-direction: column;
  gap: 4px;
  align-items: flex-start;
}
.box :deep(.rule > .row) {
  width: 100%;
}
.box :deep(i.wrong) {
  font-style: normal;
}
.top {
  align-items: flex-start;
}
</style>
