// What happens to invoices, and how the history says it.
import { facts } from '../http/facts'

type Numbered = { number: string }

export const invoiceFacts = facts('invoice', {
  made: (f: Numbered & { total: string; currency: string; dueOn: string }, say) =>
    `Invoice ${f.number} made, ${say.money(f.total, f.currency)}, due ${say.day(f.dueOn)}`,
  sent: (f: Numbered & { addresses: number }) =>
    `Invoice ${f.number} sent to ${f.addresses === 1 ? 'one address' : `${f.addresses} addresses`}`,
  handedOver: (f: Numbered) => `Invoice ${f.number} handed over on paper`,
  opened: (f: Numbered) => `Invoice ${f.number} opened by the customer`,
  linkRenewed: (f: Numbered) => `Invoice ${f.number}: another link for the customer`,
  linkWithdrawn: (f: Numbered) => `Invoice ${f.number}: the customer’s link was withdrawn`,
})
