// What a list of open items comes to, row by row, and which of its rows need a look.
import type { Answer } from '~~/shared/api'

export type ItemRow = Answer<'bringOpenItems'>['rows'][number]
export interface Tried {
  /** what needs a look: at most so many as somebody reads */
  rows: ItemRow[]
  invoices: number
  credits: number
  openMinor: number
  creditMinor: number
  leftOut: number
  newCustomers: Set<string>
}
const MOST_SHOWN = 300
export const nothing = (): Tried => ({
  ...{ rows: [], invoices: 0, credits: 0, openMinor: 0, creditMinor: 0, leftOut: 0 },
  newCustomers: new Set(),
})

/** A row whose number stands in one before. */
export function leaveOutTwice(sum: Tried, row: number, open: ItemRow['open']): void {
  const nobody = { number: '', customer: '', newCustomer: false, of: '' }
  const problems = [{ field: 'number', message: 'This number stands in a row before.' }]
  leaveOut(sum, { row, ...nobody, open, state: 'double', problems })
}
function leaveOut(sum: Tried, row: ItemRow) {
  sum.leftOut++
  if (sum.rows.length < MOST_SHOWN) sum.rows.push(row)
}
export function count(sum: Tried, row: ItemRow) {
  if (row.newCustomer) sum.newCustomers.add(row.customer.toLowerCase())
  if (row.state === 'new') sum.invoices++
  else if (row.state === 'credit') sum.credits++
  else return leaveOut(sum, row)
  // Who is called otherwise here is looked at before it is taken.
  if (row.of && sum.rows.length < MOST_SHOWN) sum.rows.push(row)
}
