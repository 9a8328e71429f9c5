// npm run backup -- FILE: a consistent dump that can be restored on another machine. Whoever reads it reads everything:
// it belongs to its owner alone, and stands under its name only once it is whole. npm run backup -- --keep 14 [FOLDER]
// writes it under its day and time, and keeps the newest fourteen.
import { spawnSync } from 'node:child_process'
import {
  closeSync,
  existsSync,
  mkdirSync,
  openSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
} from 'node:fs'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { databaseUrl } from '../server/db/pool'
import { faultOfDump } from './lib/dump'

function stop(sentence: string): never {
  process.stderr.write(`${sentence}\n`)
  process.exit(1)
}
const USAGE = 'Usage: npm run backup -- FILE, or npm run backup -- --keep NUMBER [FOLDER]'
const { values, positionals } = parseArgs({
  options: { keep: { type: 'string' } },
  allowPositionals: true,
})
const keep = Number(values.keep ?? 0)
if (values.keep !== undefined && !(Number.isInteger(keep) && keep > 0)) stop(USAGE)
const folder = positionals[0] ?? 'backups'
/** As it is in UTC, to the millisecond: the order of names is the order of time, and two in one second are two. */
const stamp = () => new Date().toISOString().replaceAll(':', '')
if (keep) mkdirSync(folder, { recursive: true, mode: 0o700 })
const file = keep ? join(folder, `open-ledger-${stamp()}.sql`) : positionals[0]
if (!file) stop(USAGE)
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
/** Only what this command wrote, and only once the new one is whole. */
function sweep(): void {
  const ours = readdirSync(folder)
    .filter((name) => /^open-ledger-[\dT.-]+Z\.sql$/.test(name))
    .sort()
  for (const name of ours.slice(0, -keep)) rmSync(join(folder, name))
}
if (keep) sweep()
process.stdout.write(`· ${(statSync(file).size / 1e6).toFixed(1)} MB written to ${file}\n`)
