// By what prices are changed, in the words of the page.
import type { Given } from '~~/shared/api'

export type PriceWish = Given<'previewPrices'>
export const KINDS = {
  part: 'parts',
  task: 'tasks',
  assembly: 'assemblies',
  labour: 'labour rates',
  charge: 'charges',
} as const
export const RULES = {
  price_percent: 'move the price by per cent',
  cost_percent: 'move the cost by per cent',
  set: 'set the price to',
  by_rule: 'price by the rules again',
} as const
/** What a change is called where nobody named it. */
export function titleOf(wish: PriceWish): string {
  const what = wish.kind ? KINDS[wish.kind as keyof typeof KINDS] : 'all'
  const where = wish.category ? `, ${wish.category}` : ''
  return `${what}${where}: ${RULES[wish.rule as keyof typeof RULES]} ${wish.percent || wish.price}`.trim()
}
