import { letterheadLines, type Letterhead } from './letterhead'
import { Decimal } from '../money/decimal'
import type { Money } from '../money/formatMinor'
import { sayQuantity, sayRate } from '../text/sayNumber'
import { sayMoney, sayUnitPrice } from '../money/sayMoney'
import { fillFields } from '../text/fillFields'
import { USUAL_LAYOUT, type PaperColumn, type PaperLayout } from './paperLayout'
import { paperSize } from './paperSize'
import type { SaysOnAny } from './paperWords'

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
  /** BCP 47: in what the texts are written */
  locale: string
  size: ReturnType<typeof paperSize>
  /** of the title and the rules; empty for ink */
  colour: string
  seller: Letterhead
  /** beneath the name of who writes it */
  head: string[]
  /** beside the letterhead, the strong one in bold */
  facts: { text: string; strong?: boolean }[]
  buyer: { as: string; name: string; address: string[] }
  place: { as: string; text: string }
  /** above the lines: what it is about, in bold, and the words that it opens with */
  subject: string
  opening: string
  /** what stands above the columns, the first of them the name */
  columns: { key: 'name' | PaperColumn; label: string }[]
  lines: { name: string; beneath: string; quantity: string; each: string; amount: string }[]
  /** beside the sums */
  remark: string
  sums: { label: string; amount: string; strong?: boolean }[]
  notes: string[]
  conditions: string
  /** at the foot of each page, with `{page}` and `{pages}` */
  foot: string
}
/** What a paper is written with: its words, and how it looks. */
export interface Written {
  number: string
  locale: string
  seller: Letterhead
  layout?: PaperLayout | undefined
}
/**
 * What every paper takes from its layout: its size and colour, its head and foot, and the free texts with their fields.
 * @param facts what the free texts name
 * @example laidOut(paper, says, { name: 'Ida' }).opening // 'Dear Ida'
 */
export function laidOut(
  { number, locale, seller, layout = USUAL_LAYOUT }: Written,
  says: SaysOnAny,
  facts: Readonly<Record<string, string>>,
) {
  return {
    number,
    locale,
    size: layout.size || paperSize(locale),
    colour: layout.colour,
    seller,
    head: letterheadLines(seller, (taxNumber) => says('taxNumber', { number: taxNumber })),
    subject: fillFields(layout.subject, facts).trim(),
    opening: fillFields(layout.opening, facts),
    foot: says('page', { number }),
    columns: [
      { key: 'name' as const, label: says('name') },
      ...(layout.itemised ? layout.columns : []).map((key) => ({ key, label: says(key) })),
    ],
  }
}

const offInWords = (
  { discount, off = [{ why: '', amount: discount }] }: PaperLine,
  locale: string,
  says: SaysOnAny,
) =>
  isNothing(discount)
    ? ''
    : off
        .map(({ why, amount }) => says('less', { amount: sayMoney(amount, locale), why }))
        .join(', ')

/**
 * The lines of a paper in words: what was taken off beneath the name, no unit where things are counted. Where the layout
 * does not itemise, one line stands for all of them, since their sum stands beneath.
 * @example linesInWords({ lines: [pump], locale: 'en-US' }, saysOn('quote')) // [{ name: 'Pump', beneath: '', quantity: '1', each: '90.00', amount: '$90.00' }]
 */
export function linesInWords(
  {
    lines,
    locale,
    layout = USUAL_LAYOUT,
  }: Pick<Written, 'locale' | 'layout'> & { lines: readonly PaperLine[] },
  says: SaysOnAny,
): PaperDocument['lines'] {
  if (!layout.itemised)
    return [{ name: says('summed'), beneath: '', quantity: '', each: '', amount: '' }]
  return lines.map((line) => ({
    name: line.name,
    beneath: layout.discounts ? offInWords(line, locale, says) : '',
    quantity: [sayQuantity(line.quantity, locale), line.unit === 'each' ? '' : line.unit]
      .filter(Boolean)
      .join(' '),
    each: sayUnitPrice(line.unitPrice, line.net.currency, locale),
    amount: sayMoney(line.net, locale),
  }))
}

/**
 * The sums beneath the lines in words: net, each tax with its rate, the total.
 * @example sumsInWords(sums, 'en-US', saysOn('quote')) // [{ label: 'Net', amount: '$90.00' }, { label: 'State 4%', … }, …]
 */
export const sumsInWords = (
  sums: PaperSums,
  locale: string,
  says: SaysOnAny,
): PaperDocument['sums'] => [
  { label: says('net'), amount: sayMoney(sums.net, locale) },
  ...sums.taxes.map(({ name, rate, tax }) => ({
    label: `${name} ${sayRate(rate, locale)}`,
    amount: sayMoney(tax, locale),
  })),
  { label: says('total'), amount: sayMoney(sums.total, locale), strong: true },
]

/** Whether money is zero. @example isNothing({ amount: '0.00', currency: 'USD' }) // true */
export const isNothing = (money: Money): boolean => new Decimal(money.amount).isZero()
