// Work orders as lists name them: the list of all of them, those of a customer.
import type { VisitState } from '../../core/visits/visitLifecycle'
import type { WorkOrderState } from '../../core/visits/workOrderState'
import { placeholders, type Tx, type Value } from '../db/pool'
import { listRows, type ListIn } from '../db/queries'
import type { Finder } from '../db/search.queries'
import type { Condition } from '../subject'
import { notAgreedOf, TO_COME, undoneOf } from './waiting.queries'

const WORDS: Finder[] = [
  { id: 'o.id', from: 'work_orders o', words: 'o.number, o.title, o.order_number, o.own_words' },
  { id: 'o.id', from: 'customers k JOIN work_orders o ON o.customer_id = k.id', words: 'k.search' },
  { id: 'o.id', from: 'sites k JOIN work_orders o ON o.site_id = k.id', words: 'k.search' },
  {
    id: 'v.work_order_id',
    from: 'people k JOIN visits v ON v.technician_id = k.id',
    words: 'k.name',
  },
]
const SORTS: Record<string, string> = { created: 'w.created_at', number: 'w.number' }
interface WorkOrderFilter {
  q: string
  states: string[]
  kind?: string | undefined
  followUp?: string | undefined
  /** somebody works there */
  onSite?: Condition | null
  sort: string
  descending: boolean
  limit: number
  after: [string, string] | null
}
interface ListedWorkOrder {
  id: string
  number: string
  title: string
  customer: string
  town: string
  kind: string
  state: WorkOrderState
  createdAt: string
  doneAt: string | null
  toBill: number
  uncoveredSeconds: number
  undone: number
  notAgreed: number
  ahead: number
  technician: string | null
  startedAt: string | null
  followUp: string
  followUpOn: string | null
}
/** Conditions with their values; `*` stands for any follow-up list. */
function conditionsOf(f: WorkOrderFilter): [sql: string, values: Value[]][] {
  const all: [string, Value[]][] = []
  if (f.states.length) all.push([`w.state IN (${placeholders(f.states)})`, f.states])
  if (f.onSite) {
    const [where, ...values] = f.onSite
    all.push([`w.id IN (SELECT v.work_order_id FROM visits v WHERE ${where})`, values])
  }
  if (f.kind) all.push(['w.kind = ?', [f.kind]])
  if (f.followUp === '*') all.push([`w.follow_up <> ''`, []])
  else if (f.followUp) all.push(['w.follow_up = ?', [f.followUp]])
  return all
}
export function workOrderPage(tx: Tx, f: WorkOrderFilter) {
  const conditions = conditionsOf(f)
  return listRows<ListedWorkOrder>(tx, {
    select: `w.id, w.number, w.title, w.follow_up, w.follow_up_on, c.name AS customer, s.town,
        w.kind, w.state, w.created_at, w.done_at, w.to_bill_minor AS toBill, w.uncovered_seconds, ${undoneOf('w.id')} AS undone,
        IF(w.state = 'to_bill', ${notAgreedOf('w.id')}, 0) AS notAgreed,
        EXISTS (SELECT 1 FROM visits v WHERE v.work_order_id = w.id AND ${TO_COME}) AS ahead,
        (SELECT p.name FROM visits v JOIN people p ON p.id = v.technician_id WHERE v.work_order_id =
        w.id ORDER BY v.start_at DESC LIMIT 1) AS technician,
        (SELECT v.started_at FROM visits v WHERE v.work_order_id = w.id ORDER BY v.start_at DESC
        LIMIT 1) AS startedAt`,
    from: 'work_orders w STRAIGHT_JOIN customers c ON c.id = w.customer_id JOIN sites s ON s.id = w.site_id',
    where: conditions.map(([sql]) => sql),
    values: conditions.flatMap(([, values]) => values),
    search: {
      q: f.q,
      finders: WORDS,
      text: ['w.number', 'w.title', 'w.order_number', 'w.own_words', 'c.search', 's.search'],
    },
    by: SORTS[f.sort] ?? 'w.created_at',
    id: 'w.id',
    descending: f.descending,
    limit: f.limit,
    after: f.after,
  })
}
export interface WorkOfCustomer {
  id: string
  number: string
  title: string
  state: string
  on: string
  toBill: number
}
export const workOfCustomerIn = (customerId: string): ListIn => ({
  columns: 'id, number, title, state, DATE(created_at) AS `on`, to_bill_minor AS toBill',
  from: 'work_orders WHERE customer_id = ?',
  values: [customerId],
  order: 'created_at DESC',
  limit: 100,
})
export interface ComingVisit {
  id: string
  workOrderId: string
  number: string
  title: string
  state: VisitState
  technicianId: string | null
  technician: string | null
  startAt: string | null
  promiseDate: string | null
  promiseFrom: string | null
  promiseTo: string | null
}
/** Visits of a customer that are still to come, or go on, the next first. */
export const comingOfIn = (customerId: string): ListIn => ({
  columns: `v.id, v.work_order_id, w.number, w.title, v.state, v.technician_id, p.name AS technician, v.start_at,
    v.promise_date, LEFT(v.promise_from, 5) AS promiseFrom, LEFT(v.promise_to, 5) AS promiseTo`,
  from: `visits v JOIN work_orders w ON w.id = v.work_order_id LEFT JOIN people p ON p.id = v.technician_id
    WHERE w.customer_id = ? AND ${TO_COME} AND NOT w.cancelled AND NOT w.closed`,
  values: [customerId],
  order: 'v.start_at IS NULL, v.start_at, v.id',
  limit: 8,
  instants: ['startAt'],
})
export const workSumsIn = (customerId: string): ListIn => ({
  columns: 's.promised, s.done',
  from: `(SELECT CAST(COALESCE(SUM(l.promised_minor), 0) AS SIGNED) AS promised,
      CAST(COALESCE(SUM(IF(l.done, l.net_minor, 0)), 0) AS SIGNED) AS done FROM work_lines l JOIN
      work_orders w ON w.id = l.work_order_id WHERE w.customer_id = ? AND NOT l.removed) s`,
  values: [customerId],
  order: 's.done',
})
export interface BilledSum {
  netMinor: number
  payableMinor: number
  paidMinor: number
}
export const billedSumsIn = (customerId: string): ListIn => ({
  columns: 'net_minor, payable_minor, paid_minor',
  from: 'invoices WHERE customer_id = ? AND state <> "void"',
  values: [customerId],
  order: 'id',
})
