// What an hour of somebody costs the firm, from a day on. Only who sees costs sees it or says it.
import { conflict, forbidden, invalid } from '../../core/errors/LedgerError'
import { Decimal } from '../../core/money/decimal'
import { localDate, localToInstant } from '../../core/time/zone'
import type { Answer, Body } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import { record } from '../http/queries'
import { accessFacts } from './facts'
import { costRates, nextVersion, putCostRate, removeCostRate } from './people.queries'

type Costs = Pick<Answer<'staff'>['items'][number], 'costRate' | 'costRates'>
const HIDDEN: Costs = { costRate: null, costRates: null }
/** Begins before anything was clocked. */
const ALWAYS = 0
const plain = (rate: string) => new Decimal(rate).toString()

/** The first day of a rate, empty where it always held. */
function startOf({ company }: Ctx, startsAt: string): string {
  const at = Date.parse(startsAt)
  return at === ALWAYS ? '' : localDate(at, company.timeZone)
}
/** The rates of each person, the first first, and the one of today. */
export async function costsByPerson(ctx: Ctx): Promise<(personId: string) => Costs> {
  if (!signedIn(ctx).seesCost) return () => HIDDEN
  const all = await costRates(ctx.tx)
  return (personId) => {
    const rates = all
      .filter((one) => one.personId === personId)
      .map(({ startsAt, rate }) => ({ from: startOf(ctx, startsAt), rate: plain(rate) }))
    const today = rates.findLast(({ from }) => from <= ctx.today)
    return { costRate: today?.rate ?? '', costRates: rates }
  }
}
const beginOf = ({ company }: Ctx, from: string) =>
  from ? localToInstant(from, '00:00', company.timeZone) : ALWAYS
type Said = Pick<Body<'keepPerson'>, 'id' | 'name' | 'costRate' | 'costRateFrom'>
/** A day without a rate is a rate that was forgotten. */
export function checkCostRate(ctx: Ctx, { costRate, costRateFrom }: Said): void {
  if (costRateFrom && !costRate && signedIn(ctx).seesCost)
    throw invalid('costRate', 'Write what an hour costs from this day on.')
}
/** Where it is another than today's, or said from a day on. The first one holds for what was clocked before, too. */
export async function keepCostRate(ctx: Ctx, said: Said): Promise<void> {
  const { id, name, costRate, costRateFrom } = said
  if (!costRate || !signedIn(ctx).seesCost) return
  const known = (await costsByPerson(ctx))(id)
  if (!costRateFrom && known.costRate && new Decimal(known.costRate).eq(costRate)) return
  const from = costRateFrom || (known.costRates?.length ? ctx.today : '')
  await putCostRate(ctx.tx, id, beginOf(ctx, from), costRate)
  await nextVersion(ctx.tx, id)
  const fact = accessFacts.costRateSaid({ name, from: from || null })
  await record(ctx, { subject: 'person', id, fact })
}
/** One that was said for a wrong day: the one before it goes on. Of two who take it back, the second is told. */
export async function takeBackCostRate(
  ctx: Ctx,
  { id, name }: { id: string; name: string },
  { from, rate }: Body<'dropCostRate'>,
): Promise<void> {
  if (!signedIn(ctx).seesCost) throw forbidden('Who does not see what an hour costs, changes none.')
  if (!(await removeCostRate(ctx.tx, id, beginOf(ctx, from), rate)))
    throw conflict('stale', 'This rate is not there any more. Look at what stands there now.')
  await nextVersion(ctx.tx, id)
  const fact = accessFacts.costRateDropped({ name, from })
  await record(ctx, { subject: 'person', id, fact })
}
