// Sites, contacts, equipment and files of a customer.
import { customerFacts, type Came } from './facts'
import type { Fact } from '../http/facts'
import { conflict, notFound } from '../../core/errors/LedgerError'
import { territoryOf } from '../../core/customers/territoryOf'
import { formatPhone } from '../../core/text/phone'
import type { Answer, Body, Query } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import { fromBase64, kindOf, PICTURES } from '../http/files'
import { redraw } from '../http/pictures'
import { Raw, type Call } from '../http/route'
import { pageOf, paging } from '../http/paging'
import { record } from '../http/queries'
import { territories } from '../settings/queries'
import { checkFields } from '../settings/fields'
import { customersChanged } from './matching'
import {
  contactById,
  equipmentById,
  insertContact,
  insertEquipment,
  insertSite,
  siteById,
  sitePage,
  type SiteRow,
} from './places.queries'
import { middleOf, pointWritten } from './postcodes'
import { customerById, updateRow } from './queries'
import { fileById, insertFile } from './history.queries'
import { customerPaper } from './views'
import { siteSearch } from './search'
import type { CustomerPaper } from './shapes'

export async function listSites(ctx: Ctx, query: Query<'sites'>): Promise<Answer<'sites'>> {
  const p = paging(query, ['address', 'town'], 'address')
  const areas = await territories(ctx.tx)
  const postcodes = query.territory
    ? (areas.find((a) => a.name === query.territory)?.postcodes ?? [])
    : null
  const { rows, total } = await sitePage(ctx.tx, { ...p, q: query.q ?? '', postcodes })
  return pageOf(rows, total, p.limit, (r) => ({
    id: r.id,
    customerId: r.customerId,
    customer: r.customer,
    name: r.name,
    line1: r.line1,
    town: r.town,
    postcode: r.postcode,
    territory: territoryOf(r.postcode, areas)?.name ?? '',
    equipment: r.equipment,
    accessNote: r.accessNote,
  }))
}
async function liveCustomer(ctx: Ctx, id: string): Promise<void> {
  const customer = await customerById(ctx.tx, id)
  if (!customer || customer.erasedAt || customer.mergedInto) throw notFound('customer')
}
const stale = (what: string, current: unknown, yours: unknown) =>
  conflict('stale', `Someone changed this ${what} in the meantime.`, { current, yours })
/** What every change of these ends with: a word in the history, the match index told, the customer's page as it is now. */
async function done(ctx: Ctx, customerId: string, fact: Fact): Promise<CustomerPaper> {
  await record(ctx, { subject: 'customer', id: customerId, customerId, fact })
  customersChanged(ctx, [customerId])
  return customerPaper(ctx, customerId)
}

