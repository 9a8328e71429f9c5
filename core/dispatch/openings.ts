import type { Place } from './greatCircle'
import type { Span } from './plan/instance'
import type { OpeningStop, OpeningDay, OpeningWish, Opening, OpeningReason } from './opening'

const QUARTER = 900_000
const FIVE_MINUTES = 300_000
/** What each drawback weighs, in seconds of driving (our own rule). */
export const OPENING_WEIGHTS = {
  waitingDay: 900,
  overtime: 3,
  tight: 1200,
  moved: 600,
  overCapacity: 3600,
  lacks: 7200,
  foreign: 3600,
  scrap: 0.5,
  known: -900,
}
/** A rest between two visits too short for another visit is lost. */
const SCRAP_SECONDS = 2700
/** Overtime up to this is offered, with what it means; more is not. */
const OVERTIME_MOST = 3600

/**
 * The times at which a visit can be placed in technicians' days: each gap between stops is tried in the morning and in the afternoon,
 * with the drives before and after, without breaking a promise that was made. Stops that have room within their promise may move, where that is wanted.
 * What is softly wrong (another territory, a skill that is lacking, over capacity) is offered, said and ranked lower: never hidden.
 * @param drive seconds from one place to another
 * @param say an instant as the local time, for the reasons
 * @returns ranked, the best first; nothing for a day without a place for it
 * @example openings([day], wish, driveSeconds, ms => localTime(ms, zone))[0].reasons.map(r => r.text) // ['6 min more driving', 'home at 16:10']
 * Source: our own rule; the order of insertion cost follows Solomon's I1 heuristic, Operations Research 35 (1987): detour and push.
 */
export function openings(
  days: readonly OpeningDay[],
  wish: OpeningWish,
  drive: (a: Place, b: Place) => number,
  say: (ms: number) => string,
): Opening[] {
  const dates = [...new Set(days.map((d) => d.date))].sort()
  const found = days.flatMap((given) => {
    const stops = [...given.stops].sort((a, b) => a.startAt - b.startAt)
    const blocked = [...given.blocked, ...between(given.working)].sort((x, y) => x.from - y.from)
    const legs = stops.map((stop, i) =>
      legOf(i === 0 ? given.start : stops[i - 1]!.place, stop.place, drive),
    )
    const wait = dates.indexOf(given.date)
    return openingsOf({ day: { ...given, blocked }, stops, legs, wish, drive, say, wait })
  })
  return found.sort(
    (a, b) =>
      a.score - b.score || a.startAt - b.startAt || a.technicianId.localeCompare(b.technicianId),
  )
}
/** A day that is searched, with what is worked out once for all the places in it. */
interface Search {
  day: OpeningDay
  stops: readonly OpeningStop[]
  /** the drive to each stop from the one before it */
  legs: readonly number[]
  wish: OpeningWish
  drive: (a: Place, b: Place) => number
  say: (ms: number) => string
  /** how many days somebody waits for it */
  wait: number
}
type Half = 'morning' | 'afternoon'
/** A place in a day: before which stop, in which half, beginning within which span. */
interface Gap {
  before: number
  half: Half
  shift: Span
  within: Span
}
/** The best time in each half of each stretch of work. */
function openingsOf(search: Search): Opening[] {
  const found: Opening[] = []
  for (const shift of search.day.working)
    for (const half of ['morning', 'afternoon'] as const) {
      if (search.wish.part !== 'any' && search.wish.part !== half) continue
      const within = spanOf(search, shift, half)
      let best: Opening | null = null
      for (let before = 0; before <= search.stops.length; before++) {
        const opening = tryAt(search, { before, half, shift, within })
        if (opening && (!best || opening.score < best.score)) best = opening
      }
      if (best) found.push(best)
    }
  return found
}
/** Within which a visit begins in that half of a stretch of work. */
function spanOf({ day, wish }: Search, shift: Span, half: Half): Span {
  const [from, to] = half === 'morning' ? [-Infinity, day.noon - 1] : [day.noon, Infinity]
  return {
    from: Math.max(shift.from, wish.after, wish.window?.from ?? -Infinity, from),
    to: Math.min(shift.to - 1, wish.window?.to ?? Infinity, to),
  }
}
/** What lies between two stretches of work of one day. */
const between = (working: readonly Span[]): (Span & { rest: boolean })[] => {
  const spans = [...working].sort((a, b) => a.from - b.from)
  return spans.slice(1).map((span, i) => ({ from: spans[i]!.to, to: span.from, rest: true }))
}
interface Start {
  /** when nobody leaves before, and what the drive takes: milliseconds */
  leave: number
  drive: number
  notBefore: number
  length: number
  blocked: OpeningDay['blocked']
  /** starts are multiples of it */
  step: number
}
/** The earliest start after a drive, clear of what is blocked: nobody drives while they are in a meeting, nor works through a rest. */
function earliestStart({ leave, drive, notBefore, length, blocked, step }: Start): number {
  const up = (at: number) => Math.max(notBefore, Math.ceil(at / step) * step)
  let from = leave
  let start = up(from + drive)
  let rested = 0
  for (const b of blocked) {
    if (b.to <= leave || b.from >= start + length) continue
    if (!b.rest && b.to > from) {
      from = b.to
      rested = 0
    } else if (b.rest) rested += Math.max(0, b.to - Math.max(b.from, from))
    start = Math.max(start, up(from + drive + rested), b.rest ? up(b.to) : 0)
  }
  return start
}
const legOf = (a: Place | null, b: Place | null, drive: (a: Place, b: Place) => number): number =>
  a && b ? drive(a, b) : 0
