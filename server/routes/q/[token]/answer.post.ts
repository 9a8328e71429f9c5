// The customer's answer to a quote, also without JavaScript: kept, and sent back to the page, which says what stands.
import { LedgerError } from '../../../../core/errors/LedgerError'
import { routeOf } from '../../../../shared/api'
import { addressOf } from '../../../http/address'
import { readBounded } from '../../../http/body'
import { inContext } from '../../../http/context'
import { refuseForeign } from '../../../http/origin'
import { problemOf } from '../../../http/problem'
import { answerAtLink } from '../../../quotes/customersPage'
import type { Body } from '../../../../shared/api'

const MOST_BYTES = 4_000
/** Of these the page says something of its own; after any other it shows how the quote stands. */
const SAID = ['stale', 'invalid', 'busy', 'database_away', 'unexpected']
const NAMES: Record<string, string> = { unexpected: 'failed', database_away: 'busy' }

export default defineEventHandler(async (event) => {
  const token = getRouterParam(event, 'token') ?? ''
  const here = `/q/${encodeURIComponent(token)}`
  try {
    refuseForeign(event)
    if (!/^application\/x-www-form-urlencoded/.test(getHeader(event, 'Content-Type') ?? ''))
      throw new LedgerError('wrong_kind', 'This address takes the form of the page.')
    const form = Object.fromEntries(
      new URLSearchParams(String(await readBounded(event, MOST_BYTES))),
    )
    const body = (await routeOf('answerPublicQuote').body!.validate(form, {
      stripUnknown: true,
    })) as Body<'answerPublicQuote'>
    await inContext({ actor: null, ip: addressOf(event) }, (ctx) => answerAtLink(ctx, token, body))
    return await sendRedirect(event, here, 303)
  } catch (error) {
    const { code } = problemOf(error, 'quote page')
    const said = SAID.includes(code) ? `?said=${NAMES[code] ?? code}` : ''
    return await sendRedirect(event, `${here}${said}`, 303)
  }
})
