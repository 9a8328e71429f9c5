// Finding entries: the index is built once for each state of the book.
import { createHash } from 'node:crypto'
import { notFound } from '../../core/errors/LedgerError'
import { plusMonths } from '../../core/time/zone'
import { hourCosts, labourCost } from '../../core/pricebook/entryCost'
import { insidePrices } from '../../core/pricebook/explainPrice'
import type { LineKind } from '../../core/pricebook/kinds'
import { levelSaving, type PriceLevel } from '../../core/pricebook/levelPrice'
import { searchEntries } from '../../core/pricebook/searchEntries'
import { minorToDecimal, toMoney } from '../../core/money/formatMinor'
import { roundToMinor } from '../../core/money/roundToMinor'
import type { Answer, Query } from '../../shared/api'
import { levels } from '../customers/queries'
import { signedIn, type Ctx } from '../http/context'
import { pageOf, paging } from '../http/paging'
import { applyDue } from './changes'
import { bookStamp, entriesById, entryPage, wholeBook, type EntryRow } from './queries'
import { allPartsInside } from './inside.queries'
import { pinsOf, setPin, soldSince } from './usage.queries'

export interface Book {
  stamp: string
  entries: Map<string, EntryRow>
  inside: Map<string, { entry: EntryRow; quantity: string }[]>
  sold: Map<string, { lines: number; last: string }>
  /** what an hour of an entry's labour costs */ hourCost(labourId: string | null): string
  find: ReturnType<typeof searchEntries>
}
let kept: Book | null = null
/** The book as it is sold today, by id, with what is inside assemblies. */
export async function book(ctx: Ctx): Promise<Book> {
  await applyDue(ctx)
  // Entries come and go with the day, too.
  const stamp = `${ctx.today} ${await bookStamp(ctx.tx)}`
  if (kept?.stamp !== stamp) {
    const entries = await wholeBook(ctx.tx, ctx.today)
    const byId = new Map(entries.map((e) => [e.id, e]))
    const inside: Book['inside'] = new Map(
      entries.filter((e) => e.kind === 'assembly').map((e) => [e.id, []]),
    )
    // Something inside that is retired is not sold any more, so it is not in the assembly either.
    if (inside.size)
      for (const p of await allPartsInside(ctx.tx))
        if (byId.has(p.partId))
          inside.get(p.entryId)?.push({ entry: byId.get(p.partId)!, quantity: p.quantity })
    const sold = new Map(
      (await soldSince(ctx.tx, plusMonths(ctx.today, -12))).map((s) => [s.entryId, s]),
    )
    kept = {
      stamp,
      hourCost: hourCosts(entries.filter((e) => e.kind === 'labour')),
      entries: byId,
      inside,
      sold,
      find: searchEntries(entries.map((e) => ({ ...e, used: sold.get(e.id)?.lines ?? 0 }))),
    }
  }
  return kept
}
/** What a level takes off an entry; off an assembly, what it takes off each line that this becomes. */
export function savingOf(
  e: EntryRow,
  level: PriceLevel | null,
  inside: Book['inside'],
  currency: string,
): number {
  if (e.kind !== 'assembly')
    return levelSaving(roundToMinor(e.price, currency), e.kind, level, currency)
  const lines = (inside.get(e.id) ?? []).map((l) => ({ ...l.entry, quantity: l.quantity }))
  return insidePrices(lines, currency).reduce(
    (n, net, i) => n + levelSaving(net, lines[i]!.kind as LineKind, level, currency),
    0,
  )
}
const shape =
  (ctx: Ctx, level: PriceLevel | null, { inside, hourCost }: Book) =>
  (e: EntryRow): Answer<'searchPriceBook'>['items'][number] => {
    const { currency } = ctx.company
    const price = roundToMinor(e.price, currency)
    return {
      id: e.id,
      code: e.code,
      kind: e.kind,
      category: e.category,
      name: e.name,
      synonyms: e.synonyms,
      parts: e.parts,
      unit: e.unit,
      price: minorToDecimal(price, currency),
      furtherPrice:
        e.furtherPrice === null
          ? null
          : minorToDecimal(roundToMinor(e.furtherPrice, currency), currency),
      cost: signedIn(ctx).seesCost
        ? minorToDecimal(roundToMinor(e.cost, currency), currency)
        : null,
      labourCost: signedIn(ctx).seesCost ? labourCost(e, hourCost(e.labourId)) : null,
      taxClass: e.taxClass,
      seconds: e.seconds,
      furtherSeconds: e.furtherSeconds,
      skills: e.skills,
      pinned: e.pinned,
      agreementSaving: toMoney(savingOf(e, level, inside, currency), currency),
    }
  }
const agreementLevel = async (ctx: Ctx) =>
  (await levels(ctx.tx)).find((l) => l.kind === 'agreement') ?? null

/** The best entries for some words; without words the pinned ones. */
export async function searchBook(
  ctx: Ctx,
  query: Query<'searchPriceBook'>,
): Promise<Answer<'searchPriceBook'>> {
  const of = await book(ctx)
  const { entries, find } = of
  const found = query.q
    ? find(query.q, { limit: 30, kind: query.kind }).map((id) => entries.get(id)!)
    : [...entries.values()].filter((e) => e.pinned && (!query.kind || e.kind === query.kind))
  return { items: found.slice(0, 30).map(shape(ctx, await agreementLevel(ctx), of)) }
}
/** The whole book for the browser's own search. Its stamp says in what state; who has that state already is sent no entry. */
export async function sendBook(ctx: Ctx, query: Query<'wholeBook'>): Promise<Answer<'wholeBook'>> {
  const [of, level, mine] = [
    await book(ctx),
    await agreementLevel(ctx),
    await pinsOf(ctx.tx, signedIn(ctx).id),
  ]
  const { stamp: state, entries, sold } = of
  const levelHash = createHash('sha256').update(JSON.stringify(level)).digest('hex').slice(0, 12)
  const stamp = `${state} ${levelHash} ${signedIn(ctx).seesCost}`
  const one = shape(ctx, level, of)
  return {
    stamp,
    same: stamp === query.stamp,
    mine,
    items:
      stamp === query.stamp
        ? []
        : [...entries.values()].map((e) => ({
            ...one(e),
            pricing: e.pricing,
            used: sold.get(e.id)?.lines ?? 0,
            lastSold: sold.get(e.id)?.last ?? null,
            pictureId: e.pictureId,
          })),
  }
}
export async function pinEntry(ctx: Ctx, id: string, on: boolean): Promise<Answer<'pinEntry'>> {
  if (!(await entriesById(ctx.tx, [id])).length) throw notFound('entry of the price book')
  await setPin(ctx.tx, signedIn(ctx).id, id, on)
  return { ok: true }
}
export async function listBook(ctx: Ctx, query: Query<'priceBook'>): Promise<Answer<'priceBook'>> {
  const p = paging(query, ['code', 'name'], 'code')
  const of = await book(ctx)
  const { rows, total } = await entryPage(ctx.tx, {
    ...p,
    q: query.q ?? '',
    kind: query.kind,
    category: query.category,
    retired: query.retired === 'yes',
    pinned: query.pinned === 'yes',
  })
  const one = shape(ctx, await agreementLevel(ctx), of)
  return pageOf(rows, total, p.limit, one)
}
