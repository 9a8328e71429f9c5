// npm run demo -- --reset [--size small|large] [--seed N]: rebuilds the demo data.
import mysql from 'mysql2/promise'
import { migrate } from '../server/db/migrate'
import { closePool, databaseUrl } from '../server/db/pool'
import { loadDemo } from './demo-load'

const value = (name: string) => process.argv[process.argv.indexOf(name) + 1]
if (!process.argv.includes('--reset')) {
  process.stderr.write(
    'This replaces everything in the database with the demo company. Say so with: npm run demo -- --reset\n',
  )
  process.exit(1)
}
const seed = process.argv.includes('--seed') ? Number(value('--seed')) : 7
const size = process.argv.includes('--size') ? value('--size') : 'small'
if (!Number.isInteger(seed) || !['small', 'large'].includes(size ?? '')) {
  process.stderr.write('Usage: npm run demo -- --reset [--size small|large] [--seed N]\n')
  process.exit(1)
}
const url = new URL(databaseUrl())
const name = url.pathname.slice(1)
const connection = await mysql.createConnection({ uri: databaseUrl() })
await connection.query(`DROP DATABASE IF EXISTS \`${name}\``)
await connection.query(
  `CREATE DATABASE \`${name}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci`,
)
await connection.end()
await migrate(databaseUrl(), 'server/db/migrations')
const started = Date.now()
await loadDemo({ seed, customers: size === 'large' ? 20_000 : 140 })
process.stdout.write(
  `· demo company rebuilt in ${((Date.now() - started) / 1000).toFixed(1)} s (seed ${seed}, ${size})\n`,
)
await closePool()
