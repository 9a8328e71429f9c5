/** What may say the price of a line, from the strongest to the weakest. */
export interface PriceSources {
  /** a call-back is without charge */
  free: boolean
  typed?: string | undefined
  /** agreed for this work order alone */
  workOrder?: string | undefined
  /** agreed with this customer */
  customer?: string | undefined
  /** of the book, or of a supplier's basket by our markup */
  book: string
}
/** Where a price is from, as it is kept with a line. */
export type PriceSource = 'free' | 'typed' | 'work_order' | 'customer' | 'book'
export interface OrderedPrice {
  price: string
  from: PriceSource
}
/**
 * Whether a price was agreed: no level of prices is taken off it.
 * @example isAgreed('customer') // true
 */
export const isAgreed = (from: PriceSource): boolean => from === 'work_order' || from === 'customer'

/**
 * Which of several prices holds, and why: what was typed on the line stands over what was agreed for the work order, this over what was
 * agreed with the customer, this over the price book. A price level is taken off the book's price only.
 * @example orderedPrice({ free: false, customer: '110', book: '128' }) // { price: '110', from: 'customer' }
 * Source: common practice of the trade.
 */
export function orderedPrice(s: PriceSources): OrderedPrice {
  if (s.free) return { price: '0', from: 'free' }
  if (s.typed !== undefined) return { price: s.typed, from: 'typed' }
  if (s.workOrder !== undefined) return { price: s.workOrder, from: 'work_order' }
  if (s.customer !== undefined) return { price: s.customer, from: 'customer' }
  return { price: s.book, from: 'book' }
}
