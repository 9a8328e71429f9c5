// SQL of where visits and work orders wait.
import {
  whereToldStands,
  whereVisitStands,
  whereWorkStands,
  type At,
  type ToldFacts,
  type VisitFacts,
  type WorkFacts,
} from '../../core/waiting/whereItStands'
import { promiseOf, toldOf } from './visits.queries'
import { waits, type Condition, type Waiting, type Waits, type WaitsAt } from '../subject'

/** Somebody is on the way to a visit `v`, or there. */
const UNDER_WAY = `v.state IN ('driving', 'on_site', 'paused')`
/** A visit `v` is still to come, or goes on. */
export const TO_COME = `(v.state = 'planned' OR ${UNDER_WAY})`
/** Still to come, of a work order that goes on. */
const AHEAD = `v.state = 'planned' AND v.work_order_id IN (SELECT w.id FROM work_orders w WHERE NOT
    w.cancelled AND NOT w.closed)`
const UNPLACED = '(v.start_at IS NULL OR v.technician_id IS NULL)'
const ENDS_BY = '(v.start_at + INTERVAL v.duration_seconds SECOND)'
const MISSED = `COALESCE(${ENDS_BY} <= ?, FALSE)`
const PARKED = `v.work_order_id IN (SELECT w.id FROM work_orders w WHERE w.follow_up_on > ?)`
/** Visits that want a place: without a time or a person, or not begun when their day was over; what is parked comes back on its day. */
export const inTray = ({ today, missedBefore }: WaitsAt): Condition => [
  `${AHEAD} AND (${UNPLACED} OR ${MISSED}) AND NOT ${PARKED}`,
  missedBefore,
  today,
]
/** Visits at which somebody works, or to which somebody is said to be on the way since a day that is over. */
export const onSite = ({ missedBefore }: WaitsAt): Condition => [
  `(v.state IN ('on_site', 'paused') OR (v.state = 'driving' AND ${MISSED}))`,
  missedBefore,
]
type VisitRow = Waiting &
  Omit<VisitFacts, 'startsAt' | 'endsAt'> & { starts: string | null; ends: string | null }
const instantOf = (at: string | null) => (at === null ? null : Date.parse(at))
const VISIT: Waits = waits<VisitRow>({
  kind: 'visit',
  from: 'visits v',
  joins: `JOIN work_orders o ON o.id = v.work_order_id JOIN customers c ON c.id = o.customer_id
    LEFT JOIN visits a ON a.id = v.again_of`,
  id: 'v.id',
  columns: `CONCAT(o.number, ' ', o.title) AS label, c.name AS whose, NULL AS sum, v.state, NOT
    ${UNPLACED} AS placed, v.start_at AS starts, ${ENDS_BY} AS ends, (o.cancelled OR o.closed)
    AS ended, o.follow_up_on AS parkedUntil, CONCAT_WS(', ', o.follow_up,
    NULLIF(o.follow_up_reason, '')) AS parkedIn, IF(a.state IN ('no_access', 'cancelled'), a.state, NULL)
    AS again, v.next_step, v.note, TRUE AS carried`,
  booleans: ['placed', 'ended'],
  places: (at) => ({
    tray: inTray(at),
    parked: [`${AHEAD} AND (${UNPLACED} OR ${MISSED}) AND ${PARKED}`, at.missedBefore, at.today],
    schedule: [
      `(v.state = 'driving' OR (${AHEAD} AND NOT ${UNPLACED})) AND NOT ${MISSED}`,
      at.missedBefore,
    ],
    on_site: onSite(at),
  }),
  stands: ({ starts, ends, ...visit }, at) =>
    whereVisitStands({ ...visit, startsAt: instantOf(starts), endsAt: instantOf(ends) }, at),
  to: ({ id, starts }, at) => onSchedule(id, starts, at),
})
/** A visit on its day, opened; one without a day stands in the tray of any. */
const onSchedule = (id: string, starts: string | null, { today, dateOf }: At) =>
  `/schedule?date=${starts ? dateOf(Date.parse(starts)) : today}&open=${id}`
const SAID = (what: string) =>
  `${what}_date, LEFT(v.${what}_from, 5) AS ${what}From, LEFT(v.${what}_to, 5) AS ${what}To`
