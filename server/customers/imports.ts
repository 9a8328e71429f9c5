// Customers from a file: piece by piece, first dry, then for good; taken back.
import { importFacts } from './facts'
import { recordOf, recordProblems, type ImportRecord } from '../../core/customers/importRows'
import { nameKey } from '../../core/customers/matchIndex'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { formatPhone } from '../../core/text/phone'
import type { Answer, Body } from '../../shared/api'
import { bus, catchUp, type AppEvent } from '../events/events'
import { signedIn, type Ctx } from '../http/context'
import { record } from '../http/queries'
import { customersChanged, matchDocs } from './matching'
import {
  countImport,
  importById,
  keepLooks,
  listOfImports,
  looksSince,
  putImport,
  removeImported,
} from './imports.queries'
import { insertContact, insertSite, middleOf } from './places.queries'
import { insertCustomer } from './queries'
import { customerSearch, siteSearch } from './search'
import type { Known, Learned, Piece } from './importKnown'
import {
  know,
  comparable,
  sameAs,
  nameOf,
  nothing,
  placeOf,
  furtherFor,
  takeOver,
  learn,
  learnOf,
} from './importKnown'

/**
 * Everybody who is known already, by what makes two records alike; kept for the pieces of one import. What
 * another process, or another person, puts in meanwhile is read before the next piece is looked at.
 */
