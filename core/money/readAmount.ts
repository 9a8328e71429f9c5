import { Decimal } from './decimal'

/**
 * An amount as lists and spreadsheets write it, in major units: with a currency sign before it, with commas between thousands, up to four
 * decimals. Null where it is none, or below nothing.
 * @example readAmount('$1,200.50') // '1200.5'
 * @example readAmount('12,5') // null: whether that is 12.5 or 125 nobody can tell
 */
export function readAmount(text: string): string | null {
  const plain = text
    .trim()
    .replace(/^[^\d.,-]{1,3}\s?/, '')
    .replace(/(?<=\d),(?=\d{3}(\D|$))/g, '')
  return /^\d{1,9}(\.\d{1,4})?$/.test(plain) ? new Decimal(plain).toString() : null
}
