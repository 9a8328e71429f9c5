import { sayPromise, type VisitPromise } from '../visits/visitPromise'

export interface Placement {
  technicianId: string
  startAt: number
  endAt: number
}
export interface DayFacts {
  /** working intervals of that technician around that day, epoch ms */
  working: readonly { from: number; to: number }[]
  /** time off, meetings; a `break` can be taken a little later, so it is only said */
  timeOff: readonly { from: number; to: number; reason: string; kind?: string }[]
  others: readonly { id: string; startAt: number; endAt: number; label: string }[]
  /** the site's territory, and those that the technician serves; a technician without any serves all */
  territory?: string | undefined
  serves?: readonly string[]
  /** nothing is known yet of where it is */
  nowhere?: boolean
  /** when today begins, and what time it is, epoch ms: what lies before has passed */
  today?: number
  now?: number
  /** that half of the day: how many visits it takes, and would have with this one */
  half?: { name: string; capacity: number; taken: number }
  /** skills that the work wants, and those that the technician has */
  wanted?: readonly string[]
  skills?: readonly string[]
  /** licences of theirs that have ended by then */
  licences?: readonly { skill: string; until: string }[]
}
export type VisitWarning = {
  code:
    | 'clash'
    | 'time_off'
    | 'outside_hours'
    | 'outside_promise'
    | 'territory'
    | 'no_address'
    | 'skill'
    | 'break'
    | 'held'
    | 'past'
    | 'capacity'
  text: string
}
/** What is said but does not hold anybody up: a person may well be sent elsewhere, or learn. */
export const SOFT_WARNINGS: readonly VisitWarning['code'][] = [
  'territory',
  'skill',
  'break',
  'no_address',
]

type Says = { name: string; day: (date: string) => string }
const overlaps = (place: Placement, from: number, to: number) =>
  from < place.endAt && place.startAt < to

function clashes(place: Placement, { others }: DayFacts, { name }: Says): VisitWarning[] {
  return others
    .filter((o) => overlaps(place, o.startAt, o.endAt))
    .map((o) => ({ code: 'clash', text: `${name} is at ${o.label} then` }))
}
function timeAway(place: Placement, { timeOff }: DayFacts, { name }: Says): VisitWarning[] {
  return timeOff
    .filter((t) => overlaps(place, t.from, t.to))
    .map((t) =>
      t.kind === 'break'
        ? { code: 'break', text: `it runs into ${name}’s break` }
        : { code: 'time_off', text: `${name} is off then: ${t.reason}` },
    )
}
function outsideHours(place: Placement, { working }: DayFacts, { name }: Says): VisitWarning[] {
  if (working.some((w) => w.from <= place.startAt && place.endAt <= w.to)) return []
  const text = working.length ? `this is outside ${name}’s hours` : `${name} does not work that day`
  return [{ code: 'outside_hours', text }]
}
function otherTerritory({ territory, serves }: DayFacts, { name }: Says): VisitWarning[] {
  if (!territory || !serves?.length || serves.includes(territory)) return []
  const text = `this is in ${territory}; ${name} serves ${serves.join(' and ')}`
  return [{ code: 'territory', text }]
}
/** Skills that were never there, then those whose licence has ended. */
function lackingSkills({ wanted = [], skills, licences }: DayFacts, say: Says): VisitWarning[] {
  const lacking = wanted.filter((skill) => !skills?.includes(skill))
  const over = lacking.flatMap((skill) => licences?.find((l) => l.skill === skill) ?? [])
  const never = lacking.filter((skill) => !over.some((l) => l.skill === skill))
  const ended = over.map((l) => `${say.name}’s licence for ${l.skill} ended on ${say.day(l.until)}`)
  const missing = `${say.name} does not have ${never.join(' or ')} among their skills`
  return [...(never.length ? [missing] : []), ...ended].map((text) => ({ code: 'skill', text }))
}
/** What has passed is nobody's plan; it may be what was done and is entered late. */
function passed({ startAt, endAt }: Placement, { today = 0, now = 0 }: DayFacts): VisitWarning[] {
  if (startAt < today) return [{ code: 'past', text: 'this day has passed' }]
  return endAt <= now ? [{ code: 'past', text: 'this time has passed' }] : []
}
function overCapacity({ half }: DayFacts, { name }: Says): VisitWarning[] {
  if (!half || half.taken <= half.capacity) return []
  const text = `over capacity: ${half.taken} of ${half.capacity} in ${name}’s ${half.name}`
  return [{ code: 'capacity', text }]
}
/**
 * What is wrong with placing a visit there, in words, before it is saved: a time that has passed, another visit at that time, time off, outside the
 * working hours, more visits than that half of the day takes, outside what was promised; then, softly, an address that is still to follow,
 * another territory and a skill that is lacking. An empty list means that nothing is.
 * @param broken what was promised and would not hold there, or null
 * @param say what the person is called, and how days are said
 */
export function visitWarnings(
  place: Placement,
  facts: DayFacts,
  broken: VisitPromise | null,
  say: Says,
): VisitWarning[] {
  const away = timeAway(place, facts, say)
  const isOff = away.some((w) => w.code === 'time_off')
  const text = broken && `it was promised for ${sayPromise(broken, say.day)}`
  return [
    ...passed(place, facts),
    ...clashes(place, facts, say),
    ...away,
    // Whoever is off is not told the hours as well.
    ...(isOff ? [] : outsideHours(place, facts, say)),
    ...(isOff ? [] : overCapacity(facts, say)),
    ...(text ? [{ code: 'outside_promise' as const, text }] : []),
    ...(facts.nowhere
      ? [{ code: 'no_address' as const, text: 'its address is still to follow' }]
      : []),
    ...otherTerritory(facts, say),
    ...lackingSkills(facts, say),
  ]
}
