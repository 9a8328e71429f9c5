// npm run restore -- FILE [--replace]: puts a backup into the database; one that holds a company is replaced only when told.
// It is read into a database beside the one that is there, compared with the file, and only then put in its place.
import { spawnSync } from 'node:child_process'
import { existsSync, openSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import mysql, { type Connection, type RowDataPacket } from 'mysql2/promise'
import { migrate } from '../server/db/migrate'
import { databaseUrl } from '../server/db/pool'
import { faultOfDump, rowsInDump } from './lib/dump'

const MIGRATIONS = 'server/db/migrations'
class Refused extends Error {}
const url = new URL(databaseUrl())
const name = url.pathname.slice(1)
const beside = `${name}_restoring`
const before = `${name}_before`
const urlOf = (database: string) => Object.assign(new URL(url), { pathname: `/${database}` }).href

const tablesOf = async (connection: Connection, database: string): Promise<string[]> => {
  const [rows] = await connection.query<RowDataPacket[]>(
    `SELECT table_name AS name
    FROM information_schema.tables
    WHERE table_schema = ? AND table_type = "BASE TABLE"
    ORDER BY table_name`,
    [database],
  )
  return rows.map((r) => r.name as string)
}
const CHANGED = /^(CREATE|DROP|RENAME) TABLE (?:IF (?:NOT )?EXISTS )?`?(\w+)`?(?: TO `?(\w+)`?)?/gm
/** The tables that the migrations make, by their last name, less those that they take away. */
function tablesOfMigrations(): Set<string> {
  const tables = new Set<string>()
  for (const file of readdirSync(MIGRATIONS)
    .filter((f) => f.endsWith('.sql'))
    .sort()) {
    for (const [, act, table, renamed] of readFileSync(join(MIGRATIONS, file), 'utf8').matchAll(
      CHANGED,
    )) {
      if (act === 'CREATE') tables.add(table!)
      else tables.delete(table!)
      if (renamed) tables.add(renamed)
    }
  }
  return tables
}
/** An app that is up has connections open: it would write into what is taken away under it. */
async function refuseWhileInUse(connection: Connection): Promise<void> {
  const [rows] = await connection.query<RowDataPacket[]>(
    'SELECT COUNT(*) AS n FROM information_schema.processlist WHERE db = ? AND id <> CONNECTION_ID()',
    [name],
  )
  if (Number(rows[0]!.n) > 0)
    throw new Refused(
      'Open Ledger is running on this database. Stop it first (Ctrl-C where it runs), then restore.',
    )
}
async function makeEmpty(connection: Connection, database: string): Promise<void> {
  await connection.query(`DROP DATABASE IF EXISTS \`${database}\``)
  await connection.query(
    `CREATE DATABASE \`${database}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`,
  )
}
function load(file: string): void {
  // As in a migration: an index of words leaves none out, and it is said when it is made.
  const words = 'SET SESSION innodb_ft_enable_stopword = OFF'
  const result = spawnSync(
    'mariadb',
    [
      '--no-defaults',
      `--host=${url.hostname}`,
      `--port=${url.port || 3306}`,
      `--user=${url.username}`,
      '--default-character-set=utf8mb4',
      `--init-command=${words}`,
      beside,
    ],
    {
      stdio: [openSync(file, 'r'), 'ignore', 'pipe'],
      encoding: 'utf8',
      env: { ...process.env, MYSQL_PWD: decodeURIComponent(url.password) },
    },
  )
  // Never the statement itself: it is full of customers.
  const [, code = '', line = ''] = /ERROR (\d+)[^\n]*? at line (\d+)/.exec(result.stderr) ?? []
  if (result.status !== 0)
    throw new Refused(
      `The restore failed${line ? ` at line ${line} of the file (error ${code})` : ''}. Nothing was changed.`,
    )
}
async function compare(connection: Connection, file: string): Promise<void> {
  const expected = await rowsInDump(file)
  for (const [table, rows] of expected) {
    const [[there]] = (await connection.query<RowDataPacket[]>(
      `SELECT COUNT(*) AS n FROM \`${beside}\`.\`${table}\``,
    )) as unknown as [[{ n: number }]]
    if (there.n !== rows)
      throw new Refused(
        `${table} has ${rows} rows in the file and ${there.n} in the database. Nothing was changed.`,
      )
  }
}
async function checkWhole(connection: Connection): Promise<void> {
  const there = new Set(await tablesOf(connection, beside))
  const missing = [...tablesOfMigrations()].filter((table) => !there.has(table))
  if (missing.length)
    throw new Refused(
      `The file lacks ${missing.join(', ')}: it is no whole backup. Nothing was changed.`,
    )
}

interface Trigger {
  name: string
  sql: string
}
const triggersOf = async (connection: Connection, database: string): Promise<Trigger[]> => {
  const [rows] = await connection.query<RowDataPacket[]>(
    `SELECT trigger_name AS name, event_object_table AS of, action_timing AS timing,
      event_manipulation AS event, action_statement AS body
    FROM information_schema.triggers
    WHERE trigger_schema = ?`,
    [database],
  )
  return rows.map((r) => ({
    name: r.name as string,
    sql: `CREATE TRIGGER \`${r.name}\` ${r.timing} ${r.event} ON \`${r.of}\` FOR EACH ROW ${r.body}`,
  }))
}
/** A table with triggers cannot change its database: they are taken off, and put on again where the table is then. */
async function takeOff(connection: Connection, database: string): Promise<Trigger[]> {
  const triggers = await triggersOf(connection, database)
  for (const trigger of triggers)
    await connection.query(`DROP TRIGGER \`${database}\`.\`${trigger.name}\``)
  return triggers
}
/** All tables change places in one statement: either all of them do, or none. */
async function swap(connection: Connection): Promise<void> {
  const [old, made] = [await tablesOf(connection, name), await tablesOf(connection, beside)]
  await makeEmpty(connection, before)
  const [oldTriggers, triggers] = [
    await takeOff(connection, name),
    await takeOff(connection, beside),
  ]
  await connection.query('SET SESSION foreign_key_checks = 0')
  const moves = [
    ...old.map((t) => `\`${name}\`.\`${t}\` TO \`${before}\`.\`${t}\``),
    ...made.map((t) => `\`${beside}\`.\`${t}\` TO \`${name}\`.\`${t}\``),
  ]
  try {
    await connection.query(`RENAME TABLE ${moves.join(', ')}`)
  } catch (error) {
    await connection.query(`USE \`${name}\``)
    for (const trigger of oldTriggers) await connection.query(trigger.sql)
    throw error
  }
  await connection.query(`USE \`${name}\``)
  for (const trigger of triggers) await connection.query(trigger.sql)
}

async function restore(file: string, replace: boolean): Promise<string> {
  const fault = faultOfDump(file)
  if (fault) throw new Refused(fault)
  const connection = await mysql.createConnection({ uri: databaseUrl() })
  try {
    const there = await tablesOf(connection, name)
    if (there.length > 0 && !replace)
      throw new Refused(
        'This database is not empty. To replace all of it say: npm run restore -- FILE --replace',
      )
    await refuseWhileInUse(connection)
    await makeEmpty(connection, beside)
    load(file)
    await compare(connection, file)
    const done = await migrate(urlOf(beside), MIGRATIONS)
    await checkWhole(connection)
    await refuseWhileInUse(connection)
    await swap(connection)
    await connection.query(`DROP DATABASE \`${before}\``)
    return done.length ? `, migrated (${done.join(', ')})` : ''
  } finally {
    await connection.query(`DROP DATABASE IF EXISTS \`${beside}\``).catch(() => {})
    await connection.end()
  }
}

const [file, ...rest] = process.argv.slice(2)
try {
  if (!file || !existsSync(file)) throw new Refused('Usage: npm run restore -- FILE [--replace]')
  const migrated = await restore(file, rest.includes('--replace'))
  process.stdout.write(`· restored from ${file}${migrated}\n`)
} catch (error) {
  process.stderr.write(
    `${error instanceof Refused ? error.message : `The restore failed: ${(error as Error).message}. The database is as it was.`}\n`,
  )
  process.exit(1)
}
