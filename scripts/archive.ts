// npm run archive -- out FILE: everything of the firm as one file. npm run archive -- in FILE: an empty database becomes
// that firm; an archive of an earlier version is taken in as that version had it, and migrated from there.
import { createWriteStream, existsSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs'
import { pipeline } from 'node:stream/promises'
import { LedgerError } from '../core/errors/LedgerError'
import { readArchive, takeIn } from '../server/archive/takeIn'
import { archive } from '../server/archive/write'
import { migrate } from '../server/db/migrate'
import { closePool, databaseUrl, transaction } from '../server/db/pool'
import { writtenAtOneMoment } from '../server/http/context'
import { hasPeople, lockFirm } from '../server/settings/index'
import { hasTables } from '../server/archive/queries'

const MIGRATIONS = 'server/db/migrations'
const NOBODY = { actor: null, ip: '' }
class Refused extends Error {}

async function out(file: string): Promise<string> {
  if (existsSync(file)) throw new Refused(`${file} is there already; choose another name.`)
  const part = `${file}.part`
  try {
    const pieces = writtenAtOneMoment(NOBODY, archive)
    await pipeline(pieces, createWriteStream(part, { mode: 0o600 }))
    renameSync(part, file)
  } finally {
    rmSync(part, { force: true })
  }
  return `${(statSync(file).size / 1e6).toFixed(1)} MB written to ${file}`
}
async function into(file: string): Promise<string> {
  if (!existsSync(file)) throw new Refused(`${file} is not there.`)
  const archived = await readArchive(file)
  try {
    if (!readdirSync(MIGRATIONS).includes(archived.schema))
      throw new Refused(`It was made by the later version ${archived.madeBy}. Start that one.`)
    // What has tables already is of this version; an archive of another is refused there.
    if (!(await transaction(hasTables))) await migrate(databaseUrl(), MIGRATIONS, archived.schema)
    const rows = await transaction(async (tx) => {
      await lockFirm(tx)
      if (await hasPeople(tx))
        throw new Refused('A firm is in this database. An archive is taken into an empty one.')
      return takeIn(tx, archived)
    })
    await migrate(databaseUrl(), MIGRATIONS)
    return `${rows} rows of ${archived.firm} taken in. Start it with npm start -- --firm: the code that it prints lets the owner in, at /begin`
  } finally {
    archived.opened.close()
  }
}

const [way, file] = process.argv.slice(2)
try {
  if (!file || (way !== 'out' && way !== 'in'))
    throw new Refused('Usage: npm run archive -- out FILE, or npm run archive -- in FILE')
  process.stdout.write(`· ${await (way === 'out' ? out(file) : into(file))}\n`)
} catch (error) {
  const known = error instanceof Refused || error instanceof LedgerError
  process.stderr.write(
    `${known ? error.message : `The archive failed: ${(error as Error).message}`}\n`,
  )
  process.exitCode = 1
} finally {
  await closePool()
}
