/** A licence that a skill stands on: without it, from the day after `until`, the skill does not count. */
export interface Licence {
  skill: string
  until: string
}

/**
 * The skills that somebody may use on a day: all that they have, less those whose licence has ended before it. The last day of a
 * licence still counts (common practice: "valid until").
 * @param date the local date of the work, `YYYY-MM-DD`
 * @example skillsOn({ skills: ['pumps', 'electric'], licences: [{ skill: 'electric', until: '2026-11-30' }] }, '2026-12-01') // ['pumps']
 */
export function skillsOn(
  person: { skills: readonly string[]; licences: readonly Licence[] },
  date: string,
): string[] {
  return person.skills.filter((s) => !ended(person, s, date))
}
/** The licence of a skill that has ended before that day, if there is one. @example ended({ licences: [] }, 'wells', '2026-12-01') // undefined */
export const ended = (
  person: { licences: readonly Licence[] },
  skill: string,
  date: string,
): Licence | undefined => person.licences.find((l) => l.skill === skill && l.until < date)
