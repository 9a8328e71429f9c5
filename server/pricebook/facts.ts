// What happens to the price book, and how the history says it.
import { counted } from '../../core/text/counted'
import { facts, type Change } from '../http/facts'

type Entry = { code: string; name: string }
const entry = (f: Entry) => `${f.code} ${f.name}`

export const priceFacts = facts('prices', {
  made: (f: Entry) => `${entry(f)}: made`,
  changed: (f: Entry) => `${entry(f)}: changed`,
  retired: (f: Entry) => `${entry(f)}: retired`,
  pictured: (f: Entry) => `${entry(f)}: a picture`,
  pictureRemoved: (f: Entry) => `${entry(f)}: its picture taken away`,
  severalRetired: (f: { ids: readonly string[]; count: number }) =>
    `${counted(f.count, 'entry', 'entries')} retired`,
  severalBroughtBack: (f: { ids: readonly string[]; count: number }) =>
    `${counted(f.count, 'entry', 'entries')} brought back`,
  hoursTaken: (f: { hours: readonly ({ id: string } & Change)[] }) =>
    `Hours of ${counted(f.hours.length, 'task', 'tasks')} as they were worked`,
  repriced: (f: { title: string; count: number; from: string | null }, say) =>
    `${f.title}: ${counted(f.count, 'price', 'prices')}${f.from ? `, from ${say.day(f.from)}` : ''}`,
  holdsNow: (f: { title: string }) => `${f.title}: holds from today`,
  takenBack: (f: { title: string }) => `Taken back: ${f.title}`,
  listTaken: (f: { file: string; new: number; changed: number; wrong: number }) =>
    `Price list ${f.file} taken in: ${f.new} new, ${f.changed} changed, ${f.wrong} left out`,
  listTakenBack: (f: { file: string }) => `Price list ${f.file} taken back`,
  rulesChanged: (_: { was: object }) => 'Rules of prices changed',
})
