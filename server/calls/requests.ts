// Requests from the public form: bounded, protected against robots without outside services, and then an ordinary call.
import { insertFile } from '../customers/index'
import { callFacts } from './facts'
import { createHmac, timingSafeEqual } from 'node:crypto'
import type * as yup from 'yup'
import { LedgerError } from '../../core/errors/LedgerError'
import { formatPhone, phoneKey } from '../../core/text/phone'
import { HOUR, MINUTE } from '../../core/time/units'
import { callDraft } from '../../shared/calls'
import { mail, obj, requiredText, text } from '../../shared/schema'
import { hashToken, secret } from '../access/session'
import { findCustomers, matchDocs } from '../customers/matching'
import { redraw, type Picture } from '../http/pictures'
import { inContext, type Ctx } from '../http/context'
import { countTry, fewAtOnce, tooOften, type Limit } from '../http/limits'
import { checkBody } from '../http/kinds'
import { log } from '../http/log'
import { record } from '../http/queries'
import { keepCall, lockSource, markRequest, requestsSince } from './queries'

export const requestSchema = obj({
  name: requiredText('Please write your name.', 160),
  phone: text(32).default(''),
  email: mail().default(''),
  line1: text(160).default(''),
  town: text(80).default(''),
  postcode: text(16).default(''),
  problem: requiredText('Please write what you need.', 2000),
  wanted: text(200).default(''),
}).test('reach', 'Please leave a telephone number or a mail address, so that we can answer.', (v) =>
  Boolean(v.phone || v.email),
)
/** The fields of the form with their lengths; nothing else that is sent is read or kept. */
export const FORM_FIELDS = {
  name: 160,
  phone: 32,
  email: 160,
  line1: 160,
  town: 80,
  postcode: 16,
  problem: 2000,
  wanted: 200,
} as const
export const MOST_PICTURES = 4
const FASTEST = 3_000
const OLDEST = 12 * HOUR
/** In ten minutes, from one address and with one form. */
const WINDOW_MS = 600_000
const FROM_ONE = 5
const WITH_ONE = 3

const sign = (at: string): string =>
  createHmac('sha256', secret()).update(`request:${at}`).digest('base64url')
/** Says when the form was drawn; signed, so that a robot cannot make one up. Time on the wall: the demo's clock does not matter to robots. */
export const formStamp = (at: number): string => `${at}.${sign(String(at))}`
/** How old a stamp is in milliseconds, or null where it is not one of ours. */
function stampAge(stamp: string, now: number): number | null {
  const [at = '', signature = ''] = stamp.split('.')
  const [given, expected] = [Buffer.from(signature), Buffer.from(sign(at))]
  return given.length === expected.length && timingSafeEqual(given, expected)
    ? now - Number(at)
    : null
}

/** What one address may send to the form's page at all, counted before anything is read. */
const POSTS: Limit = { free: 20, firstWaitMs: 4_000, longestWaitMs: MINUTE, forgetMs: MINUTE }
const COUNTED_AT_ONCE = 8
export async function holdBack(ip: string): Promise<void> {
  const key = `request form ${ip}`
  const wait = await fewAtOnce(key, COUNTED_AT_ONCE, () =>
    inContext({ actor: null, ip }, (ctx) => countTry(ctx.tx, key, POSTS, Date.now())),
  )
  if (wait !== 0)
    throw tooOften('That was too often. Please wait a minute, or ring us.', wait ?? MINUTE)
}

