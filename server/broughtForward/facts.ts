// What happens to what is taken over from the books before, and how the history says it.
import { counted } from '../../core/text/counted'
import { facts, type Change, type Words } from '../http/facts'

export const broughtFacts = facts('brought', {
  taken: (f: { file: string; invoices: number; credits: number }) =>
    `${counted(f.invoices, 'open invoice')} and ${counted(f.credits, 'credit')} taken over from ${f.file}`,
  takenBack: (f: { file: string; removed: number; stay: number }) =>
    `${f.file} taken back: ${counted(f.removed, 'invoice or credit', 'invoices and credits')} taken out, ${f.stay} stay`,
  balancesKept: (f: { on: string; changes: Record<string, Change> }, say: Words) =>
    `What stood in the accounts on ${say.day(f.on)} was entered`,
})
