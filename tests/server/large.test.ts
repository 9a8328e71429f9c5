// What screens and lists ask, on a firm with forty times the demo's data: no question reads a whole large table.
import mysql from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Answer } from '../../shared/api'
import { listAgreements } from '../../server/agreements/views'
import { customersByPhone } from '../../server/customers/queries'
import { customerPaper, listCustomers } from '../../server/customers/views'
import { listSites } from '../../server/customers/sites'
import { migrate } from '../../server/db/migrate'
import { closePool } from '../../server/db/pool'
import { findPapers } from '../../server/figures/queries'
import { inContext, type Actor, type Ctx } from '../../server/http/context'
import { historyOf } from '../../server/http/queries'
import { listInvoices } from '../../server/invoices/views'
import { listMessages } from '../../server/messages/service'
import { listPayments } from '../../server/payments/views'
import { listQuotes } from '../../server/quotes/views'
import { workOrderPaper } from '../../server/visits/views'
import { fieldDay } from '../../server/visits/field'
import { workOrderPage } from '../../server/visits/list.queries'
import { signedIn } from './client'

const COPIES = 40
const LARGE_ROWS = 2000
const NAME = 'open_ledger_large'
const demo = process.env.DATABASE_URL!
/** Tables that grow with the years, and the columns that point into them. */
const GROWING = [
  'customers',
  'sites',
  'contacts',
  'equipment',
  'agreements',
  'work_orders',
  'visits',
  'work_lines',
  'clock_intervals',
  'invoices',
  'invoice_lines',
  'payments',
  'allocations',
  'quotes',
  'quote_lines',
  'messages',
  'calls',
  'collection_notes',
  'trail',
]
const POINTING = new Set([
  'id',
  'callback_of',
  'customer_id',
  'equipment_id',
  'invoice_id',
  'merged_into',
  'payment_id',
  'quote_id',
  'site_id',
  'subject_id',
  'visit_id',
  'work_line_id',
  'work_order_id',
])
const NUMBERED = ['number', 'token_hash']

let db: mysql.Connection
let owner: Actor
let technician: Actor
interface Column {
  name: string
  type: string
  made: string | null
  extra: string
}
async function columnsOf(table: string): Promise<Column[]> {
  const [rows] = await db.query(
    `SELECT column_name AS name, data_type AS type, generation_expression AS made, extra FROM information_schema.columns WHERE table_schema = ? AND table_name = ? ORDER BY ordinal_position`,
    [NAME, table],
  )
  return (rows as Column[]).filter((c) => !c.made)
}
/** Copies of the demo's firm beside the first, each with identifiers of its own. */
async function multiply(table: string): Promise<void> {
  const columns = (await columnsOf(table)).filter((c) => !c.extra.includes('auto_increment'))
  const copied = columns.map(({ name, type }) => {
    const copy = `MD5(CONCAT(t.\`${name}\`, s.seq))`
    if (NUMBERED.includes(name)) return `IF(t.\`${name}\` IS NULL, NULL, LEFT(${copy}, 16))`
    // One clock runs for a person, not forty.
    if (name === 'ended_at') return 'COALESCE(t.ended_at, t.started_at)'
    // A day has as many visits as before; there are more days.
    if (name === 'start_at') return 'DATE_SUB(t.start_at, INTERVAL 7 * s.seq DAY)'
    if (!POINTING.has(name)) return `t.\`${name}\``
    // As a random UUID is written (RFC 9562, version 4).
    return type === 'uuid'
      ? `CAST(CONCAT(LEFT(${copy}, 12), '4', SUBSTR(${copy}, 14, 3), 'a', RIGHT(${copy}, 15)) AS UUID)`
      : copy
  })
  const names = columns.map((c) => `\`${c.name}\``).join(', ')
  await db.query(
    `INSERT INTO ${table} (${names}) SELECT ${copied.join(', ')} FROM ${table} t JOIN seq_1_to_${COPIES} s`,
  )
}
beforeAll(async () => {
  owner = { ...(await (await signedIn('owner')).ok('session')).person, ownRole: null, grants: {} }
  technician = {
    ...(await (await signedIn('technician')).ok('session')).person,
    ownRole: null,
    grants: {},
  }
  db = await mysql.createConnection({ uri: demo })
  await db.query(`DROP DATABASE IF EXISTS ${NAME}`)
  await db.query(`CREATE DATABASE ${NAME}`)
  process.env.DATABASE_URL = demo.replace(/open_ledger$/, NAME)
  await migrate(process.env.DATABASE_URL, 'server/db/migrations')
  await db.query(`USE ${NAME}`)
  await db.query('SET SESSION foreign_key_checks = 0, unique_checks = 0')
  const [tables] = await db.query(
    `SELECT table_name AS name FROM information_schema.tables WHERE table_schema = ? AND table_name <> 'schema_migrations'`,
    [NAME],
  )
  for (const { name } of tables as { name: string }[]) {
    const columns = (await columnsOf(name)).map((c) => `\`${c.name}\``).join(', ')
    await db.query(
      `INSERT IGNORE INTO ${name} (${columns}) SELECT ${columns} FROM open_ledger.${name}`,
    )
  }
  for (const table of GROWING) await multiply(table)
  await db.query(`ANALYZE TABLE ${GROWING.join(', ')}`)
})
afterAll(async () => {
  await closePool()
  process.env.DATABASE_URL = demo
  await db.query(`DROP DATABASE ${NAME}`)
  await db.end()
})

