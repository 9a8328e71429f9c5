// Terms of payment as they are chosen in a form: a word for each, and a number where it has one.
import type { Answer, Given } from '~~/shared/api'
import type { Option } from '~/base/fields'

type Terms = Answer<'customer'>['terms']
const WORDS: Readonly<Record<string, string>> = {
  '': 'as the company’s',
  receipt: 'on receipt',
  'days:15': '15 days',
  'days:30': '30 days',
  'days:45': '45 days',
  'month_end:0': 'end of month',
  'month_end:15': 'end of month + 15 days',
  'next_month_day:10': '10th of next month',
}
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
