// How papers look and what they say: several for each kind, the usual one, one for a customer; a paper keeps its own.
import { layoutProblem, USUAL_LAYOUT, type PaperLayout } from '../../core/documents/paperLayout'
import type { PaperDocument } from '../../core/documents/paperDocument'
import { examplePapers } from '../../core/documents/examplePapers'
import type { PaperKind } from '../../core/documents/paperWords'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { invoiceDocument } from '../../core/invoices/invoiceDocument'
import { toMoney } from '../../core/money/formatMinor'
import { quoteDocument } from '../../core/quotes/quoteDocument'
import { signedDocument } from '../../core/visits/signedPaper'
import type { Answer, Body } from '../../shared/api'
import { drawing } from '../documents/drawn'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { Raw } from '../http/route'
import { settingFacts } from './facts'
import { lockFirm } from './firm.queries'
import {
  lastInvoice,
  lastQuote,
  lastSigned,
  layoutRows,
  putLayout,
  setOthersUnusual,
  type LayoutRow,
} from './layouts.queries'

/** What was not yet said of a layout when it was kept, is as usual. */
const wholeLayout = ({ layout }: LayoutRow): PaperLayout => ({ ...USUAL_LAYOUT, ...layout })
export async function layouts(ctx: Ctx): Promise<Answer<'layouts'>> {
  const rows = await layoutRows(ctx.tx)
  return { items: rows.map((row) => ({ ...row, layout: wholeLayout(row) })) }
}
export async function layoutNames(ctx: Ctx): Promise<Answer<'layoutNames'>> {
  const rows = await layoutRows(ctx.tx)
  return {
    items: rows
      .filter(({ retired }) => !retired)
      .map(({ id, kind, name, usual }) => ({ id, kind, name, usual })),
  }
}
/**
 * The layout of a paper that is made now: the one that was said for it, else that of whom it is for, else the usual one of
 * its kind. One that was said and put away meanwhile is refused: nothing goes out that looks otherwise than somebody chose.
 */
export async function layoutFor(
  ctx: Ctx,
  kind: PaperKind,
  { said, has }: { said?: string | null | undefined; has?: string | null } = {},
): Promise<PaperLayout | undefined> {
  const there = (await layoutRows(ctx.tx)).filter((one) => one.kind === kind && !one.retired)
  const of = (id: string | null | undefined) => there.find((one) => one.id === id)
  if (said && !of(said))
    throw invalid('layoutId', 'This layout was put away meanwhile. Choose another.')
  const found = of(said) ?? of(has) ?? there.find(({ usual }) => usual)
  return found && wholeLayout(found)
}
/** What a history keeps of one: all of it, so that it can be put back. */
export const keptOf = (row: LayoutRow) => ({
  ...wholeLayout(row),
  ...{ name: row.name, usual: row.usual, retired: row.retired },
})
export async function keepLayout(ctx: Ctx, body: Body<'keepLayout'>): Promise<Answer<'layouts'>> {
  await lockFirm(ctx.tx)
  const all = await layoutRows(ctx.tx)
  const old = all.find(({ id }) => id === body.id)
  if ((old?.version ?? 0) !== body.version)
    throw conflict('stale', 'Someone changed this layout in the meantime. Look at it again.', {
      current: await layouts(ctx),
    })
  if (old && old.kind !== body.kind) throw invalid('kind', 'A layout stays one of its paper.')
  const name = body.name.toLowerCase()
  if (all.some((one) => one !== old && one.kind === body.kind && one.name.toLowerCase() === name))
    throw invalid('name', 'Another layout of this paper is called so.')
  const { id, version: _, kind, name: called, usual, retired, ...looks } = body
  const layout = { ...looks, words: wordsSaid(looks.words) }
  const problem = layoutProblem(body.kind, layout)
  if (problem) throw invalid(problem.field, problem.message)
  if (body.usual && body.retired) throw invalid('retired', 'The usual layout cannot be put away.')
  const row = { id, kind, name: called, usual, retired, layout, version: 0 }
  await putLayout(ctx.tx, row)
  if (body.usual) await setOthersUnusual(ctx.tx, body.kind, body.id)
  await record(ctx, {
    ...{ subject: 'settings', id: ctx.id() },
    fact: settingFacts.layoutKept({
      ...{ id: body.id, kind: body.kind, name: body.name },
      changes: { layout: { from: old ? keptOf(old) : null, to: keptOf(row) } },
    }),
  })
  return layouts(ctx)
}
/** A word that was emptied is said as usual. */
const wordsSaid = (words: object): Record<string, string> =>
  Object.fromEntries(
    Object.entries(words as Record<string, string>).filter(([, said]) => said.trim() !== ''),
  )
/** The last paper of each kind, or, where none was made yet, one that shows what such a paper has. */
async function examples({ tx, company, today }: Ctx) {
  const made = examplePapers(company, today)
  const signed = await lastSigned(tx)
  return {
    quote: (await lastQuote(tx))?.paper ?? made.quote,
    invoice: (await lastInvoice(tx))?.paper ?? made.invoice,
    signed: signed?.paper ?? made.signed,
  }
}
export const layoutExamples = (ctx: Ctx) => examples(ctx) as Promise<Answer<'layoutExamples'>>
const FINGERPRINT = '0'.repeat(64)
async function exampleOf(ctx: Ctx, kind: PaperKind, layout: PaperLayout): Promise<PaperDocument> {
  const { quote, invoice, signed } = await examples(ctx)
  if (kind === 'quote') return quoteDocument({ ...quote, layout })
  if (kind === 'signed') return signedDocument({ ...signed, layout }, FINGERPRINT)
  const open = invoice.total
  return invoiceDocument({ ...invoice, layout }, { paid: toMoney(0, invoice.currency), open })
}
export async function layoutPdf(ctx: Ctx, id: string): Promise<Raw> {
  const found = (await layoutRows(ctx.tx)).find((one) => one.id === id)
  if (!found) throw notFound('layout')
  const paper = await exampleOf(ctx, found.kind, wholeLayout(found))
  return new Raw('application/pdf', await drawing(ctx, paper), 'example.pdf')
}
