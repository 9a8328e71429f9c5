// npm run backup -- FILE: a consistent dump that can be restored on another machine.
import { spawnSync } from 'node:child_process'
import { existsSync, statSync } from 'node:fs'
import { databaseUrl } from '../server/db/pool'

const file = process.argv[2]
if (!file) {
  process.stderr.write('Usage: npm run backup -- FILE\n')
  process.exit(1)
}
if (existsSync(file)) {
  process.stderr.write(`${file} is there already; choose another name.\n`)
  process.exit(1)
}
const url = new URL(databaseUrl())
const result = spawnSync('mariadb-dump', ['--no-defaults', `--host=${url.hostname}`, `--port=${url.port || 3306}`, `--user=${url.username}`, '--single-transaction', '--triggers', '--default-character-set=utf8mb4', `--result-file=${file}`, url.pathname.slice(1)], { encoding: 'utf8', env: { ...process.env, MYSQL_PWD: decodeURIComponent(url.password) } })
if (result.status !== 0) {
  process.stderr.write(`The backup failed: ${result.stderr || result.error?.message}\n`)
  process.exit(1)
}
process.stdout.write(`· ${(statSync(file).size / 1e6).toFixed(1)} MB written to ${file}\n`)
