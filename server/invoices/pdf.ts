// An invoice as PDF. Text outside the Latin subset takes the extended cut of the same typeface, run by run.
import pdfmake from 'pdfmake'
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces'
import type { Money } from '../../core/money/formatMinor'
import { Decimal } from '../../core/money/decimal'
import type { Paper } from './queries'

const FILES = { latin: 'atkinson-hyperlegible-next-latin', ext: 'atkinson-hyperlegible-next-latin-ext', mono: 'atkinson-hyperlegible-mono-latin' }
type Make = { virtualfs: { writeFileSync(name: string, data: Buffer): void }, setFonts(fonts: object): void, setLocalAccessPolicy?(f: (p: string) => boolean): void, setUrlAccessPolicy?(f: (u: string) => boolean): void, createPdf(d: TDocumentDefinitions): { getBuffer(): Promise<Buffer> } }
let ready = false
async function prepare(readFont: (file: string) => Promise<Buffer>): Promise<Make> {
  const make = pdfmake as unknown as Make
  if (!ready) {
    for (const base of Object.values(FILES)) for (const weight of [400, 700]) make.virtualfs.writeFileSync(`${base}-${weight}.woff`, await readFont(`${base}-${weight}-normal.woff`))
    const font = (base: string) => ({ normal: `${base}-400.woff`, bold: `${base}-700.woff`, italics: `${base}-400.woff`, bolditalics: `${base}-700.woff` })
    make.setFonts({ latin: font(FILES.latin), ext: font(FILES.ext), mono: font(FILES.mono) })
    make.setUrlAccessPolicy?.(() => false)
    make.setLocalAccessPolicy?.(() => false)
    ready = true
  }
  return make
}
const runs = (text: string) => (text.match(/[\u0000-\u00ff\u2013\u2014\u2018-\u201e\u2026\u20ac\u2032]+|[^\u0000-\u00ff\u2013\u2014\u2018-\u201e\u2026\u20ac\u2032]+/g) ?? ['']).map(t => ({ text: t, font: /^[\u0000-\u00ff\u2013-\u20ac]/.test(t) ? 'latin' : 'ext' }))

export async function invoicePdf(paper: Paper, paid: Money, open: Money, readFont: (file: string) => Promise<Buffer>): Promise<Buffer> {
  const make = await prepare(readFont)
  const money = new Intl.NumberFormat(paper.locale, { style: 'currency', currency: paper.currency })
  const day = new Intl.DateTimeFormat(paper.locale, { dateStyle: 'long', timeZone: 'UTC' })
  const m = (v: Money): Content => ({ text: money.format(v.amount as unknown as number), font: 'mono', alignment: 'right', noWrap: true })
  const date = (d: string) => day.format(new Date(`${d}T00:00Z`))
  const rule = { hLineColor: () => '#b9c5bf', vLineWidth: () => 0 }
  const sum = (label: string, v: Money, bold = false): Content[] => [{ text: runs(label), bold, alignment: 'right' }, { ...(m(v) as object), bold } as Content]
  const content: Content[] = [
    { columns: [
      { width: '*', stack: [{ text: runs(paper.seller.name), fontSize: 16, bold: true }, ...paper.seller.address.map(a => ({ text: runs(a), color: '#4a5a54' })), { text: [paper.seller.phone, paper.seller.email].filter(Boolean).join(' · '), color: '#4a5a54' }, ...(paper.seller.taxNumber ? [{ text: `Tax number ${paper.seller.taxNumber}`, color: '#4a5a54' }] : [])] },
      { width: 'auto', alignment: 'right', stack: [{ text: `Invoice ${paper.number}`, fontSize: 16, bold: true }, { text: `Issued ${date(paper.issueOn)}` }, { text: `Due ${date(paper.dueOn)} (${paper.terms})`, bold: true }, ...(paper.orderNumber ? [{ text: `Your order ${paper.orderNumber}` }] : []), { text: `Our work order ${paper.workOrder}` }] },
    ] },
    { margin: [0, 28, 0, 18], columns: [
      { width: '*', stack: [{ text: 'Billed to', color: '#4a5a54', fontSize: 9 }, { text: runs(paper.buyer.name), bold: true }, ...paper.buyer.address.map(a => ({ text: runs(a) }))] },
      { width: '*', stack: [{ text: 'Work done at', color: '#4a5a54', fontSize: 9 }, { text: runs(paper.site) }] },
    ] },
    { table: { headerRows: 1, widths: ['*', 'auto', 'auto', 'auto'], body: [
      [{ text: 'Work and material', bold: true }, { text: 'Quantity', bold: true, alignment: 'right' }, { text: 'Each', bold: true, alignment: 'right' }, { text: 'Amount', bold: true, alignment: 'right' }],
      ...paper.lines.map(l => [
        { stack: [{ text: runs(l.name) }, ...(l.discount.amount === '0.00' ? [] : [{ text: `less ${money.format(l.discount.amount as unknown as number)} by your price level`, fontSize: 9, color: '#4a5a54' }])] },
        { text: `${l.quantity} ${l.unit === 'each' ? '' : l.unit}`.trim(), font: 'mono', alignment: 'right' as const }, { text: new Decimal(l.unitPrice).toFixed(2), font: 'mono', alignment: 'right' as const }, m(l.net),
      ]),
    ] }, layout: { ...rule, hLineWidth: (i: number) => (i === 0 ? 0 : i === 1 ? 1 : 0.5), paddingTop: () => 5, paddingBottom: () => 5 } },
    { margin: [0, 10, 0, 0], columns: [{ width: '*', text: paper.exemptCertificate ? `Tax exempt, certificate ${paper.exemptCertificate}` : '' }, { width: 'auto', table: { body: [
      sum('Net', paper.net), ...paper.taxes.map(t => sum(`${t.name} ${new Decimal(t.rate).times(100)} %`, t.tax)), sum('Total', paper.total, true),
      ...(paper.payable.amount === paper.total.amount ? [] : [sum('Payable', paper.payable, true)]), ...(Number(paid.amount) === 0 ? [] : [sum('Paid', paid), sum('Still open', open, true)]),
    ] }, layout: 'noBorders' }] },
    { margin: [0, 24, 0, 0], stack: [...(paper.contact ? [{ text: runs(`Contact: ${paper.contact}`), margin: [0, 0, 0, 8] as [number, number, number, number] }] : []), ...(paper.note ? [{ text: runs(paper.note), margin: [0, 0, 0, 8] as [number, number, number, number] }] : []), { text: runs(paper.payTo) }, { text: runs(paper.conditions), color: '#4a5a54', fontSize: 9, margin: [0, 8, 0, 0] }] },
  ]
  return make.createPdf({
    info: { title: `Invoice ${paper.number}`, author: paper.seller.name }, pageSize: 'LETTER', pageMargins: [54, 54, 54, 54], defaultStyle: { font: 'latin', fontSize: 10.5, color: '#16241f', lineHeight: 1.25 }, content,
    footer: (page: number, pages: number) => ({ text: `${paper.number} · page ${page} of ${pages}`, alignment: 'center', fontSize: 8, color: '#4a5a54' }),
  }).getBuffer()
}
