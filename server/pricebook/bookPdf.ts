// The book on paper, to be shown at a table: by category, at the firm's prices, at those of levels, or both beside each other, with pictures where they are wanted.
import type { Content } from 'pdfmake/interfaces'
import { invalid, notFound } from '../../core/errors/LedgerError'
import { toMoney } from '../../core/money/formatMinor'
import { roundToMinor } from '../../core/money/roundToMinor'
import { categoryTree, inCategory } from '../../core/pricebook/inCategory'
import type { Query } from '../../shared/api'
import { levels } from '../customers/queries'
import { sayDay } from '../../core/time/sayDay'
import { makePdf, runs } from '../documents/makePdf'
import type { Ctx } from '../http/context'
import { redraw } from '../http/pictures'
import { Raw } from '../http/route'
import { descriptionsOf } from './queries'
import { pictureById } from './pictures.queries'
import { book, savingOf } from './service'
import { sayMoney } from '../../core/money/sayMoney'

const MOST_PICTURES = 120
const MOST_LEVELS = 3
export async function bookPdf(ctx: Ctx, query: Query<'bookPdf'>): Promise<Raw> {
  const { currency, locale } = ctx.company
  const known = await levels(ctx.tx)
  const wanted = [...new Set((query.levels ?? '').split(',').filter(Boolean))].map(
    (id) => known.find((l) => l.id === id) ?? null,
  )
  if (wanted.includes(null)) throw notFound('price level')
  if (wanted.length > MOST_LEVELS)
    throw invalid('levels', `Not more than ${MOST_LEVELS} levels fit beside each other.`)
  if (query.ours === 'no' && !wanted.length)
    throw invalid('levels', 'Choose a level, or show our prices.')
  const { entries: sold, inside } = await book(ctx)
  /** Whose prices stand in the columns: null is ours. */
  const columns = [...(query.ours === 'no' ? [] : [null]), ...wanted]
  const kinds = new Set((query.kind || 'task,assembly,charge').split(','))
  const entries = [...sold.values()].filter(
    (e) => kinds.has(e.kind) && (!query.category || inCategory(e.category, query.category)),
  )
  const words = await descriptionsOf(
    ctx.tx,
    entries.map((e) => e.id),
  )
  const money = (minor: number): Content => ({
    text: sayMoney(toMoney(minor, currency), locale),
    font: 'mono',
    alignment: 'right',
    noWrap: true,
  })
  const pictures = new Map<string, Buffer>()
  if (query.pictures) {
    for (const e of entries) {
      if (!e.pictureId || pictures.size >= MOST_PICTURES) continue
      const p = await pictureById(ctx.tx, e.pictureId)
      if (p) pictures.set(e.id, p.bytes)
    }
  }
  const rule = {
    hLineColor: () => '#b9c5bf',
    vLineWidth: () => 0,
    hLineWidth: (i: number) => (i === 1 ? 1 : 0.5),
    paddingTop: () => 4,
    paddingBottom: () => 4,
  }
  const sections = (drawn: ReadonlyMap<string, string>) =>
    categoryTree(entries.map((e) => e.category)).flatMap((c): Content[] => {
      const own = entries
        .filter((e) => e.category === c.path)
        .sort((a, b) => a.name.localeCompare(b.name, locale, { numeric: true }))
      const heading: Content = {
        text: runs(c.depth ? c.path.replaceAll(' / ', ' · ') : c.name),
        fontSize: c.depth ? 12 : 15,
        bold: true,
        margin: [0, 14, 0, 4],
        headlineLevel: 1,
      }
      if (!own.length) return [heading]
      const withPictures = own.some((e) => drawn.has(e.id))
      return [
        heading,
        {
          layout: rule,
          table: {
            headerRows: 1,
            dontBreakRows: true,
            widths: [...(withPictures ? [56] : []), '*', ...columns.map(() => 76)],
            body: [
              [
                ...(withPictures ? [''] : []),
                { text: 'Work', bold: true },
                ...columns.map((l) => ({
                  text: runs(l?.name ?? 'Price'),
                  bold: true,
                  alignment: 'right' as const,
                })),
              ],
              ...own.map((e) => {
                const minor = roundToMinor(e.price, currency)
                return [
                  ...(withPictures
                    ? [
                        drawn.has(e.id)
                          ? { image: drawn.get(e.id)!, fit: [50, 50] as [number, number] }
                          : '',
                      ]
                    : []),
                  {
                    stack: [
                      { text: runs(e.name) },
                      ...(words.get(e.id)
                        ? [{ text: runs(words.get(e.id)!), color: '#4a5a54', fontSize: 9 }]
                        : []),
                      ...(e.unit === 'each'
                        ? []
                        : [{ text: runs(`by ${e.unit}`), color: '#4a5a54', fontSize: 9 }]),
                    ],
                  },
                  ...columns.map((l) => money(minor - savingOf(e, l, inside, currency))),
                ]
              }),
            ],
          },
        },
      ]
    })
  const firm = ctx.company.name
  const title = `Price book${query.category ? `, ${query.category}` : ''}`
  const content = (drawn: ReadonlyMap<string, string>): Content[] => [
    { text: runs(ctx.company.name), fontSize: 18, bold: true },
    {
      text: runs(`${title}. Prices of ${sayDay(ctx.today, locale, 'written')}, before tax.`),
      color: '#4a5a54',
    },
    ...(entries.length
      ? sections(drawn)
      : [
          {
            text: 'Nothing of this kind is in the book.',
            margin: [0, 20, 0, 0] as [number, number, number, number],
          },
        ]),
  ]
  return new Raw(
    'application/pdf',
    async () =>
      makePdf({
        title,
        author: firm,
        foot: firm,
        locale,
        content: content(await thumbnails(pictures)),
      }),
    'price-book.pdf',
  )
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
