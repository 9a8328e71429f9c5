// Customers from a file: piece by piece, first dry, then for good; taken back.
import { importFacts } from './facts'
import { recordOf, recordProblems, type ImportRecord } from '../../core/customers/importRows'
import { nameKey } from '../../core/customers/matchIndex'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { formatPhone } from '../../core/text/phone'
import type { Answer, Body } from '../../shared/api'
import type { Place } from '../../core/dispatch/greatCircle'
import type { Tx } from '../db/pool'
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
import { insertContact, insertSite } from './places.queries'
import { middleOf } from './postcodes'
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
type Taken = Body<'importPiece'>
type Told = Answer<'importPiece'>['rows'][number]
function checkColumns({ columns }: Taken): void {
  if (!columns.includes('name')) throw invalid('columns', 'Say which column holds the name.')
  const named = columns.filter(Boolean)
  if (new Set(named).size !== named.length)
    throw invalid('columns', 'Two columns have the same meaning.')
}
/** One row of the file: who it speaks of, whether that is somebody known, and what is to be put in of it. */
function readRow(ctx: Ctx, piece: Piece, cells: string[], columns: Taken['columns']) {
  const record = recordOf(cells, columns)
  const problems = recordProblems(record)
  const looks = comparable(ctx, ctx.id(), record)
  const same = problems.length ? null : sameAs(piece, looks)
  const further = furtherFor(piece, same, record)
  return { record, problems, looks, same, further }
}
type RowRead = ReturnType<typeof readRow>
function stateOf({ problems, further, same }: RowRead): Told['state'] {
  if (problems.length) return 'wrong'
  if (further) return 'more'
  return same ? 'duplicate' : 'new'
}
const told = (piece: Piece, row: number, read: RowRead): Told => ({
  row,
  state: stateOf(read),
  name: (read.record.name ?? '').slice(0, 160),
  of: read.same
    ? `${nameOf(piece, read.same.id)}: ${read.same.reasons.join(', ')}`.slice(0, 290)
    : '',
  problems: read.problems,
})
/** A site or a contact that somebody who is known does not have yet. */
async function takeMore(ctx: Ctx, into: Into, { record, same, further }: RowRead): Promise<string> {
  const { id } = same!
  const learned = [
    further!.site && placeOf(record),
    further!.contact && (record.contact_name ?? ''),
  ].filter((key): key is string => Boolean(key))
  learnOf(into.piece, id, learned.map(nameKey))
  if (!into.dry)
    await takeFurther(ctx, { importId: into.importId, customerId: id }, record, further!)
  return id
}
interface Into {
  importId: string
  piece: Piece
  dry: boolean
}
const keepCounts = (
  ctx: Ctx,
  id: string,
  counts: { added: number; skipped: number },
  file: string,
) =>
  putImport(ctx.tx, {
    ...{ id, what: 'customers', fileName: file, ...counts },
    ...{ by: signedIn(ctx).id, at: ctx.now },
  })
export async function importPiece(
  ctx: Ctx,
  importId: string,
  body: Taken,
): Promise<Answer<'importPiece'>> {
  const { dry, fileName } = body
  checkColumns(body)
  // One piece at a time, in whichever process: a piece must know the rows of the one before.
  if (!dry) await keepCounts(ctx, importId, { added: 0, skipped: 0 }, fileName)
  const earlier = await importById(ctx.tx, importId)
  if (earlier?.undoneAt) throw conflict('undone_already', 'This import has been taken back.')
  const known = await knownFor(ctx, importId, dry)
  const piece: Piece = { known, own: nothing(), learned: [] }
  const rows: Told[] = []
  const added: string[] = []
  const more: string[] = []
  for (const [i, cells] of body.rows.entries()) {
    const read = readRow(ctx, piece, cells, body.columns)
    rows.push(told(piece, body.first + i, read))
    if (read.further) {
      more.push(await takeMore(ctx, { importId, piece, dry }, read))
      continue
    }
    if (read.problems.length || (read.same && body.skipDuplicates)) continue
    const { record: r, looks } = read
    learn(piece, looks, r.contact_name ? [r.contact_name] : [])
    added.push(looks.id)
    if (!dry) await takeIn(ctx, importId, looks.id, r)
  }
  const skipped = rows.length - added.length - more.length
  if (dry) await keepLooks(ctx.tx, importId, piece.learned, Date.now())
  else {
    ctx.tx.afterCommit(() => piece.learned.forEach((learned) => takeOver(known, learned)))
    await keepCounts(ctx, importId, { added: added.length, skipped }, fileName)
    const fact = importFacts.taken({ file: fileName, added: added.length, more: more.length })
    await record(ctx, { subject: 'import', id: importId, fact })
    customersChanged(ctx, [...added, ...more])
  }
  return {
    rows: rows.filter((r) => r.state !== 'new' || rows.length <= 20),
    added: added.length,
    skipped,
  }
}
/** Within a piece of an import many lie in one town. */
const middles = new WeakMap<Tx, Map<string, Place | null>>()
const siteIn = (r: ImportRecord) => ({
  name: r.site_name ?? '',
  line1: r.site_address ?? r.billing_address ?? '',
  town: r.site_town ?? r.billing_town ?? '',
  postcode: r.site_postcode ?? r.billing_postcode ?? '',
})
const tagsIn = ({ tags = '' }: ImportRecord) =>
  tags
    .split(/[,;]/)
    .map((t) => t.trim().slice(0, 40))
    .filter(Boolean)
    .slice(0, 12)
/** Where nobody says where the bill goes, it goes to the site. */
function customerIn({ company }: Ctx, r: ImportRecord) {
  const phone = (p = '') => formatPhone(p, company.country)
  const site = siteIn(r)
  return {
    name: r.name!,
    phone: phone(r.phone),
    phone2: phone(r.phone2),
    email: r.email ?? '',
    email2: r.email2 ?? '',
    line1: r.billing_address ?? site.line1,
    town: r.billing_town ?? site.town,
    postcode: r.billing_postcode ?? site.postcode,
    tags: tagsIn(r),
  }
}
async function takeIn(ctx: Ctx, importId: string, id: string, r: ImportRecord): Promise<void> {
  const site = siteIn(r)
  const c = customerIn(ctx, r)
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
  { importId, customerId }: { importId: string; customerId: string },
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
  const known = middles.get(ctx.tx) ?? new Map<string, Place | null>()
  middles.set(ctx.tx, known)
  if (!known.has(place)) known.set(place, await middleOf(ctx.tx, site.town, site.postcode))
  const middle = known.get(place)
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
  items: (await listOfImports(ctx.tx, 'customers')).map((i) => ({
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
  if (known?.what !== 'customers') throw notFound('import')
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
