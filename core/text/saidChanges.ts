// What of a thing was changed, from what to what, out of the data that its history keeps.
import { hoursMinutes } from '../hours/workedSeconds'

export interface SaidChange {
  what: string
  from: string
  to: string
}
/** How days and times are said where it is read. */
interface Words {
  day: (date: string) => string
  at: (instant: string) => string
}
type Data = Readonly<Record<string, unknown>>
const isData = (value: unknown): value is Data =>
  typeof value === 'object' && value !== null && !Array.isArray(value)
const isChange = (value: unknown): value is { from?: unknown; to?: unknown } =>
  isData(value) && Object.keys(value).every((key) => key === 'from' || key === 'to')
const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-/i
const DAY = /^\d{4}-\d{2}-\d{2}$/
const INSTANT = /^\d{4}-\d{2}-\d{2}T[\d:.]+Z$/
/** Names that nobody reads. */
const MUTE = /(^|[a-z])(Ids?|version|state)$|^(id|state|version)$/

/** @example inWords('unitPrice') // 'unit price' */
const inWords = (key: string) => key.replace(/([a-z])([A-Z0-9])/g, '$1 $2').toLowerCase()

function textOf(text: string, words: Words): string {
  if (UUID.test(text)) return ''
  if (INSTANT.test(text)) return words.at(text)
  return DAY.test(text) ? words.day(text) : text
}
function said(key: string, value: unknown, words: Words): string {
  // What was once kept in minor units says nothing to anybody.
  if (typeof value === 'number' && key === 'creditLimit') return ''
  if (typeof value === 'number')
    return key.endsWith('Seconds') ? `${hoursMinutes(value)} h` : String(value)
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (typeof value === 'string') return textOf(value, words)
  if (Array.isArray(value))
    return value
      .map((one) => said(key, one, words))
      .filter(Boolean)
      .join('; ')
  if (!isData(value)) return ''
  return Object.values(value)
    .map((one) => said(key, one, words))
    .filter(Boolean)
    .join(', ')
}
/** The parts of two things; of a row (`change`) only what was sent of it, since the rest stayed as it was. */
const partsOf = (key: string, from: Data, to: Data): string[] =>
  key === 'change' ? Object.keys(to) : [...new Set([...Object.keys(from), ...Object.keys(to)])]
/** Of two things, part by part; of whatever else, the whole. What has no name of its own is called as it stands in. */
function changesOf(key: string, from: unknown, to: unknown, words: Words): SaidChange[] {
  if (isData(from) && isData(to))
    return partsOf(key, from, to).flatMap((part) =>
      changesOf(UUID.test(part) ? key : part, from[part], to[part], words),
    )
  const [was, is] = [said(key, from, words), said(key, to, words)]
  if (was === is || MUTE.test(key)) return []
  return [{ what: inWords(key.replace(/Seconds$/, '')), from: was, to: is }]
}

/**
 * Every change that the data of an entry of the history holds: wherever it has a `from` and a `to`, and those differ in
 * words. Identifiers, versions and states are left out: the sentence says them. The time on a clock is said as hours
 * and minutes.
 * @param words how days and times are said
 * @example saidChanges({ unitPrice: { from: '12.00', to: '9.00' } }, words) // [{ what: 'unit price', from: '12.00', to: '9.00' }]
 */
export function saidChanges(data: object, words: Words): SaidChange[] {
  return Object.entries(data).flatMap(([key, value]) => {
    if (!isData(value)) return []
    if (!isChange(value)) return key === 'changes' ? saidChanges(value, words) : []
    return changesOf(key, value.from, value.to, words)
  })
}
