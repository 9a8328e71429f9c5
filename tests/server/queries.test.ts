// How often a screen asks the database, and that what it asks is served by an index.
import type mysql from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { unpaid } from '../../server/collections/views'
import { customerPaper } from '../../server/customers/views'
import { closePool, fromSnapshot, type Tx } from '../../server/db/pool'
import { inContext, type Actor, type Ctx } from '../../server/http/context'
import { journalRows } from '../../server/ledger/queries'
import { workOrderPaper } from '../../server/visits/views'
import { fieldDay } from '../../server/visits/field'
import { database, signedIn } from './client'

let db: mysql.Connection
const people = new Map<string, Actor>()
beforeAll(async () => {
  db = await database()
  for (const role of ['owner', 'technician'] as const)
    people.set(role, {
      ...(await (await signedIn(role)).ok('session')).person,
      ownRole: null,
      grants: {},
    })
})
afterAll(async () => {
  await db.end()
  await closePool()
})
/** How many SELECTs some work takes, the company's own row included. */
async function selects(role: string, work: (ctx: Ctx) => Promise<unknown>): Promise<string[]> {
  const asked: string[] = ['company']
  await inContext({ actor: people.get(role)!, ip: '' }, async (ctx) => {
    const { tx } = ctx
    const rows: typeof tx.rows = (sql, values) => {
      asked.push(sql.replace(/\s+/g, ' ').slice(0, 120))
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
  })
  return asked
}
const first = async (sql: string) =>
  ((await db.query(sql)) as unknown as [[{ id: string }]])[0][0].id

describe('a screen asks at most so often', () => {
  // Once before counting: what is kept for all is read then.
  const counted = async (role: string, work: (ctx: Ctx) => Promise<unknown>) => {
    await selects(role, work)
    return selects(role, work)
  }
  it('the field day: 8', async () => {
    const asked = await counted('technician', (ctx) => fieldDay(ctx, ctx.today))
    expect(asked.length, asked.join('\n')).toBeLessThanOrEqual(8)
  })
  it('what is unpaid: 8', async () => {
    const asked = await counted('owner', (ctx) => unpaid(ctx))
    expect(asked.length, asked.join('\n')).toBeLessThanOrEqual(8)
  })
  it('a work order: 8', async () => {
    const id = await first(
      'SELECT w.id FROM work_orders w JOIN invoices i ON i.work_order_id = w.id LIMIT 1',
    )
    const asked = await counted('owner', (ctx) => workOrderPaper(ctx, id))
    expect(asked.length, asked.join('\n')).toBeLessThanOrEqual(8)
  })
  it('a work order, as a technician: 8', async () => {
    const id = await first(
      `SELECT v.work_order_id AS id FROM visits v WHERE v.technician_id = '${people.get('technician')!.id}' AND v.state = 'finished' LIMIT 1`,
    )
    const asked = await counted('technician', (ctx) => workOrderPaper(ctx, id))
    expect(asked.length, asked.join('\n')).toBeLessThanOrEqual(8)
  })
  const VISITED = `SELECT w.customer_id FROM work_orders w JOIN visits v ON v.work_order_id = w.id
    WHERE v.state <> 'cancelled' AND DATE(v.start_at) BETWEEN '2026-11-24' AND '2026-11-25'`
  it.each([
    ['a customer: 8', 'NOT IN', 8],
    // How the day of whoever goes there runs is asked besides.
    ['a customer whom somebody visits today: 14', 'IN', 14],
  ])('%s', async (_, isIn, most) => {
    const id = await first(
      `SELECT customer_id AS id FROM invoices WHERE customer_id ${isIn} (${VISITED}) LIMIT 1`,
    )
    const asked = await counted('owner', (ctx) => customerPaper(ctx, id))
    expect(asked.length, asked.join('\n')).toBeLessThanOrEqual(most)
  })
})

describe('what is exported', () => {
  it('is read as everything stood at one moment, however long it takes', async () => {
    const counted = (tx: Tx) => tx.row<{ n: number }>('SELECT COUNT(*) AS n FROM holidays')
    const read = fromSnapshot(async function* (tx) {
      yield await counted(tx)
      yield await counted(tx)
    })
    const before = await read.next()
    await db.query(`INSERT INTO holidays (on_date, name) VALUES ('2031-01-01', 'Later')`)
    expect((await read.next()).value).toEqual(before.value)
    expect((await read.next()).done).toBe(true)
    await db.query(`DELETE FROM holidays WHERE on_date = '2031-01-01'`)
  })
  it('gives its connection back when nobody reads it to its end', async () => {
    // More often than there are connections for it.
    for (let i = 0; i < 5; i++) {
      for await (const row of fromSnapshot(journalRows)) {
        expect(row.amount).not.toBe(0)
        break
      }
    }
  })
  it('breaks off where the reader goes, and the next reader gets all of it', async () => {
    const owner = await signedIn('owner')
    for (let i = 0; i < 5; i++) {
      const gone = new AbortController()
      const { body } = await fetch(`${process.env.TEST_URL}/api/v1/export/journal.ledger`, {
        headers: { Cookie: owner.cookie },
        signal: gone.signal,
      })
      await body!.getReader().read()
      gone.abort()
    }
    const whole = (await owner.raw('GET', '/api/v1/export/journal.ledger')).text
    const [[{ n }]] = (await db.query('SELECT COUNT(*) AS n FROM ledger_entries')) as unknown as [
      [{ n: number }],
    ]
    expect(whole.match(/^\d{4}-\d{2}-\d{2} \* /gm)).toHaveLength(n)
  })
})
