// Whether a line may be as low as somebody wants it, on a work order or a quote: by their limit, or with another person's yes.
import { beyondLimit, loweredPercent, USUAL_LIMITS, type Limits } from '../../core/access/limits'
import { LedgerError } from '../../core/errors/LedgerError'
import { Decimal } from '../../core/money/decimal'
import { toMoney } from '../../core/money/formatMinor'
import { roundToMinor } from '../../core/money/roundToMinor'
import { sayMoney } from '../../core/money/sayMoney'
import type { Role } from '../../core/access/permissions'
import { signedIn, type Ctx } from '../http/context'
import { priceLines, type PricedFor, type PricedLine } from './priceLines'

export const limitsOf = (
  { company }: { company: Pick<Ctx['company'], 'limits'> },
  role: Role,
): Limits => ({
  ...USUAL_LIMITS[role],
  ...company.limits[role],
})
/** What is refused because it is beyond one's limit, with what it would do, so that it can be asked for. */
export const overLimit = (sentence: string, what: string): LedgerError =>
  new LedgerError('over_limit', `${sentence} Ask for another person’s yes.`, { extra: { what } })
/** A line, and what the customer agreed to of it. */
type LimitedLine = PricedLine & { promisedMinor?: number }
/** A line as it would be, by its sums. */
async function sumsOf(ctx: Ctx, of: PricedFor, line: LimitedLine, hasTask: boolean) {
  const { id, entryId, quantity, promisedMinor = 0, netMinor } = line
  const costMinor = roundToMinor(new Decimal(line.unitCost).times(quantity), of.currency)
  // Without a hand: by the book, the level and the rates; or what the customer agreed to, if that is more.
  const [usual] = entryId
    ? await priceLines(ctx, of, [{ id, entryId, quantity }], { hasTask, at: null })
    : []
  return { line, netMinor, usualMinor: Math.max(usual?.netMinor ?? 0, promisedMinor), costMinor }
}
const MOST_NAMED = 3
/**
 * Refuses lines that are lower than whoever asks may set them, all of them before any is written; what they would be is
 * said to whoever may.
 * @param before the lines that stand before them: a further task costs less
 */
export async function withinLimit(
  ctx: Ctx,
  of: PricedFor,
  lines: readonly LimitedLine[],
  before: readonly Pick<LimitedLine, 'kind'>[] = [],
): Promise<void> {
  const limits = limitsOf(ctx, signedIn(ctx).role)
  let hasTask = before.some(({ kind }) => kind === 'task')
  const over = []
  for (const line of lines) {
    const sums = await sumsOf(ctx, of, line, hasTask)
    const beyond = beyondLimit(sums, limits)
    if (beyond) over.push({ ...sums, beyond })
    hasTask ||= line.kind === 'task'
  }
  if (!over.length) return
  const say = (minor: number) => sayMoney(toMoney(minor, of.currency), ctx.company.locale)
  const named = over
    .slice(0, MOST_NAMED)
    .map(
      (o) => `“${o.line.name.slice(0, 60)}” at ${say(o.netMinor)} instead of ${say(o.usualMinor)}`,
    )
  const more = over.length > MOST_NAMED ? [`and ${over.length - MOST_NAMED} more`] : []
  const lowered = over.filter(({ beyond }) => beyond === 'lowered')
  const sentence = lowered.length
    ? `That is ${Math.max(...lowered.map(loweredPercent))} % below its price; you may go ${limits.lowerPercent} % below.`
    : 'That is less than it costs.'
  throw overLimit(sentence, [...named, ...more].join('; '))
}
