// Who goes along with whom by rule: an apprentice with the one they belong to, when they work then and nothing stands in the way.
import { localDate } from '../../core/time/zone'
import type { Ctx } from '../http/context'
import { dayFacts, type DayFacts } from './dayFacts'
import { crewIds, visitCrew } from './board.queries'
import { technicians, type Technician } from './queries'

export const alongWith = (
  people: readonly Technician[],
  facts: DayFacts,
  date: string,
  v: { technicianId: string | null; startAt: string | null; durationSeconds: number },
): string[] =>
  people
    .filter((p) => {
      if (!p.goesWith || p.goesWith !== v.technicianId || !v.startAt || !facts.shift(p, date))
        return false
      const [from, to] = [Date.parse(v.startAt), Date.parse(v.startAt) + v.durationSeconds * 1000]
      return !facts.blocks(p, date).some((b) => b.from < to && b.to > from && b.kind !== 'break')
    })
    .map((p) => p.id)
/** All who go along to a visit, chosen or by rule. */
export async function helpersOf(
  ctx: Ctx,
  v: { id: string; technicianId: string | null; startAt: string | null; durationSeconds: number },
): Promise<string[]> {
  const date = localDate(v.startAt ? Date.parse(v.startAt) : ctx.now, ctx.company.timeZone)
  return [
    ...new Set([
      ...crewIds({ crew: await visitCrew(ctx.tx, v.id) }),
      ...alongWith(await technicians(ctx.tx), await dayFacts(ctx, date, 1), date, v),
    ]),
  ].sort()
}
