<script setup lang="ts">
// The rules that prices follow, and what an hour must cost: the year's labour over the hours that are billed.
import { computed, reactive, ref, watch } from 'vue'
import type { Answer } from '~~/shared/api'
import { Decimal } from '~~/core/money/decimal'
import { labourRateNeeded, pointWorth } from '~~/core/pricebook/labourRate'
import { call, newId } from '~/lib/api'
import { useAct } from '~/lib/useAct'
import { SHOWS } from '~/lib/live'
import { useAnswer } from '~/lib/useAnswer'
import { useSession } from '~/stores/session'
import ActButton from '~/base/ActButton.vue'
import Check from '~/base/Check.vue'
import Choice from '~/base/Choice.vue'
import CountInput from '~/base/CountInput.vue'
import Field from '~/base/Field.vue'
import FigureInput from '~/base/FigureInput.vue'
import TextInput from '~/base/TextInput.vue'
import Notice from '~/base/Notice.vue'
import Pending from '~/base/Pending.vue'

definePageMeta({ layout: 'office' })
type Rules = Answer<'pricing'>
const session = useSession()
const owns = computed(() => session.may('pricebook.change'))
const { data, problem } = useAnswer('pricing', undefined, SHOWS.book)
const { busy, problem: failed, act } = useAct()
const YEAR = {
  wages: '',
  burden: '',
  overhead: '',
  paidHours: '',
  billedShare: '',
  targetMargin: '',
}
const form = reactive({
  markups: [] as Rules['markups'],
  sundries: '',
  minimum: '',
  rounding: 'none',
  ending: 95,
  times: [] as Rules['times'],
  year: { ...YEAR },
})
const kept = ref('')
// Fractions are kept; people write per cent.
const percent = (fraction: string) => new Decimal(fraction || 0).times(100).toString()
const fraction = (text: string) =>
  /^\d+(\.\d+)?$/.test(text.trim()) ? new Decimal(text.trim()).div(100).toString() : text
watch(
  data,
  (d) => {
    if (!d || (kept.value && JSON.stringify(form) !== kept.value)) return
    Object.assign(form, {
      markups: structuredClone(d.markups),
      sundries: percent(d.sundriesRate),
      minimum: d.minimum,
      rounding: d.rounding,
      ending: d.rounding === 'ending' ? d.ending : 95,
      times: structuredClone(d.times),
      year: d.year
        ? {
            ...d.year,
            billedShare: percent(d.year.billedShare),
            targetMargin: percent(d.year.targetMargin),
          }
        : { ...YEAR },
    })
    kept.value = JSON.stringify(form)
  },
  { immediate: true },
)
const year = computed(() => ({
  ...form.year,
  billedShare: fraction(form.year.billedShare),
  targetMargin: fraction(form.year.targetMargin),
}))
const full = computed(() => Object.values(year.value).every((v) => /^\d+(\.\d+)?$/.test(v)))
const needed = computed(() => {
  if (!full.value) return null
  try {
    const rate = labourRateNeeded(year.value)
    return { rate, ...pointWorth(year.value, rate), problem: '' }
  } catch (error) {
    return { rate: '', rateLess: '', yearMore: '', problem: (error as Error).message }
  }
})
const standard = computed(() => data.value?.labour[0])
const keep = () =>
  act(async () => {
    data.value = await call('keepPricing', {
      body: {
        id: newId(),
        markups: form.markups,
        sundriesRate: fraction(form.sundries),
        minimum: form.minimum,
        rounding: form.rounding as 'none',
        ending: Number(form.ending) || 0,
        year: full.value ? year.value : null,
        times: form.times,
      },
    })
    kept.value = JSON.stringify(form)
  })
const add = (scope: 'category' | 'supplier') =>
  form.markups.push({ scope, name: '', tiers: [{ fromCost: '0', multiplier: '1.5' }] })
const show = (amount: string) =>
  session.money({ amount: new Decimal(amount).toFixed(2), currency: session.me!.company.currency })
