// What lines cost: each from the entry of the book or as it was typed, by the order of precedence, at the time of day, less the level.
import { invalid } from '../../core/errors/LedgerError'
import { minorToDecimal } from '../../core/money/formatMinor'
import { Decimal } from '../../core/money/decimal'
import { lineNet } from '../../core/documents/lineNet'
import { roundToMinor } from '../../core/money/roundToMinor'
import type { LineKind } from '../../core/pricebook/kinds'
import { levelSaving, type PriceLevel } from '../../core/pricebook/levelPrice'
import { isAgreed, orderedPrice, type PriceSource } from '../../core/pricebook/priceOrder'
import { taxedAs, usualTaxClass } from '../../core/pricebook/usualTaxClass'
import { timeSurcharge, type TimeFactor } from '../../core/pricebook/timeFactor'
import type { Body } from '../../shared/api'
import { customerById, levels, type LevelRow } from '../customers/queries'
import { signedIn, type Ctx } from '../http/context'
import type { LineRow } from '../visits/lines.queries'
import type { WorkOrderRow } from '../visits/queries'
import { applyDue } from './changes'
import { assembliesAmong, entriesById, labourRates, type EntryRow } from './queries'
import { partsInside } from './inside.queries'
import { timeFactorAt } from './rules'
import { usualTaxClasses } from '../settings/queries'

/** For prices that no level is taken off. */
export const NO_LEVEL = { level: null, own: false }
export async function levelFor(
  ctx: Ctx,
  work: Pick<WorkOrderRow, 'priceLevelId'>,
): Promise<{ level: PriceLevel | null; own: boolean }> {
  return levelAmong(await levels(ctx.tx), work.priceLevelId)
}
/** The customer's own level; where there is none, the agreement's, whose saving is shown. */
export function levelAmong(
  all: readonly LevelRow[],
  id: string | null,
): { level: LevelRow | null; own: boolean } {
  const own = all.find((l) => l.id === id)
  return { level: own ?? all.find((l) => l.kind === 'agreement') ?? null, own: Boolean(own) }
}

/** Net, the level's saving (taken off when the customer has the level, only shown when not) and the time that is covered. */
export function priced<L extends PricedLine>(
  line: L,
  entry: EntryRow | null,
  {
    level,
    own,
    currency,
    keepDiscount = false,
  }: { level: PriceLevel | null; own: boolean; currency: string; keepDiscount?: boolean },
): L {
  const gross = lineNet({ quantity: line.quantity, unitPrice: line.unitPrice }, currency)
  const savingMinor = levelSaving(gross, line.kind, level, currency)
  const ownSaving = own ? savingMinor : 0
  const discountMinor = keepDiscount ? line.discountMinor : ownSaving
  if (discountMinor > gross) throw invalid('discount', 'The discount is larger than the line.')
  const each = line.kind === 'labour' ? 3600 : entry && (line.coversSeconds || entry.seconds)
  const coversSeconds =
    each === null ? line.coversSeconds : new Decimal(line.quantity).times(each).round().toNumber()
  return { ...line, discountMinor, savingMinor, netMinor: gross - discountMinor, coversSeconds }
}

/** A line with its price, belonging to nothing yet: a work order and a quote are priced alike. */
export type PricedLine = Omit<
  LineRow,
  'workOrderId' | 'visitId' | 'promisedMinor' | 'done' | 'discountWords' | 'phaseId' | 'version'
>
/** `bought`: from a supplier's basket, at a cost that the supplier said; `cost`: of something that is not in the book */
export type WantedLine = Omit<Body<'addLines'>['lines'][number], 'done'> & {
  done?: boolean
  unit?: string
  bought?: { supplier: string; partNumber: string; cost: string; taxClass?: string }
}
/** Whoever does not see costs says none. */
export const withoutCosts = <L extends { cost?: string | undefined }>(ctx: Ctx, lines: L[]): L[] =>
  signedIn(ctx).seesCost ? lines : lines.map((l) => ({ ...l, cost: undefined }))
