// Card payments that came twice and went back by themselves: said until somebody has seen it.
import { toMoney } from '../../core/money/formatMinor'
import { sayMoney } from '../../core/money/sayMoney'
import { DAY } from '../../core/time/units'
import type { Answer } from '../../shared/api'
import type { Ctx } from '../http/context'
import type { GivenBack } from '../payments/queries'

/** Sums of the firm, in its words. */
export const moneyText =
  ({ company }: Ctx) =>
  (minor: number) =>
    sayMoney(toMoney(minor, company.currency), company.locale)
export const SHOWN_FOR_MS = 14 * DAY
/** Card payments that came twice and went back by themselves: the customer may ask. */
export function notices(ctx: Ctx, charges: readonly GivenBack[]): Answer<'unpaid'>['notices'] {
  const money = moneyText(ctx)
  const said = ({ number, amount, state, at }: GivenBack): string => {
    const what = `to the card that paid ${number} a second time`
    if (state === 'refunded') return `${money(amount)} went back ${what}`
    // What the terminal does not do by itself, somebody has to: it is said until it is done.
    if (ctx.now - Date.parse(at) > DAY)
      return `${money(amount)} has not gone back ${what}: give it back at the terminal`
    return `${money(amount)} is on its way back ${what}`
  }
  return charges.map((charge) => ({
    id: charge.id,
    invoiceId: charge.invoiceId,
    customerId: charge.customerId,
    name: charge.name,
    at: charge.at,
    done: charge.state === 'refunded',
    text: said(charge),
  }))
}
