import { InvalidValue } from '../errors/InvalidValue'
import { LONGEST_NUMBER } from '../documents/numberSeries'
import { guessMeanings, rowByMeaning } from '../formats/columns'
import { decimalToMinor } from '../money/formatMinor'
import { readSum } from '../money/readSum'
import { searchKey } from '../text/searchKey'
import { readDate } from '../time/readDate'

/** What a column of a list of open items can mean. */
export const OPEN_ITEM_FIELDS = [
  ...(['number', 'customer', 'phone', 'email'] as const),
  ...(['issued', 'due', 'total', 'open'] as const),
] as const
export type OpenItemField = (typeof OPEN_ITEM_FIELDS)[number]
type Row = Partial<Record<OpenItemField, string>>

/** Headings that people use, as searchKey writes them; from our own reading of lists of open items, not from a standard. */
const HEADINGS: Record<OpenItemField, string[]> = {
  number: [
    'number',
    'no',
    'invoice',
    'invoice number',
    'invoice no',
    'document',
    'reference',
    'num',
  ],
  customer: ['customer', 'customer name', 'name', 'client', 'company', 'account', 'bill to'],
  phone: ['phone', 'telephone', 'tel', 'phone number', 'mobile'],
  email: ['email', 'e mail', 'mail', 'email address', 'mail address'],
  issued: ['date', 'issued', 'invoice date', 'issue date', 'document date'],
  due: ['due', 'due date', 'due on', 'payable by'],
  total: ['total', 'amount', 'invoice total', 'original amount', 'gross'],
  open: [
    'open',
    'balance',
    'open balance',
    'open amount',
    'outstanding',
    'balance due',
    'amount due',
  ],
}
/** Proposes what each column means. @example guessOpenItems(['Invoice no', 'Balance']) // ['number', 'open'] */
export const guessOpenItems = (head: readonly string[]): (OpenItemField | null)[] =>
  guessMeanings(head, HEADINGS)
/** Without these nothing can be taken in. */
export const NEEDED: readonly OpenItemField[] = ['number', 'customer', 'issued', 'open']

/** An invoice of the books before that is not paid, or a credit that the customer has: what is open is below nothing. */
export interface OpenItem {
  number: string
  customer: string
  phone: string
  email: string
  /** local dates, YYYY-MM-DD */
  issuedOn: string
  dueOn: string
  totalMinor: number
  openMinor: number
}
export interface ItemProblem {
  field: OpenItemField
  message: string
}
type Say = (field: OpenItemField, message: string) => void
interface Firm {
  today: string
  locale: string
  currency: string
}
const MAIL = /^[^\s@]+@[^\s@]+\.[^\s@]+$/

/**
 * One row of a list of open items. Days and sums are read as the firm's locale writes them; without a day on which it is due, it is
 * due when issued; without a total, the total is what is open.
 * @param row the cells
 * @param columns what each means
 * @returns the item, or what is wrong, field by field
 * @example readOpenItem(['1041', 'Marrow', '11/02/2026', '52.05'], ['number', 'customer', 'issued', 'open'], firm).item?.openMinor // 5205
 */
