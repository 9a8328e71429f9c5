// What lines cost: each from the entry of the book or as it was typed, by the order of precedence, at the time of day, less the level.
import { invalid } from '../../core/errors/LedgerError'
import { minorToDecimal } from '../../core/money/formatMinor'
import { Decimal } from '../../core/money/decimal'
import { lineNet } from '../../core/documents/lineNet'
import { roundToMinor } from '../../core/money/roundToMinor'
import type { LineKind } from '../../core/pricebook/kinds'
import { levelSaving, type PriceLevel } from '../../core/pricebook/levelPrice'
import { orderedPrice, PRICE_FROM } from '../../core/pricebook/priceOrder'
import { timeSurcharge, type TimeFactor } from '../../core/pricebook/timeFactor'
import type { Body } from '../../shared/api'
import { customerById, levels, type LevelRow } from '../customers/queries'
import { signedIn, type Ctx } from '../http/context'
import type { LineRow, WorkOrderRow } from '../visits/queries'
import { applyDue } from './changes'
import { assembliesAmong, entriesById, labourRates, partsInside, type EntryRow } from './queries'
import { timeFactorAt } from './rules'

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
  level: { level: PriceLevel | null; own: boolean },
  currency: string,
  keepDiscount: boolean,
): L {
  const gross = lineNet({ quantity: line.quantity, unitPrice: line.unitPrice }, currency)
  const savingMinor = levelSaving(gross, line.kind, level.level, currency)
  const discountMinor = keepDiscount ? line.discountMinor : level.own ? savingMinor : 0
  if (discountMinor > gross) throw invalid('discount', 'The discount is larger than the line.')
  const coversSeconds =
    line.kind === 'labour'
      ? new Decimal(line.quantity).times(3600).round().toNumber()
      : entry
        ? new Decimal(line.quantity)
            .times(line.coversSeconds || entry.seconds)
            .round()
            .toNumber()
        : line.coversSeconds
  return { ...line, discountMinor, savingMinor, netMinor: gross - discountMinor, coversSeconds }
}

/** A line with its price, belonging to nothing yet: a work order and a quote are priced alike. */
export type PricedLine = Omit<
  LineRow,
  'workOrderId' | 'visitId' | 'promisedMinor' | 'done' | 'version'
>
/** `bought`: from a supplier's basket, at a cost that the supplier said; `cost`: of something that is not in the book */
export type WantedLine = Omit<Body<'addLines'>['lines'][number], 'done'> & {
  done?: boolean
  unit?: string
  bought?: { supplier: string; partNumber: string; cost: string; taxClass: string }
}
/** Whoever does not see costs says none. */
export const withoutCosts = <L extends { cost?: string }>(ctx: Ctx, lines: L[]): L[] =>
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
  hasTask: boolean,
  at: number | null = null,
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
}
export function pricedBy(
  { entries, level, agreed, time, rates }: PriceFacts,
  of: PricedFor,
  wanted: WantedLine[],
  hasTask: boolean,
): PricedLine[] {
  const { currency } = of
  return wanted.map((w, i) => {
    const entry = w.entryId ? (entries.get(w.entryId) ?? null) : null
    if (w.entryId && !entry)
      throw invalid(`lines[${i}].entryId`, 'This entry is not in the price book any more.')
    if (!entry && (!w.name || !w.unitPrice))
      throw invalid(
        `lines[${i}].name`,
        'A line that is not from the price book needs a name and a price.',
      )
    if (new Decimal(w.quantity).isZero())
      throw invalid(`lines[${i}].quantity`, 'The quantity is zero, so there is nothing to bill.')
    const further = entry?.kind === 'task' && hasTask && entry.furtherPrice !== null
    if (entry?.kind === 'task') hasTask = true
    const seconds = entry ? (further ? entry.furtherSeconds : entry.seconds) : 0
    const bookPrice = entry ? (further ? entry.furtherPrice! : entry.price) : null
    const more = time && entry ? labourSurcharge(entry, seconds, rates, time.factor, currency) : 0
    const book =
      bookPrice === null
        ? w.unitPrice!
        : more
          ? minorToDecimal(roundToMinor(bookPrice, currency) + more, currency)
          : bookPrice
    const sources = {
      free: Boolean(of.callbackOf),
      workOrder: entry ? of.ownPrices?.[entry.id] : undefined,
      customer: entry ? agreed[entry.id] : undefined,
      book,
    }
    const ordered = orderedPrice(sources)
    // A price that says what would be said anyway was not typed by anybody: a quote sends its lines back as they are.
    const typed =
      w.unitPrice !== undefined &&
      !sources.free &&
      (entry === null ||
        !new Decimal(w.unitPrice).eq(new Decimal(ordered.price).toDecimalPlaces(4)))
    const { price, from } = typed ? { price: w.unitPrice!, from: 'typed' as const } : ordered
    return priced(
      {
        id: w.id,
        entryId: entry?.id ?? null,
        kind: (entry?.kind as LineKind | undefined) ?? w.kind ?? 'other',
        name: w.name || entry!.name,
        unit: w.unit ?? entry?.unit ?? (w.kind === 'labour' ? 'hour' : 'each'),
        quantity: w.quantity,
        // A call-back is without charge: its lines keep what they would cost and what they cost us.
        unitPrice: price,
        bookPrice,
        unitCost: w.bought?.cost ?? entry?.cost ?? w.cost ?? '0',
        discountMinor: 0,
        taxClass:
          entry?.taxClass ??
          w.bought?.taxClass ??
          (w.kind === 'labour' || w.kind === 'charge' ? 'work' : 'goods'),
        coversSeconds: seconds,
        netMinor: 0,
        savingMinor: 0,
        supplier: w.bought?.supplier ?? entry?.supplier ?? '',
        partNumber: w.bought?.partNumber ?? entry?.partNumber ?? '',
        priceFrom: [
          w.bought && from !== 'free'
            ? `${w.bought.supplier}, cost by our markup`
            : PRICE_FROM[from],
          from === 'book' && further ? 'as a further one' : '',
          from === 'book' && more ? `${time!.name} × ${new Decimal(time!.factor)} on labour` : '',
        ]
          .filter(Boolean)
          .join(', ')
          .slice(0, 160),
      },
      entry,
      from === 'workOrder' || from === 'customer' ? NO_LEVEL : level,
      currency,
      false,
    )
  })
}
/** What a time of day adds to one of an entry: to a labour rate, and to the labour in a task. */
function labourSurcharge(
  entry: EntryRow,
  seconds: number,
  rates: ReadonlyMap<string, string>,
  factor: string,
  currency: string,
): number {
  if (entry.kind === 'labour')
    return timeSurcharge({ seconds: 3600, rate: entry.price }, factor, currency)
  const rate = entry.kind === 'task' && entry.labourId ? rates.get(entry.labourId) : undefined
  return rate ? timeSurcharge({ seconds, rate }, factor, currency) : 0
}
