import { shareAmount } from '../money/shareAmount'
import { labourCost } from './labourCost'
import { workOrderAccount, type Account, type AccountLine } from './workOrderAccount'
import { workedSeconds, type ClockInterval } from '../hours/workedSeconds'

/** Of which phase something is; null where it is of none. */
interface OfPhase {
  phaseId: string | null
}
export interface PhaseAccount extends OfPhase {
  account: Account
  lines: number
  linesDone: number
  /** what its material and the hours clocked in it cost, in minor units */
  costMinor: number
  siteSeconds: number
}
/** What a work order is made of, each with its phase. */
export interface PhasedWork {
  lines: readonly (AccountLine & OfPhase & { done: boolean; materialMinor: number })[]
  clock: readonly (ClockInterval & OfPhase & { costRate: string })[]
}

/**
 * The account of each phase of a work order in their order, and at the end, where there is any, of what is of none. Hours are
 * costed as of the whole work order and shared out, so that the phases sum to it exactly.
 * @param now epoch milliseconds, the end of what still runs
 * @example
 * // A line of 100.00 that is done, in the first of two phases
 * phaseAccounts(['dig', 'pipe'], { lines: [line], clock: [] }, { now, currency: 'USD' }).map(({ linesDone }) => linesDone) // [1, 0]
 */
export function phaseAccounts(
  phaseIds: readonly string[],
  { lines, clock }: PhasedWork,
  { now, currency }: { now: number; currency: string },
): PhaseAccount[] {
  const isOf = (phaseId: string | null) => (thing: OfPhase) => thing.phaseId === phaseId
  const rest = [...lines, ...clock].some(isOf(null))
  const all = [...phaseIds, ...(rest ? [null] : [])]
  const clocks = all.map((phaseId) => clock.filter(isOf(phaseId)))
  const labour = shareAmount(
    labourCost(clock, now, currency),
    clocks.map((own) => labourCost(own, now, currency)),
  )
  return all.map((phaseId, i) => {
    const own = lines.filter(isOf(phaseId))
    return {
      phaseId,
      account: workOrderAccount(own),
      lines: own.length,
      linesDone: own.filter(({ done }) => done).length,
      costMinor: own.reduce((sum, { materialMinor }) => sum + materialMinor, labour[i]!),
      siteSeconds: workedSeconds(clocks[i]!, now).on_site,
    }
  })
}
