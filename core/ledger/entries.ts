import type { AccountKey, OpeningAccount } from './accounts'

/** Debit positive, credit negative, minor units. */
export interface Posting {
  account: AccountKey
  amountMinor: number
}

/**
 * The postings, merged by account and without zeros, when they balance.
 * @throws RangeError when Σ debits ≠ Σ credits, or an amount is not whole
 */
export function balanced(postings: readonly Posting[]): Posting[] {
  const sums = new Map<AccountKey, number>()
  for (const p of postings) {
    if (!Number.isSafeInteger(p.amountMinor)) throw new RangeError('postings are whole minor units')
    sums.set(p.account, (sums.get(p.account) ?? 0) + p.amountMinor)
  }
  if ([...sums.values()].reduce((all, a) => all + a, 0) !== 0)
    throw new RangeError('the entry does not balance')
  return [...sums]
    .filter(([, amountMinor]) => amountMinor !== 0)
    .map(([account, amountMinor]) => ({ account, amountMinor }))
}

/** Invoice sent: receivable / income by kind of line, tax payable. With tax inside prices, income is what is left of it. */
export function invoiceEntry(invoice: {
  totalMinor: number
  taxMinor: number
  income: readonly { account: AccountKey; amountMinor: number }[]
}): Posting[] {
  return balanced([
    { account: 'receivable', amountMinor: invoice.totalMinor },
    { account: 'tax', amountMinor: -invoice.taxMinor },
    ...invoice.income.map((i) => ({ account: i.account, amountMinor: -i.amountMinor })),
  ])
}

/** Payment: money account / receivable for what is applied, customer deposits for what is left over. */
export function paymentEntry(payment: {
  account: AccountKey
  amountMinor: number
  appliedMinor: number
}): Posting[] {
  return balanced([
    { account: payment.account, amountMinor: payment.amountMinor },
    { account: 'receivable', amountMinor: -payment.appliedMinor },
    { account: 'deposits', amountMinor: -(payment.amountMinor - payment.appliedMinor) },
  ])
}

/**
 * Money that stood in the customer's favour pays an invoice: customer deposits / receivable.
 * @example applicationEntry(5325) // [{ account: 'deposits', amountMinor: 5325 }, { account: 'receivable', amountMinor: -5325 }]
 */
export function applicationEntry(amountMinor: number): Posting[] {
  return balanced([
    { account: 'deposits', amountMinor },
    { account: 'receivable', amountMinor: -amountMinor },
  ])
}

/**
 * An invoice from the books before: what is still open of it, against the opening balances.
 * @example broughtInvoiceEntry(5000) // [{ account: 'receivable', amountMinor: 5000 }, { account: 'opening', amountMinor: -5000 }]
 */
export const broughtInvoiceEntry = (openMinor: number): Posting[] =>
  balanced([
    { account: 'receivable', amountMinor: openMinor },
    { account: 'opening', amountMinor: -openMinor },
  ])

/**
 * What stood in the accounts on the day on which the firm begins here; the rest is what the owners have in it.
 * @param balances debit positive, in minor units: money in the bank, tax that is owed as a negative
 * @example openingEntry([{ account: 'bank', amountMinor: 90000 }])[1] // { account: 'opening', amountMinor: -90000 }
 */
export function openingEntry(
  balances: readonly { account: OpeningAccount; amountMinor: number }[],
): Posting[] {
  const sum = balances.reduce((all, { amountMinor }) => all + amountMinor, 0)
  return balanced([...balances, { account: 'opening', amountMinor: -sum }])
}

/** The mirror of an entry: a bounced cheque, a refund, a credit note. */
export const reversal = (postings: readonly Posting[]): Posting[] =>
  balanced(postings.map((p) => ({ ...p, amountMinor: -p.amountMinor })))

/**
 * What one customer has in the accounts kept by customer, handed to another: each account once out of the one and once
 * into the other. Nothing for a balance of zero.
 * @example transferEntry([{ account: 'receivable', amountMinor: 500 }]) // −500 'from', +500 'to'
 */
export function transferEntry(balances: readonly Posting[]): (Posting & { side: 'from' | 'to' })[] {
  return balances
    .filter((b) => b.amountMinor !== 0)
    .flatMap(({ account, amountMinor }) => [
      { account, amountMinor: -amountMinor, side: 'from' as const },
      { account, amountMinor, side: 'to' as const },
    ])
}
