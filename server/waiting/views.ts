// What waits, where, and why: counted for the run, listed for who acts on it.
import { PLACES, PLACE_NAMES, type Place } from '../../core/waiting/whereItStands'
import { toMoney } from '../../core/money/formatMinor'
import type { Answer } from '../../shared/api'
import { may, type Ctx } from '../http/context'
import { waiting } from '../subjects'
import type { Waiting, WaitsAt } from '../subject'
import { waitsAt } from './at'
import { countsIn, thingsIn, type Counted, type Spot } from './queries'

/** Every place of every kind. */
export const spots = (at: WaitsAt): Spot[] =>
  waiting.flatMap((of) =>
    PLACE_NAMES.filter((place) => of.places(at)[place]).map((place) => ({ of, place })),
  )
/** How much waits in these places, of all kinds. */
export async function countsAt<P extends Place>(
  ctx: Ctx,
  places: readonly P[],
): Promise<Record<P, Counted>> {
  const { sql } = waitsAt(ctx)
  const asked = spots(sql).filter(({ place }) => places.includes(place as P))
  const counts = await countsIn(ctx.tx, asked, sql)
  const add = (place: P) =>
    asked.reduce(
      (all, spot, i) =>
        spot.place === place
          ? { count: all.count + counts[i]!.count, sum: all.sum + counts[i]!.sum }
          : all,
      { count: 0, sum: 0 },
    )
  return Object.fromEntries(places.map((place) => [place, add(place)])) as Record<P, Counted>
}
/** Nobody acts on what is planned and on its way; everything else asks for somebody. */
const ACTED_ON: readonly Place[] = PLACE_NAMES.filter(
  (place) => place !== 'schedule' && place !== 'on_site',
)
/** As many of a place as one looks at before its own list. */
const FIRST = 20
export async function toActOn(ctx: Ctx): Promise<Answer<'toActOn'>> {
  const { at, sql } = waitsAt(ctx)
  const shown = spots(sql).filter(
    ({ place }) => ACTED_ON.includes(place) && may(ctx, PLACES[place].may),
  )
  const counts = await countsIn(ctx.tx, shown, sql)
  const places: Answer<'toActOn'>['places'] = []
  for (const place of ACTED_ON) {
    const own = shown.filter((spot) => spot.place === place)
    const counted = own.map((spot) => counts[shown.indexOf(spot)]!)
    const count = counted.reduce((n, c) => n + c.count, 0)
    if (!own.length) continue
    const items = []
    for (const spot of own) items.push(...(await itemsOf(ctx, spot, { at, sql })))
    const { says, at: to } = PLACES[place]
    const sum = counted.reduce((n, c) => n + c.sum, 0)
    const isSummed = own.some(({ of }) => of.sum)
    places.push({ place, says, to, count, sum: isSummed ? money(ctx, sum) : null, items })
  }
  return { places }
}
const money = (ctx: Ctx, minor: number) => toMoney(minor, ctx.company.currency)
async function itemsOf(ctx: Ctx, spot: Spot, { at, sql }: ReturnType<typeof waitsAt>) {
  const { of } = spot
  const item = (thing: Waiting) => {
    const { id, label, whose, sum } = thing
    const stands = of.stands(thing, at)
    // The rule says where it is; that its list says the same is proven by check:run.
    const { reason, next } = 'place' in stands ? stands : { reason: '', next: '' }
    const total = sum === null ? null : money(ctx, sum)
    return {
      ...{ id, label, whose, reason, next },
      sum: total,
      to: of.to(thing, at),
      kind: of.kind,
    }
  }
  return (await thingsIn(ctx.tx, spot, sql, FIRST)).map(item)
}
