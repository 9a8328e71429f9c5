// Mails and texts leave the building here: read, drawn and handed over in no transaction, and what
// came of it is noted in one. A mail leaves twice only where the server's answer does not reach our
// books, and then with the same Message-ID: whoever has handed it over whole waits as long for the
// answer as RFC 5321 (4.5.3.2.6) asks, aside of those that still have something to say.
import { messageFacts } from './facts'
import { PassThrough } from 'node:stream'
import nodemailer, { type Transporter } from 'nodemailer'
import type Mail from 'nodemailer/lib/mailer'
import { MINUTE, SECOND } from '../../core/time/units'
import { inBackgroundContext, type Ctx } from '../http/context'
import { record } from '../http/queries'
import { doubling, Hopeless, type Job, type JobKind, type Place } from '../jobs/jobs'
import type { Enclosure } from '../subject'
import { encloseExport } from '../archive/schedules'
import { enclosures, linksFor } from '../subjects'
import { markDelivered, markTried, messageById, type MessageRow } from './queries'
import { config } from '../config'

const PATIENCE = {
  connectionTimeout: 5 * SECOND,
  greetingTimeout: 5 * SECOND,
  socketTimeout: 15 * MINUTE,
  dnsTimeout: 5 * SECOND,
}
const LIMIT_MS = 30 * SECOND
const LAST_ANSWER_MS = 10 * MINUTE
const MOST_ASIDE = 60
const TEXT_LIMIT_MS = 10 * SECOND
/** Stands in a text for the private page of what it is about. */
const LINK = '{link}'
/** From this answer on the server will never take it. */
const REFUSED_FOR_GOOD = 550

/** A message as it is handed over, with the paper still to be drawn. */
interface Ready {
  message: MessageRow
  mail: Mail.Options
  paper: Enclosure['paper']
}

async function readyToGo(ctx: Ctx, message: MessageRow): Promise<Ready> {
  // An export is written from all subjects: it is none's own.
  const encloses = message.attach === 'export' ? encloseExport : enclosures.get(message.attach)
  const enclosed = await encloses?.(ctx, message)
  const links: string[] = []
  if (message.body.includes(LINK))
    for (const linkFor of linksFor) links.push(await linkFor(ctx, message))
  return {
    message,
    mail: {
      // The identifier makes a second delivery after a crash recognisable as the same mail.
      messageId: `<${message.id}@open-ledger>`,
      from: { name: ctx.company.name, address: ctx.company.email || 'office@localhost' },
      to: message.recipients,
      subject: message.subject,
      text: message.body.replaceAll(LINK, links.join('')),
      ...(enclosed?.event && { icalEvent: { filename: 'visit.ics', ...enclosed.event } }),
    },
    paper: enclosed?.paper,
  }
}
async function sendMail({ mail, paper }: Ready, { signal, stepAside }: Place): Promise<void> {
  const { address } = config.connectionTo('mail')
  if (!address) throw new Hopeless('no mail server is set up')
  const attachments = paper ? [{ filename: paper.filename, content: await paper.draw() }] : []
  const transport: Transporter = nodemailer.createTransport(address, PATIENCE as object)
  transport.use('stream', (outgoing, next) => {
    outgoing.message.transform(() => new PassThrough().once('end', () => stepAside(LAST_ANSWER_MS)))
    next()
  })
  try {
    await transport.sendMail({ ...mail, attachments, signal } as Mail.Options)
  } catch (error) {
    const code = (error as { responseCode?: number }).responseCode ?? 0
    throw code >= REFUSED_FOR_GOOD ? new Hopeless((error as Error).message) : error
  } finally {
    transport.close()
  }
}
/** The identifier makes a second delivery recognisable; a number that cannot be reached is not tried again. */
async function sendText({ message }: Ready): Promise<void> {
  const { address: base, secret } = config.connectionTo('text')
  if (!base) throw new Hopeless('no text service is set up')
  const response = await fetch(`${base}/texts`, {
    method: 'POST',
    signal: AbortSignal.timeout(TEXT_LIMIT_MS),
    headers: {
      'Content-Type': 'application/json',
      Authorization: `Bearer ${secret}`,
      'Idempotency-Key': message.id,
    },
    body: JSON.stringify({ id: message.id, to: message.recipients[0], text: message.body }),
  })
  if (response.ok) return
  const said = `the text service answered ${response.status}: ${(await response.text()).slice(0, 120)}`
  throw response.status === 422 ? new Hopeless(said) : new Error(said)
}

const idOf = (job: Job) => String(job.payload.messageId)
const note = (ctx: Ctx, message: MessageRow, came: 'delivered' | 'refused') => {
  const { id, customerId, channel, subject } = message
  return record(ctx, {
    subject: 'message',
    id,
    customerId,
    fact: messageFacts[came]({ channel, subject }),
  })
}

export const deliver: JobKind = {
  kind: 'deliver',
  // One server that is slow for one mail holds up a few others at most, and nobody else.
  atOnce: 6,
  aside: MOST_ASIDE,
  limitMs: LIMIT_MS,
  tries: 6,
  waitMs: doubling,
  async run(job, place) {
    const ready = await inBackgroundContext(async (ctx) => {
      const message = await messageById(ctx.tx, idOf(job))
      return message?.state === 'waiting' ? readyToGo(ctx, message) : null
    })
    if (!ready) return undefined
    await (ready.message.channel === 'text' ? sendText(ready) : sendMail(ready, place))
    return async (ctx) => {
      await markDelivered(ctx.tx, ready.message.id, ctx.now)
      await note(ctx, ready.message, 'delivered')
    }
  },
  async failed(ctx, job, error, last) {
    const message = await messageById(ctx.tx, idOf(job))
    if (!message) return
    await markTried(ctx.tx, message.id, error.message, last)
    await note(ctx, message, 'refused')
  },
}
