// Before the app starts: migrate, and load the demo company when the database is empty.
import { migrate } from '../server/db/migrate'
import { closePool, databaseUrl, transaction } from '../server/db/pool'
import { getCompany } from '../server/settings/queries'
import { loadDemo } from './demo-load'
import { nowMs } from '../server/http/clock'
import { localDate } from '../core/time/zone'

const say = (text: string) => process.stdout.write(`· ${text}\n`)
try {
  const done = await migrate(databaseUrl(), 'server/db/migrations')
  say(done.length ? `database migrated (${done.join(', ')})` : 'database is current')
  const company = await transaction(getCompany)
  if (!company) {
    const started = Date.now()
    await loadDemo({})
    say(`demo company loaded in ${((Date.now() - started) / 1000).toFixed(1)} s`)
  }
  else if (company.demoDay && company.demoDay < localDate(nowMs(company.timeZone) - 86_400_000, company.timeZone)) {
    say(`the demo company was made for ${company.demoDay}; npm run demo -- --reset renews it`)
  }
  await closePool()
}
catch (error) {
  process.stderr.write(`\nOpen Ledger cannot go on: ${(error as Error).message}\n`)
  process.exit(1)
}
