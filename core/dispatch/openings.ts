import type { Place } from './greatCircle'
import type { Span } from './plan/instance'

export interface OpeningStop {
  id: string
  /** who is visited, for the reasons */
  label: string
  startAt: number
  durationSeconds: number
  place: Place | null
  /** the end of the promised window; null where nothing was promised */
  promiseTo: number | null
  /** has begun, or may not be moved */
  fixed: boolean
}
/** One technician on one day, all times in epoch milliseconds. */
export interface OpeningDay {
  technicianId: string
  name: string
  date: string
  working: readonly Span[]
  noon: number
  /**
   * time off, entries that are not visits, times that other calls hold: nothing goes there. A rest is taken wherever somebody
   * is, so that the drive may lie around it; whoever was anywhere else drives after it
   */
  blocked: readonly (Span & { rest?: boolean })[]
  start: Place | null
  end: Place | null
  /** the drive to the first visit and the one home lie outside the hours */
  drivesOutside?: boolean
  stops: readonly OpeningStop[]
  skills: readonly string[]
  /** territories served; none means all */
  serves: readonly string[]
  capacity: { morning: number; afternoon: number }
  taken: { morning: number; afternoon: number }
}
export interface OpeningWish {
  durationSeconds: number
  place: Place | null
  skills: readonly string[]
  territory: string
  /** nothing begins earlier, and nobody sets off earlier */
  after: number
  part: 'any' | 'morning' | 'afternoon'
  /** the arrival must lie within; epoch ms */
  window?: Span
  /** technicians whom the customer knows */
  known: readonly string[]
  /** whether visits that are booked may begin later for it, within their promise */
  mayMove?: boolean
}
export interface Opening {
  technicianId: string
  date: string
  startAt: number
  extraDriveSeconds: number
  /** the drive to this visit */
  driveSeconds: number
  /** when the technician is home then */
  dayEndAt: number
  overtimeSeconds: number
  /** visits that begin later because of it, all still within their promise */
  moved: { id: string; label: string; startAt: number }[]
  overCapacity: boolean
  lacks: string[]
  foreign: boolean
  known: boolean
  /** what decides the rank, in seconds; less is better */
  score: number
  reasons: OpeningReason[]
}
/** What is said of an opening; by its code a screen knows what it shows elsewhere already. */
export interface OpeningReason {
  code: 'driving' | 'home' | 'moved' | 'tight' | 'known' | 'capacity' | 'skill' | 'territory'
  text: string
}
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
  const found: Opening[] = []
  for (const day of days) {
    const stops = [...day.stops].sort((a, b) => a.startAt - b.startAt)
    const blocked = [...day.blocked, ...between(day.working)].sort((x, y) => x.from - y.from)
    const legs = stops.map((s, i) =>
      legOf(i === 0 ? day.start : stops[i - 1]!.place, s.place, drive),
    )
    for (const shift of day.working) {
      for (const half of ['morning', 'afternoon'] as const) {
        if (wish.part !== 'any' && wish.part !== half) continue
        const from = Math.max(
          shift.from,
          wish.after,
          wish.window?.from ?? -Infinity,
          half === 'afternoon' ? day.noon : -Infinity,
        )
        const to = Math.min(
          shift.to - 1,
          wish.window?.to ?? Infinity,
          half === 'morning' ? day.noon - 1 : Infinity,
        )
        let best: Opening | null = null
        for (let i = 0; i <= stops.length; i++) {
          const o = tryAt(
            { ...day, blocked },
            shift,
            stops,
            legs,
            i,
            { from, to },
            half,
            wish,
            drive,
            say,
            dates.indexOf(day.date),
          )
          if (o && (!best || o.score < best.score)) best = o
        }
        if (best) found.push(best)
      }
    }
  }
  return found.sort(
    (a, b) =>
      a.score - b.score || a.startAt - b.startAt || a.technicianId.localeCompare(b.technicianId),
  )
}
/** What lies between two stretches of work of one day. */
const between = (working: readonly Span[]): (Span & { rest: boolean })[] => {
  const spans = [...working].sort((a, b) => a.from - b.from)
  return spans.slice(1).map((span, i) => ({ from: spans[i]!.to, to: span.from, rest: true }))
}
/** The earliest start after a drive, clear of what is blocked: nobody drives while they are in a meeting, nor works through a rest. */
function earliestStart(
  leave: number,
  driveMs: number,
  notBefore: number,
  length: number,
  blocked: OpeningDay['blocked'],
  step: number,
): number {
  const up = (at: number) => Math.max(notBefore, Math.ceil(at / step) * step)
  let from = leave
  let start = up(from + driveMs)
  let rested = 0
  for (const b of blocked) {
    if (b.to <= leave || b.from >= start + length) continue
    if (!b.rest && b.to > from) {
      from = b.to
      rested = 0
    } else if (b.rest) rested += Math.max(0, b.to - Math.max(b.from, from))
    start = Math.max(start, up(from + driveMs + rested), b.rest ? up(b.to) : 0)
  }
  return start
}
const legOf = (a: Place | null, b: Place | null, drive: (a: Place, b: Place) => number): number =>
  a && b ? drive(a, b) : 0

