// What screens are told of an entry of the book.
import { notFound } from '../../core/errors/LedgerError'
import { Decimal } from '../../core/money/decimal'
import { minorToDecimal, toMoney } from '../../core/money/formatMinor'
import { margin } from '../../core/documents/margin'
import { roundToMinor } from '../../core/money/roundToMinor'
import type { PriceSet } from '../../core/pricebook/reprice'
import { quotedAgainstActual } from '../../core/costing/quotedAgainstActual'
import { lookAlikes } from '../../core/pricebook/lookAlikes'
import { labourCost, materialCost } from '../../core/pricebook/entryCost'
import { plusMonths } from '../../core/time/zone'
import type { Answer } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import { applyDue } from './changes'
import { entriesById, entryById, standardLabour } from './queries'
import { namesOf } from './names.queries'
import { entriesWith, partsInside } from './inside.queries'
import { historyOfEntry } from './pricing.queries'
import { soldSince, soldWhere, workedByTask } from './usage.queries'
import { asPriced, rulesOf, whyOf } from './rules'

export type Paper = Answer<'priceEntry'>
type Entry = NonNullable<Awaited<ReturnType<typeof entryById>>>
const plain = (quantity: string | number) => new Decimal(quantity).toString()
const moneyIn = (currency: string) => (amount: string) =>
  minorToDecimal(roundToMinor(amount, currency), currency)
/** Prices as they are told: costs to those who see them. */
const sayPrices = (ctx: Ctx) => (s: PriceSet) => {
  const money = moneyIn(ctx.company.currency)
  return {
    cost: signedIn(ctx).seesCost ? plain(s.cost) : null,
    price: money(s.price),
    furtherPrice: s.furtherPrice === null ? null : money(s.furtherPrice),
    pricing: s.pricing,
  }
}
/** What is written of an entry, as it stands. */
function wordsPart(e: Entry) {
  const { id, version, code, kind, category, name, description, technicianNote, synonyms } = e
  const { unit, taxClass, seconds, furtherSeconds, skills, pinned, labourId, supplier } = e
  const { partNumber, incomeCode, activeFrom, activeTo, retired, pricedOn, pictureId } = e
  return {
    ...{ id, version, code, kind, category, name, description, technicianNote, synonyms },
    ...{ unit, taxClass, seconds, furtherSeconds, skills, pinned, labourId, supplier },
    ...{ partNumber, incomeCode, activeFrom, activeTo, retired, pricedOn, pictureId },
    sundriesRate: e.sundriesRate === null ? null : plain(e.sundriesRate),
  }
}
/** What stands inside it, and what its price is made of. */
async function madeOfPart(ctx: Ctx, e: Entry) {
  const parts = await partsInside(ctx.tx, [e.id])
  const labour = e.labourId ? (await entriesById(ctx.tx, [e.labourId]))[0] : undefined
  const rate = labour ? { name: labour.name, price: labour.price } : null
  const hourCost = (labour ?? (await standardLabour(ctx.tx)))?.cost
  const money = moneyIn(ctx.company.currency)
  return {
    parts: parts.map(({ partId, code, name, kind, quantity, price }) => ({
      ...{ partId, code, name, kind },
      quantity: plain(quantity),
      price: money(price),
    })),
    ...whyOf(ctx, asPriced(e, rate, parts), await rulesOf(ctx)),
    ...costsOf(ctx, { ...e, parts }, e.price, hourCost),
  }
}
async function historyPart(ctx: Ctx, id: string): Promise<Paper['history']> {
  const say = sayPrices(ctx)
  return (await historyOfEntry(ctx.tx, id)).map((h) => ({
    title: h.title,
    state: h.state,
    holdsFrom: h.holdsFrom,
    madeAt: h.madeAt,
    madeBy: h.madeBy ?? '',
    was: say(h.was),
    became: say(h.became),
  }))
}
/** How often it was sold in the last year, where, and at what price. */
async function soldPart(ctx: Ctx, id: string): Promise<Paper['sold']> {
  const { currency } = ctx.company
  const money = moneyIn(currency)
  const [sold] = await soldSince(ctx.tx, plusMonths(ctx.today, -12), [id])
  const where = await soldWhere(ctx.tx, id)
  return {
    usual: usual(where, money),
    lines: sold?.lines ?? 0,
    quantity: plain(sold?.quantity ?? 0),
    net: toMoney(sold?.net ?? 0, currency),
    last: sold?.last ?? null,
    where: where.map((w) => ({
      ...w,
      quantity: plain(w.quantity),
      unitPrice: money(w.unitPrice),
      net: toMoney(w.net, currency),
    })),
  }
}
/** How long a task really takes, beside what it is sold for. */
async function hoursPart(ctx: Ctx, e: Entry): Promise<Paper['hours']> {
  if (e.kind !== 'task') return null
  const worked = await workedByTask(ctx.tx, plusMonths(ctx.today, -12), e.id)
  return quotedAgainstActual(
    worked.map((w) => w.seconds),
    e.seconds,
  )
}
export async function priceEntry(ctx: Ctx, id: string): Promise<Paper> {
  await applyDue(ctx)
  const e = await entryById(ctx.tx, id)
  if (!e) throw notFound('entry of the price book')
  const within = await entriesWith(ctx.tx, id)
  return {
    ...wordsPart(e),
    ...sayPrices(ctx)(e),
    ...(await madeOfPart(ctx, e)),
    history: await historyPart(ctx, id),
    hours: await hoursPart(ctx, e),
    standsIn: within.map((p) => ({ ...p, quantity: plain(p.quantity) })),
    alike: await alikeOf(ctx, e),
    sold: await soldPart(ctx, id),
  }
}
/** What it costs us and what is left of its price; nothing for those who do not see costs. */
export function costsOf(
  ctx: Ctx,
  e: Parameters<typeof materialCost>[0] & { seconds: number },
  price: string,
  hourCost = '0',
): Pick<Paper, 'costs' | 'margin'> {
  if (!signedIn(ctx).seesCost) return { costs: null, margin: null }
  const { currency } = ctx.company
  const [material, labour] = [
    roundToMinor(materialCost(e), currency),
    roundToMinor(labourCost(e, hourCost), currency),
  ]
  const m = margin(roundToMinor(price, currency), material + labour)
  return {
    costs: {
      material: minorToDecimal(material, currency),
      labour: minorToDecimal(labour, currency),
    },
    margin: m === null ? null : String(m),
  }
}
/** What it usually goes for: the middle of the last prices. */
function usual(where: readonly { unitPrice: string }[], say: (n: string) => string): string | null {
  const prices = where.map((w) => new Decimal(w.unitPrice)).sort((a, b) => a.cmp(b))
  return prices.length ? say(prices[Math.floor((prices.length - 1) / 2)]!.toString()) : null
}
async function alikeOf(ctx: Ctx, e: { id: string; name: string }): Promise<Paper['alike']> {
  const all = await namesOf(ctx.tx)
  const group = lookAlikes(all).find((g) => g.includes(e.id)) ?? []
  const byId = new Map(all.map((a) => [a.id, a]))
  return group
    .filter((g) => g !== e.id)
    .slice(0, 10)
    .map((g) => {
      const a = byId.get(g)!
      return {
        id: g,
        code: a.code,
        name: a.name,
        price: minorToDecimal(roundToMinor(a.price, ctx.company.currency), ctx.company.currency),
        last: a.last,
      }
    })
}
