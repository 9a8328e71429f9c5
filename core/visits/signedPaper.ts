// What a customer signed: a paper of its own, kept as it was for ever.
import type { Details } from '../customers/changedDetails'
import type { DiscountPart } from '../documents/discountReasons'
import type { DocumentTotals } from '../documents/documentTotals'
import { addressLines, letterheadOf, type Letterhead, type Writer } from '../documents/letterhead'
import type { LayoutFacts, PaperLayout } from '../documents/paperLayout'
import { saysOn } from '../documents/paperWords'
import {
  laidOut,
  linesInWords,
  sumsInWords,
  type PaperDocument,
  type PaperLine,
} from '../documents/paperDocument'
import { toMoney, type Money } from '../money/formatMinor'
import { sayMoney } from '../money/sayMoney'
import { fillFields } from '../text/fillFields'
import { sayDay } from '../time/sayDay'

/** Why it is signed, and which words stand above the signature. */
export const SIGN_PURPOSES = {
  before: { says: 'Agreed before the work', words: 'agree' },
  after: { says: 'Work received', words: 'receive' },
} as const
export type SignPurpose = keyof typeof SIGN_PURPOSES
export const SIGN_PURPOSE_NAMES = Object.keys(SIGN_PURPOSES) as readonly SignPurpose[]

/** Who signs: a person for themselves, or for a company, as what. */
export interface Signer {
  name: string
  company: string
  role: string
}
/** As it is kept: all that stood there, and no reference to what may change. */
export interface SignedPaper {
  number: string
  purpose: SignPurpose
  locale: string
  currency: string
  seller: Letterhead
  buyer: { name: string; address: string[] }
  site: string
  title: string
  scope: string
  orderNumber: string
  lines: (PaperLine & { id: string })[]
  net: Money
  taxes: { name: string; rate: string; tax: Money }[]
  total: Money
  exempt: string
  words: string
  signer: Signer
  /** local date and time of the company */
  signedOn: string
  signedAt: string
  takenBy: string
  /** of papers that were made before there were any, none */
  layout?: PaperLayout | undefined
}
interface Facts {
  layout?: PaperLayout | undefined
  purpose: SignPurpose
  company: Writer & { locale: string }
  work: { number: string; currency: string; title: string; problem: string; orderNumber: string }
  /** the customer's and the site's details, as the work order copied them */
  details: Details
  certificate: string
  lines: readonly {
    id: string
    name: string
    quantity: string
    unit: string
    unitPrice: string
    discountMinor: number
    off: readonly DiscountPart[]
  }[]
  totals: DocumentTotals
  signer: Signer
  signedOn: string
  signedAt: string
  takenBy: string
}

/**
 * The paper that is signed, from the lines as shown and their totals. Nothing is rounded here: sums are the totals'.
 * @example signedPaper({ …facts, purpose: 'before' }).words // 'I agree to this work at this price.'
 */
export function signedPaper(facts: Facts): SignedPaper {
  const { company, work, details, totals, purpose } = facts
  const { signer, signedOn, signedAt, takenBy } = facts
  const money = (minor: number) => toMoney(minor, work.currency)
  const { locale } = company
  const { billingLine1: line1, billingTown: town, billingPostcode: postcode } = details
  return {
    ...{ number: work.number, purpose, locale, currency: work.currency },
    seller: letterheadOf(company),
    buyer: { name: details.name, address: addressLines({ line1, town, postcode }) },
    site: [details.siteName, details.siteLine1, details.siteTown].filter(Boolean).join(', '),
    ...{ title: work.title, scope: work.problem, orderNumber: work.orderNumber },
    lines: facts.lines.map((line, i) => ({
      ...{ id: line.id, name: line.name, quantity: line.quantity, unit: line.unit },
      unitPrice: line.unitPrice,
      discount: money(line.discountMinor),
      off: line.off.map(({ why, minor }) => ({ why, amount: money(minor) })),
      net: money(totals.lineNets[i]!),
    })),
    net: money(totals.netMinor),
    taxes: totals.taxes.map((t) => ({ name: t.name, rate: t.rate, tax: money(t.taxMinor) })),
    total: money(totals.totalMinor),
    exempt: facts.certificate,
    words: saysOn('signed', facts.layout?.words)(SIGN_PURPOSES[purpose].words),
    ...{ signer, signedOn, signedAt, takenBy },
    ...(facts.layout && { layout: facts.layout }),
  }
}
/** Who signed, in words. @example saySigner({ name: 'Ada', company: 'Vane Ltd', role: 'manager' }) // 'Ada, manager, for Vane Ltd' */
export const saySigner = ({ name, company, role }: Signer): string =>
  [name, role, company && `for ${company}`].filter(Boolean).join(', ')
/**
 * A signed paper as it is read.
 * @param fingerprint of the paper and the signature as they were kept
 * @example signedDocument(paper, 'ab12…').title // 'Agreed before the work, W-1372'
 */
export function signedDocument(paper: SignedPaper, fingerprint: string): PaperDocument {
  const { locale, purpose, signer, signedOn, signedAt: time, takenBy: taker } = paper
  const says = saysOn('signed', paper.layout?.words)
  const facts: LayoutFacts<'signed'> = {
    ...{ name: paper.buyer.name, site: paper.site, title: paper.title, number: paper.number },
    ...{ date: sayDay(signedOn, locale, 'written'), order: paper.orderNumber },
    ...{ total: sayMoney(paper.total, locale), company: paper.seller.name },
  }
  return {
    ...laidOut(paper, says, facts),
    title: says(purpose, facts),
    facts: [
      { text: says('signed', { ...facts, time }), strong: true },
      ...(paper.orderNumber ? [{ text: says('order', facts) }] : []),
    ],
    buyer: { as: says('buyer'), ...paper.buyer },
    place: { as: paper.title, text: [paper.site, paper.scope].filter(Boolean).join('\n') },
    lines: linesInWords(paper, says),
    remark: paper.exempt ? says('exempt', { certificate: paper.exempt }) : '',
    sums: sumsInWords(paper, locale, says),
    notes: [paper.words, says('signer', { signer: saySigner(signer), taker })],
    conditions: [fillFields(paper.layout?.conditions ?? '', facts), says('kept', { fingerprint })]
      .filter(Boolean)
      .join('\n'),
  }
}
