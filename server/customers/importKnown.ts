// Whom an import knows already, and which of its rows are the same.
import { likeness, PERHAPS_THE_SAME, type Comparable } from '../../core/customers/likeness'
import type { ImportRecord } from '../../core/customers/importRows'
import { nameKey } from '../../core/customers/matchIndex'
import { phoneKey } from '../../core/text/phone'
import type { Ctx } from '../http/context'

export interface Known {
  byKey: Map<string, Comparable[]>
  names: Map<string, string>
  has: Map<string, Set<string>>
}
const keysOf = (c: Comparable) => [
  ...c.phones.map((p) => `p${p}`),
  ...c.mails.map((m) => `m${m.toLowerCase()}`),
  `n${c.name.toLowerCase().trim()}`,
]
export function know(known: Known, c: Comparable, contacts: readonly string[] = []): void {
  known.names.set(c.id, c.name)
  known.has.set(c.id, new Set([...c.places.map(nameKey), ...contacts.map(nameKey)]))
  for (const key of keysOf(c))
    known.byKey.set(key, [...(known.byKey.get(key) ?? []).slice(0, 20), c])
}
/**
 * What a piece learns counts at once for its own rows, and for later pieces only after its commit: a piece that is
 * rolled back and tried again must not find its own rows known already, or they would be left out and lost.
 */
export interface Piece {
  known: Known
  own: Known
  learned: Learned[]
}
/** Somebody new, or what somebody who is known has besides. */
export type Learned =
  { c: Comparable; contacts: readonly string[] } | { id: string; words: string[] }
export function takeOver(known: Known, learned: Learned): void {
  if ('c' in learned) know(known, learned.c, learned.contacts)
  else known.has.set(learned.id, new Set([...(known.has.get(learned.id) ?? []), ...learned.words]))
}
export const nothing = (): Known => ({ byKey: new Map(), names: new Map(), has: new Map() })
export function learn(piece: Piece, c: Comparable, contacts: readonly string[]): void {
  know(piece.own, c, contacts)
  piece.learned.push({ c, contacts })
}
export function learnOf(piece: Piece, id: string, words: string[]): void {
  piece.own.has.set(id, new Set([...hasOf(piece, id), ...words]))
  piece.learned.push({ id, words })
}
const hasOf = (piece: Piece, id: string) =>
  piece.own.has.get(id) ?? piece.known.has.get(id) ?? new Set<string>()
export const nameOf = (piece: Piece, id: string) =>
  piece.own.names.get(id) ?? piece.known.names.get(id) ?? ''
export const placeOf = (r: ImportRecord) =>
  [r.site_name, r.site_address, r.site_town, r.site_postcode].filter(Boolean).join(' ')
/** A row about a customer of exactly that name that says something further: a site or a contact that they do not have yet. */
export function furtherFor(
  piece: Piece,
  same: { id: string; reasons: string[] } | null,
  r: ImportRecord,
): { site: boolean; contact: boolean } | null {
  const has = same?.reasons.includes('same name') ? hasOf(piece, same.id) : null
  const site = Boolean(has && r.site_address && !has.has(nameKey(placeOf(r))))
  const contact = Boolean(has && r.contact_name && !has.has(nameKey(r.contact_name)))
  return site || contact ? { site, contact } : null
}
export const comparable = (ctx: Ctx, id: string, r: ImportRecord): Comparable => ({
  id,
  name: r.name ?? '',
  phones: [r.phone, r.phone2]
    .filter((p): p is string => Boolean(p))
    .map((p) => phoneKey(p, ctx.company.country))
    .filter(Boolean),
  mails: [r.email, r.email2].filter((m): m is string => Boolean(m)),
  places: [
    [r.billing_address, r.billing_town, r.billing_postcode].filter(Boolean).join(' '),
    placeOf(r),
  ].filter(Boolean),
})
export function sameAs(piece: Piece, c: Comparable): { id: string; reasons: string[] } | null {
  const near = new Map(
    keysOf(c)
      .flatMap((key) => [
        ...(piece.known.byKey.get(key) ?? []),
        ...(piece.own.byKey.get(key) ?? []),
      ])
      .map((k) => [k.id, k]),
  )
  let best: { id: string; reasons: string[]; score: number } | null = null
  for (const other of near.values()) {
    const alike = likeness(c, other)
    if (alike.score >= PERHAPS_THE_SAME && alike.score > (best?.score ?? 0))
      best = { id: other.id, ...alike }
  }
  return best
}
