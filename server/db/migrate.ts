// Forward-only migrations under a named lock, statement by statement: after a kill at any point the
// next start goes on where it was. A database made by a newer version is refused with a sentence.
import { createHash } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import mysql, { type Connection, type RowDataPacket } from 'mysql2/promise'

const DATA = /^(INSERT|UPDATE|DELETE|REPLACE)\b/i
/**
 * What a statement says that had been done when the process was killed before it could note so: the
 * table, column, key or trigger is there already, or is gone already.
 */
const DONE_ALREADY = new Set([
  'ER_TABLE_EXISTS_ERROR',
  'ER_BAD_TABLE_ERROR',
  'ER_DUP_FIELDNAME',
  'ER_DUP_KEYNAME',
  'ER_CANT_DROP_FIELD_OR_KEY',
  'ER_TRG_ALREADY_EXISTS',
  'ER_TRG_DOES_NOT_EXIST',
  'ER_FK_DUP_NAME',
  'ER_DUP_CONSTRAINT_NAME',
])

/**
 * The statements of a file. One ends with a semicolon at the end of a line; a semicolon within a line
 * belongs to the body of a trigger.
 * @example statementsOf('-- why\nCREATE TABLE a (b INT);\nDROP TABLE c;\n').length // 2
 */
export const statementsOf = (sql: string): string[] =>
  sql
    .split(/;[ \t]*(?:\r?\n|$)/)
    .map((part) => part.replace(/^(?:\s*--[^\n]*\n)*\s*/, '').trim())
    .filter((part) => part !== '' && !/^(?:--[^\n]*\s*)+$/.test(part))

interface Applied {
  hash: string
  statements: number | null
}
async function applied(connection: Connection): Promise<Map<string, Applied>> {
  await connection.query(
    'CREATE TABLE IF NOT EXISTS schema_migrations (name VARCHAR(120) PRIMARY KEY, hash CHAR(64) NOT NULL, applied_at DATETIME(3) NOT NULL)',
  )
  await connection.query(
    'ALTER TABLE schema_migrations ADD COLUMN IF NOT EXISTS statements INT NULL',
  )
  const [rows] = await connection.query<RowDataPacket[]>(
    'SELECT name, hash, statements FROM schema_migrations',
  )
  return new Map(
    rows.map((r) => [
      r.name as string,
      { hash: r.hash as string, statements: r.statements as number | null },
    ]),
  )
}
/** Notes how far a file is; null when it is whole. */
const noteProgress = (
  connection: Connection,
  file: string,
  hash: string,
  statements: number | null,
) =>
  connection.execute(
    `INSERT INTO schema_migrations (name, hash, applied_at, statements)
    VALUES (?, ?, UTC_TIMESTAMP(3), ?)
    ON DUPLICATE KEY UPDATE statements = VALUES(statements), applied_at = VALUES(applied_at)`,
    [file, hash, statements],
  )

/** A statement that changes rows is noted in its own transaction; one that changes tables commits by itself, and is noted after. */
async function applyOne(
  connection: Connection,
  sql: string,
  note: () => Promise<unknown>,
  mayBeDone: boolean,
): Promise<void> {
  if (DATA.test(sql)) {
    await connection.beginTransaction()
    await connection.query(sql)
    await note()
    await connection.commit()
    return
  }
  try {
    await connection.query(sql)
  } catch (error) {
    if (!mayBeDone || !DONE_ALREADY.has((error as { code?: string }).code ?? '')) throw error
  }
  await note()
}
async function applyFile(
  connection: Connection,
  { file, sql, hash }: { file: string; sql: string; hash: string },
  from: number | null,
): Promise<void> {
  const statements = statementsOf(sql)
  if (from === null) await noteProgress(connection, file, hash, 0)
  for (let i = from ?? 0; i < statements.length; i++) {
    // Only the one at which an earlier start was killed can have been done without a note.
    await applyOne(
      connection,
      statements[i]!,
      () => noteProgress(connection, file, hash, i + 1),
      i === from,
    )
  }
  await noteProgress(connection, file, hash, null)
}

/** `upTo` names the last migration that is applied, where a database is made as an earlier version had it. */
export async function migrate(url: string, folder: string, upTo?: string): Promise<string[]> {
  const connection = await mysql.createConnection({ uri: url })
  try {
    // People and places are called “Will” and “Who” too: an index of words leaves none out. It is said when it is made.
    await connection.query('SET SESSION innodb_ft_enable_stopword = OFF')
    const [[lock]] = (await connection.query<RowDataPacket[]>(
      'SELECT GET_LOCK(CONCAT(DATABASE(), ":migrate"), 60) AS held',
    )) as unknown as [[{ held: number }]]
    if (lock.held !== 1)
      throw new Error(
        'Another start is migrating this database; it did not finish within a minute.',
      )
    const known = await applied(connection)
    const files = readdirSync(folder)
      .filter((f) => /^\d{4}-[\w-]+\.sql$/.test(f))
      .sort()
    const unknown = [...known.keys()].filter((name) => !files.includes(name))
    if (unknown.length)
      throw new Error(
        `This database was made by a newer version of Open Ledger (it has ${unknown.join(', ')}). Start that version, or restore a backup.`,
      )
    const done: string[] = []
    for (const file of files.filter((name) => !upTo || name <= upTo)) {
      const sql = readFileSync(join(folder, file), 'utf8')
      const hash = createHash('sha256').update(sql).digest('hex')
      const earlier = known.get(file)
      if (earlier && earlier.hash !== hash)
        throw new Error(
          `The migration ${file} was changed after it had been applied. Migrations only go forward: add a new one.`,
        )
      if (earlier && earlier.statements === null) continue
      await applyFile(connection, { file, sql, hash }, earlier?.statements ?? null)
      done.push(file)
    }
    return done
  } finally {
    await connection.end()
  }
}
