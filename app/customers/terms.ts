// Terms of payment as they are chosen in a form: a word for each, and a number where it has one.
import type { Answer, Given } from '~~/shared/api'
import type { Option } from '~/base/fields'

type Terms = Answer<'customer'>['terms']
const DAYS = [7, 10, 14, 15, 20, 21, 28, 30, 45, 60, 90]
const AFTER_MONTH_END = [0, 10, 15, 30]
const OF_NEXT_MONTH = [1, 5, 10, 15, 20, 25]
const ordinal = (day: number) => `${day}${day === 1 ? 'st' : 'th'}`
/** Terms that are usual somewhere, as they are chosen. */
const WORDS: Readonly<Record<string, string>> = Object.fromEntries([
  ['', 'as the company’s'],
  ['receipt', 'on receipt'],
  ...DAYS.map((days) => [`days:${days}`, `${days} days`]),
  ...AFTER_MONTH_END.map((days) => [
    `month_end:${days}`,
    days ? `end of month + ${days} days` : 'end of month',
  ]),
  ...OF_NEXT_MONTH.map((day) => [`next_month_day:${day}`, `${ordinal(day)} of next month`]),
])
/** How some terms stand in the form. */
export const typedTerms = (terms: Terms): string =>
  terms ? [terms.kind, terms.days ?? terms.day].filter((part) => part !== undefined).join(':') : ''
/** What may be chosen; terms that are none of the usual ones stand there in their own words. */
export function termsOptions(chosen: string, inWords: string): Option[] {
  const usual = Object.entries(WORDS).map(([value, label]) => ({ value, label }))
  return chosen in WORDS ? usual : [...usual, { value: chosen, label: inWords }]
}
/** What was chosen, as the customer's terms; nothing means the company's. */
export function readTerms(typed: string): Given<'changeCustomer'>['terms'] {
  const [kind, count] = typed.split(':')
  if (!kind) return null
  if (kind === 'receipt') return { kind }
  if (kind === 'next_month_day') return { kind, day: Number(count) }
  if (kind === 'month_end') return { kind, days: Number(count) }
  return { kind: 'days', days: Number(count) }
}
