// SQL of how the book is used: what was sold, how long it took, what is pinned.
import { placeholders, type Tx } from '../db/pool'

/** What was sold of each entry since a day: how often, how many, for how much. */
export const soldSince = (tx: Tx, since: string, entryIds: string[] | null = null) =>
  tx.rows<{ entryId: string; lines: number; quantity: string; net: number; last: string }>(
    `SELECT l.entry_id, COUNT(*) AS \`lines\`, SUM(l.quantity) AS quantity,
      CAST(SUM(l.net_minor) AS SIGNED) AS net, DATE(MAX(COALESCE(v.start_at, w.created_at))) AS last
    FROM work_lines l
    STRAIGHT_JOIN work_orders w ON w.id = l.work_order_id
    LEFT JOIN visits v ON v.id = l.visit_id
    WHERE l.entry_id IS NOT NULL AND NOT l.removed
      AND l.done AND w.created_at >=
      ?${entryIds ? ` AND l.entry_id IN (${placeholders(entryIds)})` : ''}
    GROUP BY l.entry_id`,
    [since, ...(entryIds ?? [])],
  )
export const soldWhere = (tx: Tx, entryId: string) =>
  tx.rows<{
    workOrderId: string
    number: string
    customer: string
    on: string
    quantity: string
    unitPrice: string
    net: number
  }>(
    `SELECT w.id AS workOrderId, w.number, c.name AS customer,
      DATE(COALESCE(v.start_at, w.created_at)) AS \`on\`, l.quantity, l.unit_price,
      l.net_minor AS net
    FROM work_lines l
    JOIN work_orders w ON w.id = l.work_order_id
    JOIN customers c ON c.id = w.customer_id
    LEFT JOIN visits v ON v.id = l.visit_id
    WHERE l.entry_id = ? AND NOT l.removed
      AND l.done
    ORDER BY COALESCE(v.start_at, w.created_at) DESC LIMIT 12`,
    [entryId],
  )
/** How long each task took where it was the only work of a work order: seconds on site of whoever was there, helpers who learn aside. */
export const workedByTask = (tx: Tx, since: string, entryId: string | null = null) =>
  tx.rows<{ entryId: string; seconds: number }>(
    `SELECT l.entry_id AS entryId, CAST(SUM(TIMESTAMPDIFF(SECOND, k.started_at, k.ended_at)) /
      l.quantity AS SIGNED) AS seconds
    FROM work_lines l
    JOIN work_orders w ON w.id = l.work_order_id
    JOIN visits v ON v.work_order_id = w.id
    JOIN clock_intervals k ON k.visit_id = v.id
      AND k.kind = 'on_site' AND k.ended_at IS NOT NULL
    JOIN people p ON p.id = k.person_id
      AND p.kind <> 'apprentice'
    WHERE l.kind = 'task' AND l.done
      AND NOT l.removed AND l.entry_id ${entryId ? '= ?' : 'IS NOT NULL'}
      AND w.created_at >= ? AND w.state IN ('to_bill', 'billed', 'closed')
      AND NOT EXISTS (SELECT 1 FROM work_lines o WHERE o.work_order_id = w.id AND o.id <> l.id AND
      NOT o.removed AND o.kind IN ('task', 'labour'))
    GROUP BY l.id, l.entry_id, l.quantity LIMIT 20000`,
    entryId ? [entryId, since] : [since],
  )
/** What each entry usually goes for: of its last prices the one in the middle. */
export const usualPrices = async (tx: Tx, since: string) =>
  new Map(
    (
      await tx.rows<{ entryId: string; price: string }>(
        `SELECT entry_id, unit_price AS price
        FROM (SELECT l.entry_id, l.unit_price, ROW_NUMBER() OVER (PARTITION BY l.entry_id ORDER BY
          l.unit_price, l.id) AS n, COUNT(*) OVER (PARTITION BY l.entry_id) AS of_all FROM
          work_lines l JOIN work_orders w ON w.id = l.work_order_id WHERE l.entry_id IS NOT NULL AND
          NOT l.removed AND l.done AND w.created_at >= ?) r
        WHERE n = FLOOR((of_all + 1) / 2)`,
        [since],
      )
    ).map((r) => [r.entryId, r.price]),
  )
export async function setHours(
  tx: Tx,
  rows: readonly { id: string; seconds: number; furtherSeconds: number }[],
): Promise<void> {
  for (const r of rows)
    await tx.run(
      'UPDATE price_entries SET seconds_first = ?, seconds_further = ?, version = version + 1 WHERE id = ?',
      [r.seconds, r.furtherSeconds, r.id],
    )
}
export async function setRetired(
  tx: Tx,
  ids: readonly string[],
  retired: boolean,
): Promise<number> {
  let count = 0
  for (let i = 0; i < ids.length; i += 500)
    count += (
      await tx.run(
        `UPDATE price_entries
        SET retired = ?, version = version + 1
        WHERE retired <> ? AND id IN (${placeholders(ids.slice(i, i + 500))})`,
        [retired, retired, ...ids.slice(i, i + 500)],
      )
    ).affected
  return count
}
export const pinsOf = async (tx: Tx, personId: string) =>
  (
    await tx.rows<{ id: string }>(
      'SELECT entry_id AS id FROM price_pins WHERE person_id = ? LIMIT 2000',
      [personId],
    )
  ).map((r) => r.id)
export const setPin = (tx: Tx, personId: string, entryId: string, on: boolean) =>
  tx.run(
    on
      ? 'INSERT IGNORE INTO price_pins (person_id, entry_id) VALUES (?, ?)'
      : 'DELETE FROM price_pins WHERE person_id = ? AND entry_id = ?',
    [personId, entryId],
  )
