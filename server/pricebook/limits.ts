// Whether a line may be as low as somebody wants it, on a work order or a quote: by their limit, or with another person's yes.
import { beyondLimit, loweredPercent } from '../../core/access/limits'
import { Decimal } from '../../core/money/decimal'
import { toMoney } from '../../core/money/formatMinor'
import { roundToMinor } from '../../core/money/roundToMinor'
import { sayMoney } from '../../core/money/sayMoney'
import { limitsOf, overLimit, roleKey } from '../access/limits'
import { signedIn, type Ctx } from '../http/context'
import { priceLines, type PricedFor, type PricedLine } from './priceLines'

/** A line, and what the customer agreed to of it. */
type LimitedLine = PricedLine & { promisedMinor?: number }
/** Lines as they would be, by their sums, priced together as they stand: a further task costs less. */
async function sumsOf(ctx: Ctx, of: PricedFor, lines: readonly LimitedLine[], hasTask: boolean) {
  const booked = lines.filter(({ entryId }) => entryId)
  const wanted = booked.map(({ id, entryId, quantity }) => ({ id, entryId, quantity }))
  // Without a hand: by the book, the level and the rates; or what the customer agreed to, if that is more.
  const usual = new Map(
    (await priceLines(ctx, of, wanted, { hasTask })).map(({ id, netMinor }) => [id, netMinor]),
  )
  return lines.map((line) => ({
    line,
    netMinor: line.netMinor,
    usualMinor: Math.max(usual.get(line.id) ?? 0, line.promisedMinor ?? 0),
    costMinor: roundToMinor(new Decimal(line.unitCost).times(line.quantity), of.currency),
  }))
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
  const limits = limitsOf(ctx, roleKey(signedIn(ctx)))
  const hasTask = before.some(({ kind }) => kind === 'task')
  const over = (await sumsOf(ctx, of, lines, hasTask)).flatMap((sums) => {
    const beyond = beyondLimit(sums, limits)
    return beyond ? [{ ...sums, beyond }] : []
  })
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
