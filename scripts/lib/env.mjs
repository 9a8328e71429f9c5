// The environment that every command shares: where the data is, which database, the secret that seals cookies.
import { randomBytes } from 'node:crypto'
import { chmodSync, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { installDebian } from './install.mjs'
import { startDatabase } from './database.mjs'

export const dataDir = () => process.env.OPEN_LEDGER_DATA || '.data'
/** A secret made once and kept beside the data. */
export function keptSecret(name) {
  const file = join(dataDir(), name)
  mkdirSync(dataDir(), { recursive: true })
  if (!existsSync(file)) {
    writeFileSync(file, randomBytes(32).toString('base64url'))
    chmodSync(file, 0o600)
  }
  return readFileSync(file, 'utf8').trim()
}
/** The database named by DATABASE_URL, or the private one. */
export async function openDatabase() {
  if (process.env.DATABASE_URL) return { url: process.env.DATABASE_URL, running: () => true, joined: true, stop: async () => {} }
  installDebian({ 'mariadbd': 'mariadb-server', 'mariadb-install-db': 'mariadb-server', 'mariadb': 'mariadb-client' })
  return startDatabase(dataDir())
}
