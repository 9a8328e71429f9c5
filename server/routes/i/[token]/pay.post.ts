// The customer's button, also without JavaScript: starts a card payment and sends them to the terminal's own page.
import { LedgerError } from '../../../../core/errors/LedgerError'
import { addressOf } from '../../../http/address'
import { inContext } from '../../../http/context'
import { log } from '../../../http/log'
import { refuseForeign } from '../../../http/origin'
import { startCardPayment } from '../../../payments/card'

/** What the page says of an answer: never more than is true. */
const SAID: Record<string, string> = {
  already_paid: 'paid',
  terminal_away: 'away',
  no_terminal: 'away',
  busy: 'busy',
  database_away: 'busy',
  not_found: '',
}

export default defineEventHandler(async (event) => {
  const token = getRouterParam(event, 'token') ?? ''
  const here = `/i/${encodeURIComponent(token)}`
  const who = { actor: null, ip: addressOf(event) }
  try {
    refuseForeign(event)
    const { url } = await startCardPayment(
      {
        ...who,
        session: '',
        inContext: (work) => inContext(who, work),
        once: (work) => inContext(who, work),
      },
      token,
    )
    return await sendRedirect(event, url, 303)
  } catch (error) {
    const code = error instanceof LedgerError ? error.code : 'unexpected'
    if (code === 'unexpected')
      log.error(
        { err: { message: (error as Error).message, stack: (error as Error).stack } },
        'card page',
      )
    const said = SAID[code] ?? 'failed'
    return await sendRedirect(event, said ? `${here}?card=${said}` : here, 303)
  }
})
