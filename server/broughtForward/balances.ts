// What stood in the accounts on the day on which the firm begins here, as its bookkeeper says it.
import { conflict, invalid } from '../../core/errors/LedgerError'
import { ACCOUNTS, OPENING_ACCOUNTS, type AccountKey } from '../../core/ledger/accounts'
import { openingEntry, reversal, type Posting } from '../../core/ledger/entries'
import { decimalToMinor, minorToDecimal, toMoney } from '../../core/money/formatMinor'
import type { Answer, Body } from '../../shared/api'
import { listOfImports } from '../customers/index'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { lastPosted, post, postedAs } from '../ledger/queries'
import { lockFirm } from '../settings/index'
import { broughtFacts } from './facts'
import { broughtSums } from './queries'

const KIND = 'opening'
/** Of a liability what is owed is written, as bookkeepers do. */
const signOf = (account: AccountKey): 1 | -1 => (ACCOUNTS[account].type === 'asset' ? 1 : -1)
const minorIn = (postings: readonly Posting[], account: AccountKey): number =>
  postings.find((p) => p.account === account)?.amountMinor ?? 0

export async function broughtForward(ctx: Ctx): Promise<Answer<'broughtForward'>> {
  const { currency } = ctx.company
  const postings = await postedAs(ctx.tx, KIND)
  const sums = await broughtSums(ctx.tx)
  const imports = await listOfImports(ctx.tx, 'brought')
  return {
    on: await lastPosted(ctx.tx, KIND),
    accounts: OPENING_ACCOUNTS.map((account) => ({
      account,
      amount: minorToDecimal(signOf(account) * minorIn(postings, account), currency),
    })),
    opening: toMoney(-minorIn(postings, 'opening') + sums.open - sums.credit, currency),
    invoices: { count: sums.invoices, sum: toMoney(sums.open, currency) },
    credits: { count: sums.credits, sum: toMoney(sums.credit, currency) },
    imports: imports.map(({ undoneAt, ...i }) => ({ ...i, undone: undoneAt !== null })),
  }
}
/** Enters the balances, in the place of what was entered before. */
export async function keepOpening(
  ctx: Ctx,
  { on, amounts, shown }: Body<'keepOpening'>,
): Promise<Answer<'broughtForward'>> {
  if (on > ctx.today) throw invalid('on', 'That day has not come yet.')
  // One at a time, whoever else is at it.
  await lockFirm(ctx.tx)
  const before = await postedAs(ctx.tx, KIND)
  const { currency } = ctx.company
  const was = OPENING_ACCOUNTS.map((account) => ({
    account,
    amount: minorToDecimal(signOf(account) * minorIn(before, account), currency),
  }))
  const stale = shown.some(
    ({ account, amount }) => was.find((w) => w.account === account)?.amount !== amount,
  )
  if (stale)
    throw conflict('stale', 'Someone changed these balances in the meantime. Look at them again.', {
      current: await broughtForward(ctx),
    })
  const now = amounts.map(({ account, amount }, i) => ({
    account,
    amountMinor: signOf(account) * minorOf(amount, `amounts[${i}].amount`, currency),
  }))
  const about = { kind: KIND, customerId: null, at: ctx.now }
  const memo = 'Opening balances'
  if (before.length)
    await post(ctx.tx, {
      ...{ ...about, on: (await lastPosted(ctx.tx, KIND))!, sourceId: ctx.id() },
      ...{ memo: `${memo}, as they were entered before`, postings: reversal(before) },
    })
  const postings = openingEntry(now)
  if (postings.length) await post(ctx.tx, { ...about, on, sourceId: ctx.id(), memo, postings })
  const said = (of: readonly { account: AccountKey; amount: string }[]) =>
    of.map(({ account, amount }) => `${ACCOUNTS[account].name} ${amount}`).join(', ')
  const fact = broughtFacts.balancesKept({
    on,
    changes: { balances: { from: said(was), to: said(amounts) } },
  })
  await record(ctx, { subject: 'settings', id: ctx.id(), fact })
  return broughtForward(ctx)
}
function minorOf(amount: string, path: string, currency: string): number {
  try {
    return decimalToMinor(amount || '0', currency)
  } catch (error) {
    throw invalid(path, (error as Error).message)
  }
}
