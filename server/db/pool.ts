// The connection pool and the one way to run SQL. BIGINT sums come back as numbers while they are safe, DECIMAL as strings.
import mysql, { type FieldPacket, type Pool, type PoolConnection, type ResultSetHeader, type RowDataPacket } from 'mysql2/promise'

export type Value = string | number | boolean | null | Buffer
/** A transaction: the only thing that queries.ts files are handed. */
export interface Tx {
  rows<T>(sql: string, values?: Value[]): Promise<T[]>
  row<T>(sql: string, values?: Value[]): Promise<T | null>
  run(sql: string, values?: Value[]): Promise<{ affected: number, insertId: number }>
  /** many rows in one statement; `sql` ends in VALUES ? */
  many(sql: string, rows: Value[][]): Promise<void>
  /** called once, after the commit */
  afterCommit(act: () => void): void
}

let pool: Pool | null = null
export function databaseUrl(): string {
  const url = process.env.DATABASE_URL
  if (!url) throw new Error('DATABASE_URL is not set: start the app with npm start, or name a MariaDB in DATABASE_URL.')
  return url
}
export function getPool(): Pool {
  if (pool) return pool
  pool = mysql.createPool({ uri: databaseUrl(), connectionLimit: 20, timezone: 'Z', dateStrings: true, supportBigNumbers: true, charset: 'utf8mb4', multipleStatements: false })
  // A database that is not our own has its own defaults: what the SQL relies on is said on every connection.
  pool.on('connection', c => void (c as unknown as { query(sql: string, done: () => void): void }).query('SET SESSION tx_isolation = "READ-COMMITTED", sql_mode = "ONLY_FULL_GROUP_BY,STRICT_TRANS_TABLES,ERROR_FOR_DIVISION_BY_ZERO,NO_ENGINE_SUBSTITUTION,NO_ZERO_DATE,NO_ZERO_IN_DATE"', () => {}))
  return pool
}
export async function closePool(): Promise<void> {
  await pool?.end()
  pool = null
}

/** Times of the database as ISO instants. Done on the rows, because the driver's own hook for it reads a wide row ten times as slowly. */
function withInstants(rows: RowDataPacket[], fields: FieldPacket[]): RowDataPacket[] {
  const times = fields.filter(f => f.columnType === mysql.Types.DATETIME || f.columnType === mysql.Types.TIMESTAMP).map(f => f.name)
  for (const row of rows) {
    for (const name of times) {
      if (row[name] !== null) row[name] = `${(row[name] as string).replace(' ', 'T')}Z`
    }
  }
  return rows
}
function wrap(connection: PoolConnection, after: (() => void)[]): Tx {
  const tx: Tx = {
    async rows<T>(sql: string, values: Value[] = []) {
      const [rows, fields] = await connection.execute<RowDataPacket[]>(sql, values.map(v => (typeof v === 'boolean' ? Number(v) : v)))
      return withInstants(rows, fields) as T[]
    },
    row: async <T>(sql: string, values: Value[] = []) => (await tx.rows<T>(sql, values))[0] ?? null,
    async run(sql, values = []) {
      const [result] = await connection.execute<ResultSetHeader>(sql, values.map(v => (typeof v === 'boolean' ? Number(v) : v)))
      return { affected: result.affectedRows, insertId: result.insertId }
    },
    async many(sql, rows) {
      for (let i = 0; i < rows.length; i += 500) await connection.query(sql, [rows.slice(i, i + 500)])
    },
    afterCommit: act => void after.push(act),
  }
  return tx
}

/** Runs `work` in one transaction; a deadlock is tried again up to five times. */
export async function transaction<T>(work: (tx: Tx) => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    const connection = await getPool().getConnection()
    const after: (() => void)[] = []
    try {
      await connection.beginTransaction()
      const result = await work(wrap(connection, after))
      await connection.commit()
      for (const act of after) act()
      return result
    }
    catch (error) {
      await connection.rollback().catch(() => {})
      const code = (error as { code?: string }).code
      if (attempt < 5 && (code === 'ER_LOCK_DEADLOCK' || code === 'ER_LOCK_WAIT_TIMEOUT')) continue
      throw error
    }
    finally {
      connection.release()
    }
  }
}

/** `?, ?, ?` for a list; never empty, so that IN () is never written. */
export const marks = (list: readonly unknown[]): string => (list.length ? list.map(() => '?').join(', ') : 'NULL')
/** An instant as MariaDB takes it. */
export const sqlInstant = (ms: number): string => new Date(ms).toISOString().replace('T', ' ').replace('Z', '')
