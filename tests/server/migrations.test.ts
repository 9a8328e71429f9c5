// What a migration makes of rows that were written before it.
import { createHash } from 'node:crypto'
import { cpSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import mysql from 'mysql2/promise'
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { migrate, statementsOf } from '../../server/db/migrate'
import { database, id } from './client'

const ALL = 'server/db/migrations'
const NAME = 'open_ledger_before'
const url = process.env.DATABASE_URL!.replace(/open_ledger$/, NAME)
const folder = mkdtempSync(join(tmpdir(), 'open-ledger-migrations-'))
let admin: mysql.Connection
let db: mysql.Connection
/** Puts the migrations up to one of them where they are run from. */
function upTo(last: string): string {
  const some = join(folder, last)
  mkdirSync(some, { recursive: true })
  for (const name of readdirSync(ALL).filter((each) => each.slice(0, 4) <= last))
    cpSync(join(ALL, name), join(some, name))
  return some
}
/** One row of a table: only what the test is about is said, the rest is empty. */
async function insert(table: string, row: Record<string, string | object | null>): Promise<void> {
  const values = Object.values(row).map((v) => (v && typeof v === 'object' ? JSON.stringify(v) : v))
  await db.query('INSERT INTO ?? (??) VALUES (?)', [table, Object.keys(row), values])
}
async function read(table: string, column: string): Promise<unknown[]> {
  const [rows] = await db.query<mysql.RowDataPacket[]>('SELECT ?? AS value FROM ?? ORDER BY id', [
    column,
    table,
  ])
  return rows.map((row) => row.value as unknown)
}
const ids = Array.from({ length: 8 }, id).toSorted()

beforeAll(async () => {
  admin = await database()
})
afterAll(async () => {
  await admin.query(`DROP DATABASE IF EXISTS ${NAME}`)
  await admin.end()
  rmSync(folder, { recursive: true, force: true })
})
describe('codes instead of phrases', () => {
  beforeEach(async () => {
    await admin.query(`DROP DATABASE IF EXISTS ${NAME}`)
    await admin.query(`CREATE DATABASE ${NAME}`)
    await migrate(url, upTo('0015'))
    db = await mysql.createConnection({ uri: url })
    await db.query("SET SESSION foreign_key_checks = 0, sql_mode = ''")
  })
  afterEach(() => db.end())

  it('takes over kinds of work, also in calls that are being typed and in filters that were kept', async () => {
    const kinds = ['repair', 'no water', 'quote visit', 'call-back', 'warranty']
    for (const [i, kind] of kinds.entries())
      await insert('work_orders', { id: ids[i]!, number: `W-${i}`, kind, contact: {}, details: {} })
    await insert('calls', { id: ids[0]!, draft: { kind: 'water test', query: 'no water' } })
    await insert('calls', { id: ids[1]!, draft: { query: 'a b' } })
    await insert('looks', { id: ids[0]!, name: 'Mine', filter: { kind: 'quote visit', skill: '' } })
    await migrate(url, upTo('0016'))
    expect(await read('work_orders', 'kind')).toEqual([
      'repair',
      'no_water',
      'quote_visit',
      'call_back',
      'warranty',
    ])
    expect(await read('calls', 'draft')).toEqual([
      { kind: 'water_test', query: 'no water' },
      { query: 'a b' },
    ])
    expect(await read('saved_filters', 'filter')).toEqual([{ kind: 'quote_visit', skill: '' }])
  })

  it('takes over the details that a work order copied, and no word of what they say', async () => {
    const copied = {
      name: 'says "site": here',
      telephone: '1',
      'second telephone': '2',
      'mail address': '3',
      'second mail address': '4',
      'billing address': '5',
      'billing town': 'telephone',
      'billing postcode': '7',
      site: '8',
      'site address': '9',
      'site town': '10',
      'site postcode': '11',
      'access note': '12',
    }
    await insert('work_orders', { id: ids[0]!, number: 'W-0', contact: {}, details: copied })
    await migrate(url, upTo('0016'))
    expect(await read('work_orders', 'details')).toEqual([
      {
        name: 'says "site": here',
        phone: '1',
        phone2: '2',
        email: '3',
        email2: '4',
        billingLine1: '5',
        billingTown: 'telephone',
        billingPostcode: '7',
        siteName: '8',
        siteLine1: '9',
        siteTown: '10',
        sitePostcode: '11',
        accessNote: '12',
      },
    ])
  })

  const FILE = '0016-codes.sql'
  const SOURCE = readFileSync(join(ALL, FILE), 'utf8')
  const statements = statementsOf(SOURCE)
  const onTables = statements.flatMap((sql, i) => (/^(ALTER|RENAME)/.test(sql) ? [i] : []))
  it.each(onTables)(
    'goes on where statement %i was done, and the process killed before it was noted',
    async (killed) => {
      for (const sql of statements.slice(0, killed + 1)) await db.query(sql)
      const hash = createHash('sha256').update(SOURCE).digest('hex')
      await db.query(
        'INSERT INTO schema_migrations (name, hash, applied_at, statements) VALUES (?, ?, NOW(3), ?)',
        [FILE, hash, killed],
      )
      expect(await migrate(url, upTo('0016'))).toEqual([FILE])
      expect(await read('saved_filters', 'filter')).toEqual([])
      expect(await read('quote_lines', 'price_source')).toEqual([])
    },
  )

  it.each(['work_lines', 'quote_lines'])(
    'says by code where prices of %s are from',
    async (table) => {
      const said = [
        'price book',
        'price book, Evening × 1.25 on labour',
        'typed here',
        'agreed for this work order',
        'agreed with this customer',
        'a call-back is without charge',
        'Tarn Supply, cost by our markup',
        '',
      ]
      for (const [i, from] of said.entries()) await insert(table, { id: ids[i]!, price_from: from })
      await migrate(url, upTo('0016'))
      expect(await read(table, 'price_source')).toEqual([
        'book',
        'book',
        'typed',
        'work_order',
        'customer',
        'free',
        'book',
        'book',
      ])
      expect(await read(table, 'price_from')).toEqual(['', ...said.slice(1)])
    },
  )
})
