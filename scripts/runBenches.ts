// Benchmarks of the run at a firm of a hundred thousand work orders: the band across the top, and the proof that nothing is nowhere.
import mysql, { type RowDataPacket } from 'mysql2/promise'
import { cookieOf, seconds, tell, type Bench } from './lib/tell'

const WORK_ORDERS = 100_000
/** What hangs on a work order and goes with its copy: by which column, and what must stay one of its kind. */
const HANGS: readonly { table: string; apart: Record<string, string> }[] = [
  { table: 'visits', apart: { again_of: 'NULL' } },
  { table: 'work_lines', apart: {} },
  {
    table: 'invoices',
    apart: { number: `CONCAT('C', LEFT(REPLACE(UUID(), '-', ''), 14))`, token_hash: 'NULL' },
  },
]
async function columnsOf(db: mysql.Connection, table: string): Promise<string[]> {
  const [rows] = await db.query<RowDataPacket[]>(
    `SELECT column_name AS c FROM information_schema.columns WHERE table_schema = DATABASE() AND
      table_name = ? AND extra NOT LIKE '%GENERATED%' AND generation_expression IS NULL`,
    [table],
  )
  return rows.map(({ c }) => String(c))
}
/** Copies what stands in a table, under new identifiers and beneath new work orders. */
async function copyOf(
  db: mysql.Connection,
  table: string,
  instead: Readonly<Record<string, string>>,
  from: string,
): Promise<void> {
  const columns = await columnsOf(db, table)
  const values = columns.map((c) => instead[c] ?? `t.${c}`)
  await db.query(`INSERT INTO ${table} (${columns.join()}) SELECT ${values.join()} FROM ${from}`)
}
/**
 * Doubles the firm's past until there is enough of it; what is billed of a line goes with its copy. What is not at
 * rest stays as much as it is: a firm has years behind it, and the work of some weeks before it.
 */
async function growWork(db: mysql.Connection): Promise<void> {
  for (;;) {
    const [[{ n }]] = (await db.query('SELECT COUNT(*) AS n FROM work_orders')) as unknown as [
      [{ n: number }],
    ]
    if (n >= WORK_ORDERS) return
    const most = Math.min(n, WORK_ORDERS - n)
    await db.query('DROP TEMPORARY TABLE IF EXISTS of_work, of_line, of_invoice')
    await db.query(
      `CREATE TEMPORARY TABLE of_work (old UUID PRIMARY KEY, new UUID) SELECT id AS old, UUID() AS new FROM work_orders WHERE state = 'closed' LIMIT ${most}`,
    )
    await db.query(
      'CREATE TEMPORARY TABLE of_line (old UUID PRIMARY KEY, new UUID) SELECT l.id AS old, UUID() AS new FROM work_lines l JOIN of_work m ON m.old = l.work_order_id',
    )
    await db.query(
      'CREATE TEMPORARY TABLE of_invoice (old UUID PRIMARY KEY, new UUID) SELECT i.id AS old, UUID() AS new FROM invoices i JOIN of_work m ON m.old = i.work_order_id',
    )
    const number = `CONCAT('L', LEFT(REPLACE(UUID(), '-', ''), 14))`
    await copyOf(
      db,
      'work_orders',
      { id: 'm.new', number, callback_of: 'NULL' },
      'work_orders t JOIN of_work m ON m.old = t.id',
    )
    for (const { table, apart } of HANGS) {
      const known: Record<string, [string, string]> = {
        work_lines: ['k.new', 'JOIN of_line k ON k.old = t.id'],
        invoices: ['k.new', 'JOIN of_invoice k ON k.old = t.id'],
      }
      const [id, join] = known[table] ?? ['UUID()', '']
      const visit: Record<string, string> = table === 'work_lines' ? { visit_id: 'NULL' } : {}
      await copyOf(
        db,
        table,
        { id, work_order_id: 'm.new', ...apart, ...visit },
        `${table} t JOIN of_work m ON m.old = t.work_order_id ${join}`,
      )
    }
    await copyOf(
      db,
      'invoice_lines',
      { id: 'UUID()', invoice_id: 'i.new', work_line_id: 'k.new' },
      'invoice_lines t JOIN of_invoice i ON i.old = t.invoice_id JOIN of_line k ON k.old = t.work_line_id',
    )
  }
}

export const runBenches: Record<string, Bench> = {
  'run-band': {
    rig: true,
    async run(rig) {
      const db = await mysql.createConnection({ uri: rig.env.DATABASE_URL! })
      await growWork(db)
      for (const table of ['work_orders', 'visits', 'work_lines', 'invoices', 'invoice_lines'])
        await db.query(`ANALYZE TABLE ${table}`)
      await db.end()
      const cookie = await cookieOf(rig, 'owner@demo.test')
      const times: number[] = []
      for (let i = 0; i < 220; i++) {
        const took = await seconds(async () => {
          const reply = await fetch(`${rig.env.TEST_URL}/api/v1/run`, { headers: { cookie } })
          if (!reply.ok) throw new Error(`run: ${reply.status}`)
          await reply.json()
        })
        if (i >= 20) times.push(took * 1000)
      }
      const what = `the band across the top at ${WORK_ORDERS} work orders, over HTTP`
      tell({ name: 'run-band', unit: 'ms', what, values: times, reference: 30 })
      Object.assign(process.env, rig.env)
      const { checkWholeRun } = await import('../server/waiting/checkRun')
      const { closePool } = await import('../server/db/pool')
      const checks: number[] = []
      for (let i = 0; i < 3; i++) checks.push(await seconds(checkWholeRun))
      await closePool()
      const proof = `the proof that nothing is nowhere, over ${WORK_ORDERS} work orders`
      tell({ name: 'check-run', unit: 's', what: proof, values: checks, reference: 10 })
    },
  },
}
