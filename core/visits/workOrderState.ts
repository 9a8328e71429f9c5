import type { VisitState } from './visitLifecycle'

/** The states of a work order, in the order in which they are come to. */
export const WORK_ORDER_STATES = [
  'needs_slot',
  'scheduled',
  'on_site',
  'paused',
  'to_bill',
  'billed',
  'closed',
  'cancelled',
] as const
export type WorkOrderState = (typeof WORK_ORDER_STATES)[number]

export interface WorkOrderFacts {
  cancelled: boolean
  closed: boolean
  visits: readonly { state: VisitState; placed: boolean }[]
  toBillMinor: number
  billedMinor: number
  unpaidMinor: number
  /** its visit was made to quote: a quote came of it, and was not accepted (yet) */
  quoted?: boolean
  /** a call-back or a warranty visit: nothing is charged, so that it closes when it is finished */
  free?: boolean
}
/** What its visits say of it while one of them is still to come or under way. */
function stateByVisits(visits: WorkOrderFacts['visits']): WorkOrderState | null {
  const has = (state: VisitState) => visits.some((v) => v.state === state)
  if (has('on_site')) return 'on_site'
  if (has('paused')) return 'paused'
  if (visits.some((v) => v.state === 'planned' && !v.placed)) return 'needs_slot'
  return has('driving') || has('planned') ? 'scheduled' : null
}
/** What its money says of it when it was visited, or sold without a visit. */
function stateByMoney(facts: WorkOrderFacts): WorkOrderState {
  const { toBillMinor, billedMinor, unpaidMinor, quoted, free } = facts
  // What was quoted waits among the quotes, and nowhere else; accepted, it comes back with a further visit.
  if ((quoted || free) && toBillMinor === 0 && billedMinor === 0) return 'closed'
  if (toBillMinor > 0 || billedMinor === 0) return 'to_bill'
  return unpaidMinor > 0 ? 'billed' : 'closed'
}
/**
 * A work order's state follows from what is true: its visits, what is left to bill, what is left to pay.
 * A work order that was visited and has nothing to bill and nothing billed is *to bill* until it is closed: somebody
 * must say why no money comes of it.
 * @example workOrderState({ cancelled: false, closed: false, visits: [], toBillMinor: 0, billedMinor: 0, unpaidMinor: 0 }) // 'needs_slot'
 */
export function workOrderState(facts: WorkOrderFacts): WorkOrderState {
  if (facts.cancelled) return 'cancelled'
  if (facts.closed) return 'closed'
  const live = facts.visits.filter((v) => v.state !== 'cancelled')
  const waits = stateByVisits(live)
  if (waits) return waits
  // Something sold without a visit (the year of a care agreement) is billed as it stands.
  const sold = live.length === 0 && facts.toBillMinor + facts.billedMinor > 0
  const finished = live.some((v) => v.state === 'finished')
  return sold || finished ? stateByMoney(facts) : 'needs_slot'
}
