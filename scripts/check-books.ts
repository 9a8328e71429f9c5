// npm run check:books: proves that every sub-ledger agrees with the double-entry ledger; exit 1 and a list where not.
import { closePool } from '../server/db/pool'
import { atOneMoment } from '../server/http/context'
import { checkBooks } from '../server/ledger/checkBooks'

const results = await atOneMoment({ actor: null, ip: '' }, ({ tx }) => checkBooks(tx))
for (const { name, wrong } of results) {
  process.stdout.write(
    `${wrong.length ? 'WRONG' : 'ok   '} ${name}${wrong.length ? ` (${wrong.length})` : ''}\n`,
  )
  for (const row of wrong.slice(0, 20)) process.stdout.write(`      ${JSON.stringify(row)}\n`)
}
await closePool()
process.exit(results.some((r) => r.wrong.length) ? 1 : 0)