export async function addSite(ctx: Ctx, body: Body<'newSite'>): Promise<CustomerPaper> {
  await liveCustomer(ctx, body.customerId)
  await checkFields(ctx, 'site', body.custom)
  const site = {
    name: body.name ?? '',
    line1: body.line1,
    town: body.town ?? '',
    postcode: body.postcode ?? '',
    custom: (body.custom ?? {}) as Record<string, string>,
  }
  const middle = body.place
    ? pointWritten(body.place, 'place')
    : await middleOf(ctx.tx, site.town, site.postcode)
  await insertSite(ctx.tx, {
    ...site,
    id: body.id,
    customerId: body.customerId,
    lat: middle?.lat ?? null,
    lon: middle?.lon ?? null,
    accessNote: body.accessNote ?? '',
    search: siteSearch(site),
  })
  return done(ctx, body.customerId, customerFacts.siteAdded({ name: site.name || site.line1 }))
}
/** Another town is another place: the old spot on the map would send people the wrong way. */
async function spotOf(ctx: Ctx, old: SiteRow, now: SiteRow, place: string | undefined) {
  if (place) return pointWritten(place, 'place')
  if (place === undefined && now.town === old.town && now.postcode === old.postcode) return {}
  const middle = await middleOf(ctx.tx, now.town, now.postcode)
  return { lat: middle?.lat ?? null, lon: middle?.lon ?? null }
}
export async function changeSite(
  ctx: Ctx,
  id: string,
  body: Body<'changeSite'>,
): Promise<CustomerPaper> {
  const old = await siteById(ctx.tx, id, true)
  if (!old) throw notFound('site')
  const { version, place, ...values } = body
  if (old.version !== version) throw stale('site', old, body)
  await checkFields(ctx, 'site', values.custom, old.custom)
  const now = { ...old, ...values } as SiteRow
  await updateRow(ctx.tx, 'sites', old, {
    ...values,
    ...(await spotOf(ctx, old, now, place)),
    search: siteSearch(now),
  })
  const name = values.name || old.name || values.line1 || old.line1
  return done(
    ctx,
    old.customerId,
    customerFacts.siteChanged({ name, change: { from: old, to: values } }),
  )
}
const phones = <T extends { phone?: string | undefined; phone2?: string | undefined }>(
  ctx: Ctx,
  body: T,
): T => ({
  ...body,
  ...(body.phone === undefined ? {} : { phone: formatPhone(body.phone, ctx.company.country) }),
  ...(body.phone2 === undefined ? {} : { phone2: formatPhone(body.phone2, ctx.company.country) }),
})
async function ownSite(
  ctx: Ctx,
  siteId: string | null | undefined,
  customerId: string,
): Promise<void> {
  if (siteId && (await siteById(ctx.tx, siteId))?.customerId !== customerId)
    throw notFound('site of this customer')
}
export async function addContact(ctx: Ctx, body: Body<'newContact'>): Promise<CustomerPaper> {
  await liveCustomer(ctx, body.customerId)
  await ownSite(ctx, body.siteId, body.customerId)
  const k = phones(ctx, body)
  await insertContact(ctx.tx, {
    id: k.id,
    customerId: k.customerId,
    siteId: k.siteId ?? null,
    name: k.name,
    role: k.role ?? '',
    phone: k.phone ?? '',
    phone2: k.phone2 ?? '',
    email: k.email ?? '',
  })
  return done(
    ctx,
    body.customerId,
    customerFacts.contactAdded({ name: k.name, role: k.role ?? '' }),
  )
}
/** What became of a contact or a thing of theirs: it was taken out, is back, or changed. */
function whatCame({ removed }: { removed?: boolean | undefined }): Came {
  if (removed) return 'taken out'
  return removed === false ? 'is back' : 'changed'
}
export async function changeContact(
  ctx: Ctx,
  id: string,
  body: Body<'changeContact'>,
): Promise<CustomerPaper> {
  const old = await contactById(ctx.tx, id, true)
  if (!old) throw notFound('contact')
  const { version, ...values } = phones(ctx, body)
  if (old.version !== version) throw stale('contact', old, body)
  await ownSite(ctx, values.siteId, old.customerId)
  await updateRow(ctx.tx, 'contacts', { id, version }, values)
  return done(
    ctx,
    old.customerId,
    customerFacts.contactChanged({
      name: values.name || old.name,
      came: whatCame(values),
      change: { from: old, to: values },
    }),
  )
}
export async function addEquipment(ctx: Ctx, body: Body<'newEquipment'>): Promise<CustomerPaper> {
  const site = await siteById(ctx.tx, body.siteId)
  if (!site) throw notFound('site')
  await liveCustomer(ctx, site.customerId)
  await insertEquipment(ctx.tx, {
    id: body.id,
    siteId: body.siteId,
    category: body.category,
    make: body.make ?? '',
    serial: body.serial ?? '',
    installedOn: body.installedOn || null,
    warrantyUntil: body.warrantyUntil || null,
    nextServiceOn: body.nextServiceOn || null,
    note: body.note ?? '',
  })
  return done(
    ctx,
    site.customerId,
    customerFacts.equipmentAdded({ name: [body.make, body.category].filter(Boolean).join(' ') }),
  )
}
export async function changeEquipment(
  ctx: Ctx,
  id: string,
  body: Body<'changeEquipment'>,
): Promise<CustomerPaper> {
  const old = await equipmentById(ctx.tx, id, true)
  if (!old) throw notFound('equipment')
  const { version, ...values } = body
  if (old.version !== version) throw stale('equipment', old, body)
  const dates = Object.fromEntries(
    (['installedOn', 'warrantyUntil', 'nextServiceOn'] as const)
      .filter((k) => values[k] !== undefined)
      .map((k) => [k, values[k] || null]),
  )
  await updateRow(ctx.tx, 'equipment', { id, version }, { ...values, ...dates })
  return done(
    ctx,
    old.customerId,
    customerFacts.equipmentChanged({
      name: `${old.make} ${old.category}`.trim(),
      came: whatCame(values),
      change: { from: old, to: values },
    }),
  )
}

export async function addFile(call: Call, body: Body<'addFile'>): Promise<Answer<'addFile'>> {
  const sent = fromBase64(body.data)
  const kind = kindOf(sent, [...PICTURES, 'application/pdf'])
  const file = kind === 'application/pdf' ? { mime: kind, bytes: sent } : await redraw(sent)
  return call.once((ctx) => keepFile(ctx, body, file))
}
async function keepFile(
  ctx: Ctx,
  body: Body<'addFile'>,
  { mime, bytes }: { mime: string; bytes: Buffer },
): Promise<Answer<'addFile'>> {
  if (body.customerId) await liveCustomer(ctx, body.customerId)
  await insertFile(ctx.tx, {
    id: body.id,
    customerId: body.customerId,
    callId: body.callId,
    name: body.name,
    mime,
    bytes,
    by: signedIn(ctx).id,
    at: ctx.now,
  })
  await record(ctx, {
    subject: body.customerId ? 'customer' : 'call',
    id: body.customerId ?? body.callId ?? body.id,
    customerId: body.customerId,
    fact: customerFacts.fileAdded({ name: body.name }),
  })
  return { id: body.id }
}
export async function readFile(ctx: Ctx, id: string): Promise<Raw> {
  const file = await fileById(ctx.tx, id)
  if (!file) throw notFound('file')
  return new Raw(file.mime, file.bytes, file.name)
}
