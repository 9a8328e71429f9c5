import { minorToDecimal } from '../money/formatMinor'

export interface JournalEntry {
  on: string
  code: string
  memo: string
  postings: { account: string; amountMinor: number }[]
}

/**
 * What a journal begins with: the currency and the accounts, declared. Entries follow, each by `writeEntry`.
 * @example writeJournalHead(['assets:bank'], 'USD') // 'commodity 1,000.00 USD\naccount assets:bank\n\n'
 */
export function writeJournalHead(accounts: readonly string[], currency: string): string {
  return [`commodity 1,000.00 ${currency}`, ...accounts.map((a) => `account ${a}`), '', ''].join(
    '\n',
  )
}

/**
 * A ledger entry of a plain-text double-entry journal that hledger and ledger read; amounts are minor units.
 * @throws InvalidValue when a currency is unknown
 * @example writeEntry({ on: '2026-11-24', code: 'receipt', memo: 'R-1', postings: [{ account: 'assets:bank', amountMinor: 500 }] }, 'USD')
 * // '2026-11-24 * (receipt) R-1\n    assets:bank  5.00 USD\n\n'
 */
export function writeEntry(entry: JournalEntry, currency: string): string {
  return [
    `${entry.on} * (${entry.code}) ${entry.memo.replace(/[\r\n;|]+/g, ' ').trim()}`,
    ...entry.postings.map(
      (p) => `    ${p.account}  ${minorToDecimal(p.amountMinor, currency)} ${currency}`,
    ),
    '',
    '',
  ].join('\n')
}