/** What a customer was told of a visit, and does not hold any more. */
const toTell = ({ today }: WaitsAt): Condition => [
  `((v.state = 'planned' AND NOT (v.told_date <=> v.promise_date AND
    v.told_from <=> v.promise_from AND v.told_to <=> v.promise_to)) OR (v.state = 'cancelled' AND
    v.told_date >= ?))`,
  today,
]
type ToldRow = Waiting &
  Pick<ToldFacts, 'state'> &
  Parameters<typeof toldOf>[0] & {
    promiseDate: string | null
    promiseFrom: string | null
    promiseTo: string | null
  }
const TOLD: Waits = waits<ToldRow>({
  kind: 'told',
  from: 'visits v',
  joins: 'JOIN work_orders o ON o.id = v.work_order_id JOIN customers c ON c.id = o.customer_id',
  id: 'v.id',
  columns: `CONCAT(o.number, ' ', o.title) AS label, c.name AS whose, NULL AS sum, v.state,
    v.${SAID('told')}, v.${SAID('promise')}, TRUE AS carried`,
  places: (at) => ({ to_tell: toTell(at) }),
  stands: (visit, at) =>
    whereToldStands({ state: visit.state, told: toldOf(visit), promise: promiseOf(visit) }, at),
  to: ({ id }) => `/to-act-on?tell=${id}#to_tell`,
})
type WorkRow = Waiting &
  Omit<WorkFacts, 'doneAt' | 'ahead'> & { done: string | null; ahead: boolean }
/** How many lines of a work order were promised, and neither done nor taken out. */
export const undoneOf = (workOrder: string) =>
  `(SELECT COUNT(*) FROM work_lines n WHERE n.work_order_id = ${workOrder} AND NOT n.removed AND NOT n.done AND n.promised_minor > 0)`
/** How many lines of a work order are done, on no bill, and beyond what its customer signed or accepted. */
export const notAgreedOf = (workOrder: string) =>
  `IF(EXISTS (SELECT 1 FROM signatures g WHERE g.work_order_id = ${workOrder}) OR EXISTS (SELECT 1 FROM
    quotes q WHERE q.work_order_id = ${workOrder} AND q.state = 'accepted'), (SELECT COUNT(*) FROM work_lines n
    WHERE n.work_order_id = ${workOrder} AND NOT n.removed AND n.done AND n.net_minor > n.promised_minor AND NOT EXISTS
    (SELECT 1 FROM invoice_lines k JOIN invoices i ON i.id = k.invoice_id WHERE k.work_line_id = n.id
    AND i.state <> 'void')), 0)`
const HAS_TO_COME = `EXISTS (SELECT 1 FROM visits v WHERE v.work_order_id = o.id AND ${TO_COME})`
// What only a work order to bill is asked for is looked up for those alone: a firm has years of others behind it.
const WORK: Waits = waits<WorkRow>({
  kind: 'work order',
  from: 'work_orders o',
  joins: 'JOIN customers c ON c.id = o.customer_id',
  id: 'o.id',
  columns: `CONCAT(o.number, ' ', o.title) AS label, c.name AS whose, o.to_bill_minor AS sum, o.state,
    o.to_bill_minor AS toBillMinor, o.uncovered_seconds, o.done_at AS done, IF(o.state = 'to_bill', ${undoneOf('o.id')}, 0) AS undone, IF(o.state = 'to_bill', ${notAgreedOf('o.id')}, 0) AS notAgreed, IF(o.state = 'to_bill', ${HAS_TO_COME}, FALSE) AS ahead, CASE
    WHEN o.state IN ('needs_slot', 'scheduled', 'on_site', 'paused') THEN ${HAS_TO_COME} WHEN o.state =
    'billed' THEN EXISTS (SELECT 1 FROM invoices i WHERE i.work_order_id = o.id AND i.open_minor > 0)
    ELSE TRUE END AS carried`,
  sum: 'o.to_bill_minor',
  booleans: ['ahead'],
  places: () => ({ to_bill: [`o.state = 'to_bill'`] }),
  stands: ({ done, ...work }, at) => whereWorkStands({ ...work, doneAt: instantOf(done) }, at),
  to: ({ id }) => `/work/${id}`,
})
export const WAITS: readonly Waits[] = [VISIT, TOLD, WORK]
