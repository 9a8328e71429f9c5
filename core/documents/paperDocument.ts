import type { Letterhead } from './letterhead'
import { Decimal } from '../money/decimal'
import type { Money } from '../money/formatMinor'
import { sayQuantity, sayRate } from '../text/sayNumber'
import { sayMoney, sayUnitPrice } from '../money/sayMoney'

/** One line of a paper in figures: what is kept frozen, and what a document is made from. */
export interface PaperLine {
  name: string
  quantity: string
  unit: string
  unitPrice: string
  discount: Money
  /** what the discount is for, part by part; not kept by papers from before it was */
  off?: { why: string; amount: Money }[] | undefined
  net: Money
}
/** The sums of a paper in figures. */
export interface PaperSums {
  net: Money
  taxes: readonly { name: string; rate: string; tax: Money }[]
  total: Money
}

/**
 * A paper as it is read: every text as its reader sees it, every sum in the words of its locale. Page, PDF and
 * print draw it, and compute nothing.
 */
export interface PaperDocument {
  /** what it is and its number: "Invoice I-2207" */
  title: string
  number: string
  /** BCP 47: in what the texts are written, and on paper of which size */
  locale: string
  seller: Letterhead
  /** beside the letterhead, the strong one in bold */
  facts: { text: string; strong?: boolean }[]
  buyer: { as: string; name: string; address: string[] }
  place: { as: string; text: string }
  lines: { name: string; beneath: string; quantity: string; each: string; amount: string }[]
  /** beside the sums */
  remark: string
  sums: { label: string; amount: string; strong?: boolean }[]
  notes: string[]
  conditions: string
}
/** What stands above the columns of a paper's lines. */
export const PAPER_COLUMNS = {
  name: 'Work and material',
  quantity: 'Quantity',
  each: 'Each',
  amount: 'Amount',
} as const satisfies Record<string, string>

const offInWords = (
  { discount, off = [{ why: '', amount: discount }] }: PaperLine,
  locale: string,
) =>
  isNothing(discount)
    ? ''
    : off.map(({ why, amount }) => `less ${sayMoney(amount, locale)} ${why}`.trim()).join(', ')

/**
 * The lines of a paper in words: what was taken off beneath the name, no unit where things are counted.
 * @example linesInWords([line], 'en-US') // [{ name: 'Pump', beneath: '', quantity: '1', each: '90.00', amount: '$90.00' }]
 */
export const linesInWords = (lines: readonly PaperLine[], locale: string): PaperDocument['lines'] =>
  lines.map((line) => ({
    name: line.name,
    beneath: offInWords(line, locale),
    quantity: [sayQuantity(line.quantity, locale), line.unit === 'each' ? '' : line.unit]
      .filter(Boolean)
      .join(' '),
    each: sayUnitPrice(line.unitPrice, line.net.currency, locale),
    amount: sayMoney(line.net, locale),
  }))

/**
 * The sums beneath the lines in words: net, each tax with its rate, the total.
 * @example sumsInWords(sums, 'en-US') // [{ label: 'Net', amount: '$90.00' }, { label: 'State 4%', … }, …]
 */
export const sumsInWords = (sums: PaperSums, locale: string): PaperDocument['sums'] => [
  { label: 'Net', amount: sayMoney(sums.net, locale) },
  ...sums.taxes.map(({ name, rate, tax }) => ({
    label: `${name} ${sayRate(rate, locale)}`,
    amount: sayMoney(tax, locale),
  })),
  { label: 'Total', amount: sayMoney(sums.total, locale), strong: true },
]

/** Whether money is zero. @example isNothing({ amount: '0.00', currency: 'USD' }) // true */
export const isNothing = (money: Money): boolean => new Decimal(money.amount).isZero()
