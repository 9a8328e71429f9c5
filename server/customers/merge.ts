// Two customers that are one: merged, and taken apart again.
import { customerFacts } from './facts'
import { conflict, notFound } from '../../core/errors/LedgerError'
import { transferEntry } from '../../core/ledger/entries'
import type { Body } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
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

/** What the kept customer becomes: its own values, the other's where it has none or where they were chosen. */
function mergedValues(kept: CustomerRow, other: CustomerRow, take: string[]): Partial<CustomerRow> {
  const values: Partial<CustomerRow> = {}
  for (const field of Object.keys(FIELDS) as Field[]) {
    if (
      other[field] !== '' &&
      other[field] !== kept[field] &&
      (kept[field] === '' || take.includes(field))
    )
      values[field] = other[field]
  }
  const tags = [...new Set([...kept.tags, ...other.tags])]
  if (tags.length !== kept.tags.length) values.tags = tags
  const custom = { ...other.custom, ...kept.custom }
  if (Object.keys(custom).length !== Object.keys(kept.custom).length) values.custom = custom
  if (kept.prospect && !other.prospect) values.prospect = false
  if (!kept.priceLevelId && other.priceLevelId) values.priceLevelId = other.priceLevelId
  // Whoever said no to being written to said it for both.
  for (const way of ['mailConsent', 'textConsent'] as const)
    if (other[way] === 'no' || (kept[way] === 'not asked' && other[way] !== 'not asked'))
      values[way] = other[way]
  return values
}
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
async function transfer(
  ctx: Ctx,
  kind: string,
  id: string,
  memo: string,
  from: string,
  to: string,
  balances: { account: 'receivable' | 'deposits'; amountMinor: number }[],
): Promise<void> {
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
export async function mergeCustomers(
  ctx: Ctx,
  keptId: string,
  body: Body<'merge'>,
): Promise<CustomerPaper> {
  const [kept, other] = await both(ctx, keptId, body.otherId, true)
  const balances = (await ledgerBalances(ctx.tx, other.id)).map((b) => ({
    account: b.account,
    amountMinor: b.sum,
  }))
  const movedIds: Record<string, string[]> = {}
  for (const table of moved.keys()) {
    movedIds[table] = await idsIn(ctx.tx, table, other.id)
    await moveRows(ctx.tx, table, movedIds[table], {
      from: other.id,
      to: kept.id,
    })
  }
  await transfer(
    ctx,
    'merge',
    body.id,
    `${other.name} into ${kept.name}`,
    other.id,
    kept.id,
    balances,
  )
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
      importId: body.id,
    })
  await updateRow(ctx.tx, 'customers', kept.id, kept.version, {
    ...values,
    search: customerSearch(after),
  })
  await updateRow(ctx.tx, 'customers', other.id, other.version, { mergedInto: kept.id })
  const keys = Object.keys(values) as (keyof CustomerRow)[]
  const pick = (c: CustomerRow) => Object.fromEntries(keys.map((k) => [k, c[k]]))
  await insertMerge(ctx.tx, {
    id: body.id,
    keptId: kept.id,
    mergedId: other.id,
    moved: movedIds,
    before: { kept: pick(kept), merged: pick(after) },
    by: signedIn(ctx).id,
    at: ctx.now,
  })
  await record(ctx, {
    subject: 'customer',
    id: kept.id,
    customerId: kept.id,
    fact: customerFacts.merged({
      name: other.name,
      otherId: other.id,
      moved: Object.fromEntries(Object.entries(moved).map(([t, ids]) => [t, ids.length])),
    }),
  })
  await record(ctx, {
    subject: 'customer',
    id: other.id,
    customerId: other.id,
    fact: customerFacts.mergedInto({ name: kept.name }),
  })
  customersChanged(ctx, [kept.id, other.id])
  return customerPaper(ctx, kept.id)
}
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
  await transfer(
    ctx,
    'merge undone',
    id,
    `${other.name} apart from ${kept.name}`,
    kept.id,
    other.id,
    balances,
  )
  await removeContactsOf(ctx.tx, id)
  // A field that somebody changed since keeps their change.
  const back = Object.fromEntries(
    Object.entries(merge.before.kept).filter(
      ([k]) =>
        JSON.stringify(kept[k as keyof CustomerRow]) === JSON.stringify(merge.before.merged[k]),
    ),
  )
  await updateRow(ctx.tx, 'customers', kept.id, kept.version, {
    ...back,
    search: customerSearch({ ...kept, ...back }),
  })
  await updateRow(ctx.tx, 'customers', other.id, other.version, { mergedInto: null })
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
