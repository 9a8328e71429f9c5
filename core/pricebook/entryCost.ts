import { Decimal } from '../money/decimal'
import type { EntryKind } from './kinds'

/**
 * What is bought for an entry, major units, four decimals: of a task or an assembly with something inside, what that costs; else what
 * somebody wrote. A new cost of a part is thereby a new cost of every task that it stands in.
 * @example materialCost({ kind: 'task', cost: '0', parts: [{ cost: '6', quantity: '2' }] }) // '12'
 * Source: common practice of the trade.
 */
export function materialCost(entry: {
  kind: EntryKind
  cost: string
  parts: readonly { cost: string; quantity: string }[]
}): string {
  if ((entry.kind !== 'task' && entry.kind !== 'assembly') || !entry.parts.length) return entry.cost
  return entry.parts
    .reduce((sum, p) => sum.plus(new Decimal(p.cost).times(p.quantity)), new Decimal(0))
    .toDecimalPlaces(4)
    .toString()
}
/**
 * What the hours of an entry cost us, major units, four decimals, at what an hour of its labour costs. Parts take no hours; the cost of
 * a labour rate is that of its hour already.
 * @example labourCost({ kind: 'task', seconds: 7920 }, '41.50') // '91.3': 2.2 h
 * Source: common practice of the trade: a job costs its material and its labour.
 */
export const labourCost = (
  entry: { kind: EntryKind; seconds: number },
  hourCost: string,
): string =>
  entry.kind === 'part' || entry.kind === 'labour'
    ? '0'
    : new Decimal(hourCost).times(entry.seconds).div(3600).toDecimalPlaces(4).toString()
/**
 * What an hour of an entry's labour costs, by the labour that it names; where it names none, that of the standard rate, which is the
 * pinned one, or else the first. '0' where there is no labour at all.
 * @example hourCosts([{ id: 'std', cost: '41.50', pinned: true }])(null) // '41.50'
 */
export function hourCosts(
  labour: readonly { id: string; cost: string; pinned: boolean; retired?: boolean }[],
): (labourId: string | null) => string {
  const byId = new Map(labour.map((l) => [l.id, l.cost]))
  const sold = labour.filter((l) => !l.retired)
  const standard = (sold.find((l) => l.pinned) ?? sold[0])?.cost ?? '0'
  return (labourId) => (labourId === null ? standard : (byId.get(labourId) ?? standard))
}
