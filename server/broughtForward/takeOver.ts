// Open items taken over for good: who is new, invoices, credits, all of it in the books; and taken back.
import { broughtPaper } from '../../core/broughtForward/broughtPaper'
import type { OpenItem } from '../../core/broughtForward/openItem'
import { letterheadOf } from '../../core/documents/letterhead'
import { conflict, notFound } from '../../core/errors/LedgerError'
import { broughtInvoiceEntry, paymentEntry, reversal } from '../../core/ledger/entries'
import type { Answer, Body } from '../../shared/api'
import {
  customersChanged,
  importById,
  insertCustomer,
  putImport,
  removeImported,
} from '../customers/index'
import { customerSearch } from '../customers/search'
import { hashToken, linkToken } from '../access/session'
import { signedIn, type Ctx } from '../http/context'
import { record } from '../http/queries'
import { insertBrought, removeBrought } from '../invoices/index'
import { LINK_MS } from '../invoices/link'
import { postEach } from '../ledger/queries'
import { insertCredits, removeCredits } from '../payments/index'
import { broughtFacts } from './facts'
import type { Payer } from './payers'
import { broughtBy } from './queries'

export interface Taken {
  item: OpenItem
  payer: Payer
}
export async function takeOver(
  ctx: Ctx,
  importId: string,
  { on, fileName }: Pick<Body<'bringOpenItems'>, 'on' | 'fileName'>,
  { taken, skipped }: { taken: readonly Taken[]; skipped: number },
): Promise<void> {
  const counts = { added: taken.length, skipped }
  const by = signedIn(ctx).id
  await putImport(ctx.tx, { id: importId, what: 'brought', fileName, ...counts, by, at: ctx.now })
  const made = [...new Map(taken.map(({ payer }) => [payer.id, payer])).values()]
  for (const payer of made.filter(({ isNew }) => isNew)) await makePayer(ctx, importId, payer)
  const of = { importId, on, by, now: ctx.now }
  const invoices = taken.filter(({ item }) => item.openMinor > 0)
  const credits = taken.filter(({ item }) => item.openMinor < 0)
  await takeInvoices(ctx, of, invoices)
  await takeCredits(ctx, of, credits)
  const fact = broughtFacts.taken({
    file: fileName,
    ...{ invoices: invoices.length, credits: credits.length },
  })
  await record(ctx, { subject: 'import', id: importId, fact })
  customersChanged(
    ctx,
    made.map(({ id }) => id),
  )
}
const makePayer = (ctx: Ctx, importId: string, { isNew: _, ...payer }: Payer) =>
  insertCustomer(ctx.tx, {
    ...{ ...payer, importId, source: 'import', now: ctx.now },
    search: customerSearch({ ...payer, tags: [] }),
  })
interface Of {
  importId: string
  on: string
  by: string
  now: number
}
/** Its customer can look at it and pay, as at any other. */
const withLink = (id: string) => ({ id, tokenHash: hashToken(linkToken('invoice', id)) })
async function takeInvoices({ tx, company, id }: Ctx, of: Of, taken: Taken[]): Promise<void> {
  const seller = letterheadOf(company)
  const invoices = taken.map(({ item, payer }) => ({
    ...withLink(id()),
    ...{ customerId: payer.id, currency: company.currency },
    ...{ totalMinor: item.totalMinor, openMinor: item.openMinor },
    paper: broughtPaper({ item, buyer: payer, seller, firm: company }),
  }))
  if (!invoices.length) return
  await insertBrought(tx, { ...of, linkUntil: of.now + LINK_MS }, invoices)
  await postEach(
    tx,
    { on: of.on, kind: 'invoice', at: of.now },
    invoices.map((i) => ({
      ...{ sourceId: i.id, customerId: i.customerId },
      memo: `${i.paper.number} ${i.paper.buyer.name}, brought forward`,
      postings: broughtInvoiceEntry(i.openMinor),
    })),
  )
}
async function takeCredits({ tx, id }: Ctx, of: Of, taken: Taken[]): Promise<void> {
  const credits = taken.map(({ item, payer }) => ({
    ...{ id: id(), number: item.number, customerId: payer.id, name: payer.name },
    ...{ amountMinor: -item.openMinor, issuedOn: item.issuedOn },
  }))
  if (!credits.length) return
  await insertCredits(tx, of, credits)
  await postEach(
    tx,
    { on: of.on, kind: 'payment', at: of.now },
    credits.map((c) => ({
      ...{
        sourceId: c.id,
        customerId: c.customerId,
        memo: `${c.number} ${c.name}, brought forward`,
      },
      postings: creditPostings(c.amountMinor),
    })),
  )
}
const creditPostings = (amountMinor: number) =>
  paymentEntry({ account: 'opening', amountMinor, appliedMinor: 0 })

/** Takes an import back. What was paid, written about or used since stays. */
export async function undoOpenItems(ctx: Ctx, id: string): Promise<Answer<'undoOpenItems'>> {
  const known = await importById(ctx.tx, id)
  if (known?.what !== 'brought') throw notFound('import')
  if (known.undoneAt) throw conflict('undone_already', 'This import has been taken back already.')
  const before = await broughtBy(ctx.tx, id)
  const invoices = await removeBrought(ctx.tx, id)
  const gone = await removeCredits(ctx.tx, id)
  await postEach(ctx.tx, { on: ctx.today, kind: 'brought undone', at: ctx.now }, [
    ...invoices.map((i) => ({
      ...{ sourceId: i.id, customerId: i.customerId, memo: `${i.number}, taken back` },
      postings: reversal(broughtInvoiceEntry(i.open)),
    })),
    ...gone.map((c) => ({
      ...{ sourceId: c.id, customerId: c.customerId, memo: `${c.number}, taken back` },
      postings: reversal(creditPostings(c.amount)),
    })),
  ])
  customersChanged(ctx, await removeImported(ctx.tx, id, ctx.now))
  const removed = invoices.length + gone.length
  const kept = before - removed
  const fact = broughtFacts.takenBack({ file: known.fileName, removed, stay: kept })
  await record(ctx, { subject: 'import', id, fact })
  return { removed, kept }
}