const endOf = (stop: OpeningStop, startAt = stop.startAt) => startAt + stop.durationSeconds * 1000

/** The drive there, the one on to what comes next, and what was driven between its neighbours: seconds. */
function drivesAround({ day, stops, legs, wish, drive }: Search, i: number) {
  const [before, next] = [stops[i - 1], stops[i]]
  const from = before ? before.place : day.start
  return {
    to: legOf(from, wish.place, drive),
    on: legOf(wish.place, next ? next.place : day.end, drive),
    was: next ? legs[i]! : legOf(from, day.end, drive),
  }
}
function startOf({ day, stops, wish }: Search, { before, shift, within }: Gap, drive: number) {
  const earlier = stops[before - 1]
  const early = !earlier && day.drivesOutside ? drive : 0
  const leave = Math.max(earlier ? endOf(earlier) : shift.from - early, wish.after)
  const start = earliestStart({
    leave,
    drive,
    notBefore: Math.ceil(within.from / QUARTER) * QUARTER,
    length: wish.durationSeconds * 1000,
    blocked: day.blocked,
    step: QUARTER,
  })
  return { leave, start }
}
/** When the stop after the new visit begins: a meeting between the two has its drive after it. */
const nextStart = ({ day }: Search, stop: OpeningStop, end: number, drive: number): number =>
  earliestStart({
    leave: end,
    drive,
    notBefore: stop.startAt,
    length: 0,
    blocked: day.blocked.filter((b) => b.from >= end && b.to <= stop.startAt),
    step: FIVE_MINUTES,
  })
