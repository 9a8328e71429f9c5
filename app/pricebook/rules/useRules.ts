// The rules as they are typed: fractions are kept, people write per cent.
import { computed, watch, type Ref } from 'vue'
import { guardLeaving } from '~/base/leaving'
import { useForm } from '~/base/useForm'
import { Decimal } from '~~/core/money/decimal'
import type { Answer } from '~~/shared/api'
import { call, newId } from '~/lib/api'

export type Rules = Answer<'pricing'>
const YEAR = {
  wages: '',
  burden: '',
  overhead: '',
  paidHours: '',
  billedShare: '',
  targetMargin: '',
}
export type Year = typeof YEAR
const UNSIGNED = /^\d+(\.\d+)?$/
const percent = (fraction: string) => new Decimal(fraction || 0).times(100).toString()
const fraction = (text: string) =>
  UNSIGNED.test(text.trim()) ? new Decimal(text.trim()).div(100).toString() : text
/** The year's figures with their shares as fractions, or as per cent. */
const sharesOf = <Y extends Year>(year: Y, by: (share: string) => string): Y => ({
  ...year,
  billedShare: by(year.billedShare),
  targetMargin: by(year.targetMargin),
})
const typed = (d: Rules) => ({
  markups: structuredClone(d.markups),
  sundries: percent(d.sundriesRate),
  minimum: d.minimum,
  rounding: d.rounding as string,
  ending: d.rounding === 'ending' ? d.ending : 95,
  times: structuredClone(d.times),
  year: d.year ? sharesOf({ ...d.year }, percent) : { ...YEAR },
})
const BLANK: ReturnType<typeof typed> = {
  markups: [],
  sundries: '',
  minimum: '',
  rounding: 'none',
  ending: 95,
  times: [],
  year: { ...YEAR },
}
export function useRules(data: Ref<Rules | null>) {
  const rules = useForm(BLANK)
  const form = rules.values
  /** says whether the rules still are what is shown */
  let stamp = ''
  watch(
    [data, () => rules.busy],
    ([d, isBusy]) => {
      if (!d || isBusy || d.stamp === stamp) return
      if (stamp) rules.follow(typed(d))
      else {
        rules.begin(typed(d))
        rules.takeUp('rules of prices')
      }
      ;({ stamp } = d)
    },
    { immediate: true },
  )
  guardLeaving(() => rules.unkept, rules.discard)
  const year = computed(() => sharesOf(form.year, fraction))
  const isFull = computed(() => Object.values(year.value).every((v) => UNSIGNED.test(v)))
  const keep = () =>
    rules.send(async () => {
      data.value = await call('keepPricing', {
        body: {
          id: newId(),
          stamp,
          markups: form.markups,
          sundriesRate: fraction(form.sundries),
          minimum: form.minimum,
          rounding: form.rounding as 'none',
          ending: Number(form.ending) || 0,
          year: isFull.value ? year.value : null,
          times: form.times,
        },
      })
    })
  /** What somebody else changed meanwhile instead of what was typed here. */
  const takeTheirs = () => [...rules.meanwhile.keys()].forEach(rules.takeTheirs)
  return { rules, form, year, isFull, keep, takeTheirs }
}
export type RulesForm = ReturnType<typeof useRules>['form']