/** The name of a customer who has this number or mail address, among those that the index finds for it. */
async function knownBy(ctx: Ctx, phone: string, email: string): Promise<string | null> {
  const asked = [phone, email].filter(Boolean)
  const ids = (await Promise.all(asked.map((q) => findCustomers(ctx, q, 8))))
    .flat()
    .map((f) => f.id)
  const key = phone && phoneKey(phone, ctx.company.country)
  return (
    (await matchDocs(ctx, [...new Set(ids)])).find(
      (d) =>
        (key && d.phones.includes(key)) ||
        (email && d.mails.some((m) => m.toLowerCase() === email.toLowerCase())),
    )?.name ?? null
  )
}
/** Who it may be is a help, not a need: a request is taken whatever the index says. */
async function perhapsKnown(ctx: Ctx, phone: string, email: string): Promise<string | null> {
  try {
    return await knownBy(ctx, phone, email)
  } catch (error) {
    log.warn({ err: (error as Error).message }, 'who sent a request')
    return null
  }
}
export interface Sent {
  fields: Record<string, string>
  pictures: { name: string; bytes: Buffer; drawn?: Picture }[]
}
/** Pictures are drawn anew before anything is written. */
export async function drawPictures(sent: Sent): Promise<void> {
  checkCount(sent)
  for (const picture of sent.pictures) picture.drawn = await redraw(picture.bytes, 'pictures')
}
function checkCount(sent: Sent): void {
  const message = `Please send ${MOST_PICTURES} pictures at most.`
  if (sent.pictures.length > MOST_PICTURES)
    throw new LedgerError('too_many_pictures', message, { errors: [{ path: 'pictures', message }] })
}
type Request = yup.InferType<typeof requestSchema>
/** What a person filled in, checked field by field. */
async function readRequest(sent: Sent): Promise<Request> {
  const fields = Object.fromEntries(
    Object.keys(FORM_FIELDS).flatMap((name) =>
      sent.fields[name] === undefined ? [] : [[name, sent.fields[name]]],
    ),
  )
  checkBody(requestSchema, fields)
  return (await requestSchema.validate(fields, { abortEarly: false })) as Request
}
/** By address and by form: one robot with one form shuts out nobody but itself. There is no limit for all together. */
async function limitSources(ctx: Ctx, stamp: string, wall: number): Promise<void> {
  const sources = [
    [hashToken(`request-source:${ctx.ip}`), FROM_ONE],
    [hashToken(`request-stamp:${stamp}`), WITH_ONE],
  ] as const
  for (const [source, most] of sources) {
    await lockSource(ctx.tx, source, wall)
    if ((await requestsSince(ctx.tx, source, wall - WINDOW_MS)) >= most)
      throw tooOften(
        'We have just had several requests from here. Please wait a few minutes, or ring us.',
        WINDOW_MS / 2,
      )
    await markRequest(ctx.tx, source, wall)
  }
}
/** The call that somebody in the office opens. */
async function draftOf(ctx: Ctx, values: Request) {
  const { name, email, line1, town, postcode, wanted } = values
  const phone = formatPhone(values.phone, ctx.company.country)
  // Known by the very number or mail: proposed, not decided; anybody can type anybody's number.
  const known = await perhapsKnown(ctx, phone, email)
  const said = [values.problem, wanted && `Wished for: ${wanted}`, known && `Perhaps ${known}`]
  return callDraft.cast({
    ...{ name, email, line1, town, postcode, phone },
    query: known ?? name,
    speaking: name,
    problem: said.filter(Boolean).join('\n').slice(0, 2000),
    source: 'web page',
    isNew: !known,
  })
}
async function keepPictures(ctx: Ctx, callId: string, pictures: Sent['pictures']): Promise<void> {
  for (const { name, drawn } of pictures)
    await insertFile(ctx.tx, {
      id: ctx.id(),
      customerId: null,
      callId,
      name: name.slice(0, 160) || 'picture',
      ...drawn!,
      by: null,
      at: ctx.now,
    })
}
/** Takes a request in as a call that waits for an answer. What a robot sends is answered as if it had been taken. */
export async function takeRequest(ctx: Ctx, sent: Sent, wall: number): Promise<{ taken: boolean }> {
  const { stamp = '', website = '' } = sent.fields
  const values = await readRequest(sent)
  const age = stampAge(stamp, wall)
  if (age === null || age > OLDEST)
    throw new LedgerError(
      'stale_form',
      'This form was open for too long. Please send it once more.',
    )
  // A field that people do not see is filled, or the form came back faster than hands can type.
  if (website || age < FASTEST) return { taken: false }
  await limitSources(ctx, stamp, wall)
  const id = ctx.id()
  const draft = await draftOf(ctx, values)
  const summary = `${values.name}, ${values.problem.split(/[.\n]/)[0]}`.slice(0, 190)
  await keepCall(ctx.tx, { id, draft, summary, origin: 'form', by: null, at: ctx.now })
  await keepPictures(ctx, id, sent.pictures)
  await record(ctx, { subject: 'call', id, fact: callFacts.requested({ name: values.name }) })
  return { taken: true }
}
