// Whether a line may be set as low as somebody wants it: by their limit, or with another person's yes.
import { beyondLimit, loweredPercent, USUAL_LIMITS, type Limits } from '../../core/access/limits'
import { LedgerError } from '../../core/errors/LedgerError'
import { Decimal } from '../../core/money/decimal'
import { toMoney } from '../../core/money/formatMinor'
import { roundToMinor } from '../../core/money/roundToMinor'
import { sayMoney } from '../../core/money/sayMoney'
import type { Role } from '../../core/access/permissions'
import { signedIn, type Ctx } from '../http/context'
import { priceLines } from '../pricebook/priceLines'
import type { LineRow } from './lines.queries'
import type { WorkOrderRow } from './queries'

export const limitsOf = ({ company }: Pick<Ctx, 'company'>, role: Role): Limits => ({
  ...USUAL_LIMITS[role],
  ...company.limits[role],
})
/** What it would come to without a hand: by the book, the level and the rates; or what the customer agreed to, if that is more. */
async function usualMinor(ctx: Ctx, work: WorkOrderRow, line: LineRow): Promise<number> {
  const { id, entryId, quantity, promisedMinor } = line
  if (!entryId) return promisedMinor
  const [usual] = await priceLines(ctx, work, [{ id, entryId, quantity }], { at: null })
  return Math.max(usual?.netMinor ?? 0, promisedMinor)
}
/** Refuses a line that is lower than whoever asks may set it; what it would be is said to whoever may. */
export async function withinLimit(ctx: Ctx, work: WorkOrderRow, line: LineRow): Promise<void> {
  const limits = limitsOf(ctx, signedIn(ctx).role)
  const costMinor = roundToMinor(new Decimal(line.unitCost).times(line.quantity), work.currency)
  const sums = { netMinor: line.netMinor, usualMinor: await usualMinor(ctx, work, line), costMinor }
  const beyond = beyondLimit(sums, limits)
  if (!beyond) return
  const say = (minor: number) => sayMoney(toMoney(minor, work.currency), ctx.company.locale)
  const what = `“${line.name}” at ${say(sums.netMinor)} instead of ${say(sums.usualMinor)}`
  const sentence =
    beyond === 'lowered'
      ? `That is ${loweredPercent(sums)} % below its price; you may go ${limits.lowerPercent} % below.`
      : 'That is less than it costs.'
  throw new LedgerError('over_limit', `${sentence} Ask for another person’s yes.`, {
    extra: { what },
  })
}
