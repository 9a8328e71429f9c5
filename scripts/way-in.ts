// npm run way-in -- MAIL: a way in for somebody who lost password, phone and recovery codes; it is written into the trail.
import { letIn } from '../server/access/letIn'
import { closePool } from '../server/db/pool'
import { inContext } from '../server/http/context'

const email = process.argv[2] ?? ''
const token = email && (await inContext({ actor: null, ip: '' }, (ctx) => letIn(ctx, email)))
if (token)
  process.stdout.write(
    `· open /come-in/${token} within 30 minutes, and choose a password; the second step is ended\n`,
  )
else {
  const why = email ? `Nobody here has the mail address ${email}.` : 'Usage: npm run way-in -- MAIL'
  process.stderr.write(`${why}\n`)
  process.exitCode = 1
}
await closePool()
