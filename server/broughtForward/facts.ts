// What happens to what is taken over from the books before, and how the history says it.
import { facts, type Change } from '../http/facts'

export const broughtFacts = facts('brought', {
  taken: (f: { file: string; invoices: number; credits: number }) =>
    `${f.invoices} open invoices and ${f.credits} credits taken over from ${f.file}`,
  takenBack: (f: { file: string; removed: number; stay: number }) =>
    `${f.file} taken back: ${f.removed} invoices and credits taken out, ${f.stay} stay`,
  balancesKept: (f: { on: string; changes: Record<string, Change> }) =>
    `What stood in the accounts on ${f.on} was entered`,
})
