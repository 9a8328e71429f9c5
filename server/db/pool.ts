// The connection pools and the one way to run SQL. Columns are read by the names of the code
// (`site_id` as siteId), times as ISO instants, BOOLEAN as true and false, BIGINT sums as numbers
// while they are safe, DECIMAL as strings.
import { AsyncLocalStorage } from 'node:async_hooks'
import type { Connection as PlainConnection } from 'mysql2'
import mysql, {
  type FieldPacket,
  type Pool,
  type PoolConnection,
  type ResultSetHeader,
  type RowDataPacket,
} from 'mysql2/promise'
import { LedgerError } from '../../core/errors/LedgerError'
import { log } from '../http/log'
import { config } from '../config'

export type Value = string | number | boolean | null | Buffer
/** A transaction: the only thing that queries.ts files are handed. */
export interface Tx {
  rows<T>(sql: string, values?: Value[]): Promise<T[]>
  row<T>(sql: string, values?: Value[]): Promise<T | null>
  /** rows one after the other as they come, however many; all of them are read, or the connection is lost */
  each<T>(sql: string, values?: Value[]): AsyncIterable<T>
  run(sql: string, values?: Value[]): Promise<{ affected: number; insertId: number }>
  /** many rows in one statement; `sql` ends in VALUES ? */
  many(sql: string, rows: Value[][]): Promise<void>
  /** called once, as the last thing before the commit: what it writes is committed with the rest */
  beforeCommit(act: () => Promise<void>): void
  /** called once, after the commit; what goes wrong in it is logged, and changes no answer */
  afterCommit(act: () => void): void
}

/**
 * Requests and background work have connections of their own, so that neither waits for what the
 * other holds: a request may wait for background work, never the other way round. Exports go as
 * slowly as whoever reads them.
 */
const LANES = { requests: 20, background: 6, exports: 3 } as const
type Lane = keyof typeof LANES
/** How long a request waits for a connection before it is told to come back. */
const WAIT_MS = 5_000
const MOST_WAITING = 400
const pools = new Map<Lane, Pool>()
const open = new AsyncLocalStorage<true>()

export function databaseUrl(): string {
  const url = config.databaseUrl
  if (!url)
    throw new Error(
      'DATABASE_URL is not set: start the app with npm start, or name a MariaDB in DATABASE_URL.',
    )
  return url
}
// A database that is not our own has its own defaults: what the SQL relies on is said on every connection.
const SQL_MODE = [
  'ERROR_FOR_DIVISION_BY_ZERO',
  'NO_ENGINE_SUBSTITUTION',
  'NO_ZERO_DATE',
  'NO_ZERO_IN_DATE',
  'ONLY_FULL_GROUP_BY',
  'STRICT_TRANS_TABLES',
]
const SESSION = `SET SESSION tx_isolation = 'READ-COMMITTED', innodb_lock_wait_timeout = 10,
  group_concat_max_len = 67108864, sql_mode = '${SQL_MODE.join()}'`
const said = new WeakSet<object>()

function poolOf(lane: Lane): Pool {
  const known = pools.get(lane)
  if (known) return known
  const pool = mysql.createPool({
    uri: databaseUrl(),
    connectionLimit: LANES[lane],
    queueLimit: MOST_WAITING,
    connectTimeout: WAIT_MS,
    timezone: 'Z',
    dateStrings: true,
    supportBigNumbers: true,
    charset: 'utf8mb4',
    multipleStatements: false,
  })
  pools.set(lane, pool)
  return pool
}
export async function closePool(): Promise<void> {
  const all = [...pools.values()]
  pools.clear()
  await Promise.all(all.map((pool) => pool.end()))
}

const busy = () =>
  new LedgerError(
    'busy',
    'Too many are asking at this moment. Nothing was saved; try again in a few seconds.',
    { extra: { retryAfter: 3 } },
  )