interface Step {
  table: string | null
  type: string | null
  key: string | null
  rows: string | number | null
}
/** The steps of all that some work asks which read a large table from its beginning to its end. */
async function wholeReads(actor: Actor, work: (ctx: Ctx) => Promise<unknown>): Promise<string[]> {
  return inContext({ actor, ip: '' }, async (ctx) => {
    const { tx } = ctx
    const found: string[] = []
    const rows: typeof tx.rows = async (sql, values) => {
      for (const s of await tx.rows<Step>(`EXPLAIN ${sql}`, values)) {
        const derived = s.table?.startsWith('<')
        if (!derived && ['ALL', 'index'].includes(s.type ?? '') && Number(s.rows) > LARGE_ROWS)
          found.push(`${s.table} (${s.rows} rows): ${sql.replace(/\s+/g, ' ').slice(0, 160)}`)
      }
      return tx.rows(sql, values)
    }
    await work({
      ...ctx,
      tx: {
        ...tx,
        rows,
        row: async <T>(sql: string, values?: never[]) => (await rows<T>(sql, values))[0] ?? null,
      },
    })
    return found
  })
}
const one = async (sql: string): Promise<string> =>
  ((await db.query(sql)) as unknown as [[{ id: string }]])[0][0].id
const words = 'lowf farm'
const first = { sort: 'created', descending: true, limit: 50, after: null }

describe('no whole large table is read', () => {
  it('and the copy is large', async () => {
    const [[{ work, trail }]] = (await db.query(
      'SELECT (SELECT COUNT(*) FROM work_orders) AS work, (SELECT COUNT(*) FROM trail) AS trail',
    )) as unknown as [[{ work: number; trail: number }]]
    expect([work > 8 * LARGE_ROWS, trail > 8 * LARGE_ROWS]).toEqual([true, true])
  })
  const asked: [string, (ctx: Ctx) => Promise<unknown>][] = [
    [
      'for a search of work orders',
      (ctx) => workOrderPage(ctx.tx, { ...first, q: words, states: [] }),
    ],
    [
      'for work orders that are to bill',
      (ctx) => workOrderPage(ctx.tx, { ...first, q: 'marrow', states: ['to_bill'] }),
    ],
    ['for a search of invoices', (ctx) => listInvoices(ctx, { q: words })],
    ['for a search of quotes', (ctx) => listQuotes(ctx, { q: words })],
    ['for a search of payments', (ctx) => listPayments(ctx, { q: words })],
    ['for a search of messages', (ctx) => listMessages(ctx, { q: words })],
    ['for a search of customers', (ctx) => listCustomers(ctx, { q: words })],
    ['for a search of sites', (ctx) => listSites(ctx, { q: words })],
    ['for a search of agreements', (ctx) => listAgreements(ctx, { q: words })],
    ['for the one search', (ctx) => findPapers(ctx.tx, 'marrow')],
    ['for a telephone number', (ctx) => customersByPhone(ctx.tx, '(607) 555-0142')],
    [
      'for the history of a work order',
      async (ctx) =>
        historyOf(ctx, 'work_order_id', [await one('SELECT id FROM work_orders LIMIT 1')]),
    ],
    [
      'for the history of a customer',
      async (ctx) => historyOf(ctx, 'customer_id', [await one('SELECT id FROM customers LIMIT 1')]),
    ],
    [
      'for the history of a quote',
      async (ctx) => historyOf(ctx, 'subject_id', [await one('SELECT id FROM quotes LIMIT 1')]),
    ],
    [
      'for a work order',
      async (ctx) =>
        workOrderPaper(
          ctx,
          await one(
            'SELECT work_order_id AS id FROM invoices WHERE work_order_id IS NOT NULL LIMIT 1',
          ),
        ),
    ],
    [
      'for a customer',
      async (ctx) =>
        customerPaper(ctx, await one('SELECT customer_id AS id FROM invoices LIMIT 1')),
    ],
  ]
  it.each(asked)('%s', async (_what, work) => expect(await wholeReads(owner, work)).toEqual([]))
  it('for a day in the field', async () =>
    expect(await wholeReads(technician, (ctx) => fieldDay(ctx, ctx.today))).toEqual([]))
})
describe('a search', () => {
  const titles = async (q: string): Promise<string[]> =>
    inContext({ actor: owner, ip: '' }, async (ctx) =>
      (await listCustomers(ctx, { q })).items.map(
        (c: Answer<'customers'>['items'][number]) => c.name,
      ),
    )
  it('finds words by how they begin, in any order, and a piece from within one where nothing begins so', async () => {
    expect(new Set(await titles('lowf farm'))).toEqual(new Set(['Lowfold Farm']))
    expect(new Set(await titles('FARM Lowf'))).toEqual(new Set(['Lowfold Farm']))
    expect(await titles('owfol')).toContain('Lowfold Farm')
  })
  it('leaves no word out because it is common', async () => {
    await db.query(
      `UPDATE customers SET name = 'Will Whowell', search = 'will whowell the' WHERE id = (SELECT MIN(id) FROM customers)`,
    )
    expect(await titles('will the')).toEqual(['Will Whowell'])
  })
})
