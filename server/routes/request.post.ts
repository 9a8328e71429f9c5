// The public request form, sent: works without JavaScript, and answers with the page that says what happened.
import type { H3Event } from 'h3'
import { LedgerError } from '../../core/errors/LedgerError'
import { drawPictures, holdBack, MOST_PICTURES, takeRequest, type Sent } from '../calls/requests'
import { keepForm } from '../calls/sentForms'
import { addressOf } from '../http/address'
import { readBounded } from '../http/body'
import { inContext } from '../http/context'
import { LARGEST } from '../http/files'
import { refuseForeign } from '../http/origin'
import { problemOf, type Problem } from '../http/problem'

/** All that is not a picture. */
const MOST_WORDS = 20_000
const MOST_PARTS = 40

async function readForm(event: H3Event, sent: Sent): Promise<void> {
  const type = getHeader(event, 'Content-Type') ?? ''
  if (!/^(multipart\/form-data|application\/x-www-form-urlencoded)/.test(type))
    throw new LedgerError('wrong_kind', 'This address takes the form of the page.')
  const files = type.startsWith('multipart')
  const bytes = await readBounded(event, files ? MOST_PICTURES * LARGEST + MOST_WORDS : MOST_WORDS)
  const form = await new Response(new Uint8Array(bytes), { headers: { 'Content-Type': type } })
    .formData()
    .catch(() => {
      throw new LedgerError('malformed', 'The form arrived incomplete. Please send it once more.')
    })
  let words = 0
  for (const [n, [name, value]] of [...form.entries()].entries()) {
    if (typeof value === 'string') {
      words += name.length + value.length
      if (words > MOST_WORDS || n > MOST_PARTS)
        throw new LedgerError('too_large', 'This is more than the form takes.')
      if (!Object.hasOwn(sent.fields, name)) sent.fields[name] = value
    } else if (value.size > 0)
      sent.pictures.push({ name: value.name, bytes: Buffer.from(await value.arrayBuffer()) })
  }
}
async function sendBack(
  event: H3Event,
  who: { actor: null; ip: string },
  fields: Record<string, string>,
  problem: Problem,
): Promise<unknown> {
  const wantsJson = (getHeader(event, 'Accept') ?? '').includes('application/json')
  // What was typed comes back with the page, whatever went wrong; where even that cannot be kept, the answer says so itself.
  const form = wantsJson
    ? null
    : await inContext(who, (ctx) => keepForm(ctx, { fields, problem })).catch(() => null)
  if (form) return sendRedirect(event, `/request?form=${form}`, 303)
  setResponseStatus(event, problem.status)
  setHeader(event, 'Content-Type', 'application/problem+json')
  return JSON.stringify(problem)
}

export default defineEventHandler(async (event) => {
  const who = { actor: null, ip: addressOf(event) }
  const sent: Sent = { fields: {}, pictures: [] }
  try {
    refuseForeign(event)
    await holdBack(who.ip)
    await readForm(event, sent)
    await drawPictures(sent)
    await inContext(who, (ctx) => takeRequest(ctx, sent, Date.now()))
    return await sendRedirect(event, '/request?sent=yes', 303)
  } catch (error) {
    const problem = problemOf(error, 'form')
    // Nothing more is read of what is too large or comes too often.
    if (problem.status === 413 || problem.status === 429) event.node.req.resume()
    return sendBack(event, who, sent.fields, problem)
  }
})
