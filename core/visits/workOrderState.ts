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
  /** worked on site, neither charged by a line nor explained */
  uncoveredSeconds?: number
  /** lines that were promised, and neither done nor taken out */
  undone?: number
  /** its visit was made to quote: a quote came of it, and was not accepted (yet) */
  quoted?: boolean
  /** a call-back or a warranty visit: nothing is charged, so that it closes when it is finished */
  free?: boolean
}
type Visits = WorkOrderFacts['visits']
const has = (visits: Visits, ...states: VisitState[]) =>
  visits.some(({ state }) => states.includes(state))
/** What its visits say of it while somebody works there. */
function stateAtWork(visits: Visits): WorkOrderState | null {
  if (has(visits, 'on_site')) return 'on_site'
  return has(visits, 'paused') ? 'paused' : null
}
/** What its visits say of it while one of them is still to come. */
function stateAhead(visits: Visits): WorkOrderState | null {
  if (visits.some((v) => v.state === 'planned' && !v.placed)) return 'needs_slot'
  return has(visits, 'driving', 'planned') ? 'scheduled' : null
}
/** What its money says of it when it was visited, or sold without a visit. */
function stateByMoney(facts: WorkOrderFacts): WorkOrderState {
  const { toBillMinor, billedMinor, unpaidMinor, uncoveredSeconds = 0, undone = 0 } = facts
  // What was quoted waits among the quotes, and nowhere else; accepted, it comes back with a further visit.
  if ((facts.quoted || facts.free) && toBillMinor === 0 && billedMinor === 0) return 'closed'
  if (toBillMinor > 0 || billedMinor === 0 || uncoveredSeconds > 0 || undone > 0) return 'to_bill'
  return unpaidMinor > 0 ? 'billed' : 'closed'
}
/**
 * A work order's state follows from what is true: its visits, what is left to bill, what is left to pay.
 * What is done waits for its bill whatever is still to come. A work order that was visited and has nothing to bill and
 * nothing billed, hours that nobody charged or explained, or something promised and not done, is *to bill* until it is
 * closed: somebody must say why no money comes of it. One whose visits all came to nothing needs a slot again.
 * @example workOrderState({ cancelled: false, closed: false, visits: [], toBillMinor: 0, billedMinor: 0, unpaidMinor: 0 }) // 'to_bill'
 */
export function workOrderState(facts: WorkOrderFacts): WorkOrderState {
  if (facts.cancelled) return 'cancelled'
  if (facts.closed) return 'closed'
  const live = facts.visits.filter((v) => v.state !== 'cancelled')
  const atWork = stateAtWork(live)
  if (atWork) return atWork
  // Something sold without a visit (the year of a care agreement) is billed as it stands; it never needs a slot.
  const wasSold = facts.visits.length === 0
  const sold = live.length === 0 && (wasSold || facts.toBillMinor + facts.billedMinor > 0)
  const wasThere = has(live, 'finished', 'no_access')
  if (facts.toBillMinor > 0 && (sold || wasThere)) return 'to_bill'
  const ahead = stateAhead(live)
  if (ahead) return ahead
  // Nobody let them in, and the way was charged: that ends it only by somebody's word.
  return sold || has(live, 'finished') ? stateByMoney(facts) : 'needs_slot'
}
/**
 * Whether a work order needs a visit and has none to come: every one was cancelled, or at the last one nobody was let in.
 * What never had one was sold without.
 * @param facts its visits in the order of their times
 * @example wantsVisit({ cancelled: false, closed: false, visits: [{ state: 'no_access', placed: true }], toBillMinor: 0, billedMinor: 0, unpaidMinor: 0 }) // true
 */
export function wantsVisit(facts: WorkOrderFacts): boolean {
  if (facts.cancelled || facts.closed || facts.visits.length === 0) return false
  const live = facts.visits.filter((v) => v.state !== 'cancelled')
  if (has(live, 'planned', 'driving', 'on_site', 'paused')) return false
  // What was to be done there after an earlier visit is still to be done.
  if (live.at(-1)?.state === 'no_access') return true
  return !has(live, 'finished') && facts.toBillMinor + facts.billedMinor === 0
}
