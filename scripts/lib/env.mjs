// The environment that every command shares: where the data is, which database, the secret that seals cookies.
import { createHash, randomBytes } from 'node:crypto'
import { chmodSync, mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { installDebian } from './install.mjs'
import { startDatabase } from './database.mjs'
import { readIfThere, writeWhole } from './files.mjs'
import { Stop } from './say.mjs'

export const dataDir = () => process.env.OPEN_LEDGER_DATA || '.data'
/** Nobody else reads it; the database's own user may pass through where it is another one. */
export function makeDataDir() {
  try {
    mkdirSync(dataDir(), { recursive: true, mode: 0o700 })
    chmodSync(dataDir(), process.getuid?.() === 0 ? 0o711 : 0o700)
  } catch (error) {
    throw new Stop(`The data folder ${dataDir()} cannot be made: ${error.message}`)
  }
}
const SHORTEST = 32
/** A secret made once and kept beside the data. */
export function keptSecret(name) {
  makeDataDir()
  const file = join(dataDir(), name)
  const known = readIfThere(file)
  if (known === null) {
    const made = randomBytes(32).toString('base64url')
    writeWhole(file, made)
    return made
  }
  if (known.trim().length < SHORTEST) {
    throw new Stop(
      `The file ${file} is empty or damaged. Put it back from your copy of this folder. If there is none, delete it and start again: a new one is made, everybody signs in anew, and the links that customers were sent end.`,
    )
  }
  return known.trim()
}
/** Where it is kept whether this database ever had a company, and which: one that had a firm is never filled with the demo. */
export function companyMark(url) {
  if (!process.env.DATABASE_URL) return join(dataDir(), 'company')
  const { host, pathname } = new URL(url)
  return join(
    dataDir(),
    `company-${createHash('sha256').update(`${host}${pathname}`).digest('hex').slice(0, 12)}`,
  )
}
/** The database named by DATABASE_URL, or the private one. */
export async function openDatabase() {
  if (process.env.DATABASE_URL)
    return {
      url: process.env.DATABASE_URL,
      running: () => true,
      joined: true,
      stop: async () => {},
    }
  installDebian({
    mariadbd: 'mariadb-server',
    'mariadb-install-db': 'mariadb-server',
    mariadb: 'mariadb-client',
  })
  makeDataDir()
  return startDatabase(dataDir())
}
