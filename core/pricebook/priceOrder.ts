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
export interface OrderedPrice {
  price: string
  from: 'free' | 'typed' | 'workOrder' | 'customer' | 'book'
}

/** Where a price came from, in the words that are kept with a line. */
export const PRICE_FROM: Record<OrderedPrice['from'], string> = {
  free: 'a call-back is without charge',
  typed: 'typed here',
  workOrder: 'agreed for this work order',
  customer: 'agreed with this customer',
  book: 'price book',
}

/**
 * Which of several prices holds, and why: what was typed on the line stands over what was agreed for the work order, this over what was
 * agreed with the customer, this over the price book. A price level is taken off the book's price only.
 * @example orderedPrice({ free: false, customer: '110', book: '128' }) // { price: '110', from: 'customer' }
 * Source: common practice of the trade.
 */
export function orderedPrice(s: PriceSources): OrderedPrice {
  if (s.free) return { price: '0', from: 'free' }
  for (const from of ['typed', 'workOrder', 'customer'] as const) {
    const price = s[from]
    if (price !== undefined) return { price, from }
  }
  return { price: s.book, from: 'book' }
}
