import { parsePhoneNumberFromString, type CountryCode } from 'libphonenumber-js/min'
import { digits } from './searchKey'

/**
 * A telephone number as it is written in the firm's country: its own numbers in the national form, others in the
 * international one. What is no number is kept as it was typed, only trimmed: it may be "ask the neighbour".
 * @param country ISO 3166-1 alpha-2
 * @example formatPhone('607 5550142', 'US') // '(607) 555-0142'
 * @example formatPhone('+44 2079460958', 'US') // '+44 20 7946 0958'
 * @example formatPhone('555-0142', 'US') // '555-0142'
 * The rules of each country are libphonenumber's.
 */
export function formatPhone(typed: string, country: string): string {
  const number = parsePhoneNumberFromString(typed, country as CountryCode)
  if (!number?.isPossible()) return typed.trim()
  return number.country === country || number.countryCallingCode === callingCode(country)
    ? number.formatNational()
    : number.formatInternational()
}
const callingCode = (country: string): string | undefined =>
  parsePhoneNumberFromString('2015550123', country as CountryCode)?.countryCallingCode

/**
 * The digits by which two spellings of a number are the same: without the firm's own calling code.
 * @example phoneKey('+1 607-555-0142', 'US') // '6075550142'
 */
export function phoneKey(typed: string, country: string): string {
  // Ten digits are a whole number in the countries of +1; asking the library for fifty thousand of them takes seconds.
  const plain = /^[\d\s().-]+$/.test(typed) ? digits(typed) : ''
  if (plain.length === 10 && (country === 'US' || country === 'CA')) return plain
  const number = parsePhoneNumberFromString(typed, country as CountryCode)
  if (!number?.isPossible()) return digits(typed)
  return number.countryCallingCode === callingCode(country)
    ? number.nationalNumber
    : digits(number.number)
}
