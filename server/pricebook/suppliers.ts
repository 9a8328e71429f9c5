// Wholesalers over HTTP: their catalogue, what they have, what it costs us; a basket of theirs becomes lines of ours, at cost times our markup.
// Costs are asked for here again: what a browser says that something costs is never taken.
import * as yup from 'yup'
import { invalid, LedgerError } from '../../core/errors/LedgerError'
import { minorToDecimal } from '../../core/money/formatMinor'
import { roundToMinor } from '../../core/money/roundToMinor'
import { markupRuleFor } from '../../core/pricebook/markupTiers'
import { partPrice } from '../../core/pricebook/partPrice'
import type { Answer, Body, Query } from '../../shared/api'
import { signedIn, type Ctx } from '../http/context'
import type { Call } from '../http/route'
import { bySupplierPart } from './names.queries'
import { rulesOf } from './rules'
import { config } from '../config'

const product = yup.object({
  supplier: yup.object({ id: yup.string().required(), name: yup.string().required() }),
  partNumber: yup.string().required(),
  name: yup.string().required(),
  category: yup.string().default(''),
  unit: yup.string().default('each'),
  price: yup.object({
    amount: yup
      .string()
      .matches(/^\d{1,9}(\.\d{1,4})?$/)
      .required(),
    currency: yup.string().required(),
  }),
  stock: yup.number().required(),
  deliveryDays: yup.number().required(),
  makerNumber: yup.string().default(''),
})
type Product = yup.InferType<typeof product>
const away = () =>
  new LedgerError(
    'supplier_away',
    'The supplier does not answer. Nothing was changed; try again in a moment, or write the line by hand.',
  )
async function ask(path: string): Promise<unknown> {
  const { address: base, secret } = config.connectionTo('supplier')
  if (!base)
    throw new LedgerError(
      'no_supplier',
      'No supplier is connected. Name one under Connections that speaks the exchange described in the formats.',
    )
  const response = await fetch(`${base}${path}`, {
    signal: AbortSignal.timeout(5_000),
    headers: { Authorization: `Bearer ${secret}` },
  }).catch(() => {
    throw away()
  })
  if (response.status === 404) return null
  if (!response.ok) throw away()
  return response.json().catch(() => {
    throw away()
  })
}
/** What an outside program says is checked before it is believed. */
const products = (answer: unknown): Promise<Product[]> =>
  yup
    .object({ items: yup.array(product).required() })
    .validate(answer)
    .then(
      (a) => a.items,
      () => {
        throw away()
      },
    )
/** What is sold in another currency is not for us. */
const ours = (ctx: Ctx, items: readonly Product[]) =>
  items.filter((p) => p.price.currency === ctx.company.currency)
