// Acts on customers: entered, changed.
import { giveTask } from '../tasks/commands'
import { customerFacts } from './facts'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { decimalToMinor, minorToDecimal } from '../../core/money/formatMinor'
import type { Terms } from '../../core/documents/dueDate'
import { formatPhone } from '../../core/text/phone'
import type { Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import type { Change } from '../http/facts'
import { record } from '../http/queries'
import { checkFields } from '../settings/fields'
import { customersChanged } from './matching'
import { customerById, insertCustomer, updateRow, type CustomerRow } from './queries'
import { insertSite } from './places.queries'
import { middleOf } from './postcodes'
import { callerOf } from './callers'
import { customerSearch, siteSearch } from './search'
import type { Caller, CustomerPaper } from './shapes'
import { customerPaper } from './views'

export async function addCustomer(ctx: Ctx, body: Body<'newCustomer'>): Promise<Caller> {
  const { tx, company } = ctx
  const c = {
    ...body,
    phone: formatPhone(body.phone, company.country),
    phone2: formatPhone(body.phone2, company.country),
  }
  await insertCustomer(tx, { ...c, search: customerSearch(c), now: ctx.now })
  const middle = await middleOf(tx, body.town, body.postcode)
  const site = { name: '', line1: body.line1, town: body.town, postcode: body.postcode }
  await insertSite(tx, {
    ...site,
    id: body.siteId,
    customerId: body.id,
    lat: middle?.lat ?? null,
    lon: middle?.lon ?? null,
    accessNote: '',
    search: siteSearch(site),
  })
  await record(ctx, {
    subject: 'customer',
    id: body.id,
    customerId: body.id,
    fact: customerFacts.entered({
      name: body.name,
      prospect: body.prospect,
      source: body.source,
    }),
  })
  customersChanged(ctx, [body.id])
  return callerOf(ctx, body.id)
}
export async function changeCustomer(
  ctx: Ctx,
  id: string,
  body: Body<'changeCustomer'>,
): Promise<CustomerPaper> {
  const old = await customerById(ctx.tx, id, true)
  if (!old || old.erasedAt) throw notFound('customer')
  if (old.version !== body.version)
    throw conflict('stale', 'Someone changed this customer in the meantime.', {
      current: await customerPaper(ctx, id),
      yours: body,
    })
  if (body.terms) checkTerms(body.terms)
  await checkFields(ctx, 'customer', body.custom, old.custom)
  const values = valuesOf(ctx, body)
  const search = customerSearch({ ...old, ...values })
  await updateRow(ctx.tx, 'customers', old, { ...values, search })
  const fact = customerFacts.changed({ changes: differences(old, values, ctx.company.currency) })
  await record(ctx, { subject: 'customer', id, customerId: id, fact })
  // Whoever has it has something to do, and sees it on their first page.
  const { assignedTo } = values
  if (old.prospect && assignedTo && assignedTo !== old.assignedTo)
    await giveTask(ctx, {
      ...{ id: ctx.id(), about: 'customer', subjectId: id, ownerId: assignedTo, on: null },
      what: 'Look after this prospect: visit or quote',
    })
  customersChanged(ctx, [id])
  return customerPaper(ctx, id)
}
/** What was sent, as it is kept; what was not sent stays. */
function valuesOf(ctx: Ctx, body: Body<'changeCustomer'>): Partial<CustomerRow> {
  const { country, currency } = ctx.company
  const { version: _version, levelId, exempt, creditLimit, ownPrices, terms, ...plain } = body
  const phone = (typed: string | undefined) =>
    typed === undefined ? undefined : formatPhone(typed, country)
  // An emptied limit is none.
  const limitOf = (limit: string | null) => (limit ? decimalToMinor(limit, currency) : null)
  const values = {
    ...plain,
    phone: phone(plain.phone),
    phone2: phone(plain.phone2),
    priceLevelId: levelId,
    taxExempt: exempt,
    terms,
    creditLimit: creditLimit === undefined ? undefined : limitOf(creditLimit),
    ownPrices: ownPrices && Object.fromEntries(ownPrices.map((p) => [p.entryId, p.price])),
    exemptUntil: plain.exemptUntil === '' ? null : plain.exemptUntil,
  }
  return Object.fromEntries(Object.entries(values).filter(([, v]) => v !== undefined))
}
/** What differs from what was kept, before and after. */
function differences(
  old: CustomerRow,
  values: Partial<CustomerRow>,
  currency: string,
): Record<string, Change> {
  const keys = Object.keys(values) as (keyof CustomerRow)[]
  const changed = keys.filter((k) => JSON.stringify(values[k]) !== JSON.stringify(old[k]))
  const said = (k: keyof CustomerRow, value: unknown) =>
    k === 'creditLimit' && typeof value === 'number' ? minorToDecimal(value, currency) : value
  return Object.fromEntries(
    changed.map((k) => [k, { from: said(k, old[k]), to: said(k, values[k]) }]),
  )
}
function checkTerms(terms: {
  kind: string
  days?: number | undefined
  day?: number | undefined
}): asserts terms is Terms {
  if ((terms.kind === 'days' || terms.kind === 'month_end') && terms.days === undefined)
    throw invalid('terms.days', 'Say how many days.')
  if (terms.kind === 'next_month_day' && terms.day === undefined)
    throw invalid('terms.day', 'Say which day of the month.')
}
