// What happens to the schedule's set-up and its plans, and how the history says it.
import { facts, type Change } from '../http/facts'

type Span = { person: string; reason: string; from: string; to: string }

export const personFacts = facts('person', {
  changed: (_: { changes: Change }) => 'Hours, skills, territories or places changed',
  off: (f: Span, say) =>
    `${f.person} is off from ${say.at(f.from)} to ${say.at(f.to)}: ${f.reason}`,
  offFrom: (f: { at: string; reason: string }, say) => `Off from ${say.at(f.at)}: ${f.reason}`,
  offTakenBack: () => 'Time off taken back',
  entryAdded: (f: Span, say) => `${f.reason}: ${f.person}, ${say.at(f.from)} to ${say.at(f.to)}`,
  entryTakenBack: () => 'An entry was taken back',
  calendarMade: (f: { person: string }) => `A calendar link was made for ${f.person}`,
})
export const planFacts = facts('plan', {
  asked: (f: { days: readonly string[] }, say) =>
    `Plan asked for: ${f.days.map(say.day).join(', ')}`,
  accepted: (f: { chosen: number; of: number }) => `Plan accepted: ${f.chosen} of ${f.of} changes`,
})
/** Which of several, and what it was; at first neither was kept. */
interface Told {
  id?: string
  changes?: Record<string, Change>
}
export const scheduleFacts = facts('schedule', {
  roadsImported: (f: { name: string; lines: number }) =>
    `Roads imported: ${f.name}, ${f.lines} lines`,
  territoryKept: (f: Told & { name: string; postcodes: number }) =>
    `Territory ${f.name}: ${f.postcodes} postcodes`,
  territoryDropped: (f: Told & { name: string }) => `Territory ${f.name} was taken away`,
  territoriesImported: (f: { territories: readonly { name: string; postcodes: number }[] }) =>
    `Territories imported: ${f.territories.map((t) => `${t.name} ${t.postcodes}`).join(', ')}`,
  holidayKept: (f: Told & { on: string; name: string }, say) =>
    `Holiday on ${say.day(f.on)}: ${f.name}`,
  holidayTakenBack: (f: Told & { on: string }, say) => `${say.day(f.on)} is no holiday`,
  closes: (f: { at: Change }) => `What was not begun comes back at ${f.at.to as string}`,
  drivesOutside: () => 'Drives from and to home lie outside the hours',
  drivesWithin: () => 'Drives from and to home lie within the hours',
  yardKept: (_: { changes: Record<string, Change> }) => 'Where the yard is was said',
  messagesChanged: (_: Told) => 'Messages about visits changed',
})
