// The book on paper, to be shown at a table: by category, at the firm's prices, at those of levels, or both beside each other, with pictures where they are wanted.
import type { Content, TableCell } from 'pdfmake/interfaces'
import { invalid, notFound } from '../../core/errors/LedgerError'
import { toMoney } from '../../core/money/formatMinor'
import { roundToMinor } from '../../core/money/roundToMinor'
import { categoryTree, inCategory } from '../../core/pricebook/inCategory'
import type { Query } from '../../shared/api'
import { levels, type LevelRow } from '../customers/queries'
import { sayDay } from '../../core/time/sayDay'
import { makePdf, runs, numbered } from '../documents/makePdf'
import { paperSize } from '../../core/documents/paperSize'
import type { Ctx } from '../http/context'
import { redraw } from '../http/pictures'
import { Raw } from '../http/route'
import type { EntryRow } from './queries'
import { descriptionsOf } from './names.queries'
import { pictureById } from './pictures.queries'
import { book, savingOf } from './service'
import { sayMoney } from '../../core/money/sayMoney'

const MOST_PICTURES = 120
const MOST_LEVELS = 3
const GREY = '#4a5a54'
type Drawn = ReadonlyMap<string, string>
type Column = LevelRow | null
/** What is printed: the entries, what each is about, and whose prices stand in the columns (null is ours). */
interface Printed {
  ctx: Ctx
  entries: readonly EntryRow[]
  words: ReadonlyMap<string, string>
  columns: readonly Column[]
  inside: Awaited<ReturnType<typeof book>>['inside']
}
async function columnsOf(ctx: Ctx, query: Query<'bookPdf'>): Promise<Column[]> {
  const known = await levels(ctx.tx)
  const ids = [...new Set((query.levels ?? '').split(',').filter(Boolean))]
  const wanted = ids.map((id) => known.find((l) => l.id === id))
  if (wanted.includes(undefined)) throw notFound('price level')
  if (wanted.length > MOST_LEVELS)
    throw invalid('levels', `Not more than ${MOST_LEVELS} levels fit beside each other.`)
  if (query.ours === 'no' && !wanted.length)
    throw invalid('levels', 'Choose a level, or show our prices.')
  return [...(query.ours === 'no' ? [] : [null]), ...(wanted as LevelRow[])]
}
async function picturesOf(ctx: Ctx, entries: readonly EntryRow[]): Promise<Map<string, Buffer>> {
  const pictures = new Map<string, Buffer>()
  for (const { id, pictureId } of entries) {
    if (!pictureId || pictures.size >= MOST_PICTURES) continue
    const picture = await pictureById(ctx.tx, pictureId)
    if (picture) pictures.set(id, picture.bytes)
  }
  return pictures
}
const RULE = {
  hLineColor: () => '#b9c5bf',
  vLineWidth: () => 0,
  hLineWidth: (i: number) => (i === 1 ? 1 : 0.5),
  paddingTop: () => 4,
  paddingBottom: () => 4,
}
const small = (text: string) => ({ text: runs(text), color: GREY, fontSize: 9 })
/** One entry: its picture where others have one, what it is, its prices. */
function rowOf(book: Printed, e: EntryRow, drawn: Drawn, withPictures: boolean): TableCell[] {
  const { currency, locale } = book.ctx.company
  const minor = roundToMinor(e.price, currency)
  const words = book.words.get(e.id)
  const image = drawn.get(e.id)
  const picture: TableCell = image ? { image, fit: [50, 50] } : ''
  const price = (level: Column): TableCell => ({
    text: sayMoney(toMoney(minor - savingOf(e, level, book.inside, currency), currency), locale),
    font: 'mono',
    alignment: 'right',
    noWrap: true,
  })
  const what = [
    { text: runs(e.name) },
    ...(words ? [small(words)] : []),
    ...(e.unit === 'each' ? [] : [small(`by ${e.unit}`)]),
  ]
  return [...(withPictures ? [picture] : []), { stack: what }, ...book.columns.map(price)]
}
function tableOf(book: Printed, own: readonly EntryRow[], drawn: Drawn): Content {
  const withPictures = own.some((e) => drawn.has(e.id))
  const head: TableCell[] = [
    ...(withPictures ? [''] : []),
    { text: 'Work', bold: true },
    ...book.columns.map((l): TableCell => ({
      text: runs(l?.name ?? 'Price'),
      bold: true,
      alignment: 'right',
    })),
  ]
  return {
    layout: RULE,
    table: {
      headerRows: 1,
      dontBreakRows: true,
      widths: [...(withPictures ? [56] : []), '*', ...book.columns.map(() => 76)],
      body: [head, ...own.map((e) => rowOf(book, e, drawn, withPictures))],
    },
  }
}
/** Category by category, each with what stands in it itself. */
function sections(book: Printed, drawn: Drawn): Content[] {
  const { locale } = book.ctx.company
  return categoryTree(book.entries.map((e) => e.category)).flatMap((c): Content[] => {
    const own = book.entries
      .filter((e) => e.category === c.path)
      .sort((a, b) => a.name.localeCompare(b.name, locale, { numeric: true }))
    const heading: Content = {
      text: runs(c.depth ? c.path.replaceAll(' / ', ' · ') : c.name),
      fontSize: c.depth ? 12 : 15,
      bold: true,
      margin: [0, 14, 0, 4],
      headlineLevel: 1,
    }
    return own.length ? [heading, tableOf(book, own, drawn)] : [heading]
  })
}
function contentOf(book: Printed, title: string, drawn: Drawn): Content[] {
  const { company, today } = book.ctx
  const on = sayDay(today, company.locale, 'written')
  const nothing: Content = {
    text: 'Nothing of this kind is in the book.',
    margin: [0, 20, 0, 0],
  }
  return [
    { text: runs(company.name), fontSize: 18, bold: true },
    { text: runs(`${title}. Prices of ${on}, before tax.`), color: GREY },
    ...(book.entries.length ? sections(book, drawn) : [nothing]),
  ]
}
export async function bookPdf(ctx: Ctx, query: Query<'bookPdf'>): Promise<Raw> {
  const columns = await columnsOf(ctx, query)
  const { entries: sold, inside } = await book(ctx)
  const kinds = new Set((query.kind || 'task,assembly,charge').split(','))
  const entries = [...sold.values()].filter(
    (e) => kinds.has(e.kind) && (!query.category || inCategory(e.category, query.category)),
  )
  const words = await descriptionsOf(
    ctx.tx,
    entries.map((e) => e.id),
  )
  const pictures = query.pictures ? await picturesOf(ctx, entries) : new Map<string, Buffer>()
  const { name: firm, locale } = ctx.company
  const title = `Price book${query.category ? `, ${query.category}` : ''}`
  const printed = { ctx, entries, words, columns, inside }
  // Drawn after the transaction: pictures take their time.
  const draw = async () =>
    makePdf({
      title,
      author: firm,
      foot: numbered(firm),
      size: paperSize(locale),
      content: contentOf(printed, title, await thumbnails(pictures)),
    })
  return new Raw('application/pdf', draw, 'price-book.pdf')
}

/** Twice as fine as they are printed; one that cannot be drawn is left out, and the book is printed all the same. */
const THUMBNAIL = 220
async function thumbnails(pictures: ReadonlyMap<string, Buffer>): Promise<Map<string, string>> {
  const drawn = new Map<string, string>()
  for (const [id, bytes] of pictures) {
    const small = await redraw(bytes, 'picture', THUMBNAIL).catch(() => null)
    if (small) drawn.set(id, `data:${small.mime};base64,${small.bytes.toString('base64')}`)
  }
  return drawn
}