const wrong = (path: string) => failed.value?.at(path) ?? ''
const DAYS = [
  [1, 'Mon'],
  [2, 'Tue'],
  [3, 'Wed'],
  [4, 'Thu'],
  [5, 'Fri'],
  [6, 'Sat'],
  [7, 'Sun'],
  [8, 'holidays'],
] as const
const WORTH = [
  ['wages', 'Wages of a year'],
  ['burden', 'What comes on top of wages'],
  ['overhead', 'Everything else that labour has to carry'],
  ['paidHours', 'Hours that are paid'],
  ['billedShare', 'of them billed, per cent'],
  ['targetMargin', 'wished margin, per cent'],
] as const
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
        :disabled="busy || JSON.stringify(form) === kept"
        @click="keep"
      >
        Keep the rules
      </ActButton>
    </div>
    <Notice :of="failed" />
    <div class="two">
      <fieldset
        class="sheet box"
        :disabled="!owns"
      >
        <h2>Parts: cost times</h2>
        <p class="small quiet">
          A part takes the markup of its supplier; where there is none, of its category; else the
          one for all. A step holds from its cost up to the next one.
        </p>
        <div
          v-for="(m, i) in form.markups"
          :key="i"
          class="rule"
        >
          <div class="row">
            <b
              v-if="m.scope === 'all'"
              class="grow"
              >All parts</b
            ><Field
              v-else
              class="grow"
              :label="m.scope === 'category' ? 'Parts of the category' : 'Parts from the supplier'"
              ><Choice
                v-if="m.scope === 'category'"
                v-model="m.name"
                :options="[
                  { value: '', label: 'choose' },
                  ...data.categories.map((c) => ({ value: c, label: c })),
                ]" /><TextInput
                v-else
                v-model="m.name"
                list="rule-suppliers" /></Field
            ><ActButton
              v-if="m.scope !== 'all'"
              quiet
              :aria-label="`Take out the markup of ${m.name}`"
              @click="form.markups.splice(i, 1)"
            >
              ×
            </ActButton>
          </div>
          <i
            v-if="wrong(`markups[${i}].name`) || wrong(`markups[${i}].tiers`)"
            class="wrong"
            >{{ wrong(`markups[${i}].name`) || wrong(`markups[${i}].tiers`) }}</i
          >
          <div
            v-for="(t, j) in m.tiers"
            :key="j"
            class="row step"
          >
            <span class="quiet small">cost from</span
            ><FigureInput
              v-model="t.fromCost"
              :aria-label="`${m.name || 'All parts'}, step ${j + 1}: cost from`"
            /><span class="quiet small">×</span
            ><FigureInput
              v-model="t.multiplier"
              :aria-label="`${m.name || 'All parts'}, step ${j + 1}: times`"
            /><ActButton
              v-if="m.tiers.length > 1"
              quiet
              :aria-label="`Take out step ${j + 1}`"
              @click="m.tiers.splice(j, 1)"
            >
              ×
            </ActButton>
          </div>
          <ActButton
            quiet
            class="small"
            @click="m.tiers.push({ fromCost: '', multiplier: m.tiers.at(-1)?.multiplier ?? '1.5' })"
          >
            + step
          </ActButton>
        </div>
        <div class="row">
          <ActButton @click="add('category')"> Markup of a category</ActButton
          ><ActButton @click="add('supplier')"> Markup of a supplier </ActButton>
        </div>
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
        <h2>Labour by the time of day</h2>
        <p class="small quiet">
          Labour, and the labour in a task, times this, for a visit that begins then. Of several the
          highest holds.
        </p>
        <div
          v-for="(t, i) in form.times"
          :key="i"
          class="rule"
        >
          <div class="row top">
            <Field
              class="grow"
              label="Called"
              :error="wrong(`times[${i}].name`)"
              ><TextInput v-model="t.name" /></Field
            ><Field
              label="from"
              :error="wrong(`times[${i}].from`)"
              ><TextInput
                v-model="t.from"
                class="num"
                placeholder="17:00"
                style="width: 76px" /></Field
            ><Field
              label="to"
              :error="wrong(`times[${i}].to`)"
              ><TextInput
                v-model="t.to"
                class="num"
                placeholder="24:00"
                style="width: 76px" /></Field
            ><Field
              label="times"
              :error="wrong(`times[${i}].factor`)"
              ><FigureInput
                v-model="t.factor"
                style="width: 76px" /></Field
            ><ActButton
              quiet
              :aria-label="`Take out ${t.name}`"
              @click="form.times.splice(i, 1)"
            >
              ×
            </ActButton>
          </div>
          <div
            class="row days"
            role="group"
            :aria-label="`Days of ${t.name}`"
          >
            <Check
              v-for="[n, name] in DAYS"
              :key="n"
              v-model="t.days"
              class="small"
              :value="n"
            >
              {{ name }}</Check
            >
          </div>
          <i
            v-if="wrong(`times[${i}].days`)"
            class="wrong"
            >{{ wrong(`times[${i}].days`) }}</i
          >
        </div>
        <div class="row">
          <ActButton
            @click="
              form.times.push({ name: '', days: [6, 7], from: '00:00', to: '24:00', factor: '1.5' })
            "
          >
            A time of day
          </ActButton>
        </div>
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
        <h2>What must an hour cost?</h2>
        <label
          v-for="[k, name] in WORTH"
          :key="k"
          class="row"
          ><span class="grow">{{ name }}</span
          ><FigureInput
            v-model="form.year[k]"
            :disabled="!owns"
            style="width: 130px"
        /></label>
        <template v-if="needed && !needed.problem"
          ><p class="row sum">
            <span class="grow">Labour rate that an hour needs</span
            ><b
              class="num double"
              aria-label="Labour rate needed"
              >{{ show(needed.rate) }}</b
            >
          </p>
          <p
            v-if="standard"
            class="row"
          >
            <span class="grow">{{ standard.name }} today</span
            ><span
              class="num"
              :class="{ late: new Decimal(standard.price).lt(needed.rate) }"
              >{{ show(standard.price) }}</span
            >
          </p>
          <p class="note">
            One point more of the paid hours billed is worth
            <b class="num">{{ show(needed.yearMore) }}</b> a year, or lets an hour cost
            <b class="num">{{ show(needed.rateLess) }}</b> less.
          </p></template
        >
        <p
          v-else-if="needed"
          class="wrong"
        >
          {{ needed.problem }}
        </p>
        <p
          v-else
          class="small quiet"
        >
          Fill in all six.
        </p>
      </div>
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
.rule {
  border-left: 3px solid var(--green-2);
  padding-left: 10px;
  display: flex;
  flex-direction: column;
  gap: 4px;
  align-items: flex-start;
}
.rule > .row {
  width: 100%;
}
.step .figures {
  width: 100px;
}
.days {
  gap: 12px;
  flex-wrap: wrap;
}
.top {
  align-items: flex-start;
}
.sum {
  border-top: 1px solid var(--rule-2);
  padding-top: 8px;
}
.right {
  text-align: right;
}
i.wrong {
  font-style: normal;
}
</style>
