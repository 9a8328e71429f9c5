// npm run restore -- FILE [--replace]: puts a backup into the database; one that holds a company is replaced only when told.
import { spawnSync } from 'node:child_process'
import { existsSync, openSync } from 'node:fs'
import mysql from 'mysql2/promise'
import { migrate } from '../server/db/migrate'
import { databaseUrl } from '../server/db/pool'

const [file, ...rest] = process.argv.slice(2)
const fail = (sentence: string) => {
  process.stderr.write(`${sentence}\n`)
  process.exit(1)
}
if (!file || !existsSync(file)) fail('Usage: npm run restore -- FILE [--replace]')
const url = new URL(databaseUrl())
const name = url.pathname.slice(1)
const connection = await mysql.createConnection({ uri: databaseUrl() })
const [[tables]] = await connection.query('SELECT COUNT(*) AS n FROM information_schema.tables WHERE table_schema = DATABASE()') as unknown as [[{ n: number }]]
if (tables.n > 0 && !rest.includes('--replace')) fail('This database is not empty. To replace all of it say: npm run restore -- FILE --replace')
await connection.query(`DROP DATABASE IF EXISTS \`${name}\``)
await connection.query(`CREATE DATABASE \`${name}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`)
await connection.end()
const result = spawnSync('mariadb', ['--no-defaults', `--host=${url.hostname}`, `--port=${url.port || 3306}`, `--user=${url.username}`, '--default-character-set=utf8mb4', name], { stdio: [openSync(file!, 'r'), 'ignore', 'pipe'], encoding: 'utf8', env: { ...process.env, MYSQL_PWD: decodeURIComponent(url.password) } })
if (result.status !== 0) fail(`The restore failed: ${result.stderr}`)
const done = await migrate(databaseUrl(), 'server/db/migrations')
process.stdout.write(`· restored from ${file}${done.length ? `, migrated (${done.join(', ')})` : ''}\n`)
