import { Temporal } from 'temporal-polyfill'
import { saysOn, type Says } from './paperWords'

export type Terms =
  | { kind: 'receipt' }
  | { kind: 'days'; days: number }
  | { kind: 'month_end'; days: number }
  | { kind: 'next_month_day'; day: number }
  | { kind: 'date'; date: string }

/**
 * The day on which an invoice falls due, from its terms and issue date (ISO dates, no zone).
 * A day that next month does not have becomes that month's last.
 * @throws InvalidValue for a date that is not one
 * @example dueDate('2026-09-01', { kind: 'days', days: 45 }) // '2026-10-16'
 * Source: common practice of the trade.
 */
export function dueDate(issueOn: string, terms: Terms): string {
  const issue = Temporal.PlainDate.from(issueOn)
  switch (terms.kind) {
    case 'receipt':
      return issue.toString()
    case 'days':
      return issue.add({ days: terms.days }).toString()
    case 'month_end':
      return issue.with({ day: issue.daysInMonth }).add({ days: terms.days }).toString()
    case 'next_month_day':
      return issue.add({ months: 1 }).with({ day: terms.day }, { overflow: 'constrain' }).toString()
    case 'date':
      return Temporal.PlainDate.from(terms.date).toString()
  }
}

/** Terms said as a person would. @example termsInWords({ kind: 'days', days: 15 }) // '15 days' */
export function termsInWords(terms: Terms, says: Says<'invoice'> = saysOn('invoice')): string {
  switch (terms.kind) {
    case 'receipt':
      return says('onReceipt')
    case 'days':
      return says('inDays', { days: String(terms.days) })
    case 'month_end':
      return terms.days === 0
        ? says('endOfMonth')
        : says('endOfMonthAnd', { days: String(terms.days) })
    case 'next_month_day':
      return says('dayOfNext', { day: String(terms.day) })
    case 'date':
      return says('byDate', { date: terms.date })
  }
}
