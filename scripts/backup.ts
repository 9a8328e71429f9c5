// npm run backup -- FILE: a consistent dump that can be restored on another machine. Whoever reads it reads everything:
// it belongs to its owner alone, and stands under its name only once it is whole.
import { spawnSync } from 'node:child_process'
import { closeSync, existsSync, openSync, renameSync, rmSync, statSync } from 'node:fs'
import { databaseUrl } from '../server/db/pool'
import { faultOfDump } from './lib/dump'

function stop(sentence: string): never {
  process.stderr.write(`${sentence}\n`)
  process.exit(1)
}
const file = process.argv[2]
if (!file) stop('Usage: npm run backup -- FILE')
if (existsSync(file)) stop(`${file} is there already; choose another name.`)
const url = new URL(databaseUrl())
const part = `${file}.part`
rmSync(part, { force: true })
closeSync(openSync(part, 'wx', 0o600))
const result = spawnSync(
  'mariadb-dump',
  [
    '--no-defaults',
    `--host=${url.hostname}`,
    `--port=${url.port || 3306}`,
    `--user=${url.username}`,
    '--single-transaction',
    '--triggers',
    '--default-character-set=utf8mb4',
    `--result-file=${part}`,
    url.pathname.slice(1),
  ],
  { encoding: 'utf8', env: { ...process.env, MYSQL_PWD: decodeURIComponent(url.password) } },
)
const fault =
  result.status === 0
    ? faultOfDump(part)
    : result.stderr || result.error?.message || 'no dump was made'
if (fault) {
  rmSync(part, { force: true })
  stop(`The backup failed: ${fault}`)
}
renameSync(part, file)
process.stdout.write(`· ${(statSync(file).size / 1e6).toFixed(1)} MB written to ${file}\n`)
