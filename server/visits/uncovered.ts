// Hours on site that no line charges for, and what they would be charged at.
import { uncoveredSeconds } from '../../core/costing/uncoveredSeconds'
import { workedSeconds } from '../../core/hours/workedSeconds'
import { billedHours } from '../../core/hours/billedTime'
import type { Ctx } from '../http/context'
import { applyDue } from '../pricebook/changes'
import { pricingFacts } from '../pricebook/facts.queries'
import { levelAmong, pricedBy, priceLines, type PricedLine } from '../pricebook/priceLines'
import { standardLabour, type EntryRow } from '../pricebook/queries'
import { daysAt, factorOf } from '../pricebook/rules'
import { intervalsOf, type IntervalRow } from './clock.queries'
import { visitsOfWork, type VisitRow } from './visits.queries'
import type { LineRow } from './lines.queries'
import type { WorkOrderRow } from './queries'

/** The charge for seconds that no line covers: standard labour, rounded as the firm says, priced as any line of that visit is. */
export async function timeCharge(
  ctx: Ctx,
  work: WorkOrderRow,
  seconds: number,
  at: number | null,
): Promise<PricedLine | null> {
  const labour = seconds > 0 ? await standardLabour(ctx.tx) : null
  return labour && (await priceLines(ctx, work, [chargeLine(ctx, labour, seconds)], { at }))[0]!
}
const chargeLine = (ctx: Ctx, labour: EntryRow, seconds: number) => ({
  id: ctx.id(),
  entryId: labour.id,
  quantity: billedHours(seconds, ctx.company.billedTime),
})
/** The same charge, from what was read already. */
export function chargeFrom(
  ctx: Ctx,
  work: WorkOrderRow,
  { agreed, facts }: { agreed: Record<string, string>; facts: PricingFacts },
  { seconds, at }: { seconds: number; at: number | null },
): PricedLine | null {
  const rates = facts.entries.filter((e) => e.kind === 'labour')
  const [labour] = rates
  if (seconds <= 0 || !labour) return null
  return pricedBy(
    {
      entries: new Map(rates.map((e) => [e.id, e])),
      level: levelAmong(facts.levels, work.priceLevelId),
      agreed,
      time: at === null ? null : factorOf(ctx, at, facts.times, facts.holidays),
      rates: new Map(rates.map((e) => [e.id, e.price])),
      usualTax: facts.usualTax,
    },
    work,
    [chargeLine(ctx, labour, seconds)],
    false,
  )[0]!
}
type PricingFacts = Awaited<ReturnType<typeof pricingFacts>>
/** What prices follow, with the changes made whose day has come. */
export async function currentPricing(
  ctx: Ctx,
  { at, postcode }: { at: number | null; postcode: string },
): Promise<PricingFacts> {
  const supplied = { day: ctx.today, postcode }
  const read = () => pricingFacts(ctx.tx, supplied, daysAt(ctx, at ?? ctx.now))
  const facts = await read()
  if (!facts.due) return facts
  await applyDue(ctx)
  return read()
}
export async function uncoveredOf(ctx: Ctx, work: WorkOrderRow, lines: LineRow[]) {
  const visits = await visitsOfWork(ctx.tx, work.id)
  const clock = await intervalsOf(
    ctx.tx,
    visits.map((v) => v.id),
  )
  return uncoveredAmong(ctx, work, { lines, visits, clock })
}
export function uncoveredAmong(
  ctx: Ctx,
  work: WorkOrderRow,
  { lines, visits, clock }: { lines: LineRow[]; visits: VisitRow[]; clock: IntervalRow[] },
) {
  // An apprentice learns: their hours cost, and are not asked to be charged (common practice of the trade).
  const seconds = workedSeconds(
    clock.filter((i) => i.personKind !== 'apprentice'),
    ctx.now,
  )
  const covered = lines.filter((l) => l.done).reduce((sum, l) => sum + l.coversSeconds, 0)
  // Which visit the minutes belong to, no line says: they are charged as those of the last one.
  const last = visits
    .filter((v) => v.state === 'finished')
    .map((v) => v.startedAt ?? v.startAt)
    .filter((s) => s !== null)
    .sort()
    .at(-1)
  return {
    at: last ? Date.parse(last) : null,
    siteSeconds: seconds.on_site,
    coveredSeconds: covered,
    explainedSeconds: work.explainedSeconds,
    uncoveredSeconds:
      last && !work.callbackOf
        ? uncoveredSeconds({ worked: seconds.on_site, covered, explained: work.explainedSeconds })
        : 0,
  }
}
