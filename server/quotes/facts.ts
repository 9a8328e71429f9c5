// What happens to quotes, and how the history says it.
import { facts } from '../http/facts'

type Numbered = { number: string }
/** What a change of a quote may touch, as the history says it. */
const PARTS = {
  title: 'the title',
  scope: 'the scope',
  orderNumber: 'their order number',
  expiresOn: 'how long the price is held',
  ownerId: 'who has it',
  customerId: 'who pays',
  lines: 'the lines',
} as const
export type QuotePart = keyof typeof PARTS

export const quoteFacts = facts('quote', {
  copied: (f: { number: string; from: string }) => `Quote ${f.number} begun like ${f.from}`,
  begun: (f: Numbered & { title: string }) => `Quote ${f.number} begun: ${f.title}`,
  changed: (f: Numbered & { parts: readonly QuotePart[] }) =>
    `Quote ${f.number}: changed ${f.parts.map((part) => PARTS[part]).join(', ') || 'nothing'}`,
  bought: (f: Numbered & { lines: number }) => `Quote ${f.number}: ${f.lines} from a supplier`,
  sent: (f: Numbered & { addresses: number; total: string; currency: string }, say) =>
    `Quote ${f.number} ${sentTo(f.addresses)}, ${say.money(f.total, f.currency)}`,
  opened: (f: Numbered) => `Quote ${f.number} opened by the customer`,
  reopened: (f: Numbered) => `Quote ${f.number} taken back to be changed`,
  accepted: (f: Numbered & { words: string }) => `Quote ${f.number} accepted: ${f.words}`,
  declined: (f: Numbered & { words: string }) => `Quote ${f.number} declined: ${f.words}`,
  promised: (f: Numbered & { workOrder: string }) => `${f.workOrder} made from quote ${f.number}`,
})

function sentTo(addresses: number): string {
  if (addresses === 0) return 'handed over on paper'
  return addresses === 1 ? 'sent to one address' : `sent to ${addresses} addresses`
}
