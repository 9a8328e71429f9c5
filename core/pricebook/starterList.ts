import type { EntryKind } from './kinds'

export interface StarterEntry {
  code: string
  kind: Extract<EntryKind, 'labour' | 'charge' | 'task'>
  category: string
  name: string
  synonyms: string
  /** what it takes; a task is priced by it */
  hours: number
  /** of the price of an hour, where it is no task */
  share: number
}
const entry = (
  kind: StarterEntry['kind'],
  code: string,
  name: string,
  { hours = 0, share = 0, synonyms = '' },
): StarterEntry => ({
  ...{ code, kind, name, synonyms, hours, share },
  category: { labour: 'Labour', charge: 'Charges', task: 'Small work' }[kind],
})

/**
 * What most trades that go to people's homes sell: an hour, the way there, looking for the fault, and small work in steps of
 * half an hour. The hour comes first: the rest follows from it.
 * Common practice of the trade; hours and shares are round figures to begin with, from no price list.
 */
export const STARTER_LIST: readonly StarterEntry[] = [
  entry('labour', 'HOUR', 'Labour, an hour', { hours: 1, share: 1, synonyms: 'time work' }),
  entry('labour', 'HELP', 'Labour of a helper, an hour', { hours: 1, share: 0.6 }),
  entry('charge', 'TRIP', 'Call-out', { hours: 0.25, share: 0.5, synonyms: 'trip visit travel' }),
  entry('charge', 'LATE', 'Evening, weekend or holiday', { share: 1, synonyms: 'after hours' }),
  entry('charge', 'WASTE', 'Taking old parts away', { share: 0.2, synonyms: 'disposal' }),
  entry('task', 'FIND', 'Find the fault', { hours: 0.5, synonyms: 'diagnose look test' }),
  entry('task', 'ADJUST', 'Adjust or tighten', { hours: 0.5, synonyms: 'small repair' }),
  entry('task', 'CLEAN', 'Clean and service', { hours: 1, synonyms: 'maintenance yearly' }),
  entry('task', 'SWAP', 'Replace a small part', { hours: 1, synonyms: 'exchange' }),
  entry('task', 'FIT', 'Fit a new unit', { hours: 2, synonyms: 'install' }),
  entry('task', 'CHECK', 'Safety check with a report', {
    hours: 0.75,
    synonyms: 'inspection test',
  }),
  entry('task', 'SHOW', 'Show how it is used', { hours: 0.25, synonyms: 'explain instruct' }),
]