export function readOpenItem(
  row: readonly string[],
  columns: readonly (OpenItemField | null)[],
  firm: Firm,
): { item: OpenItem | null; problems: ItemProblem[] } {
  const cells: Row = rowByMeaning(row, columns)
  const problems = wrongWords(cells)
  const say = (field: OpenItemField, message: string) => void problems.push({ field, message })
  const days = daysIn(cells, firm, say)
  const sums = sumsIn(cells, firm, say)
  if (problems.length || !days || !sums) return { item: null, problems }
  const { number = '', customer = '', phone = '', email = '' } = cells
  return { item: { number, customer, phone, email, ...days, ...sums }, problems }
}
function daysIn(cells: Row, firm: Firm, say: Say): Pick<OpenItem, 'issuedOn' | 'dueOn'> | null {
  const issuedOn = dayIn(cells, 'issued', firm, say)
  const dueOn = cells.due ? dayIn(cells, 'due', firm, say) : issuedOn
  if (!issuedOn || !dueOn) return null
  if (issuedOn > firm.today) say('issued', 'That day has not come yet.')
  if (dueOn < issuedOn) say('due', 'It would be due before it was issued.')
  return { issuedOn, dueOn }
}
function sumsIn(
  cells: Row,
  firm: Firm,
  say: Say,
): Pick<OpenItem, 'totalMinor' | 'openMinor'> | null {
  const openMinor = sumIn(cells, 'open', firm, say)
  const totalMinor = cells.total ? sumIn(cells, 'total', firm, say) : openMinor
  if (openMinor === null || totalMinor === null) return null
  if (openMinor > 0 && totalMinor < openMinor) say('open', 'More would be open than the whole.')
  return { totalMinor, openMinor }
}
function wrongWords({ number, customer, phone = '', email }: Row): ItemProblem[] {
  const wrong: ItemProblem[] = []
  if (!number) wrong.push({ field: 'number', message: 'There is no number.' })
  else if (number.length > LONGEST_NUMBER)
    wrong.push({ field: 'number', message: `A number has ${LONGEST_NUMBER} signs at most.` })
  if (!customer) wrong.push({ field: 'customer', message: 'There is no customer.' })
  else if (customer.length > 160)
    wrong.push({ field: 'customer', message: 'Longer than 160 signs.' })
  if (phone.length > 32) wrong.push({ field: 'phone', message: 'Longer than 32 signs.' })
  if (email && !MAIL.test(email))
    wrong.push({ field: 'email', message: `“${email}” is not a mail address.` })
  return wrong
}
function dayIn(cells: Row, field: 'issued' | 'due', firm: Firm, say: Say): string | null {
  const typed = cells[field]
  const date = typed?.replace(/[T ]\d{1,2}:\d{2}.*$/, '') ?? ''
  // In a file a day has its year.
  const isWhole = date.split(/[^\p{L}\p{N}]+/u).filter(Boolean).length >= 3
  const day = isWhole ? readDate(date, firm.today, firm.locale) : null
  if (!day) say(field, typed ? `“${typed}” is no day.` : 'There is no day.')
  return day
}
function sumIn(cells: Row, field: 'open' | 'total', firm: Firm, say: Say): number | null {
  const typed = cells[field]
  const sum = typed ? readSum(typed, firm.locale) : null
  if (sum === null) {
    say(field, typed ? `“${typed}” is no sum.` : 'There is no sum.')
    return null
  }
  try {
    return decimalToMinor(sum, firm.currency)
  } catch (error) {
    if (!(error instanceof InvalidValue)) throw error
    say(field, error.message)
    return null
  }
}

/**
 * The rows whose number stands in a row before: a number is taken in once.
 * @returns their places in the list, from 0
 * @example repeatedNumbers([['1041'], ['1042'], ['1041']], ['number']) // [2]
 */
export function repeatedNumbers(
  rows: readonly (readonly string[])[],
  columns: readonly (OpenItemField | null)[],
): number[] {
  const at = columns.indexOf('number')
  const seen = new Set<string>()
  return rows.flatMap((row, i) => {
    const number = at < 0 ? '' : (row[at] ?? '').toLowerCase()
    if (!number || !seen.has(number)) {
      seen.add(number)
      return []
    }
    return [i]
  })
}

/** A customer that a row may be about. */
export interface KnownPayer {
  id: string
  name: string
  phones: readonly string[]
  mails: readonly string[]
}
/**
 * Whom a row of open items is about: who has the name, told apart by telephone or mail where several have it; else who has
 * the telephone or the mail.
 * @param known those who have the name, the telephone or the mail
 * @returns `several` where the row does not tell which
 * @example payerOf({ customer: 'Marrow', phone: '', email: '' }, [marrow]) // { payer: marrow, several: false }
 */
export function payerOf(
  { customer, phone, email }: Pick<OpenItem, 'customer' | 'phone' | 'email'>,
  known: readonly KnownPayer[],
): { payer: KnownPayer | null; several: boolean } {
  const key = searchKey(customer)
  const named = known.filter(({ name }) => searchKey(name) === key)
  const reached = (named.length ? named : known).filter(
    ({ phones, mails }) =>
      (phone && phones.includes(phone)) || (email && mails.includes(email.toLowerCase())),
  )
  const fits = named.length === 1 ? named : reached
  return {
    payer: fits.length === 1 ? fits[0]! : null,
    several: named.length + reached.length > 1 && fits.length !== 1,
  }
}
