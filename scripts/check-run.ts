// npm run check:run: proves that nothing is nowhere: everything that can wait is in exactly the place that the rule names; exit 1 and a list where not.
import { closePool } from '../server/db/pool'
import { checkWholeRun } from '../server/waiting/checkRun'

const MOST = 50
const astray = await checkWholeRun()
process.stdout.write(
  astray.length
    ? `WRONG ${astray.length} ${astray.length === 1 ? 'thing is' : 'things are'} not where the rule says\n`
    : 'ok    everything is in one place, and seen there\n',
)
for (const { what, says } of astray.slice(0, MOST)) process.stdout.write(`      ${what} ${says}\n`)
await closePool()
process.exit(astray.length ? 1 : 0)
