// The customer's button, also without JavaScript: starts a card payment and sends them to the terminal's own page.
import { inContext } from '../../../http/context'
import { byToken } from '../../../invoices/service'
import { startCardPayment } from '../../../payments/card'

export default defineEventHandler(async (event) => {
  const token = getRouterParam(event, 'token') ?? ''
  const here = `/i/${encodeURIComponent(token)}`
  try {
    const { url } = await inContext({ actor: null, ip: '' }, async (ctx) => {
      const invoice = await byToken(ctx, token)
      return invoice.open > 0 ? startCardPayment(ctx, invoice, token) : { url: here }
    })
    return await sendRedirect(event, url, 303)
  }
  catch {
    return await sendRedirect(event, `${here}?card=away`, 303)
  }
})
