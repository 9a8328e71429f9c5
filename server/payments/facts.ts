// What happens to payments, and how the history says it.
import { BACK_REASONS, type BackReason } from '../../core/payments/takingBack'
import { facts } from '../http/facts'

interface Taken {
  amount: string
  method: string
  reference: string
  receipt: string
}
const paid = (f: Taken) =>
  `${f.amount} paid by ${f.method}${f.reference ? ` (${f.reference})` : ''}`
type OnCard = { amount: string; invoice: string }

export const paymentFacts = facts('payment', {
  applied: (f: Taken) => `${paid(f)}, receipt ${f.receipt}`,
  unapplied: (f: Taken) => `${paid(f)}, not applied to an invoice, receipt ${f.receipt}`,
  bounced: (f: { number: string; method: string; reference: string; reason: string }) =>
    `${f.number} (${f.method} ${f.reference}) came back: ${f.reason}`,
  takenBack: (
    f: {
      number: string
      method: string
      reference: string
      amount: string
      currency: string
      why: BackReason
      reason: string
    },
    say,
  ) =>
    `${f.number}, ${say.money(f.amount, f.currency)} by ${f.method}${f.reference ? ` (${f.reference})` : ''}, taken back: ${BACK_REASONS[f.why].said}, ${f.reason}`,
  declined: (f: { invoice: string; reason: string }) =>
    `A card was declined for invoice ${f.invoice}: ${f.reason}`,
  givenBack: (f: OnCard & { reason: string }) =>
    `A second card payment of ${f.amount} for invoice ${f.invoice} is given back: ${f.reason}`,
  wentBack: (f: OnCard) =>
    `${f.amount} went back to the card that paid invoice ${f.invoice} a second time`,
})