function mayBegin({ day, wish }: Search, stop: OpeningStop, at: number): boolean {
  if (!wish.mayMove || stop.fixed) return false
  if (stop.promiseTo !== null && at > stop.promiseTo) return false
  return !day.blocked.some((b) => at < b.to && b.from < endOf(stop, at))
}
interface Pushed {
  /** when and where the last work of the day ends */
  ends: number
  place: Place | null
  moved: Opening['moved']
  /** what comes next has little left of its promise */
  tight: boolean
}
/** What comes after is pushed on as far as it has to be; null where a promise would break. */
function pushOn(search: Search, i: number, end: number, drive: number): Pushed | null {
  const { stops, legs, wish } = search
  const moved: Opening['moved'] = []
  let [ends, place, tight] = [end, wish.place, false]
  for (let j = i; j < stops.length; j++) {
    const stop = stops[j]!
    const arrives = Math.ceil((ends + legs[j]! * 1000) / FIVE_MINUTES) * FIVE_MINUTES
    const at = j === i ? nextStart(search, stop, ends, drive) : Math.max(stop.startAt, arrives)
    if (j === i) tight = stop.promiseTo !== null && stop.promiseTo - at < QUARTER
    if (at === stop.startAt) {
      const last = stops.at(-1)!
      return { ends: endOf(last), place: last.place, moved, tight }
    }
    if (!mayBegin(search, stop, at)) return null
    moved.push({ id: stop.id, label: stop.label, startAt: at })
    ends = endOf(stop, at)
    place = stop.place
  }
  return { ends, place, moved, tight }
}
/** What runs beyond the last stretch of work of the day, now and as it was: seconds. */
function overtimeOf({ day, stops, drive }: Search, { ends, place }: Pushed) {
  const over = Math.max(...day.working.map((w) => w.to))
  const home = (from: Place | null) => (day.drivesOutside ? 0 : legOf(from, day.end, drive) * 1000)
  const beyond = (end: number, from: Place | null) => Math.max(0, (end + home(from) - over) / 1000)
  const last = stops.at(-1)
  return { now: beyond(ends, place), before: last ? beyond(endOf(last), last.place) : 0 }
}
/** Time that is left over before and after, and too short for anything: seconds. */
function scrapOf(rests: readonly number[]): number {
  const seconds = rests.map((ms) => ms / 1000)
  return seconds.filter((r) => r > 600 && r < SCRAP_SECONDS).reduce((a, b) => a + b, 0)
}
/** What is softly wrong about a day, or speaks for it. */
const fitOf = ({ day, wish }: Search, half: Half) => ({
  overCapacity: day.taken[half] >= day.capacity[half],
  lacks: wish.skills.filter((skill) => !day.skills.includes(skill)),
  foreign: wish.territory !== '' && day.serves.length > 0 && !day.serves.includes(wish.territory),
  known: wish.known.includes(day.technicianId),
})
function scoreOf(
  fit: ReturnType<typeof fitOf>,
  costs: { extra: number; wait: number; overtime: number; scrap: number },
  { moved, tight }: Pushed,
): number {
  const w = OPENING_WEIGHTS
  return (
    costs.extra +
    w.waitingDay * costs.wait +
    w.overtime * costs.overtime +
    w.scrap * costs.scrap +
    w.moved * moved.length +
    w.lacks * fit.lacks.length +
    w.tight * Number(tight) +
    w.overCapacity * Number(fit.overCapacity) +
    w.foreign * Number(fit.foreign) +
    w.known * Number(fit.known)
  )
}
function tryAt(search: Search, gap: Gap): Opening | null {
  const { day, stops, wish } = search
  const next = stops[gap.before]
  // Between two stops of the same visit that has begun there is nothing to put in; nor before one that has.
  if (next?.fixed && next.startAt <= wish.after) return null
  const { to, on, was } = drivesAround(search, gap.before)
  const { leave, start } = startOf(search, gap, to * 1000)
  if (start > gap.within.to) return null
  const end = start + wish.durationSeconds * 1000
  const pushed = pushOn(search, gap.before, end, on * 1000)
  if (!pushed) return null
  const overtime = overtimeOf(search, pushed)
  if (overtime.now > OVERTIME_MOST && overtime.now > overtime.before) return null
  const extra = Math.max(0, to + on - was)
  const fit = fitOf(search, gap.half)
  const { moved, tight } = pushed
  const rests = [start - (leave + to * 1000)]
  if (next) rests.push((moved[0]?.startAt ?? next.startAt) - end - on * 1000)
  const costs = {
    extra,
    wait: search.wait,
    overtime: Math.max(0, overtime.now - overtime.before),
    scrap: scrapOf(rests),
  }
  const found = {
    ...fit,
    technicianId: day.technicianId,
    date: day.date,
    startAt: start,
    extraDriveSeconds: extra,
    driveSeconds: to,
    dayEndAt: pushed.ends + legOf(pushed.place, day.end, search.drive) * 1000,
    overtimeSeconds: overtime.now,
    moved,
    score: scoreOf(fit, costs, pushed),
  }
  // Said only for what is shown: putting a time into words takes longer than finding it.
  return {
    ...found,
    get reasons() {
      return reasonsOf(found, search, gap.half, tight ? next!.label : '')
    },
  }
}
function reasonsOf(
  o: Omit<Opening, 'reasons'>,
  { day, say }: Search,
  half: Half,
  tightBefore: string,
): OpeningReason[] {
  const minutes = (s: number) => Math.round(s / 60)
  const { extraDriveSeconds: extra, dayEndAt, overtimeSeconds, moved, lacks } = o
  const reasons: OpeningReason[] = [
    {
      code: 'driving',
      text: extra < 60 ? 'no more driving' : `${minutes(extra)} min more driving`,
    },
    {
      code: 'home',
      text: `home at ${say(dayEndAt)}${overtimeSeconds > 0 ? `, ${minutes(overtimeSeconds)} min over` : ''}`,
    },
  ]
  for (const m of moved.slice(0, 2))
    reasons.push({
      code: 'moved',
      text: `${m.label} begins at ${say(m.startAt)}, within its promise`,
    })
  if (moved.length > 2)
    reasons.push({
      code: 'moved',
      text: `${moved.length - 2} more begin later, within their promises`,
    })
  if (tightBefore && !moved.length)
    reasons.push({ code: 'tight', text: `tight before ${tightBefore}` })
  if (o.known) reasons.push({ code: 'known', text: 'they know each other' })
  if (o.overCapacity)
    reasons.push({
      code: 'capacity',
      text: `over capacity: ${day.taken[half]} of ${day.capacity[half]} in the ${half}`,
    })
  if (lacks.length) reasons.push({ code: 'skill', text: `lacks ${lacks.join(', ')}` })
  if (o.foreign) reasons.push({ code: 'territory', text: `serves ${day.serves.join(', ')}` })
  return reasons
}
