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
import {
  entriesById,
  entriesWith,
  entryById,
  namesOf,
  partsInside,
  standardLabour,
} from './queries'
import { historyOfEntry } from './pricing.queries'
import { soldSince, soldWhere, workedByTask } from './usage.queries'
import { asPriced, rulesOf, whyOf } from './rules'

export type Paper = Answer<'priceEntry'>
export async function priceEntry(ctx: Ctx, id: string): Promise<Paper> {
  await applyDue(ctx)
  const e = await entryById(ctx.tx, id)
  if (!e) throw notFound('entry of the price book')
  const { currency } = ctx.company
  const seesCost = signedIn(ctx).seesCost
  const [parts, labour, [sold], history] = [
    await partsInside(ctx.tx, [id]),
    e.labourId ? (await entriesById(ctx.tx, [e.labourId]))[0] : undefined,
    await soldSince(ctx.tx, plusMonths(ctx.today, -12), [id]),
    await historyOfEntry(ctx.tx, id),
  ]
  const money = (amount: string) => minorToDecimal(roundToMinor(amount, currency), currency)
  const say = (s: PriceSet) => ({
    cost: seesCost ? new Decimal(s.cost).toString() : null,
    price: money(s.price),
    furtherPrice: s.furtherPrice === null ? null : money(s.furtherPrice),
    pricing: s.pricing,
  })
  const where = await soldWhere(ctx.tx, id)
  return {
    id,
    version: e.version,
    code: e.code,
    kind: e.kind,
    category: e.category,
    name: e.name,
    description: e.description,
    technicianNote: e.technicianNote,
    synonyms: e.synonyms,
    unit: e.unit,
    taxClass: e.taxClass,
    seconds: e.seconds,
    furtherSeconds: e.furtherSeconds,
    skills: e.skills,
    pinned: e.pinned,
    labourId: e.labourId,
    sundriesRate: e.sundriesRate === null ? null : new Decimal(e.sundriesRate).toString(),
    supplier: e.supplier,
    partNumber: e.partNumber,
    incomeCode: e.incomeCode,
    activeFrom: e.activeFrom,
    activeTo: e.activeTo,
    retired: e.retired,
    ...say(e),
    pricedOn: e.pricedOn,
    parts: parts.map((p) => ({
      partId: p.partId,
      code: p.code,
      name: p.name,
      kind: p.kind,
      quantity: new Decimal(p.quantity).toString(),
      price: money(p.price),
    })),
    pictureId: e.pictureId,
    ...whyOf(
      ctx,
      asPriced(e, labour ? { name: labour.name, price: labour.price } : null, parts),
      await rulesOf(ctx),
    ),
    ...costsOf(ctx, { ...e, parts }, e.price, (labour ?? (await standardLabour(ctx.tx)))?.cost),
    history: history.map((h) => ({
      title: h.title,
      state: h.state,
      holdsFrom: h.holdsFrom,
      madeAt: h.madeAt,
      madeBy: h.madeBy ?? '',
      was: say(h.was),
      became: say(h.became),
    })),
    hours:
      e.kind === 'task'
        ? quotedAgainstActual(
            (await workedByTask(ctx.tx, plusMonths(ctx.today, -12), id)).map((w) => w.seconds),
            e.seconds,
          )
        : null,
    standsIn: (await entriesWith(ctx.tx, id)).map((p) => ({
      ...p,
      quantity: new Decimal(p.quantity).toString(),
    })),
    alike: await alikeOf(ctx, e),
    sold: {
      usual: usual(where, money),
      lines: sold?.lines ?? 0,
      quantity: new Decimal(sold?.quantity ?? 0).toString(),
      net: toMoney(sold?.net ?? 0, currency),
      last: sold?.last ?? null,
      where: where.map((w) => ({
        ...w,
        quantity: new Decimal(w.quantity).toString(),
        unitPrice: money(w.unitPrice),
        net: toMoney(w.net, currency),
      })),
    },
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
