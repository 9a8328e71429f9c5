// What the parts of the firm's set-up share: what is kept, and the words of its kinds.
import type { Role } from '~~/core/access/permissions'
import type { LineKind } from '~~/core/pricebook/kinds'
import type { Answer } from '~~/shared/api'

export type FirmSetUp = Answer<'setUp'>
export type Question = FirmSetUp['questions'][number]
export type OwnField = FirmSetUp['fields'][number]
export type Series = Answer<'numbers'>['items'][number]
export const SERIES_WORDS: Readonly<Record<Series['kind'], string>> = {
  ...{ invoice: 'Invoices', quote: 'Quotes', work_order: 'Work orders', receipt: 'Receipts' },
}
/** Choices as they are typed: with commas between. */
export const choicesIn = (text: string): string[] =>
  text
    .split(',')
    .map((choice) => choice.trim())
    .filter(Boolean)
const KIND_WORDS: Readonly<Record<string, string>> = {
  yes_no: 'yes or no',
  work_order: 'work order',
}
export const sayKind = (kind: string): string => KIND_WORDS[kind] ?? kind.replaceAll('_', ' ')
export const kindOptions = (kinds: readonly string[]) =>
  kinds.map((value) => ({ value, label: sayKind(value) }))
/** What it is answered or filled with, and the choices if it has some. */
export const sayChoices = (kind: string, choices: readonly string[]): string =>
  choices.length ? `${sayKind(kind)}: ${choices.join(', ')}` : sayKind(kind)
export const MAIL_NAMES: Readonly<Record<Answer<'mailWords'>['items'][number]['kind'], string>> = {
  bill: 'with a new invoice',
  invoice: 'with an invoice sent again',
  quote: 'with a quote',
  reminder1: 'first reminder',
  reminder2: 'second reminder',
}
/** The kinds of lines, as a price level takes something off them. */
export const LINE_WORDS: Readonly<Record<LineKind, string>> = {
  ...{ task: 'Tasks', part: 'Parts', labour: 'Hours', charge: 'Charges', other: 'Own lines' },
}
/** What each role of ours is for. */
export const ROLE_WORDS: Readonly<Record<Role, string>> = {
  owner: 'owner: may do everything',
  office: 'office: calls, customers, bills',
  dispatch: 'dispatch: calls and the schedule',
  books: 'books: invoices, money, the ledger',
  technician: 'technician: a phone, and their visits',
}