export async function supplierNames(): Promise<Answer<'suppliers'>> {
  if (!config.connectionTo('supplier').address) return { items: [] }
  const { items } = await yup
    .object({
      items: yup
        .array(
          yup.object({
            id: yup.string().required(),
            name: yup.string().required(),
            categories: yup.array(yup.string().required()).default([]),
          }),
        )
        .required(),
    })
    .validate(await ask('/suppliers'))
    .catch(() => {
      throw away()
    })
  return { items }
}
/** Each product with what we would sell it for, and the entry of our book that it is already. */
async function shape(
  ctx: Ctx,
  items: readonly Product[],
): Promise<Answer<'supplierProducts'>['items']> {
  const rules = await rulesOf(ctx)
  const { currency } = ctx.company
  const known = new Map(
    (
      await bySupplierPart(
        ctx.tx,
        items.map((p) => p.partNumber),
      )
    ).map((e) => [`${e.supplier} ${e.partNumber}`, e]),
  )
  return items.map((p) => {
    const entry = known.get(`${p.supplier.name} ${p.partNumber}`)
    return {
      supplierId: p.supplier.id,
      supplier: p.supplier.name,
      partNumber: p.partNumber,
      name: p.name,
      category: p.category,
      unit: p.unit,
      stock: p.stock,
      deliveryDays: p.deliveryDays,
      makerNumber: p.makerNumber,
      cost: signedIn(ctx).seesCost ? p.price.amount : null,
      price:
        entry && entry.pricing === 'fixed'
          ? minorToDecimal(roundToMinor(entry.price, currency), currency)
          : minorToDecimal(sell(ctx, p, rules), currency),
      entry: entry
        ? { id: entry.id, code: entry.code, cost: signedIn(ctx).seesCost ? entry.cost : null }
        : null,
    }
  })
}
function sell(ctx: Ctx, p: Product, rules: Awaited<ReturnType<typeof rulesOf>>): number {
  const rule = markupRuleFor({ category: p.category, supplier: p.supplier.name }, rules.markups)
  if (!rule)
    throw new LedgerError(
      'no_markup',
      'There is no markup for what is bought. Make one under the rules of prices.',
    )
  return partPrice(p.price.amount, rule.tiers, ctx.company.currency)
}
export async function supplierProducts(
  call: Call,
  id: string,
  query: Query<'supplierProducts'>,
): Promise<Answer<'supplierProducts'>> {
  const q = new URLSearchParams({
    q: query.q ?? '',
    category: query.category ?? '',
    limit: String(query.limit ?? 50),
    after: query.after ?? '',
  })
  const answer = (await ask(`/suppliers/${encodeURIComponent(id)}/products?${q}`)) as {
    next?: string | null
    total?: number
  } | null
  if (!answer) return { items: [], next: null, total: 0 }
  const items = await products(answer)
  return {
    items: await call.inContext((ctx) => shape(ctx, ours(ctx, items))),
    next: answer.next ?? null,
    total: Number(answer.total ?? 0),
  }
}
/** The same thing at every supplier, the cheapest that has it first. */
export async function compareSuppliers(
  call: Call,
  makerNumber: string,
): Promise<Answer<'compareSuppliers'>> {
  const items = await products(await ask(`/offers?makerNumber=${encodeURIComponent(makerNumber)}`))
  const cheapest = [...items].sort(
    (a, b) =>
      Number(b.stock > 0) - Number(a.stock > 0) || Number(a.price.amount) - Number(b.price.amount),
  )
  return { items: await call.inContext((ctx) => shape(ctx, ours(ctx, cheapest))) }
}
type Basket = Body<'addBasket'>['items']
export type AskedBasket = (Basket[number] & { product: Product })[]
/** What the suppliers say today of everything in a basket: asked before any transaction. */
export const askBasket = (basket: Basket): Promise<AskedBasket> =>
  Promise.all(
    basket.map(async (b, i) => {
      const one = await ask(
        `/suppliers/${encodeURIComponent(b.supplierId)}/products/${encodeURIComponent(b.partNumber)}`,
      )
      const [found] = one ? await products({ items: [one] }) : []
      if (!found)
        throw invalid(
          `items[${i}].partNumber`,
          `${b.partNumber} is not in the supplier’s catalogue any more.`,
        )
      return { ...b, product: found }
    }),
  )
/** A basket as lines: what the book knows is its entry, with the cost that the supplier says today; the rest are lines of their own. */
export async function basketLines(ctx: Ctx, basket: AskedBasket) {
  const rules = await rulesOf(ctx)
  for (const [i, b] of basket.entries())
    if (!ours(ctx, [b.product]).length)
      throw invalid(
        `items[${i}].partNumber`,
        `${b.partNumber} is sold in ${b.product.price.currency} only.`,
      )
  const known = new Map(
    (
      await bySupplierPart(
        ctx.tx,
        basket.map((b) => b.partNumber),
      )
    ).map((e) => [`${e.supplier} ${e.partNumber}`, e]),
  )
  return basket.map(({ product: p, id, quantity }) => {
    const entry = known.get(`${p.supplier.name} ${p.partNumber}`)
    return {
      id,
      quantity,
      entryId: entry?.id ?? null,
      kind: 'part' as const,
      name: entry ? undefined : p.name,
      unit: p.unit,
      unitPrice:
        entry?.pricing === 'fixed'
          ? undefined
          : minorToDecimal(sell(ctx, p, rules), ctx.company.currency),
      done: true,
      bought: {
        supplier: p.supplier.name,
        partNumber: p.partNumber,
        cost: p.price.amount,
      },
    }
  })
}
