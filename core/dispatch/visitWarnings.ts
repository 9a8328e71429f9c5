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
    | 'skill'
    | 'break'
    | 'held'
  text: string
}
/** What is said but does not hold anybody up: a person may well be sent elsewhere, or learn. */
export const SOFT_WARNINGS: readonly VisitWarning['code'][] = ['territory', 'skill', 'break']

/**
 * What is wrong with placing a visit there, in words, before it is saved: another visit at that time, time off, outside the
 * working hours, outside the promised window; then, softly, another territory and a skill that is lacking. An empty list means that nothing is.
 * @param say what the person is called, and how days are said
 * @param promise the window told to the customer as epoch ms, or null
 */
export function visitWarnings(
  place: Placement,
  facts: DayFacts,
  promise: { from: number; to: number } | null,
  say: { name: string; day: (date: string) => string },
): VisitWarning[] {
  const { name } = say
  const overlaps = (from: number, to: number) => from < place.endAt && place.startAt < to
  const warnings: VisitWarning[] = []
  for (const o of facts.others)
    if (overlaps(o.startAt, o.endAt))
      warnings.push({ code: 'clash', text: `${name} is at ${o.label} then` })
  for (const t of facts.timeOff) {
    if (!overlaps(t.from, t.to)) continue
    warnings.push(
      t.kind === 'break'
        ? { code: 'break', text: `it runs into ${name}’s break` }
        : { code: 'time_off', text: `${name} is off then: ${t.reason}` },
    )
  }
  if (
    !facts.working.some((w) => w.from <= place.startAt && place.endAt <= w.to) &&
    !warnings.some((w) => w.code === 'time_off')
  ) {
    warnings.push({
      code: 'outside_hours',
      text:
        facts.working.length === 0
          ? `${name} does not work that day`
          : `this is outside ${name}’s hours`,
    })
  }
  if (promise && (place.startAt < promise.from || place.startAt > promise.to))
    warnings.push({
      code: 'outside_promise',
      text: 'the start is outside the window that was promised',
    })
  if (facts.territory && facts.serves?.length && !facts.serves.includes(facts.territory))
    warnings.push({
      code: 'territory',
      text: `this is in ${facts.territory}; ${name} serves ${facts.serves.join(' and ')}`,
    })
  const lacking = (facts.wanted ?? []).filter((skill) => !facts.skills?.includes(skill))
  const over = lacking.flatMap((skill) => facts.licences?.find((l) => l.skill === skill) ?? [])
  const never = lacking.filter((skill) => !over.some((l) => l.skill === skill))
  if (never.length)
    warnings.push({
      code: 'skill',
      text: `${name} does not have ${never.join(' or ')} among their skills`,
    })
  for (const l of over)
    warnings.push({
      code: 'skill',
      text: `${name}’s licence for ${l.skill} ended on ${say.day(l.until)}`,
    })
  return warnings
}
