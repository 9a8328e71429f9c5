import { distance } from 'fastest-levenshtein'
import { nameKey } from './matchIndex'

/** What two records are compared by; numbers as digits. */
export interface Comparable {
  id: string
  name: string
  phones: readonly string[]
  mails: readonly string[]
  places: readonly string[]
}
export interface Likeness {
  score: number
  reasons: string[]
}

/** 1 for the same words in any order, 0 for nothing in common: 1 − edits ÷ length over the sorted words. */
export function nameLikeness(a: string, b: string): number {
  const sorted = (name: string) => nameKey(name).split(' ').filter(Boolean).sort().join(' ')
  const [x, y] = [sorted(a), sorted(b)]
  const longest = Math.max(x.length, y.length)
  return longest === 0 ? 0 : 1 - distance(x, y) / longest
}

/**
 * How surely two customers are one, from 0 to 1, with the reasons. A number or a mail address in common speaks loudly,
 * a name or an address alone does not: neighbours share streets and cousins share names. The weights are our own.
 * @example likeness({ name: 'T. Oduya', phones: ['6075550119'], … }, { name: 'Tunde Oduya', phones: ['6075550119'], … }).reasons // ['same telephone number', …]
 */
export function likeness(a: Comparable, b: Comparable): Likeness {
  const reasons: string[] = []
  let doubt = 1
  const say = (weight: number, reason: string) => {
    doubt *= 1 - weight
    reasons.push(reason)
  }
  const common = (x: readonly string[], y: readonly string[]) =>
    x.some((one) => one !== '' && y.includes(one))
  if (common(a.phones, b.phones)) say(0.5, 'same telephone number')
  if (
    common(
      a.mails.map((m) => m.toLowerCase()),
      b.mails.map((m) => m.toLowerCase()),
    )
  )
    say(0.6, 'same mail address')
  if (common(a.places.map(nameKey), b.places.map(nameKey))) say(0.5, 'same address')
  const names = nameLikeness(a.name, b.name)
  // Two people of one name who have each a number of their own are two people, until something else says otherwise.
  const apart = a.phones.length > 0 && b.phones.length > 0 && !common(a.phones, b.phones)
  if (names === 1) say(apart ? 0.4 : 0.6, 'same name')
  else if (names >= 0.75) say(0.4, 'nearly the same name')
  else if (sharesSurname(a.name, b.name)) say(0.2, 'same surname')
  return { score: Math.round((1 - doubt) * 100) / 100, reasons }
}
/** "T. Oduya" and "Tunde Oduya": the last word is the same and the first letters agree. */
function sharesSurname(a: string, b: string): boolean {
  const [x, y] = [nameKey(a).split(' '), nameKey(b).split(' ')]
  return x.length > 1 && y.length > 1 && x.at(-1) === y.at(-1) && x[0]![0] === y[0]![0]
}

/** From here on two records are shown as perhaps the same. */
export const PERHAPS_THE_SAME = 0.6

/** What two records may share and so be compared at all. */
const keysOf = (one: Comparable): Set<string> =>
  new Set([
    ...one.phones.map((p) => `p${p}`),
    ...one.mails.map((m) => `m${m.toLowerCase()}`),
    ...one.places.map((p) => `a${nameKey(p)}`),
    `n${nameKey(one.name).split(' ').sort().join(' ')}`,
  ])
/** Records by what they share. A key that very many share (a switchboard, a block of flats) is no evidence. */
function sharing(all: readonly Comparable[]): Comparable[][] {
  const shared = new Map<string, Comparable[]>()
  for (const one of all)
    for (const key of keysOf(one))
      if (key.length > 4) shared.set(key, [...(shared.get(key) ?? []), one])
  return [...shared.values()].filter((group) => group.length > 1 && group.length <= MOST_SHARING)
}
const MOST_SHARING = 20
/** Every two of a group, the smaller identifier first. */
const twosOf = (group: readonly Comparable[]): [Comparable, Comparable][] =>
  group.flatMap((one, i) =>
    group
      .slice(i + 1)
      .filter((other) => other.id !== one.id)
      .map((other): [Comparable, Comparable] => (one.id < other.id ? [one, other] : [other, one])),
  )
export interface Pair {
  first: string
  second: string
  score: number
  reasons: string[]
}
/**
 * Pairs that are perhaps the same, surest first. Only records that share a number, a mail address, an address or a
 * name's words are compared, so that it grows with what they share and not with the square of their number.
 * A key that more than 20 records share (a switchboard, a block of flats) is no evidence and is left out.
 */
export function duplicatePairs(all: readonly Comparable[], limit = 200): Pair[] {
  const pairs = new Map<string, Pair>()
  for (const [a, b] of sharing(all).flatMap(twosOf)) {
    const key = `${a.id} ${b.id}`
    if (pairs.has(key)) continue
    const alike = likeness(a, b)
    if (alike.score >= PERHAPS_THE_SAME) pairs.set(key, { first: a.id, second: b.id, ...alike })
  }
  return [...pairs.values()]
    .sort((x, y) => y.score - x.score || (x.first < y.first ? -1 : 1))
    .slice(0, limit)
}
