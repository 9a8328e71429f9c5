// What an hour of somebody costs the firm, from a day on. Only who sees costs sees it or says it.
import { invalid } from '../../core/errors/LedgerError'
import { Decimal } from '../../core/money/decimal'
import { localDate, localToInstant } from '../../core/time/zone'
import type { Answer, Body } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import { record } from '../http/queries'
import { accessFacts } from './facts'
import { costRates, nextVersion, putCostRate } from './people.queries'

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
  const startsAt = from ? localToInstant(from, '00:00', ctx.company.timeZone) : ALWAYS
  await putCostRate(ctx.tx, id, startsAt, costRate)
  await nextVersion(ctx.tx, id)
  const fact = accessFacts.costRateSaid({ name, from: from || null })
  await record(ctx, { subject: 'person', id, fact })
}
