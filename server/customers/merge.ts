// Two customers that are one: merged, and taken apart again.
import { customerFacts } from './facts'
import { conflict, notFound } from '../../core/errors/LedgerError'
import { transferEntry } from '../../core/ledger/entries'
import type { Body } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import type { Fact } from '../http/facts'
import { record } from '../http/queries'
import { post } from '../ledger/queries'
import { allocationsOf, paymentsTouching } from '../payments/queries'
import { customersChanged } from './matching'
import {
  idsIn,
  insertMerge,
  ledgerBalances,
  markUndone,
  mergeById,
  moveRows,
  openOfInvoices,
  unappliedOfPayments,
} from './merge.queries'
import { customerById, updateRow, type CustomerRow } from './queries'
import { insertContact, removeContactsOf } from './places.queries'
import { customerPaper } from './views'
import { customerSearch } from './search'
import type { CustomerPaper } from './shapes'
import { moved } from '../subjects'
import type { Field } from './mergePreview'
import { FIELDS, both } from './mergePreview'

/** Fields that are the other's: where the kept one has none, or where they were chosen. */
function fieldsTaken(kept: CustomerRow, other: CustomerRow, take: string[]): Partial<CustomerRow> {
  const taken = (Object.keys(FIELDS) as Field[]).filter(
    (f) => other[f] !== '' && other[f] !== kept[f] && (kept[f] === '' || take.includes(f)),
  )
  return Object.fromEntries(taken.map((f) => [f, other[f]]))
}
/** What both have of a kind that grows together; nothing where the kept one has all of it. */
function grown(kept: CustomerRow, other: CustomerRow): Partial<CustomerRow> {
  const tags = [...new Set([...kept.tags, ...other.tags])]
  const custom = { ...other.custom, ...kept.custom }
  return {
    ...(tags.length === kept.tags.length ? {} : { tags }),
    ...(Object.keys(custom).length === Object.keys(kept.custom).length ? {} : { custom }),
  }
}
/** Whoever said no to being written to said it for both. */
function consents(kept: CustomerRow, other: CustomerRow): Partial<CustomerRow> {
  const follows = (way: 'mailConsent' | 'textConsent') =>
    other[way] === 'no' || (kept[way] === 'not asked' && other[way] !== 'not asked')
  return {
    ...(follows('mailConsent') ? { mailConsent: other.mailConsent } : {}),
    ...(follows('textConsent') ? { textConsent: other.textConsent } : {}),
  }
}
/** What the kept customer becomes. */
const mergedValues = (
  kept: CustomerRow,
  other: CustomerRow,
  take: string[],
): Partial<CustomerRow> => ({
  ...fieldsTaken(kept, other, take),
  ...grown(kept, other),
  ...(kept.prospect && !other.prospect ? { prospect: false } : {}),
  ...(!kept.priceLevelId && other.priceLevelId ? { priceLevelId: other.priceLevelId } : {}),
  quoteLayoutId: kept.quoteLayoutId ?? other.quoteLayoutId,
  invoiceLayoutId: kept.invoiceLayoutId ?? other.invoiceLayoutId,
  ...consents(kept, other),
})
/** Numbers and mail addresses that have no place left become a contact: nothing is lost. */
function leftOver(
  kept: CustomerRow,
  other: CustomerRow,
): { phone: string; phone2: string; email: string } | null {
  const has = [kept.phone, kept.phone2, kept.email, kept.email2]
  const phones = [other.phone, other.phone2].filter((p) => p && !has.includes(p))
  const [email = ''] = [other.email, other.email2].filter((m) => m && !has.includes(m))
  return phones.length || email ? { phone: phones[0] ?? '', phone2: phones[1] ?? '', email } : null
}
interface Transfer {
  kind: 'merge' | 'merge undone'
  id: string
  memo: string
  from: string
  to: string
  balances: { account: 'receivable' | 'deposits'; amountMinor: number }[]
}
/** What one owes, or has to its credit, becomes the other's in the books. */
async function transfer(ctx: Ctx, { kind, id, memo, from, to, balances }: Transfer): Promise<void> {
  const postings = transferEntry(balances)
  if (postings.length)
    await post(ctx.tx, {
      on: ctx.today,
      kind,
      sourceId: id,
      memo,
      customerId: null,
      at: ctx.now,
      postings: postings.map((p) => ({
        account: p.account,
        amountMinor: p.amountMinor,
        customerId: p.side === 'from' ? from : to,
      })),
    })
}
/** Everything that names the other customer names the kept one; answers which rows those are, table by table. */
async function moveAll(
  ctx: Ctx,
  { from, to }: { from: string; to: string },
): Promise<Record<string, string[]>> {
  const rows: Record<string, string[]> = {}
  for (const table of moved.keys()) {
    rows[table] = await idsIn(ctx.tx, table, from)
    await moveRows(ctx.tx, table, rows[table], { from, to })
  }
  return rows
}
export async function mergeCustomers(
  ctx: Ctx,
  keptId: string,
  body: Body<'merge'>,
): Promise<CustomerPaper> {
  const { id } = body
  const [kept, other] = await both(ctx, keptId, body.otherId, true)
  const ways = { from: other.id, to: kept.id }
  const balances = (await ledgerBalances(ctx.tx, other.id)).map((b) => ({
    account: b.account,
    amountMinor: b.sum,
  }))
  const rows = await moveAll(ctx, ways)
  const memo = `${other.name} into ${kept.name}`
  await transfer(ctx, { kind: 'merge', id, memo, ...ways, balances })
  const values = mergedValues(kept, other, body.take)
  const after = { ...kept, ...values }
  const extra = leftOver(after, other)
  if (extra)
    await insertContact(ctx.tx, {
      id: ctx.id(),
      customerId: kept.id,
      siteId: null,
      name: other.name,
      role: 'from the merge',
      ...extra,
      importId: id,
    })
  await updateRow(ctx.tx, 'customers', kept, { ...values, search: customerSearch(after) })
  await updateRow(ctx.tx, 'customers', other, { mergedInto: kept.id })
  const keys = Object.keys(values) as (keyof CustomerRow)[]
  const pick = (c: CustomerRow) => Object.fromEntries(keys.map((k) => [k, c[k]]))
  await insertMerge(ctx.tx, {
    id,
    keptId: kept.id,
    mergedId: other.id,
    moved: rows,
    before: { kept: pick(kept), merged: pick(after) },
    by: signedIn(ctx).id,
    at: ctx.now,
  })
  const counts = Object.fromEntries(Object.entries(rows).map(([t, ids]) => [t, ids.length]))
  await noteOn(
    ctx,
    kept.id,
    customerFacts.merged({ name: other.name, otherId: other.id, moved: counts }),
  )
  await noteOn(ctx, other.id, customerFacts.mergedInto({ name: kept.name }))
  customersChanged(ctx, [kept.id, other.id])
  return customerPaper(ctx, kept.id)
}
const noteOn = (ctx: Ctx, id: string, fact: Fact) =>
  record(ctx, { subject: 'customer', id, customerId: id, fact })
