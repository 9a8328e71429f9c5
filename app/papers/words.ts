// The papers and their parts in words, and the document that a layout makes of an example.
import type { PaperDocument } from '~~/core/documents/paperDocument'
import { PAPER_COLUMNS, type PaperColumn, type PaperLayout } from '~~/core/documents/paperLayout'
import { PAPER_WORDS, type PaperKind } from '~~/core/documents/paperWords'
import { invoiceDocument } from '~~/core/invoices/invoiceDocument'
import { quoteDocument } from '~~/core/quotes/quoteDocument'
import { signedDocument } from '~~/core/visits/signedPaper'
import type { Answer } from '~~/shared/api'

export type Layout = Answer<'layouts'>['items'][number]
type Examples = Answer<'layoutExamples'>
export const KIND_WORDS: Readonly<Record<PaperKind, string>> = {
  quote: 'Quotes',
  invoice: 'Invoices',
  signed: 'What is signed',
}
export const COLUMN_WORDS: Readonly<Record<PaperColumn, string>> = {
  quantity: 'Quantity',
  each: 'Price of one',
  amount: 'Amount',
}
/** The words of a kind of paper, as they are usually said. */
export const usualWords = (kind: PaperKind): [word: string, usual: string][] =>
  Object.entries(PAPER_WORDS[kind])
/** In the order in which they stand on the paper. */
export const inOrder = (columns: readonly PaperColumn[]): PaperColumn[] =>
  PAPER_COLUMNS.filter((column) => columns.includes(column))
const FINGERPRINT = '…'
/** An example with a layout, as it would be read; null until the examples are there. */
export function drawn(
  kind: PaperKind,
  layout: PaperLayout,
  examples: Examples | null | undefined,
): PaperDocument | null {
  if (kind === 'quote') return examples?.quote ? quoteDocument({ ...examples.quote, layout }) : null
  if (kind === 'signed')
    return examples?.signed ? signedDocument({ ...examples.signed, layout }, FINGERPRINT) : null
  const invoice = examples?.invoice
  if (!invoice) return null
  const paid = { amount: '0', currency: invoice.currency }
  return invoiceDocument({ ...invoice, layout }, { paid, open: invoice.total })
}
