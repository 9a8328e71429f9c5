// SQL of care agreements and their plans.
import { agreementState } from '../../core/agreements/agreementState'
import type { Tx, Value } from '../db/pool'
import { listOf, listRows, type ListIn } from '../db/queries'
import type { Finder } from '../db/search.queries'

export interface AgreementRow {
  id: string
  version: number
  customerId: string
  customer: string
  phone: string
  siteId: string | null
  site: string
  line1: string
  town: string
  postcode: string
  plan: string
  planId: string | null
  startsOn: string
  endsOn: string
  visitDueOn: string | null
  lastVisitOn: string | null
  booked: string | null
  billedUntil: string | null
  /** where the next year waits to be billed, unless that came to nothing */
  yearWork: string | null
  price: string | null
}
/** The work order of a visit that was made for an agreement `a`, and is still to come. */
export const BOOKED = `SELECT MAX(w.number) FROM work_orders w WHERE w.site_id = a.site_id AND w.kind =
    'service' AND w.state IN ('needs_slot', 'scheduled', 'on_site', 'paused')`
const SELECT = `a.id, a.version, a.customer_id, c.name AS customer, c.phone, a.site_id,
    COALESCE(s.name, '') AS site, COALESCE(s.line1, '') AS line1, COALESCE(s.town, '') AS town,
    COALESCE(s.postcode, '') AS postcode, a.plan, a.plan_id, a.starts_on, a.ends_on, a.visit_due_on,
    a.billed_until, (SELECT y.id FROM work_orders y WHERE y.id = a.year_work_order_id AND NOT
    y.cancelled AND NOT y.closed) AS yearWork, (SELECT l.price FROM agreement_plans l WHERE l.id = a.plan_id) AS price,
    (SELECT DATE(MAX(w.done_at)) FROM work_orders w WHERE w.site_id = a.site_id AND w.kind =
    'service') AS lastVisitOn, (${BOOKED}) AS booked`
const FROM =
  'agreements a JOIN customers c ON c.id = a.customer_id LEFT JOIN sites s ON s.id = a.site_id'
export const agreementById = (tx: Tx, id: string) =>
  tx.row<AgreementRow>(`SELECT ${SELECT} FROM ${FROM} WHERE a.id = ? FOR UPDATE`, [id])
export interface AgreementShort {
  id: string
  plan: string
  startsOn: string
  endsOn: string
  visitDueOn: string | null
}
export const agreementsIn = (customerId: string): ListIn => ({
  columns: 'id, plan, starts_on, ends_on, visit_due_on',
  from: 'agreements WHERE customer_id = ?',
  values: [customerId],
  order: 'ends_on DESC',
  limit: 40,
})
export const withStates = (
  rows: readonly AgreementShort[],
  today: string,
): (AgreementShort & { state: string })[] =>
  rows.map((a) => ({ ...a, state: agreementState(a, today) }))
export const agreementsOf = async (tx: Tx, customerId: string, today: string) =>
  withStates(await listOf<AgreementShort>(tx, agreementsIn(customerId)), today)
const WORDS: Finder[] = [
  { id: 'o.id', from: 'agreements o', words: 'o.plan' },
  { id: 'o.id', from: 'customers k JOIN agreements o ON o.customer_id = k.id', words: 'k.search' },
  { id: 'o.id', from: 'sites k JOIN agreements o ON o.site_id = k.id', words: 'k.search' },
]
export async function agreementPage(
  tx: Tx,
  f: {
    q: string
    dueBy: string | null
    endingBy: string | null
    today: string
    postcodes: string[] | null
    limit: number
    after: [string, string] | null
  },
) {
  const where = ['c.merged_into IS NULL', 'a.ends_on >= ?']
  const values: Value[] = [f.endingBy ? f.today : f.today]
  if (f.dueBy) {
    where.push('a.visit_due_on <= ?')
    values.push(f.dueBy)
  }
  if (f.endingBy) {
    where.push('a.ends_on <= ?')
    values.push(f.endingBy)
  }
  if (f.postcodes) {
    where.push(
      f.postcodes.length ? `(${f.postcodes.map(() => 's.postcode LIKE ?').join(' OR ')})` : 'FALSE',
    )
    values.push(...f.postcodes.map((p) => `${p}%`))
  }
  return listRows<AgreementRow>(tx, {
    select: SELECT,
    from: FROM,
    where,
    values,
    search: { q: f.q, finders: WORDS, text: ['a.plan', 'c.search', 's.search'] },
    by: 'COALESCE(a.visit_due_on, a.ends_on)',
    id: 'a.id',
    descending: false,
    limit: f.limit,
    after: f.after,
  })
}
export const insertAgreement = (
  tx: Tx,
  a: {
    id: string
    customerId: string
    siteId: string
    plan: string
    planId: string
    startsOn: string
    endsOn: string
    visitDueOn: string
  },
) =>
  tx.run(
    `INSERT INTO agreements (id, customer_id, site_id, plan, plan_id, starts_on, ends_on,
      visit_due_on)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?)`,
    [a.id, a.customerId, a.siteId, a.plan, a.planId, a.startsOn, a.endsOn, a.visitDueOn],
  )
export const extendAgreement = async (
  tx: Tx,
  { id, version }: { id: string; version: number },
  endsOn: string,
  visitDueOn: string | null,
) =>
  (
    await tx.run(
      `UPDATE agreements
      SET ends_on = ?, visit_due_on = ?, version = version + 1
      WHERE id = ? AND version = ?`,
      [endsOn, visitDueOn, id, version],
    )
  ).affected
/** A year of it waits to be billed in a work order. */
export const setYear = (tx: Tx, id: string, year: { workOrderId: string; until: string }) =>
  tx.run(
    `UPDATE agreements SET year_work_order_id = ?, year_until = ?, version = version + 1
    WHERE id = ?`,
    [year.workOrderId, year.until, id],
  )
/** The year that waited in a work order is billed, where one did. */
export const settleYear = (tx: Tx, workOrderId: string) =>
  tx.run(
    `UPDATE agreements SET billed_until = year_until, year_work_order_id = NULL, year_until = NULL,
      version = version + 1
    WHERE year_work_order_id = ?`,
    [workOrderId],
  )
export const setVisitDue = (tx: Tx, id: string, visitDueOn: string | null) =>
  tx.run('UPDATE agreements SET visit_due_on = ?, version = version + 1 WHERE id = ?', [
    visitDueOn,
    id,
  ])
export interface PlanRow {
  id: string
  name: string
  visitsAYear: number
  visitSeconds: number
  price: string
  levelId: string | null
  work: string
  retired: boolean
}
const PLAN =
  'SELECT id, name, visits_a_year, visit_seconds, price, price_level_id AS levelId, work, retired FROM agreement_plans'
export const allPlans = (tx: Tx) => tx.rows<PlanRow>(`${PLAN} ORDER BY name LIMIT 100`)
export const planById = (tx: Tx, id: string) => tx.row<PlanRow>(`${PLAN} WHERE id = ?`, [id])
export const putPlan = (tx: Tx, p: PlanRow) =>
  tx.run(
    `INSERT INTO agreement_plans (id, name, visits_a_year, visit_seconds, price, price_level_id, work, retired)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?)
    ON DUPLICATE KEY UPDATE name = VALUES(name), visits_a_year = VALUES(visits_a_year),
      visit_seconds = VALUES(visit_seconds), price = VALUES(price),
      price_level_id = VALUES(price_level_id), work = VALUES(work), retired = VALUES(retired)`,
    [p.id, p.name, p.visitsAYear, p.visitSeconds, p.price, p.levelId, p.work, p.retired],
  )