/**
 * The payments that go back with their invoices: those that moved, and those that came since. One that
 * paid for both sides belongs to neither alone.
 */
async function paymentsToMove(ctx: Ctx, moved: string[], invoiceIds: string[]): Promise<string[]> {
  const invoices = new Set(invoiceIds)
  const ids = new Set(moved)
  for (const payment of await paymentsTouching(ctx.tx, invoiceIds)) {
    if (ids.has(payment.id)) continue
    const paid = await allocationsOf(ctx.tx, payment.id)
    if (paid.some((a) => !invoices.has(a.invoiceId)))
      throw conflict(
        'paid_together',
        `${payment.number} paid invoices of both. Take the payment back first.`,
      )
    ids.add(payment.id)
  }
  return [...ids]
}
/** What moved goes back with what has happened to it since; what came after the merge stays where it was made. */
export async function undoMerge(ctx: Ctx, id: string): Promise<CustomerPaper> {
  const merge = await mergeById(ctx.tx, id)
  if (!merge) throw notFound('merge')
  if (merge.undoneAt) throw conflict('undone_already', 'This merge has been taken apart already.')
  const kept = (await customerById(ctx.tx, merge.keptId, true))!
  const other = (await customerById(ctx.tx, merge.mergedId, true))!
  if (kept.mergedInto || kept.erasedAt || other.erasedAt)
    throw conflict(
      'too_late',
      'Something happened to these customers since that cannot be taken back.',
    )
  const invoiceIds = merge.moved.invoices ?? []
  const paymentIds = await paymentsToMove(ctx, merge.moved.payments ?? [], invoiceIds)
  const ids = new Map(Object.entries({ ...merge.moved, payments: paymentIds }))
  const balances = [
    {
      account: 'receivable' as const,
      amountMinor: await openOfInvoices(ctx.tx, invoiceIds),
    },
    {
      account: 'deposits' as const,
      amountMinor: -(await unappliedOfPayments(ctx.tx, paymentIds)),
    },
  ]
  for (const table of moved.keys())
    await moveRows(ctx.tx, table, ids.get(table) ?? [], { from: kept.id, to: other.id })
  const memo = `${other.name} apart from ${kept.name}`
  const ways = { from: kept.id, to: other.id }
  await transfer(ctx, { kind: 'merge undone', id, memo, ...ways, balances })
  await removeContactsOf(ctx.tx, id)
  // A field that somebody changed since keeps their change.
  const back = Object.fromEntries(
    Object.entries(merge.before.kept).filter(
      ([k]) =>
        JSON.stringify(kept[k as keyof CustomerRow]) === JSON.stringify(merge.before.merged[k]),
    ),
  )
  await updateRow(ctx.tx, 'customers', kept, {
    ...back,
    search: customerSearch({ ...kept, ...back }),
  })
  await updateRow(ctx.tx, 'customers', other, { mergedInto: null })
  await markUndone(ctx.tx, id, ctx.now)
  for (const c of [kept, other])
    await record(ctx, {
      subject: 'customer',
      id: c.id,
      customerId: c.id,
      fact: customerFacts.mergeUndone({ name: other.name, into: kept.name }),
    })
  customersChanged(ctx, [kept.id, other.id])
  return customerPaper(ctx, kept.id)
}
