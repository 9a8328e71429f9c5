// The book on paper, to be shown at a table: by category, at the firm's prices and a level's, with pictures where they are wanted.
import type { Content } from 'pdfmake/interfaces'
import { notFound } from '../../core/errors/LedgerError'
import { toMoney } from '../../core/money/formatMinor'
import { roundToMinor } from '../../core/money/roundToMinor'
import { categoryTree, inCategory } from '../../core/pricebook/inCategory'
import { levelSaving, type LineKind } from '../../core/pricebook/levelPrice'
import type { Query } from '../../shared/api'
import { levels } from '../customers/queries'
import { readFont } from '../documents/fonts'
import { longDate, makePdf, runs } from '../documents/paperPdf'
import type { Ctx } from '../http/context'
import { Raw } from '../http/handlers'
import { applyDue } from './changes'
import { descriptionsOf, pictureById, wholeBook } from './queries'

const MOST_PICTURES = 120
export async function bookPdf(ctx: Ctx, query: Query<'bookPdf'>): Promise<Raw> {
  await applyDue(ctx)
  const { currency, locale } = ctx.company
  const level = query.level ? (await levels(ctx.tx)).find(l => l.id === query.level) : null
  if (query.level && !level) throw notFound('price level')
  const kinds = new Set((query.kind || 'task,assembly,charge').split(','))
  const entries = (await wholeBook(ctx.tx, ctx.today)).filter(e => kinds.has(e.kind) && (!query.category || inCategory(e.category, query.category)))
  const words = await descriptionsOf(ctx.tx, entries.map(e => e.id))
  const format = new Intl.NumberFormat(locale, { style: 'currency', currency })
  const money = (minor: number): Content => ({ text: format.format(toMoney(minor, currency).amount as unknown as number), font: 'mono', alignment: 'right', noWrap: true })
  const pictures = new Map<string, string>()
  if (query.pictures) {
    for (const e of entries) {
      if (!e.pictureId || pictures.size >= MOST_PICTURES) continue
      const p = (await pictureById(ctx.tx, e.pictureId))!
      // The paper takes PNG and JPEG; other pictures stay on the screen.
      if (p.mime !== 'image/webp') pictures.set(e.id, `data:${p.mime};base64,${p.bytes.toString('base64')}`)
    }
  }
  const withPictures = pictures.size > 0
  const rule = { hLineColor: () => '#b9c5bf', vLineWidth: () => 0, hLineWidth: (i: number) => (i === 1 ? 1 : 0.5), paddingTop: () => 4, paddingBottom: () => 4 }
  const sections = categoryTree(entries.map(e => e.category)).flatMap((c): Content[] => {
    const own = entries.filter(e => e.category === c.path).sort((a, b) => a.name.localeCompare(b.name, locale, { numeric: true }))
    const heading: Content = { text: runs(c.depth ? c.path.replaceAll(' / ', ' · ') : c.name), fontSize: c.depth ? 12 : 15, bold: true, margin: [0, 14, 0, 4], headlineLevel: 1 }
    if (!own.length) return [heading]
    return [heading, {
      layout: rule, table: { headerRows: 1, dontBreakRows: true, widths: [...(withPictures ? [56] : []), '*', 'auto', ...(level ? ['auto'] : [])], body: [
        [...(withPictures ? [''] : []), { text: 'Work', bold: true }, { text: 'Price', bold: true, alignment: 'right' as const }, ...(level ? [{ text: runs(`With ${level.name.toLowerCase()}`), bold: true, alignment: 'right' as const }] : [])],
        ...own.map((e) => {
          const minor = roundToMinor(e.price, currency)
          const off = level && e.kind !== 'assembly' ? levelSaving(minor, e.kind as LineKind, level, currency) : 0
          return [
            ...(withPictures ? [pictures.has(e.id) ? { image: pictures.get(e.id)!, fit: [50, 50] as [number, number] } : ''] : []),
            { stack: [{ text: runs(e.name) }, ...(words.get(e.id) ? [{ text: runs(words.get(e.id)!), color: '#4a5a54', fontSize: 9 }] : []), ...(e.unit === 'each' ? [] : [{ text: runs(`by ${e.unit}`), color: '#4a5a54', fontSize: 9 }])] },
            money(minor), ...(level ? [money(minor - off)] : []),
          ]
        }),
      ] },
    }]
  })
  const title = `Price book${query.category ? `, ${query.category}` : ''}`
  const content: Content[] = [
    { text: runs(ctx.company.name), fontSize: 18, bold: true }, { text: runs(`${title}. Prices of ${longDate(locale)(ctx.today)}, before tax.`), color: '#4a5a54' },
    ...(entries.length ? sections : [{ text: 'Nothing of this kind is in the book.', margin: [0, 20, 0, 0] as [number, number, number, number] }]),
  ]
  return new Raw('application/pdf', await makePdf({ title, author: ctx.company.name, foot: ctx.company.name, content }, readFont), 'price-book.pdf')
}
