// Finding entries: the index is built once for each state of the book.
import { levelSaving, type PriceLevel } from '../../core/pricebook/levelPrice'
import { searchEntries } from '../../core/pricebook/searchEntries'
import { decimalToMinor, minorToDecimal, toMoney } from '../../core/money/formatMinor'
import { roundToMinor } from '../../core/money/roundToMinor'
import { searchKey } from '../../core/text/searchKey'
import type { Answer, Query } from '../../shared/api'
import { levels } from '../customers/queries'
import { signedIn, type Ctx } from '../http/context'
import { pageOf, paging } from '../http/paging'
import { applyDue } from './changes'
import { bookStamp, entryPage, wholeBook, type EntryRow } from './queries'

let kept: { stamp: string, entries: Map<string, EntryRow>, find: (words: string, limit?: number) => string[] } | null = null
async function book(ctx: Ctx) {
  await applyDue(ctx)
  // Entries come and go with the day, too.
  const stamp = `${ctx.today} ${await bookStamp(ctx.tx)}`
  if (kept?.stamp !== stamp) {
    const entries = await wholeBook(ctx.tx, ctx.today)
    kept = { stamp, entries: new Map(entries.map(e => [e.id, e])), find: searchEntries(entries) }
  }
  return kept
}
const shape = (ctx: Ctx, level: PriceLevel | null) => (e: EntryRow): Answer<'searchPriceBook'>['items'][number] => {
  const { currency } = ctx.company
  const price = roundToMinor(e.price, currency)
  return {
    id: e.id, code: e.code, kind: e.kind, category: e.category, name: e.name, synonyms: e.synonyms, parts: e.parts, unit: e.unit, price: minorToDecimal(price, currency),
    furtherPrice: e.furtherPrice === null ? null : minorToDecimal(roundToMinor(e.furtherPrice, currency), currency), cost: signedIn(ctx).seesCost ? minorToDecimal(roundToMinor(e.cost, currency), currency) : null,
    taxClass: e.taxClass, seconds: e.seconds, furtherSeconds: e.furtherSeconds, skills: e.skills, pinned: e.pinned, agreementSaving: toMoney(levelSaving(decimalToMinor(minorToDecimal(price, currency), currency), e.kind, level, currency), currency),
  }
}
const agreementLevel = async (ctx: Ctx) => (await levels(ctx.tx)).find(l => l.kind === 'agreement') ?? null

/** The best entries for some words; without words the pinned ones. */
export async function searchBook(ctx: Ctx, query: Query<'searchPriceBook'>): Promise<Answer<'searchPriceBook'>> {
  const { entries, find } = await book(ctx)
  const found = query.q ? find(query.q, 200).map(id => entries.get(id)!) : [...entries.values()].filter(e => e.pinned)
  return { items: found.filter(e => !query.kind || e.kind === query.kind).slice(0, 30).map(shape(ctx, await agreementLevel(ctx))) }
}
export async function listBook(ctx: Ctx, query: Query<'priceBook'>): Promise<Answer<'priceBook'>> {
  await applyDue(ctx)
  const p = paging(query, ['code', 'name'], 'code')
  const { rows, total } = await entryPage(ctx.tx, { ...p, q: query.q ? searchKey(query.q) : '', kind: query.kind, category: query.category, retired: query.retired === 'yes', pinned: query.pinned === 'yes' })
  const one = shape(ctx, await agreementLevel(ctx))
  return pageOf(rows, total, p.limit, one)
}
