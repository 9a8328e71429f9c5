// Who is calling: matches over names, numbers and addresses with what they owe; new customers; changes.
import { conflict, notFound } from '../../core/errors/LedgerError'
import { toMoney } from '../../core/money/formatMinor'
import { paidNet } from '../../core/costing/paidNet'
import { daysLate } from '../../core/collections/ageing'
import { termsInWords } from '../../core/documents/dueDate'
import { sayDay } from '../../core/time/zone'
import { digits, searchKey } from '../../core/text/searchKey'
import type { Answer, Body, Query } from '../../shared/api'
import type { Ctx } from '../http/context'
import { pageOf, paging } from '../http/paging'
import { historyOf, record } from '../http/queries'
import { billedSums, workOfCustomer, workSums } from '../visits/queries'
import { agreementsOf, candidates, contactsOf, customerById, customerPage, customersById, equipmentOf, insertCustomer, insertSite, lastVisitOf, levels, middleOf, openWorkOf, owedBy, sitesOf, updateCustomer } from './queries'

type Match = Answer<'newCustomer'>
export const customerSearch = (c: { name: string, phone: string, phone2?: string, email: string, email2: string, line1: string, town: string, postcode: string }) =>
  `${searchKey([c.name, c.email, c.email2, c.line1, c.town, c.postcode].join(' '))} ${digits(c.phone)} ${digits(c.phone2 ?? '')}`
export const siteSearch = (s: { name: string, line1: string, town: string, postcode: string }) => searchKey([s.name, s.line1, s.town, s.postcode].join(' '))

/** Customers that the typed words could mean, best first: the words' beginnings count more than their middles. */
export async function findMatches(ctx: Ctx, q: string): Promise<{ items: Match[] }> {
  const number = /^[\d\s().+-]{4,}$/.test(q) ? digits(q) : ''
  const wanted = number ? [number] : searchKey(q).split(' ').filter(Boolean).slice(0, 6)
  if (wanted.length === 0) return { items: [] }
  const found = await candidates(ctx.tx, wanted, 40)
  const best = new Map<string, { siteId: string | null, why: string, points: number }>()
  for (const f of found) {
    const points = { customer: 4, contact: 3, site: 3, both: 2 }[f.why] ?? 0
    const known = best.get(f.customerId)
    if (!known || points > known.points) best.set(f.customerId, { siteId: f.siteId ?? known?.siteId ?? null, why: f.why, points })
    // Words that the customer alone answers say nothing about which site is meant.
    else if (!known.siteId && f.siteId && known.why !== 'customer') known.siteId = f.siteId
  }
  const items = await matchesOf(ctx, [...best.keys()], best)
  const starts = (name: string) => (searchKey(name).split(' ').some(word => wanted.some(w => word.startsWith(w))) ? 2 : 0) + (searchKey(name).startsWith(wanted[0]!) ? 1 : 0)
  return { items: items.sort((a, b) => (best.get(b.customerId)!.points + starts(b.name)) - (best.get(a.customerId)!.points + starts(a.name)) || (a.name < b.name ? -1 : 1)).slice(0, 8) }
}

async function matchesOf(ctx: Ctx, ids: string[], best: Map<string, { siteId: string | null, why: string }>): Promise<Match[]> {
  if (ids.length === 0) return []
  const { tx, today } = ctx
  const [customers, sites, owed, work, last, agreements, equipment] = [
    await customersById(tx, ids), await sitesOf(tx, ids), await owedBy(tx, ids, today), await openWorkOf(tx, ids), await lastVisitOf(tx, ids), await agreementsOf(tx, ids, today), await equipmentOf(tx, ids),
  ]
  return customers.map((c) => {
    const mine = <T extends { customerId: string }>(rows: T[]) => rows.filter(r => r.customerId === c.id)
    const own = mine(sites)
    const siteId = best.get(c.id)?.siteId ?? (own.length === 1 ? own[0]!.id : null)
    const site = own.find(s => s.id === siteId)
    const debt = mine(owed)[0]
    const visit = mine(last)[0]
    const agreement = mine(agreements)[0]
    return {
      customerId: c.id, siteId, name: c.name, phone: c.phone, email: c.email, why: best.get(c.id)?.why ?? 'customer',
      place: site ? [site.name, site.line1, site.town].filter(Boolean).join(', ') : own.length > 1 ? `${own.length} sites` : [c.line1, c.town].filter(Boolean).join(', '),
      owed: toMoney(debt?.owed ?? 0, ctx.company.currency), late: debt?.oldest ? daysLate(debt.oldest, today) : 0,
      openWork: mine(work).slice(0, 6).map(({ id, number, title, state }) => ({ id, number, title, state })),
      stopWork: c.stopWork, officeNote: c.officeNote, tag: c.tag, exempt: c.taxExempt,
      agreement: agreement ? `${agreement.plan}${agreement.visitDueOn ? `, visit due by ${sayDay(agreement.visitDueOn)}` : ''}` : '',
      equipment: mine(equipment).filter(e => !siteId || e.siteId === siteId).slice(0, 6).map(e => `${e.make} ${e.category}${e.installedOn ? ` (${e.installedOn.slice(0, 4)})` : ''}`.trim()),
      lastVisit: visit ? `${daysLate(visit.on, today) === 0 ? 'today' : daysLate(visit.on, today) === 1 ? 'yesterday' : `${daysLate(visit.on, today)} days ago`}, ${visit.title}` : '',
      sites: own.map(({ customerId: _customer, ...s }) => s),
    }
  })
}