function tryAt(
  day: OpeningDay,
  shift: Span,
  stops: readonly OpeningStop[],
  legs: readonly number[],
  i: number,
  within: Span,
  half: 'morning' | 'afternoon',
  wish: OpeningWish,
  drive: (a: Place, b: Place) => number,
  say: (ms: number) => string,
  wait: number,
): Opening | null {
  const before = stops[i - 1]
  const next = stops[i]
  // Between two stops of the same visit that has begun there is nothing to put in; nor before one that has.
  if (next?.fixed && next.startAt <= wish.after) return null
  const length = wish.durationSeconds * 1000
  const to = legOf(before ? before.place : day.start, wish.place, drive)
  const on = next ? legOf(wish.place, next.place, drive) : legOf(wish.place, day.end, drive)
  const was = next ? legs[i]! : legOf(before ? before.place : day.start, day.end, drive)
  const early = !before && day.drivesOutside ? to * 1000 : 0
  const leave = Math.max(
    before ? before.startAt + before.durationSeconds * 1000 : shift.from - early,
    wish.after,
  )
  const start = earliestStart(
    leave,
    to * 1000,
    Math.ceil(within.from / QUARTER) * QUARTER,
    length,
    day.blocked,
    QUARTER,
  )
  if (start > within.to) return null
  // What comes after is pushed on as far as it has to be, and no promise may break.
  let t = start + length
  let place = wish.place
  const moved: Opening['moved'] = []
  let tight = false
  for (let j = i; j < stops.length; j++) {
    const s = stops[j]!
    // A meeting between this visit and the next one has its drive after it.
    const at =
      j === i
        ? earliestStart(
            t,
            on * 1000,
            s.startAt,
            0,
            day.blocked.filter((b) => b.from >= t && b.to <= s.startAt),
            FIVE_MINUTES,
          )
        : Math.max(s.startAt, Math.ceil((t + legs[j]! * 1000) / FIVE_MINUTES) * FIVE_MINUTES)
    if (at > s.startAt) {
      if (
        !wish.mayMove ||
        s.fixed ||
        (s.promiseTo !== null && at > s.promiseTo) ||
        day.blocked.some((b) => at < b.to && b.from < at + s.durationSeconds * 1000)
      )
        return null
      moved.push({ id: s.id, label: s.label, startAt: at })
    }
    if (j === i && s.promiseTo !== null && s.promiseTo - at < 900_000) tight = true
    t = at + s.durationSeconds * 1000
    place = s.place
    if (at === s.startAt) {
      const last = stops.at(-1)!
      t = last.startAt + last.durationSeconds * 1000
      place = last.place
      break
    }
  }
  const dayEndAt = t + legOf(place, day.end, drive) * 1000
  // Over time is what runs beyond the last stretch of work of the day.
  const over = Math.max(...day.working.map((w) => w.to))
  const home = (from: Place | null) => (day.drivesOutside ? 0 : legOf(from, day.end, drive) * 1000)
  const overtimeSeconds = Math.max(0, (t + home(place) - over) / 1000)
  const old = stops.at(-1)
  const overBefore = old
    ? Math.max(0, (old.startAt + old.durationSeconds * 1000 + home(old.place) - over) / 1000)
    : 0
  if (overtimeSeconds > OVERTIME_MOST && overtimeSeconds > overBefore) return null
  const extra = Math.max(0, to + on - was)
  const overCapacity = day.taken[half] >= day.capacity[half]
  const lacks = wish.skills.filter((s) => !day.skills.includes(s))
  const foreign =
    wish.territory !== '' && day.serves.length > 0 && !day.serves.includes(wish.territory)
  const known = wish.known.includes(day.technicianId)
  const rests = [
    start - (leave + to * 1000),
    ...(next ? [(moved[0]?.startAt ?? next.startAt) - (start + length) - on * 1000] : []),
  ].map((ms) => ms / 1000)
  const scrap = rests.filter((r) => r > 600 && r < SCRAP_SECONDS).reduce((a, b) => a + b, 0)
  const w = OPENING_WEIGHTS
  const score =
    extra +
    w.waitingDay * wait +
    w.overtime * Math.max(0, overtimeSeconds - overBefore) +
    (tight ? w.tight : 0) +
    w.moved * moved.length +
    (overCapacity ? w.overCapacity : 0) +
    w.lacks * lacks.length +
    (foreign ? w.foreign : 0) +
    w.scrap * scrap +
    (known ? w.known : 0)
  const found = {
    technicianId: day.technicianId,
    date: day.date,
    startAt: start,
    extraDriveSeconds: extra,
    driveSeconds: to,
    dayEndAt,
    overtimeSeconds,
    moved,
    overCapacity,
    lacks,
    foreign,
    known,
    score,
  }
  // Said only for what is shown: putting a time into words takes longer than finding it.
  return {
    ...found,
    get reasons() {
      return reasonsOf(found, day, half, tight ? next!.label : '', say)
    },
  }
}
function reasonsOf(
  o: Omit<Opening, 'reasons'>,
  day: OpeningDay,
  half: 'morning' | 'afternoon',
  tightBefore: string,
  say: (ms: number) => string,
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
