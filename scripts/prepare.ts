// Before the app starts: migrate, and fill a database that is empty: with the demo company, or with a firm that waits for its owner.
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { migrate } from '../server/db/migrate'
import { closePool, databaseUrl, transaction } from '../server/db/pool'
import { openForOwner } from '../server/settings/begin'
import { getCompany } from '../server/settings/queries'
import { loadDemo } from './demo-load'
import { companyNow } from '../server/http/clock'
import { localDate } from '../core/time/zone'
import { DAY } from '../core/time/units'

const say = (text: string) => process.stdout.write(`· ${text}\n`)
try {
  const done = await migrate(databaseUrl(), 'server/db/migrations')
  say(done.length ? `database migrated (${done.join(', ')})` : 'database is current')
  const company = await transaction(getCompany)
  const mark = process.env.OPEN_LEDGER_MARK
  const had = mark && existsSync(mark) ? readFileSync(mark, 'utf8').trim() : ''
  if (!company && had === 'firm')
    throw new Error(
      'This folder had a firm, and its database is empty now. It is not filled with the demo. Bring the firm back with: npm run restore -- FILE; or begin somewhere else: OPEN_LEDGER_DATA=.data2 npm start',
    )
  const wantsFirm = process.env.OPEN_LEDGER_FIRM === 'yes'
  if (company?.demoDay && wantsFirm)
    throw new Error(
      'The demo company is in this database, and a firm never begins beside it. Begin in a folder of its own: OPEN_LEDGER_DATA=.firm npm start -- --firm; or with an empty database: DATABASE_URL=… npm start -- --firm',
    )
  const code =
    wantsFirm || process.env.OPEN_LEDGER_DEMO === 'no' || (company && !company.demoDay)
      ? await transaction(openForOwner)
      : null
  if (code)
    say(
      `a firm can begin here: open /begin, and write this code: ${code} (it holds until the next start)`,
    )
  else if (!company) {
    const started = Date.now()
    await loadDemo({})
    say(`demo company loaded in ${((Date.now() - started) / 1000).toFixed(1)} s`)
  } else if (
    company.demoDay &&
    company.demoDay < localDate(companyNow(company) - DAY, company.timeZone)
  ) {
    say(`the demo company was made for ${company.demoDay}; npm run demo -- --reset renews it`)
  }
  // What a database once had is remembered beside it.
  const now = company ?? (await transaction(getCompany))
  if (mark && now) writeFileSync(mark, now.demoDay ? 'demo\n' : 'firm\n', { mode: 0o600 })
  await closePool()
} catch (error) {
  process.stderr.write(`\nOpen Ledger cannot go on: ${(error as Error).message}\n`)
  process.exit(1)
}