/** An assembly becomes the lines of what is inside it, which can each be changed on the document alone. */
export async function expanded<L extends WantedLine>(ctx: Ctx, wanted: L[]): Promise<L[]> {
  const assemblies = await assembliesAmong(
    ctx.tx,
    wanted.flatMap((l) => l.entryId ?? []),
  )
  if (!assemblies.size) return wanted
  const inside = await partsInside(ctx.tx, [...assemblies])
  return wanted.flatMap((w) => {
    if (!w.entryId || !assemblies.has(w.entryId)) return [w]
    // The first line keeps the identifier that the asker gave it; the others are ours to name.
    return inside
      .filter((p) => p.entryId === w.entryId && !p.retired)
      .map((p, i) => ({
        ...w,
        id: i ? ctx.id() : w.id,
        entryId: p.partId,
        kind: undefined,
        name: undefined,
        unitPrice: undefined,
        quantity: keptQuantity(new Decimal(p.quantity).times(w.quantity)),
      }))
  })
}
/** A quantity as it is kept, with three decimals: it is rounded before it is priced, so that line, work order and invoice say one sum. */
const keptQuantity = (quantity: Decimal): string =>
  quantity.toDecimalPlaces(3, Decimal.ROUND_HALF_UP).toFixed()
export interface PricedFor {
  customerId: string
  priceLevelId: string | null
  currency: string
  callbackOf?: string | null
  ownPrices?: Record<string, string>
}
/** Prices lines for a customer, the first task of a visit at its full price, further ones at theirs, at the time of day when the work is done. */
export async function priceLines(
  ctx: Ctx,
  of: PricedFor,
  wanted: WantedLine[],
  { hasTask = false, at = null }: { hasTask?: boolean; at?: number | null } = {},
): Promise<PricedLine[]> {
  await applyDue(ctx)
  const time = at === null ? null : await timeFactorAt(ctx, at)
  return pricedBy(
    {
      entries: new Map(
        (
          await entriesById(
            ctx.tx,
            wanted.flatMap((l) => l.entryId ?? []),
          )
        ).map((e) => [e.id, e]),
      ),
      level: await levelFor(ctx, of),
      agreed: (await customerById(ctx.tx, of.customerId))?.ownPrices ?? {},
      time,
      rates: new Map((time ? await labourRates(ctx.tx) : []).map((l) => [l.id, l.price])),
      usualTax: wanted.every((l) => l.entryId) ? [] : await usualTaxClasses(ctx.tx),
    },
    of,
    wanted,
    hasTask,
  )
}
/** What a price is made from. */
export interface PriceFacts {
  entries: ReadonlyMap<string, EntryRow>
  level: { level: PriceLevel | null; own: boolean }
  /** prices agreed with the customer, by entry */
  agreed: Record<string, string>
  time: TimeFactor | null
  /** labour rates, by entry */
  rates: ReadonlyMap<string, string>
  /** the classes of taxes, and what usually has them: for lines that are of no entry */
  usualTax: Parameters<typeof usualTaxClass>[0]
}
/** The entry that a line is of; null for one of its own, which has to say what it is and costs. */
function entryOf(
  entries: ReadonlyMap<string, EntryRow>,
  w: WantedLine,
  path: string,
): EntryRow | null {
  const entry = w.entryId ? (entries.get(w.entryId) ?? null) : null
  if (w.entryId && !entry)
    throw invalid(`${path}.entryId`, 'This entry is not in the price book any more.')
  if (!entry && (!w.name || !w.unitPrice))
    throw invalid(
      `${path}.name`,
      'A line that is not from the price book needs a name and a price.',
    )
  if (new Decimal(w.quantity).isZero())
    throw invalid(`${path}.quantity`, 'The quantity is zero, so there is nothing to bill.')
  return entry
}
type Sources = Parameters<typeof orderedPrice>[0]
/** The price by the order of the sources, or as it was typed. */
function priceOf(w: WantedLine, sources: Sources) {
  const ordered = orderedPrice(sources)
  if (w.unitPrice === undefined || sources.free) return ordered
  // A price that says what would be said anyway was not typed by anybody: a quote sends its lines back as they are.
  const same = new Decimal(w.unitPrice).eq(new Decimal(ordered.price).toDecimalPlaces(4))
  return same && w.entryId ? ordered : { price: w.unitPrice, from: 'typed' as const }
}
/** Where a price is from, as it is said beside it; of the book as it stands there is nothing to say. */
const SAID: Record<PriceSource, string> = {
  free: 'a call-back is without charge',
  typed: 'typed here',
  work_order: 'agreed for this work order',
  customer: 'agreed with this customer',
  book: '',
}
const BOOK = 'price book'
function reasonFor(
  w: WantedLine,
  from: PriceSource,
  book: BookPrice | null,
  time: TimeFactor | null,
): string {
  if (w.bought && from !== 'free') return `${w.bought.supplier}, cost by our markup`.slice(0, 160)
  if (from !== 'book') return SAID[from]
  const why = [
    book?.further && 'as a further one',
    book?.dearer && `${time!.name} × ${new Decimal(time!.factor)} on labour`,
  ].filter(Boolean)
  return why.length ? [BOOK, ...why].join(', ').slice(0, 160) : ''
}
interface BookPrice {
  plain: string
  price: string
  further: boolean
  dearer: boolean
  seconds: number
}
/** What a line is by the book; what was bought for it knows better what it cost. */
const byTheBook = (entry: EntryRow, w: WantedLine) => ({
  entryId: entry.id,
  kind: entry.kind as LineKind,
  name: w.name || entry.name,
  unit: w.unit ?? entry.unit,
  unitCost: w.bought?.cost ?? entry.cost,
  taxClass: entry.taxClass,
  supplier: w.bought?.supplier ?? entry.supplier,
  partNumber: w.bought?.partNumber ?? entry.partNumber,
})
/** What a line is that stands in no book. */
function byItself(w: WantedLine, usualTax: PriceFacts['usualTax']) {
  const kind = w.kind ?? 'other'
  const taxClass = w.bought?.taxClass ?? usualTaxClass(usualTax, taxedAs(kind))
  if (taxClass === null) throw invalid('lines', 'There is no class of taxes yet. Make one first.')
  const { cost, ...bought } = { cost: w.cost ?? '0', supplier: '', partNumber: '', ...w.bought }
  return {
    ...bought,
    taxClass,
    entryId: null,
    kind,
    name: w.name!,
    unit: w.unit ?? (w.kind === 'labour' ? 'hour' : 'each'),
    unitCost: cost,
  }
}
/** What the book asks: a further task of a visit at its own price, at a dear time with more for the labour. */
function bookPriceOf(
  entry: EntryRow,
  how: Pick<PriceFacts, 'time' | 'rates'> & { hasTask: boolean; currency: string },
): BookPrice {
  const { time, currency } = how
  const further = entry.kind === 'task' && how.hasTask && entry.furtherPrice !== null
  const plain = further ? entry.furtherPrice! : entry.price
  const seconds = further ? entry.furtherSeconds : entry.seconds
  const more = time
    ? labourSurcharge(entry, seconds, how.rates, { factor: time.factor, currency })
    : 0
  const price = more ? minorToDecimal(roundToMinor(plain, currency) + more, currency) : plain
  return { plain, price, further, dearer: more !== 0, seconds }
}
export function pricedBy(
  { entries, level, agreed, time, rates, usualTax }: PriceFacts,
  of: PricedFor,
  wanted: WantedLine[],
  hasTask: boolean,
): PricedLine[] {
  const { currency } = of
  return wanted.map((w, i) => {
    const entry = entryOf(entries, w, `lines[${i}]`)
    const book = entry && bookPriceOf(entry, { hasTask, time, rates, currency })
    hasTask ||= entry?.kind === 'task'
    const own = entry && { workOrder: of.ownPrices?.[entry.id], customer: agreed[entry.id] }
    const { price, from } = priceOf(w, {
      ...own,
      free: Boolean(of.callbackOf),
      book: book ? book.price : w.unitPrice!,
    })
    return priced(
      {
        ...(entry ? byTheBook(entry, w) : byItself(w, usualTax)),
        id: w.id,
        quantity: w.quantity,
        // A call-back is without charge: its lines keep what they would cost and what they cost us.
        unitPrice: price,
        bookPrice: book && book.plain,
        discountMinor: 0,
        coversSeconds: book ? book.seconds : 0,
        netMinor: 0,
        savingMinor: 0,
        priceSource: from,
        priceFrom: reasonFor(w, from, book, time),
      },
      entry,
      { ...(isAgreed(from) ? NO_LEVEL : level), currency },
    )
  })
}
/** What a time of day adds to one of an entry: to a labour rate, and to the labour in a task. */
function labourSurcharge(
  entry: EntryRow,
  seconds: number,
  rates: ReadonlyMap<string, string>,
  { factor, currency }: { factor: string; currency: string },
): number {
  if (entry.kind === 'labour')
    return timeSurcharge({ seconds: 3600, rate: entry.price }, factor, currency)
  const rate = entry.kind === 'task' && entry.labourId ? rates.get(entry.labourId) : undefined
  return rate ? timeSurcharge({ seconds, rate }, factor, currency) : 0
}