let cache: {
  id: string
  at: number
  known: Known
  /** the last that a dry run learned */ seq: number
} | null = null
const changedSince = new Set<string>()
bus.on('customer', (e: AppEvent) => void (cache && changedSince.add(e.subjectId)))
const FRESH_MS = 600_000
async function knownFor(ctx: Ctx, importId: string, dry: boolean): Promise<Known> {
  const key = `${importId}${dry}`
  if (cache?.id !== key || ctx.now - cache.at >= FRESH_MS) {
    cache = { id: key, at: ctx.now, known: nothing(), seq: 0 }
    changedSince.clear()
    for (const doc of await matchDocs(ctx, null)) know(cache.known, doc, doc.contacts)
  }
  const { known } = cache
  // What a dry run would put in is in no table of customers: it is told from piece to piece, and so from process to process.
  for (const look of dry ? await looksSince<Learned>(ctx.tx, importId, cache.seq) : []) {
    takeOver(known, look.learned)
    cache.seq = look.seq
  }
  await catchUp(ctx.tx)
  const ids = [...changedSince].filter((id) => !known.names.has(id))
  changedSince.clear()
  if (ids.length) for (const doc of await matchDocs(ctx, ids)) know(known, doc, doc.contacts)
  return known
}
export async function importPiece(
  ctx: Ctx,
  importId: string,
  body: Body<'importPiece'>,
): Promise<Answer<'importPiece'>> {
  if (!body.columns.includes('name')) throw invalid('columns', 'Say which column holds the name.')
  if (new Set(body.columns.filter(Boolean)).size !== body.columns.filter(Boolean).length)
    throw invalid('columns', 'Two columns have the same meaning.')
  // One piece at a time, in whichever process: a piece must know the rows of the one before.
  if (!body.dry)
    await putImport(ctx.tx, {
      id: importId,
      fileName: body.fileName,
      added: 0,
      skipped: 0,
      by: signedIn(ctx).id,
      at: ctx.now,
    })
  const earlier = await importById(ctx.tx, importId)
  if (earlier?.undoneAt) throw conflict('undone_already', 'This import has been taken back.')
  const piece: Piece = {
    known: await knownFor(ctx, importId, body.dry),
    own: nothing(),
    learned: [],
  }
  const rows: Answer<'importPiece'>['rows'] = []
  const added: string[] = []
  const more: string[] = []
  for (const [i, cells] of body.rows.entries()) {
    const r = recordOf(cells, body.columns)
    const problems = recordProblems(r)
    const id = ctx.id()
    const c = comparable(ctx, id, r)
    const same = problems.length ? null : sameAs(piece, c)
    const of = same ? `${nameOf(piece, same.id)}: ${same.reasons.join(', ')}` : ''
    const further = furtherFor(piece, same, r)
    const state = () => {
      if (problems.length) return 'wrong'
      if (further) return 'more'
      return same ? 'duplicate' : 'new'
    }
    rows.push({
      row: body.first + i,
      state: state(),
      name: (r.name ?? '').slice(0, 160),
      of: of.slice(0, 290),
      problems,
    })
    if (further) {
      learnOf(
        piece,
        same!.id,
        [further.site && placeOf(r), further.contact && r.contact_name]
          .filter((key): key is string => Boolean(key))
          .map(nameKey),
      )
      more.push(same!.id)
      if (!body.dry) await takeFurther(ctx, importId, same!.id, r, further)
      continue
    }
    if (problems.length || (same && body.skipDuplicates)) continue
    learn(piece, c, r.contact_name ? [r.contact_name] : [])
    added.push(id)
    if (!body.dry) await takeIn(ctx, importId, id, r)
  }
  const skipped = rows.length - added.length - more.length
  if (body.dry) await keepLooks(ctx.tx, importId, piece.learned, Date.now())
  else {
    ctx.tx.afterCommit(() => piece.learned.forEach((learned) => takeOver(piece.known, learned)))
    await putImport(ctx.tx, {
      id: importId,
      fileName: body.fileName,
      added: added.length,
      skipped,
      by: signedIn(ctx).id,
      at: ctx.now,
    })
    await record(ctx, {
      subject: 'import',
      id: importId,
      fact: importFacts.taken({
        file: body.fileName,
        added: added.length,
        more: more.length,
      }),
    })
    customersChanged(ctx, [...added, ...more])
  }
  return {
    rows: rows.filter((r) => r.state !== 'new' || rows.length <= 20),
    added: added.length,
    skipped,
  }
}
const middles = new Map<string, { lat: number | null; lon: number | null } | null>()
async function takeIn(ctx: Ctx, importId: string, id: string, r: ImportRecord): Promise<void> {
  const phone = (p: string | undefined) => formatPhone(p ?? '', ctx.company.country)
  const site = {
    name: r.site_name ?? '',
    line1: r.site_address ?? r.billing_address ?? '',
    town: r.site_town ?? r.billing_town ?? '',
    postcode: r.site_postcode ?? r.billing_postcode ?? '',
  }
  const c = {
    name: r.name!,
    phone: phone(r.phone),
    phone2: phone(r.phone2),
    email: r.email ?? '',
    email2: r.email2 ?? '',
    line1: r.billing_address ?? site.line1,
    town: r.billing_town ?? site.town,
    postcode: r.billing_postcode ?? site.postcode,
    tags: (r.tags ?? '')
      .split(/[,;]/)
      .map((t) => t.trim().slice(0, 40))
      .filter(Boolean)
      .slice(0, 12),
  }
  await insertCustomer(ctx.tx, {
    ...c,
    id,
    note: r.note ?? '',
    source: 'import',
    importId,
    search: customerSearch(c),
    now: ctx.now,
  })
  if (site.line1) await putSite(ctx, importId, id, site)
  if (r.contact_name) await putContact(ctx, importId, id, r)
}
async function takeFurther(
  ctx: Ctx,
  importId: string,
  customerId: string,
  r: ImportRecord,
  further: { site: boolean; contact: boolean },
): Promise<void> {
  if (further.site)
    await putSite(ctx, importId, customerId, {
      name: r.site_name ?? '',
      line1: r.site_address!,
      town: r.site_town ?? '',
      postcode: r.site_postcode ?? '',
    })
  if (further.contact) await putContact(ctx, importId, customerId, r)
}
async function putSite(
  ctx: Ctx,
  importId: string,
  customerId: string,
  site: { name: string; line1: string; town: string; postcode: string },
): Promise<void> {
  const place = `${site.town}|${site.postcode}`
  if (!middles.has(place)) middles.set(place, await middleOf(ctx.tx, site.town, site.postcode))
  if (middles.size > 5000) middles.clear()
  const middle = middles.get(place)
  await insertSite(ctx.tx, {
    ...site,
    id: ctx.id(),
    customerId,
    lat: middle?.lat ?? null,
    lon: middle?.lon ?? null,
    accessNote: '',
    importId,
    search: siteSearch(site),
  })
}
const putContact = (ctx: Ctx, importId: string, customerId: string, r: ImportRecord) =>
  insertContact(ctx.tx, {
    id: ctx.id(),
    customerId,
    siteId: null,
    name: r.contact_name!,
    role: r.contact_role ?? '',
    phone: formatPhone(r.contact_phone ?? '', ctx.company.country),
    phone2: '',
    email: r.contact_email ?? '',
    importId,
  })
export const listImports = async (ctx: Ctx): Promise<Answer<'imports'>> => ({
  items: (await listOfImports(ctx.tx)).map((i) => ({
    id: i.id,
    fileName: i.fileName,
    added: i.added,
    skipped: i.skipped,
    by: i.by,
    at: i.at,
    undone: i.undoneAt !== null,
  })),
})
/** Takes an import back. A customer that was worked with since, or changed by hand, stays. */
export async function undoImport(ctx: Ctx, id: string): Promise<Answer<'undoImport'>> {
  const known = await importById(ctx.tx, id)
  if (!known) throw notFound('import')
  if (known.undoneAt) throw conflict('undone_already', 'This import has been taken back already.')
  const before = await countImport(ctx.tx, id)
  const removed = await removeImported(ctx.tx, id, ctx.now)
  await record(ctx, {
    subject: 'import',
    id,
    fact: importFacts.takenBack({
      file: known.fileName,
      removed: removed.length,
      stay: before - removed.length,
    }),
  })
  customersChanged(ctx, removed)
  cache = null
  return { removed: removed.length, kept: before - removed.length }
}
