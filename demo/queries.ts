// SQL that only the demo runs: it writes what no screen of the app writes at once.
import type { Tx, Value } from '../server/db/pool'

type Rows = Value[][]
export const insertDemoCompany = (tx: Tx, values: Value[]) =>
  tx.run(
    `INSERT INTO company (id, name, line1, town, postcode, phone, email, tax_number, terms, pay_to,
      conditions, wording, yard_lat, yard_lon, demo_day, demo_seed, work_kinds, visit_messages, warranty_months)
    VALUES (1, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?,
      '{"confirmation":true,"eve":true,"onWay":true}', 24)`,
    values,
  )
export const insertArea = (tx: Tx, id: string, name: string, postcodes: readonly string[]) =>
  tx.run('INSERT INTO territories VALUES (?, ?, ?)', [id, name, JSON.stringify(postcodes)])
export const insertDemoPerson = (tx: Tx, values: Value[]) =>
  tx.run(
    `INSERT INTO people (id, email, name, phone, role, bookable, sees_cost, skills, licences,
        hours, territory_ids, lat, lon, kind, starts_at, ends_at, goes_with, position,
        password_hash)
      VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    values,
  )
export const insertLevels = (tx: Tx, rows: Rows) =>
  tx.many('INSERT INTO price_levels (id, name, kind, off) VALUES ?', rows)
export const insertDemoAgreements = (tx: Tx, rows: Rows) =>
  tx.many(
    `INSERT INTO agreements (id, customer_id, site_id, plan_id, plan, starts_on, ends_on,
      visit_due_on)
    VALUES ?`,
    rows,
  )
export const insertDemoEquipment = (tx: Tx, rows: Rows) =>
  tx.many(
    `INSERT INTO equipment (id, site_id, category, make, serial, installed_on, warranty_until,
      next_service_on)
    VALUES ?`,
    rows,
  )
export const agreeToTexts = (tx: Tx, customerId: string) =>
  tx.run('UPDATE customers SET text_consent = "yes" WHERE id = ?', [customerId])
export const giveOwnPrices = (tx: Tx, name: string, prices: Record<string, string>) =>
  tx.run('UPDATE customers SET own_prices = ? WHERE name = ?', [JSON.stringify(prices), name])
export const keepAtHand = (tx: Tx, rows: Rows) =>
  tx.many('INSERT INTO price_pins (person_id, entry_id) VALUES ?', rows)
export const insertTimesOff = (tx: Tx, rows: Rows) =>
  tx.many('INSERT INTO time_off (id, person_id, from_at, to_at, reason) VALUES ?', rows)
/** What was sent in the past has long arrived, and an invoice that was paid was looked at. */
export async function deliverAll(tx: Tx): Promise<void> {
  await tx.run(
    'UPDATE messages SET state = "delivered", delivered_at = created_at WHERE state = "waiting"',
  )
  await tx.run('DELETE FROM jobs WHERE kind = "deliver"')
  await tx.run(
    `UPDATE messages m
    JOIN invoices i ON i.id = m.invoice_id
    SET m.opened_at = DATE_ADD(m.created_at, INTERVAL 3 HOUR)
    WHERE i.paid_on IS NOT NULL`,
  )
}
export const linesDone = (tx: Tx, workOrderId: string, visitId: string) =>
  tx.run('UPDATE work_lines SET done = TRUE, visit_id = ? WHERE work_order_id = ?', [
    visitId,
    workOrderId,
  ])
export const linesCounted = async (tx: Tx, workOrderId: string) =>
  (await tx.row<{ n: number }>('SELECT COUNT(*) AS n FROM work_lines WHERE work_order_id = ?', [
    workOrderId,
  ]))!.n
/** Signed: what the lines come to is promised. */
export async function promiseLines(tx: Tx, workOrderId: string): Promise<number> {
  await tx.run('UPDATE work_lines SET promised_minor = net_minor WHERE work_order_id = ?', [
    workOrderId,
  ])
  const row = await tx.row<{ sum: number }>(
    'SELECT CAST(SUM(net_minor) AS SIGNED) AS sum FROM work_lines WHERE work_order_id = ?',
    [workOrderId],
  )
  return row!.sum
}
export const invoiceMade = async (tx: Tx, id: string) =>
  (await tx.row<{ due: string; open: number; number: string }>(
    'SELECT due_on AS due, open_minor AS open, number FROM invoices WHERE id = ?',
    [id],
  ))!
export const insertTaxClasses = (tx: Tx, rows: Rows) =>
  tx.many('INSERT INTO tax_classes (id, name, usual_for, rates) VALUES ?', rows)
export const insertMarkup = (tx: Tx, id: string, tiers: object) =>
  tx.run('INSERT INTO markup_rules (id, scope, tiers) VALUES (?, "all", ?)', [
    id,
    JSON.stringify(tiers),
  ])
export const insertEntries = (tx: Tx, rows: Rows) =>
  tx.many(
    `INSERT INTO price_entries (id, code, kind, category, name, description, synonyms, unit, cost,
      price, further_price, seconds_first, seconds_further, skills, tax_class, pinned, pricing,
      labour_id, supplier, part_number)
    VALUES ?`,
    rows,
  )
export const insertParts = (tx: Tx, rows: Rows) =>
  tx.many('INSERT INTO price_entry_parts VALUES ?', rows)
export async function insertPictures(tx: Tx, rows: Rows): Promise<void> {
  await tx.many('INSERT INTO price_pictures (id, entry_id, mime, bytes) VALUES ?', rows)
  await tx.run(
    'UPDATE price_entries e JOIN price_pictures p ON p.entry_id = e.id SET e.picture_id = p.id',
  )
}
