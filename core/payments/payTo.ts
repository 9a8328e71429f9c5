// How a customer pays the firm, as a paper says it: by transfer to an account, by cheque, or as the firm writes it.
import { electronicFormatIBAN, friendlyFormatIBAN, isValidBIC, isValidIBAN } from 'ibantools'
import { saysOn, type Says } from '../documents/paperWords'

/** An account number as it is kept: without spaces, in capitals. @example readIban('de89 3704 0044 0532 0130 00') // 'DE89370400440532013000' */
export const readIban = (typed: string): string => electronicFormatIBAN(typed) ?? ''
/**
 * Whether it is an account number of ISO 13616: a country that has them, of its length and pattern, whose check digits fit
 * (ISO 7064, mod 97-10).
 * @example isIban('GB82WEST12345698765432') // true
 * @example isIban('GB82WEST12345698765431') // false
 */
export const isIban = (iban: string): boolean => isValidIBAN(iban)
/** Whether it is the code of a bank by ISO 9362. @example isBic('DEUTDEFF') // true */
export const isBic = (bic: string): boolean => isValidBIC(bic)

export interface PayTo {
  /** as the firm writes it: a page, an account elsewhere, opening hours of the till */
  payTo: string
  name: string
  payee: string
  bank: string
  iban: string
  bic: string
  chequeName: string
}
/**
 * What a paper says of how it is paid, a line each; what the firm does not have is left out.
 * @param says the words of the paper
 * @example payToWords({ payTo: 'Cash', name: 'Reed', payee: '', bank: '', iban: 'DE89370400440532013000', bic: '', chequeName: '' })
 * // 'Cash\nBy transfer to Reed, IBAN DE89 3704 0044 0532 0130 00'
 */
export function payToWords(firm: PayTo, says: Says<'invoice'> = saysOn('invoice')): string {
  const account = [
    says('transfer', { payee: firm.payee || firm.name }),
    firm.bank,
    firm.iban && `IBAN ${friendlyFormatIBAN(firm.iban)}`,
    firm.bic && `BIC ${firm.bic}`,
  ].filter(Boolean)
  return [
    firm.payTo,
    firm.iban ? account.join(', ') : '',
    firm.chequeName && says('cheques', { payee: firm.chequeName }),
  ]
    .filter(Boolean)
    .join('\n')
}
