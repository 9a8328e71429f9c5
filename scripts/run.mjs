// Runs one of the TypeScript commands: npm run plan; and with the database up demo, bench, check:books, check:run, screenshots, backup, restore.
import { spawnSync } from 'node:child_process'
import { build, installDebian, installModules } from './lib/install.mjs'
import { companyMark, keptSecret, openDatabase } from './lib/env.mjs'
import { orStop } from './lib/say.mjs'

const [command, ...args] = process.argv.slice(2)
installModules()
if (command === 'trial') build()
if (command === 'bench' || command === 'screenshots') {
  installDebian({ chromium: 'chromium' })
  build()
}
// The planner reads a file and needs nothing else; trials start a copy of their own.
const database = command === 'plan' || command === 'trial' ? null : await orStop(openDatabase)
const { status } = spawnSync(
  process.execPath,
  ['--import', 'tsx', `scripts/${command}.ts`, ...args],
  {
    stdio: 'inherit',
    env: {
      ...process.env,
      ...(database && {
        DATABASE_URL: database.url,
        OPEN_LEDGER_SECRET: keptSecret('secret'),
        CARD_SECRET: keptSecret('card-secret'),
        OPEN_LEDGER_MARK: companyMark(database.url),
      }),
    },
  },
)
// A database that was running before belongs to an app that is up.
if (database && !database.joined) await database.stop()
process.exit(status ?? 1)