export async function addCustomer(ctx: Ctx, body: Body<'newCustomer'>): Promise<Match> {
  const { tx } = ctx
  await insertCustomer(tx, { ...body, search: customerSearch(body), now: ctx.now })
  const middle = await middleOf(tx, body.town, body.postcode)
  await insertSite(tx, { id: body.siteId, customerId: body.id, name: '', line1: body.line1, town: body.town, postcode: body.postcode, lat: middle?.lat ?? ctx.company.yardLat, lon: middle?.lon ?? ctx.company.yardLon, accessNote: '', search: siteSearch({ ...body, name: '' }) })
  await record(ctx, { subject: 'customer', id: body.id, customerId: body.id, text: `Customer ${body.name} added` })
  return (await matchesOf(ctx, [body.id], new Map([[body.id, { siteId: body.siteId, why: 'new' }]])))[0]!
}

export async function listCustomers(ctx: Ctx, query: Query<'customers'>): Promise<Answer<'customers'>> {
  const p = paging(query, ['name', 'town'], 'name')
  const { rows, total } = await customerPage(ctx.tx, { ...p, q: query.q ? searchKey(query.q) : '', owing: query.owing === 'yes', today: ctx.today })
  const owed = new Map((await owedBy(ctx.tx, rows.map(r => r.id), ctx.today)).map(o => [o.customerId, o]))
  return pageOf(rows, total, p.limit, r => ({
    id: r.id, name: r.name, phone: r.phone, email: r.email, town: r.town, tag: r.tag, sites: r.sites, prospect: Boolean(r.prospect),
    owed: toMoney(owed.get(r.id)?.owed ?? 0, ctx.company.currency), late: owed.get(r.id)?.oldest ? daysLate(owed.get(r.id)!.oldest!, ctx.today) : 0,
  }))
}

export async function customerPaper(ctx: Ctx, id: string): Promise<Answer<'customer'>> {
  const { tx, company } = ctx
  const c = await customerById(tx, id)
  if (!c) throw notFound('customer')
  const m = (minor: number) => toMoney(minor, company.currency)
  const work = (await workSums(tx, id))!
  const bills = await billedSums(tx, id)
  const columns = { ...work, billed: bills.reduce((sum, b) => sum + b.netMinor, 0), paid: bills.reduce((sum, b) => sum + paidNet(b), 0) }
  const owed = (await owedBy(tx, [id], ctx.today))[0]
  const level = (await levels(tx)).find(l => l.id === c.priceLevelId)
  return {
    id, version: c.version, name: c.name, phone: c.phone, phone2: c.phone2, email: c.email, email2: c.email2, line1: c.line1, town: c.town, postcode: c.postcode, terms: termsInWords(c.terms ?? company.terms),
    level: level?.name ?? '', exempt: c.taxExempt, certificate: c.certificate, officeNote: c.officeNote, tag: c.tag, stopWork: c.stopWork, prospect: c.prospect,
    promised: m(columns.promised), done: m(columns.done), billed: m(columns.billed), paid: m(columns.paid), owed: m(owed?.owed ?? 0),
    sites: (await sitesOf(tx, [id])).map(({ customerId: _customer, ...s }) => s), contacts: await contactsOf(tx, id),
    equipment: (await equipmentOf(tx, [id])).map(({ customerId: _customer, ...e }) => e),
    work: (await workOfCustomer(tx, id)).map(w => ({ id: w.id, number: w.number, title: w.title, state: w.state, on: w.on, toBill: m(w.toBill) })),
    history: await historyOf(tx, 'customer_id', id),
  }
}

export async function changeCustomer(ctx: Ctx, id: string, body: Body<'changeCustomer'>): Promise<Answer<'customer'>> {
  const old = await customerById(ctx.tx, id, true)
  if (!old) throw notFound('customer')
  const { version, ...wanted } = body
  const values = Object.fromEntries(Object.entries(wanted).filter(([, v]) => v !== undefined)) as Record<string, string>
  if (old.version !== version) throw conflict('stale', 'Someone changed this customer in the meantime.', { current: await customerPaper(ctx, id), yours: values })
  const merged = { ...old, ...values }
  await updateCustomer(ctx.tx, id, version, { ...values, search: customerSearch(merged) })
  const changed = Object.keys(values).filter(k => values[k] !== (old as unknown as Record<string, unknown>)[k])
  await record(ctx, { subject: 'customer', id, customerId: id, text: `Changed ${changed.join(', ') || 'nothing'}`, data: Object.fromEntries(changed.map(k => [k, { from: (old as unknown as Record<string, unknown>)[k], to: values[k] }])) })
  return customerPaper(ctx, id)
}
