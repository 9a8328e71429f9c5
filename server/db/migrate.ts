// Forward-only migrations under a named lock. A database made by a newer version is refused with a sentence.
import { createHash } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import mysql from 'mysql2/promise'

export async function migrate(url: string, folder: string): Promise<string[]> {
  const connection = await mysql.createConnection({ uri: url, multipleStatements: true })
  try {
    const [[lock]] = await connection.query<mysql.RowDataPacket[]>('SELECT GET_LOCK(CONCAT(DATABASE(), ":migrate"), 60) AS held') as unknown as [[{ held: number }]]
    if (lock.held !== 1) throw new Error('Another start is migrating this database; it did not finish within a minute.')
    await connection.query('CREATE TABLE IF NOT EXISTS schema_migrations (name VARCHAR(120) PRIMARY KEY, hash CHAR(64) NOT NULL, applied_at DATETIME(3) NOT NULL)')
    const [rows] = await connection.query<mysql.RowDataPacket[]>('SELECT name, hash FROM schema_migrations')
    const applied = new Map(rows.map(r => [r.name as string, r.hash as string]))
    const files = readdirSync(folder).filter(f => /^\d{4}-[\w-]+\.sql$/.test(f)).sort()
    const unknown = [...applied.keys()].filter(name => !files.includes(name))
    if (unknown.length) throw new Error(`This database was made by a newer version of Open Ledger (it has ${unknown.join(', ')}). Start that version, or restore a backup.`)
    const done: string[] = []
    for (const file of files) {
      const sql = readFileSync(join(folder, file), 'utf8')
      const hash = createHash('sha256').update(sql).digest('hex')
      if (applied.has(file)) {
        if (applied.get(file) !== hash) throw new Error(`The migration ${file} was changed after it had been applied. Migrations only go forward: add a new one.`)
        continue
      }
      await connection.query(sql)
      await connection.query('INSERT INTO schema_migrations VALUES (?, ?, UTC_TIMESTAMP(3))', [file, hash])
      done.push(file)
    }
    return done
  }
  finally {
    await connection.end()
  }
}
