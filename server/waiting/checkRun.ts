// Proves that nothing is nowhere: each thing is in exactly the place that core's rule names, the lists show just those, and the states that
// are kept are those that follow.
import { wherePromiseStands, type Standing } from '../../core/waiting/whereItStands'
import { promisesNow } from '../collections/views'
import type { Ctx } from '../http/context'
import { waiting } from '../subjects'
import type { Waiting, Waits } from '../subject'
import { misstatedIn } from '../visits/misstated'
import { standings, type StandingRow } from '../visits/standing.queries'
import { allOf, idsIn } from './queries'
import { waitsAt } from './at'
import { spots } from './views'

export interface Astray {
  what: string
  says: string
}
const said = (stands: Standing): string => {
  if ('place' in stands) return `in ${stands.place}`
  return 'rest' in stands ? `at rest (${stands.rest})` : `seen through its ${stands.through}`
}
/** The things of a kind that are nowhere, in two places, in another than the rule says, or carried on by nothing. */
async function astrayOf(ctx: Ctx, of: Waits): Promise<Astray[]> {
  const { at: said_, sql } = waitsAt(ctx)
  // Where it stands is asked, not how that is said: days need no words.
  const at = { ...said_, day: (date: string) => date }
  const own = spots(sql).filter((spot) => spot.of === of)
  const shown = new Map<string, Set<string>>()
  for (const spot of own) shown.set(spot.place, await idsIn(ctx.tx, spot, sql))
  const astray: Astray[] = []
  const judge = (thing: Waiting) => {
    const stands = of.stands(thing, at)
    const places = [...shown].filter(([, ids]) => ids.has(thing.id)).map(([place]) => place)
    const wanted = 'place' in stands ? [stands.place] : []
    const wrong = [
      places.join() !== wanted.join() &&
        `is ${said(stands)}, and shown in ${places.join(' and in ') || 'nothing'}`,
      'through' in stands && !thing.carried && `is ${said(stands)}, and there is none`,
    ]
    for (const says of wrong) if (says) astray.push({ what: `${of.kind} ${thing.label}`, says })
  }
  for await (const thing of allOf(ctx.tx, of)) judge(thing)
  return astray
}
const misstated = (row: StandingRow): Astray[] =>
  misstatedIn(row).map((says) => ({ what: `work order ${row.number}`, says }))
/** Promises to pay that are open, and that the worklist does not show. */
async function promisesAstray(ctx: Ctx): Promise<Astray[]> {
  const { at } = waitsAt(ctx)
  return (await promisesNow(ctx)).flatMap(({ customerId, promise, shown }) => {
    const stands = wherePromiseStands(promise, at)
    // Who promised may be on the list for something else.
    if (!('place' in stands) || shown) return []
    return [{ what: `promise of ${customerId}`, says: `is ${said(stands)}, and shown in nothing` }]
  })
}
/** All that is astray, on any database. */
export async function checkRun(ctx: Ctx): Promise<Astray[]> {
  const astray: Astray[] = []
  for (const of of waiting) astray.push(...(await astrayOf(ctx, of)))
  astray.push(...(await promisesAstray(ctx)))
  for await (const row of standings(ctx.tx, ctx.now)) astray.push(...misstated(row))
  return astray
}
