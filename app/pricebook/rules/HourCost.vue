<script setup lang="ts">
// What an hour must cost: the year's labour over the hours that are billed.
import { computed } from 'vue'
import { Decimal } from '~~/core/money/decimal'
import { labourRateNeeded, pointWorth } from '~~/core/pricebook/labourRate'
import { useSession } from '~/stores/session'
import FigureInput from '~/base/FigureInput.vue'
import type { Rules, Year } from './useRules'

const props = defineProps<{
  /** the year in fractions, and whether all of it is said */
  inFractions: Year
  isFull: boolean
  owns: boolean
  /** the rate that an hour is sold for today */
  standard: Rules['labour'][number] | undefined
}>()
const year = defineModel<Year>({ required: true })
const session = useSession()
const needed = computed(() => {
  if (!props.isFull) return null
  try {
    const rate = labourRateNeeded(props.inFractions)
    return { rate, ...pointWorth(props.inFractions, rate), problem: '' }
  } catch (error) {
    return { rate: '', rateLess: '', yearMore: '', problem: (error as Error).message }
  }
})
const show = (amount: string) =>
  session.money({ amount: new Decimal(amount).toFixed(2), currency: session.me!.company.currency })
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
  <h2>What must an hour cost?</h2>
  <label
    v-for="[k, name] in WORTH"
    :key="k"
    class="row"
    ><span class="grow">{{ name }}</span
    ><FigureInput
      v-model="year[k]"
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
</template>

<style scoped>
.sum {
  border-top: 1px solid var(--rule-2);
  padding-top: 8px;
}
</style>
