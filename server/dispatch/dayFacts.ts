// What every question about a day begins with: who works when, and what stands in the way. The board, the search for openings, the planner
// and the warnings all ask here.
import type { Span } from '../../core/dispatch/plan/instance'
import { bisectRight, group } from 'd3'
import { localDate, localToInstant, plusDays, weekday } from '../../core/time/zone'
import { callDraft } from '../../shared/calls'
import type { Answer } from '../../shared/api'
import { heldNow, heldOn, type CallRow } from '../calls/queries'
import type { Ctx } from '../http/context'
import { entriesBetween, holidaysBetween, timeOffBetween, type Technician } from './queries'

export interface Block extends Span {
  personId: string
  reason: string
  kind: 'off' | 'entry' | 'break' | 'held'
}
export interface DayFacts {
  /** a local time of a day as an instant; kept, because a search asks for the same ones again and again */
  at(date: string, time: string): number
  /** the local date of an instant: found among the days that were asked for, because the calendar's own way is slow */
  dateOf(instant: number): string
  holiday(date: string): string
  hours(person: Pick<Technician, 'hours'>, date: string): Technician['hours'][string] | undefined
  shift(person: Pick<Technician, 'hours'>, date: string): Span | null
  /** what a person cannot be booked over on a day, in order */
  blocks(person: Pick<Technician, 'id' | 'hours'>, date: string): Block[]
}

export interface Held extends Span {
  callId: string
  personId: string
  by: string
  summary: string
  missing: string
  durationSeconds: number
}
function held(ctx: Ctx, calls: CallRow[]): Held[] {
  return calls.flatMap((c) => {
    const draft = callDraft.cast(c.draft) as Answer<'call'>['draft']
    // One odd draft holds nothing, and keeps nobody from booking.
    if (!draft.technicianId || !draft.date || !draft.start || !callDraft.isValidSync(draft))
      return []
    const from = localToInstant(draft.date, draft.start, ctx.company.timeZone)
    const missing = [
      !draft.customerId && 'customer',
      !draft.siteId && 'site',
      !draft.problem && 'problem',
    ]
      .filter(Boolean)
      .join(', ')
    return [
      {
        callId: c.id,
        personId: draft.technicianId,
        from,
        to: from + draft.durationSeconds * 1000,
        durationSeconds: draft.durationSeconds,
        by: c.takenBy ?? 'another call',
        summary: c.summary,
        missing,
      },
    ]
  })
}
/** Times that other calls hold at present; what `callId` holds itself is free for it. */
export const heldAgainst = async (ctx: Ctx, callId: string | null): Promise<Held[]> =>
  held(ctx, await heldNow(ctx.tx, ctx.now, callId))
/** What calls hold on a day, also when the ten minutes are over: a placeholder stays until the call is ended. */
export const heldOnDay = async (ctx: Ctx, date: string): Promise<Held[]> =>
  held(ctx, await heldOn(ctx.tx, date))

/** Local times as instants, each worked out once. */
function instantsIn(timeZone: string): DayFacts['at'] {
  const times = new Map<string, number>()
  return (date, time) => {
    const key = `${date} ${time}`
    const known = times.get(key) ?? localToInstant(date, time, timeZone)
    times.set(key, known)
    return known
  }
}
/** What stands in the way at fixed times, by person. */
function fixedBlocks(
  off: Awaited<ReturnType<typeof timeOffBetween>>,
  entries: Awaited<ReturnType<typeof entriesBetween>>,
  holds: readonly Held[],
): Map<string, Block[]> {
  const block = (
    { personId, from, to }: Span & { personId: string },
    kind: Block['kind'],
    reason: string,
  ): Block => ({ personId, from, to, reason, kind })
  const all = [
    ...off.map((o) => block(o, 'off', o.reason)),
    ...entries.map((e) => block(e, 'entry', e.title)),
    ...holds.map((h) => block(h, 'held', `held by ${h.by}`)),
  ]
  return group(all, (b) => b.personId)
}
/** The break of a person's day, where the hours have one. */
function breakOf(personId: string, date: string, at: DayFacts['at'], day?: Hours): Block[] {
  if (!day?.breakFrom || !day.breakTo) return []
  const [from, to] = [at(date, day.breakFrom), at(date, day.breakTo)]
  return [{ personId, from, to, reason: 'break', kind: 'break' }]
}
type Hours = Technician['hours'][string]

export async function dayFacts(
  ctx: Ctx,
  first: string,
  count: number,
  holds: readonly Held[] = [],
): Promise<DayFacts> {
  const { tx, company } = ctx
  const at = instantsIn(company.timeZone)
  const end = plusDays(first, count)
  const [from, to] = [at(first, '00:00'), at(end, '00:00')]
  const fixed = fixedBlocks(
    await timeOffBetween(tx, from, to),
    await entriesBetween(tx, from, to),
    holds,
  )
  const free = await holidaysBetween(tx, first, plusDays(end, -1))
  const holidays = new Map(free.map((h) => [h.date, h.name]))
  const dates = Array.from({ length: count + 1 }, (_, i) => plusDays(first, i))
  const starts = dates.map((d) => at(d, '00:00'))
  const hours: DayFacts['hours'] = (person, date) =>
    holidays.has(date) ? undefined : person.hours[String(weekday(date))]
  return {
    at,
    hours,
    dateOf: (instant) =>
      instant >= from && instant < to
        ? dates[bisectRight(starts, instant) - 1]!
        : localDate(instant, company.timeZone),
    holiday: (date) => holidays.get(date) ?? '',
    shift(person, date) {
      const day = hours(person, date)
      return day ? { from: at(date, day.from), to: at(date, day.to) } : null
    },
    blocks({ id, hours: own }, date) {
      const span = { from: at(date, '00:00'), to: at(plusDays(date, 1), '00:00') }
      const standing = fixed.get(id) ?? []
      return [
        ...standing.filter((b) => b.from < span.to && b.to > span.from),
        ...breakOf(id, date, at, hours({ hours: own }, date)),
      ].sort((a, b) => a.from - b.from)
    },
  }
}

type Worked = {
  startAt: string
  durationSeconds: number
  state: string
  startedAt: string | null
  finishedAt: string | null
}
/** The time that a visit takes: as planned, or as it was worked. What was finished early is free again; what goes on takes until now at least. */
export function takenBy(visit: Worked, now: number): { startAt: number; endAt: number } {
  const begun = Date.parse(visit.startedAt ?? visit.startAt)
  if (visit.finishedAt) {
    const endAt = Date.parse(visit.finishedAt)
    return { startAt: Math.min(begun, endAt), endAt }
  }
  return {
    startAt: begun,
    endAt: Math.max(begun + visit.durationSeconds * 1000, visit.state === 'planned' ? 0 : now),
  }
}
