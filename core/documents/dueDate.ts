import { Temporal } from 'temporal-polyfill'

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
export function termsInWords(terms: Terms): string {
  switch (terms.kind) {
    case 'receipt':
      return 'due on receipt'
    case 'days':
      return `${terms.days} days`
    case 'month_end':
      return terms.days === 0 ? 'end of month' : `end of month + ${terms.days} days`
    case 'next_month_day':
      return `day ${terms.day} of next month`
    case 'date':
      return `by ${terms.date}`
  }
}
