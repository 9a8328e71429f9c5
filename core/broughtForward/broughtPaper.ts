import { addressLines, type Letterhead } from '../documents/letterhead'
import { payToWords, type PayTo } from '../payments/payTo'
import type { InvoicePaper } from '../invoices/invoicePaper'
import { toMoney } from '../money/formatMinor'
import { sayDay } from '../time/sayDay'
import type { OpenItem } from './openItem'

interface Facts {
  item: Pick<OpenItem, 'number' | 'issuedOn' | 'dueOn' | 'totalMinor' | 'openMinor'>
  buyer: { name: string; line1: string; town: string; postcode: string }
  seller: Letterhead
  firm: PayTo & { currency: string; locale: string; taxMode: string; conditions: string }
}

/**
 * The paper of an invoice that the books before had: its whole, what was paid before, what is to be paid. Its lines and
 * taxes stand on the paper that the customer has.
 * @example broughtPaper({ item: { number: '1041', totalMinor: 9000, openMinor: 5000, … }, … }).paidBefore // { amount: '40.00', … }
 */
export function broughtPaper({ item, buyer, seller, firm }: Facts): InvoicePaper {
  const money = (minor: number) => toMoney(minor, firm.currency)
  const { number, issuedOn, dueOn, totalMinor, openMinor } = item
  return {
    ...{ number, issueOn: issuedOn, dueOn, terms: 'as agreed before' },
    ...{ currency: firm.currency, locale: firm.locale, taxMode: firm.taxMode, seller },
    buyer: { name: buyer.name, address: addressLines(buyer) },
    ...{ site: '', orderNumber: '', workOrder: '', exemptCertificate: '' },
    ...{ payTo: payToWords(firm), conditions: firm.conditions },
    lines: [
      {
        name: `As on our invoice ${number} of ${sayDay(issuedOn, firm.locale, 'written')}`,
        ...{ quantity: '1', unit: 'each', unitPrice: money(totalMinor).amount },
        ...{ discount: money(0), off: [], net: money(totalMinor) },
      },
    ],
    ...{ net: money(totalMinor), taxes: [], tax: money(0), total: money(totalMinor) },
    paidBefore: money(totalMinor - openMinor),
    payable: money(openMinor),
  }
}
