// Proves that nothing is nowhere: each thing is in exactly the place that core's rule names, the lists show just those, and the states that
// are kept are those that follow.
import { wherePromiseStands, type Standing } from '../../core/waiting/whereItStands'
import { promisesNow } from '../collections/views'
import { atOneMoment, type Ctx } from '../http/context'
import { waiting } from '../subjects'
import type { Waiting, Waits } from '../subject'
import { misstatedIn } from '../visits/misstated'
import { standings, type StandingRow } from '../visits/standing.queries'
import { allOf, idsIn } from './queries'
import { waitsAt } from './at'
import { spots } from './views'

/** While the database reads one part, another is judged. */
const SIDE_BY_SIDE = 3
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
    const places: string[] = []
    for (const [place, ids] of shown) if (ids.has(thing.id)) places.push(place)
    const [wanted, place] = 'place' in stands ? [1, stands.place] : [0, undefined]
    const what = `${of.kind} ${thing.label}`
    if (places.length !== wanted || places[0] !== place)
      astray.push({
        what,
        says: `is ${said(stands)}, and shown in ${places.join(' and in ') || 'nothing'}`,
      })
    if ('through' in stands && !thing.carried)
      astray.push({ what, says: `is ${said(stands)}, and there is none` })
  }
  for await (const things of allOf(ctx.tx, of)) things.forEach(judge)
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
/** Work orders whose state is kept otherwise than it follows. */
async function misstatedAmong(ctx: Ctx): Promise<Astray[]> {
  const astray: Astray[] = []
  for await (const row of standings(ctx.tx, ctx.now)) astray.push(...misstated(row))
  return astray
}
type Part = (ctx: Ctx) => Promise<Astray[]>
/** What is proved, each by itself: the longest first. */
const PARTS: readonly Part[] = [
  misstatedAmong,
  ...waiting.map(
    (of): Part =>
      (ctx) =>
        astrayOf(ctx, of),
  ),
  promisesAstray,
]
/** All that is astray, as one moment shows it. */
export async function checkRun(ctx: Ctx): Promise<Astray[]> {
  const astray: Astray[] = []
  for (const part of PARTS) astray.push(...(await part(ctx)))
  return astray
}
/** The same on any database, however large: some of it at a time, each as a moment of its own shows it. */
export async function checkWholeRun(): Promise<Astray[]> {
  const [astray, left]: [Astray[], Part[]] = [[], [...PARTS]]
  const inTurn = async () => {
    for (let part = left.shift(); part; part = left.shift())
      astray.push(...(await atOneMoment({ actor: null, ip: '' }, part)))
  }
  await Promise.all(Array.from({ length: SIDE_BY_SIDE }, inTurn))
  return astray
}