/** A connection within the time limit. One that comes too late goes back at once. */
async function connectionOf(lane: Lane): Promise<PoolConnection> {
  const coming = poolOf(lane).getConnection()
  let timer: NodeJS.Timeout | undefined
  const late = new Promise<'late'>((done) => {
    timer = setTimeout(() => done('late'), WAIT_MS)
  })
  try {
    const got = await Promise.race([coming, late])
    if (got === 'late') {
      void coming.then(
        (connection) => connection.release(),
        () => {},
      )
      throw busy()
    }
    return await prepared(got)
  } catch (error) {
    if ((error as Error).message === 'Queue limit reached.') throw busy()
    throw error
  } finally {
    clearTimeout(timer)
  }
}
/** The connection beneath the promises. */
const plainOf = (connection: PoolConnection) =>
  (connection as unknown as { connection: PlainConnection }).connection
/** What every connection says once, before its first use; one that refuses it is not used. */
async function prepared(connection: PoolConnection): Promise<PoolConnection> {
  const raw = plainOf(connection)
  if (said.has(raw)) return connection
  try {
    await connection.query(SESSION)
  } catch (error) {
    connection.destroy()
    throw error
  }
  said.add(raw)
  return connection
}

/** The field that a column becomes: `site_id` is read as siteId. */
export const fieldOf = (column: string): string =>
  column.replace(/_([a-z0-9])/g, (_, sign: string) => sign.toUpperCase())

interface Reading {
  column: string
  field: string
  read?: (value: unknown) => unknown
}
const asInstant = (value: unknown) => `${(value as string).replace(' ', 'T')}Z`
const asBoolean = (value: unknown) => value === 1
function readingOf({ name, columnType, columnLength }: FieldPacket): Reading {
  const reading = { column: name, field: fieldOf(name) }
  if (columnType === mysql.Types.DATETIME || columnType === mysql.Types.TIMESTAMP)
    return { ...reading, read: asInstant }
  if (columnType === mysql.Types.TINY && columnLength === 1) return { ...reading, read: asBoolean }
  return reading
}
/**
 * How the rows of a question are read: columns by the names of the code, times as ISO instants,
 * BOOLEAN as true and false. Done on the rows, because the driver's own hook for it reads a wide
 * row ten times as slowly. JSON is read by the driver.
 */
function reader(fields: readonly FieldPacket[]): (row: RowDataPacket) => object {
  const readings = fields.map(readingOf)
  if (readings.every(({ column, field, read }) => column === field && !read)) return (row) => row
  return (row) => {
    const made: Record<string, unknown> = {}
    for (const { column, field, read } of readings) {
      const value: unknown = row[column]
      made[field] = read && value !== null ? read(value) : value
    }
    return made
  }
}
const ROWS_AHEAD = 100
const plain = (values: Value[]) => values.map((v) => (typeof v === 'boolean' ? Number(v) : v))
const MANY_AT_ONCE = 500

interface Acts {
  before: (() => Promise<void>)[]
  after: (() => void)[]
}
function wrap(connection: PoolConnection, acts: Acts): Tx {
  const tx: Tx = {
    async rows<T>(sql: string, values: Value[] = []) {
      const [rows, fields] = await connection.execute<RowDataPacket[]>(sql, plain(values))
      return rows.map(reader(fields)) as T[]
    },
    row: async <T>(sql: string, values: Value[] = []) => (await tx.rows<T>(sql, values))[0] ?? null,
    async *each<T>(sql: string, values: Value[] = []) {
      const asked = plainOf(connection).query(sql, plain(values))
      let read: ReturnType<typeof reader> = (row) => row
      asked.on('fields', (fields: FieldPacket[]) => {
        read = reader(fields)
      })
      for await (const row of asked.stream({ highWaterMark: ROWS_AHEAD }))
        yield read(row as RowDataPacket) as T
    },
    async run(sql, values = []) {
      const [result] = await connection.execute<ResultSetHeader>(sql, plain(values))
      return { affected: result.affectedRows, insertId: result.insertId }
    },
    async many(sql, rows) {
      for (let i = 0; i < rows.length; i += MANY_AT_ONCE)
        await connection.query(sql, [rows.slice(i, i + MANY_AT_ONCE)])
    },
    beforeCommit: (act) => void acts.before.push(act),
    afterCommit: (act) => void acts.after.push(act),
  }
  return tx
}

