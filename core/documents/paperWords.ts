// Every word that is printed on a paper, as it is usually said; a firm says any of them otherwise, in its own language too.
import { fieldsOf, fillFields } from '../text/fillFields'

const ALL = {
  order: 'Your order {order}',
  name: 'Work and material',
  quantity: 'Quantity',
  each: 'Each',
  amount: 'Amount',
  summed: 'Work and material, as described',
  less: 'less {amount} {why}',
  net: 'Net',
  total: 'Total',
  exempt: 'Tax exempt, certificate {certificate}',
  taxNumber: 'Tax number {number}',
  page: '{number} · page {page} of {pages}',
} as const
/** The papers that there are, and what stands on each. */
export const PAPER_WORDS = {
  quote: {
    title: 'Quote {number}',
    written: 'Written {date}',
    held: 'Price held until {date}',
    buyer: 'For',
    contact: 'Contact: {contact}',
    saving: 'With {level}: {amount} less, before tax.',
    ...ALL,
  },
  invoice: {
    title: 'Invoice {number}',
    issued: 'Issued {date}',
    due: 'Due {date} ({terms})',
    onReceipt: 'due on receipt',
    inDays: '{days} days',
    endOfMonth: 'end of month',
    endOfMonthAnd: 'end of month + {days} days',
    dayOfNext: 'day {day} of next month',
    byDate: 'by {date}',
    work: 'Our work order {work}',
    buyer: 'Billed to',
    place: 'Work done at',
    balance: '{name} (balance)',
    paidBefore: 'Paid before',
    payable: 'Payable',
    paid: 'Paid',
    open: 'Still open',
    found: 'Found on site: {found}',
    contact: 'Contact: {contact}',
    transfer: 'By transfer to {payee}',
    cheques: 'Cheques to {payee}',
    ...ALL,
  },
  signed: {
    before: 'Agreed before the work, {number}',
    after: 'Work received, {number}',
    signed: 'Signed {date}, {time}',
    buyer: 'For',
    agree: 'I agree to this work at this price.',
    receive: 'I have received this work at this price.',
    signer: 'Signed by {signer}, before {taker}.',
    kept: 'Kept as it was signed: SHA-256 {fingerprint}',
    ...ALL,
  },
} as const
export type PaperKind = keyof typeof PAPER_WORDS
export const PAPER_KINDS = Object.keys(PAPER_WORDS) as readonly PaperKind[]
export type PaperWord<K extends PaperKind> = keyof (typeof PAPER_WORDS)[K] & string
/** What a firm says otherwise, by word. */
export type OwnWords = Readonly<Record<string, string>>
/** Says a word that all papers have. */
export type SaysOnAny = (word: keyof typeof ALL, facts?: Readonly<Record<string, string>>) => string
/** Says a word of a paper, with its fields filled. */
export type Says<K extends PaperKind> = (
  word: PaperWord<K>,
  facts?: Readonly<Record<string, string>>,
) => string

/**
 * Says the words of a kind of paper: the firm's own where it has some, else the usual ones.
 * @example saysOn('quote', { title: 'Estimate {number}' })('title', { number: 'Q-7' }) // 'Estimate Q-7'
 */
export const saysOn =
  <K extends PaperKind>(kind: K, own: OwnWords = {}): Says<K> =>
  (word, facts = {}) =>
    fillFields(own[word] || (PAPER_WORDS[kind] as Record<string, string>)[word]!, facts).trim()
/** The fields that a word of a paper may have: those that it usually has. @example fieldsOfWord('quote', 'title') // ['number'] */
export const fieldsOfWord = (kind: PaperKind, word: string): string[] =>
  fieldsOf((PAPER_WORDS[kind] as Record<string, string>)[word] ?? '')
