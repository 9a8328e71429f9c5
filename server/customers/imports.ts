// Customers from a file, a piece at a time: the same rules dry and for good, duplicates by likeness, all of it undone by its number.
import { likeness, PERHAPS_THE_SAME, type Comparable } from '../../core/customers/likeness'
import { recordOf, recordProblems, type ImportRecord } from '../../core/customers/importRows'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { formatPhone, phoneKey } from '../../core/text/phone'
import type { Answer, Body } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import { record } from '../http/queries'
import { customersChanged, matchDocs } from './matching'
import { countImport, importById, listOfImports, putImport, removeImported } from './imports.queries'
import { insertContact, insertCustomer, insertSite, middleOf } from './queries'
import { customerSearch, siteSearch } from './service'

interface Known { all: Comparable[], byKey: Map<string, Comparable[]>, names: Map<string, string> }
const keysOf = (c: Comparable) => [...c.phones.map(p => `p${p}`), ...c.mails.map(m => `m${m.toLowerCase()}`), `n${c.name.toLowerCase().trim()}`]
function know(known: Known, c: Comparable): void {
  known.names.set(c.id, c.name)
  for (const key of keysOf(c)) known.byKey.set(key, [...(known.byKey.get(key) ?? []).slice(0, 20), c])
}
/** Everybody who is known already, by what makes two records alike; kept for the pieces of one import. */
let kept: { id: string, at: number, known: Known } | null = null
async function knownFor(ctx: Ctx, importId: string, dry: boolean): Promise<Known> {
  const key = `${importId}${dry}`
  if (kept?.id === key && ctx.now - kept.at < 600_000) return kept.known
  const known: Known = { all: [], byKey: new Map(), names: new Map() }
  for (const doc of await matchDocs(ctx, null)) know(known, doc)
  kept = { id: key, at: ctx.now, known }
  return known
}
const comparable = (ctx: Ctx, id: string, r: ImportRecord): Comparable => ({
  id, name: r.name ?? '', phones: [r.phone, r.phone2].filter((p): p is string => Boolean(p)).map(p => phoneKey(p, ctx.company.country)).filter(Boolean), mails: [r.email, r.email2].filter((m): m is string => Boolean(m)),
  places: [[r.billing_address, r.billing_town, r.billing_postcode].filter(Boolean).join(' '), [r.site_name, r.site_address, r.site_town, r.site_postcode].filter(Boolean).join(' ')].filter(Boolean),
})
function sameAs(known: Known, c: Comparable): { id: string, reasons: string[] } | null {
  const near = new Map(keysOf(c).flatMap(key => known.byKey.get(key) ?? []).map(k => [k.id, k]))
  let best: { id: string, reasons: string[], score: number } | null = null
  for (const other of near.values()) {
    const alike = likeness(c, other)
    if (alike.score >= PERHAPS_THE_SAME && alike.score > (best?.score ?? 0)) best = { id: other.id, ...alike }
  }
  return best
}

export async function importPiece(ctx: Ctx, importId: string, body: Body<'importPiece'>): Promise<Answer<'importPiece'>> {
  if (!body.columns.includes('name')) throw invalid('columns', 'Say which column holds the name.')
  if (new Set(body.columns.filter(Boolean)).size !== body.columns.filter(Boolean).length) throw invalid('columns', 'Two columns have the same meaning.')
  const earlier = await importById(ctx.tx, importId)
  if (earlier?.undoneAt) throw conflict('undone_already', 'This import has been taken back.')
  const known = await knownFor(ctx, importId, body.dry)
  const rows: Answer<'importPiece'>['rows'] = []
  const added: string[] = []
  for (const [i, cells] of body.rows.entries()) {
    const r = recordOf(cells, body.columns)
    const problems = recordProblems(r)
    const id = ctx.id()
    const c = comparable(ctx, id, r)
    const same = problems.length ? null : sameAs(known, c)
    const of = same ? `${known.names.get(same.id) ?? ''}: ${same.reasons.join(', ')}` : ''
    rows.push({ row: body.first + i, state: problems.length ? 'wrong' : same ? 'duplicate' : 'new', name: (r.name ?? '').slice(0, 160), of: of.slice(0, 290), problems })
    if (problems.length || (same && body.skipDuplicates)) continue
    know(known, c)
    added.push(id)
    if (!body.dry) await takeIn(ctx, importId, id, r)
  }
  const skipped = rows.length - added.length
  if (!body.dry) {
    await putImport(ctx.tx, { id: importId, fileName: body.fileName, added: added.length, skipped, by: signedIn(ctx).id, at: ctx.now })
    await record(ctx, { subject: 'import', id: importId, text: `${added.length} customers taken in from ${body.fileName}` })
    customersChanged(ctx, added)
  }
  return { rows: rows.filter(r => r.state !== 'new' || rows.length <= 20), added: added.length, skipped }
}
const middles = new Map<string, { lat: number | null, lon: number | null } | null>()
async function takeIn(ctx: Ctx, importId: string, id: string, r: ImportRecord): Promise<void> {
  const phone = (p: string | undefined) => formatPhone(p ?? '', ctx.company.country)
  const site = { name: r.site_name ?? '', line1: r.site_address ?? r.billing_address ?? '', town: r.site_town ?? r.billing_town ?? '', postcode: r.site_postcode ?? r.billing_postcode ?? '' }
  const c = { name: r.name!, phone: phone(r.phone), phone2: phone(r.phone2), email: r.email ?? '', email2: r.email2 ?? '', line1: r.billing_address ?? site.line1, town: r.billing_town ?? site.town, postcode: r.billing_postcode ?? site.postcode, tags: (r.tags ?? '').split(/[,;]/).map(t => t.trim().slice(0, 40)).filter(Boolean).slice(0, 12) }
  await insertCustomer(ctx.tx, { ...c, id, note: r.note ?? '', source: 'import', importId, search: customerSearch(c), now: ctx.now })
  if (site.line1) {
    const place = `${site.town}|${site.postcode}`
    if (!middles.has(place)) middles.set(place, await middleOf(ctx.tx, site.town, site.postcode))
    if (middles.size > 5000) middles.clear()
    const middle = middles.get(place)
    await insertSite(ctx.tx, { ...site, id: ctx.id(), customerId: id, lat: middle?.lat ?? null, lon: middle?.lon ?? null, accessNote: '', importId, search: siteSearch(site) })
  }
  if (r.contact_name) await insertContact(ctx.tx, { id: ctx.id(), customerId: id, siteId: null, name: r.contact_name, role: r.contact_role ?? '', phone: phone(r.contact_phone), phone2: '', email: r.contact_email ?? '', importId })
}
export const listImports = async (ctx: Ctx): Promise<Answer<'imports'>> => ({ items: (await listOfImports(ctx.tx)).map(i => ({ id: i.id, fileName: i.fileName, added: i.added, skipped: i.skipped, by: i.by, at: i.at, undone: i.undoneAt !== null })) })

/** Takes an import back. A customer that was worked with since, or changed by hand, stays. */
export async function undoImport(ctx: Ctx, id: string): Promise<Answer<'undoImport'>> {
  const known = await importById(ctx.tx, id)
  if (!known) throw notFound('import')
  if (known.undoneAt) throw conflict('undone_already', 'This import has been taken back already.')
  const before = await countImport(ctx.tx, id)
  const removed = await removeImported(ctx.tx, id, ctx.now)
  await record(ctx, { subject: 'import', id, text: `Import ${known.fileName} taken back: ${removed.length} customers taken out, ${before - removed.length} stay` })
  customersChanged(ctx, removed)
  kept = null
  return { removed: removed.length, kept: before - removed.length }
}