/** A statement that was ended by these has done nothing and may be tried again. */
const AGAIN = new Set(['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT'])
const MOST_TRIES = 5

/**
 * Runs `work` in one transaction; a deadlock is tried again up to five times, so `work` must not
 * reach outside the database. A transaction inside a transaction is refused: it would wait for a
 * second connection while it holds one.
 */
export async function transaction<T>(
  work: (tx: Tx) => Promise<T>,
  lane: Lane = 'requests',
): Promise<T> {
  if (open.getStore()) throw new Error('A transaction was begun inside a transaction.')
  for (let attempt = 1; ; attempt++) {
    const connection = await connectionOf(lane)
    const acts: Acts = { before: [], after: [] }
    let result: T
    try {
      await connection.beginTransaction()
      result = await open.run(true, async () => {
        const made = await work(wrap(connection, acts))
        for (const act of acts.before) await act()
        return made
      })
      await connection.commit()
    } catch (error) {
      const undone = await connection.rollback().then(
        () => true,
        () => false,
      )
      if (undone) connection.release()
      else connection.destroy()
      if (attempt < MOST_TRIES && AGAIN.has((error as { code?: string }).code ?? '')) continue
      throw error
    }
    connection.release()
    // It is committed: what is only told now cannot make it untrue.
    for (const act of acts.after) told(act)
    return result
  }
}
/** A question that changes nothing and takes one statement: no transaction is begun for it. */
export async function reading<T>(work: (tx: Tx) => Promise<T>): Promise<T> {
  if (open.getStore()) throw new Error('A question was asked beside a transaction that is open.')
  const connection = await connectionOf('requests')
  try {
    return await open.run(true, () => work(wrap(connection, { before: [], after: [] })))
  } finally {
    connection.release()
  }
}
/**
 * What is written from many rows, piece by piece, as everything stood at one moment. It goes as
 * slowly as it is read; whoever stops reading gives the connection back by ending the iteration.
 */
export async function* fromSnapshot<T>(work: (tx: Tx) => AsyncIterable<T>): AsyncGenerator<T> {
  if (open.getStore()) throw new Error('A snapshot was taken inside a transaction.')
  const connection = await connectionOf('exports')
  let whole = false
  try {
    await connection.query('SET TRANSACTION ISOLATION LEVEL REPEATABLE READ')
    await connection.query('START TRANSACTION WITH CONSISTENT SNAPSHOT, READ ONLY')
    yield* work(wrap(connection, { before: [], after: [] }))
    await connection.commit()
    whole = true
  } finally {
    if (whole) connection.release()
    else connection.destroy()
  }
}
function told(act: () => void): void {
  try {
    act()
  } catch (error) {
    log.error({ err: (error as Error).message }, 'after commit')
  }
}
/** Work that is nobody's request: on connections of its own, also when a request begins it. */
export const inBackground = <T>(work: (tx: Tx) => Promise<T>): Promise<T> =>
  open.exit(() => transaction(work, 'background'))

/** Whether the database answers, asked on a connection of its own, however busy the others are. */
export async function databaseAnswers(withinMs: number): Promise<boolean> {
  health ??= mysql.createConnection({ uri: databaseUrl(), connectTimeout: withinMs })
  const mine = health
  try {
    const connection = await mine
    await connection.query({ sql: 'SELECT 1', timeout: withinMs })
    return true
  } catch {
    if (health === mine) health = null
    void mine.then(
      (c) => c.destroy(),
      () => {},
    )
    return false
  }
}
let health: Promise<mysql.Connection> | null = null

/** `?, ?, ?` for a list; never empty, so that IN () is never written. */
export const placeholders = (list: readonly unknown[]): string =>
  list.length ? list.map(() => '?').join(', ') : 'NULL'
/** An instant as MariaDB takes it. */
export const sqlInstant = (ms: number): string =>
  new Date(ms).toISOString().replace('T', ' ').replace('Z', '')
