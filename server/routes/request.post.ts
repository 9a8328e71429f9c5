// The public request form, sent: works without JavaScript, and answers with the page that says what happened.
import { LedgerError } from '../../core/errors/LedgerError'
import { holdBack, MOST_PICTURES, takeRequest, type Sent } from '../calls/requests'
import { readBounded } from '../http/body'
import { inContext } from '../http/context'
import { LARGEST } from '../http/files'
import { keepForm } from '../calls/sentForms'
import { problemOf } from '../http/problem'

export default defineEventHandler(async (event) => {
  const ip = event.node.req.socket.remoteAddress ?? ''
  const fields: Record<string, string> = {}
  try {
    holdBack(ip, Date.now())
    const type = getHeader(event, 'Content-Type') ?? ''
    if (!/^(multipart\/form-data|application\/x-www-form-urlencoded)/.test(type)) throw new LedgerError('wrong_kind', 415, 'This address takes the form of the page.')
    const bytes = await readBounded(event, MOST_PICTURES * LARGEST + 100_000)
    const sent: Sent = { fields, pictures: [] }
    const form = await new Response(new Uint8Array(bytes), { headers: { 'Content-Type': type } }).formData().catch(() => {
      throw new LedgerError('malformed', 400, 'The form arrived incomplete. Please send it once more.')
    })
    for (const [name, value] of form.entries()) {
      if (typeof value === 'string') fields[name] = value.slice(0, 5000)
      else if (value.size > 0) sent.pictures.push({ name: value.name, bytes: Buffer.from(await value.arrayBuffer()) })
    }
    await inContext({ actor: null, ip }, ctx => takeRequest(ctx, sent, Date.now()))
    return await sendRedirect(event, '/request?sent=yes', 303)
  }
  catch (error) {
    const problem = problemOf(error, 'form')
    if ((getHeader(event, 'Accept') ?? '').includes('application/json')) {
      setResponseStatus(event, problem.status)
      setHeader(event, 'Content-Type', 'application/problem+json')
      return JSON.stringify(problem)
    }
    if (problem.status === 413 || problem.status === 429) event.node.req.resume()
    // What was typed comes back with the page, whatever went wrong.
    return await sendRedirect(event, `/request?form=${keepForm({ fields, problem })}`, 303)
  }
})
