import { minorToDecimal } from '../money/formatMinor'

export interface JournalEntry { on: string, code: string, memo: string, postings: { account: string, amountMinor: number }[] }

/**
 * Ledger entries as a plain-text double-entry journal that hledger and ledger read, with the accounts declared first.
 * @throws InvalidValue when a currency is unknown
 */
export function writeJournal(entries: readonly JournalEntry[], accounts: readonly string[], currency: string): string {
  const head = [`commodity 1,000.00 ${currency}`, ...accounts.map(a => `account ${a}`), '']
  const body = entries.map(e => [
    `${e.on} * (${e.code}) ${e.memo.replace(/[\r\n;|]+/g, ' ').trim()}`,
    ...e.postings.map(p => `    ${p.account}  ${minorToDecimal(p.amountMinor, currency)} ${currency}`),
    '',
  ].join('\n'))
  return [...head, ...body].join('\n') + '\n'
}
