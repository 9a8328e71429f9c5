// What a visit leaves behind: the customer’s signature, photos.
import { createHash } from 'node:crypto'
import { ownDetails } from './details'
import { workFacts } from './facts'
import { isExempt } from '../../core/tax/isExempt'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { decimalToMinor, toMoney } from '../../core/money/formatMinor'
import { documentTotals } from '../../core/documents/documentTotals'
import type { Answer, Body } from '../../shared/api'
import { localDate, localTime } from '../../core/time/zone'
import { saySigner, signedPaper } from '../../core/visits/signedPaper'
import { siteById } from '../customers/places.queries'
import { customerById } from '../customers/queries'
import { signedIn, type Ctx } from '../http/context'
import { fromBase64, isKind } from '../http/files'
import { redraw } from '../http/pictures'
import { record } from '../http/queries'
import { Raw, type Call } from '../http/route'
import { layoutFor } from '../settings/index'
import { taxClasses } from '../settings/queries'
import { levelFor } from '../pricebook/priceLines'
import { reasonsOf } from './takenOff'
import { asPaperLine, refreshWorkOrder, visibleWorkOrder } from './account'
import { workOrderPaper } from './views'
import { insertPhoto, insertSignature, photoById } from './papers.queries'
import type { WorkOrderRow } from './queries'
import { linesOf, promiseLines } from './lines.queries'

/** The customer signs for the lines as shown; what they saw is kept with the picture, and becomes what was promised. */
export async function sign(
  call: Call,
  workOrderId: string,
  body: Body<'sign'>,
): Promise<Answer<'workOrder'>> {
  await call.inContext((ctx) => visibleWorkOrder(ctx, workOrderId))
  const sent = fromBase64(body.image)
  if (!isKind(sent, 'image/png'))
    throw invalid('image', 'The signature is not a PNG picture.', 'not_a_picture')
  const { bytes } = await redraw(sent, 'image')
  return call.once((ctx) => keepSignature(ctx, workOrderId, body, bytes))
}
/** Who signs, for what, and the hand. */
type Signed = Pick<Body<'sign'>, 'id' | 'visitId' | 'name' | 'company' | 'role' | 'purpose'> & {
  image: Buffer
}
async function keepSignature(
  ctx: Ctx,
  workOrderId: string,
  body: Body<'sign'>,
  image: Buffer,
): Promise<Answer<'workOrder'>> {
  const work = await visibleWorkOrder(ctx, workOrderId, true)
  await keepSigned(ctx, work, { ...body, image }, body.shownTotal)
  await refreshWorkOrder(ctx, workOrderId)
  return workOrderPaper(ctx, workOrderId)
}
/**
 * Keeps what was signed as a paper of its own, with its fingerprint; from then on its lines are what was agreed.
 * @param shownTotal what stood there when it was signed; left out where nobody looked at a screen
 */
export async function keepSigned(
  ctx: Ctx,
  work: WorkOrderRow,
  signed: Signed,
  shownTotal?: string,
): Promise<void> {
  const lines = await linesOf(ctx.tx, work.id)
  if (lines.length === 0)
    throw invalid('lines', 'There is nothing to agree to yet: add a line first.')
  const site = (await siteById(ctx.tx, work.siteId))!
  const classes = await taxClasses(ctx.tx, { day: ctx.today, postcode: site.postcode })
  const customer = (await customerById(ctx.tx, work.customerId))!
  const exempt = isExempt(customer, ctx.today)
  const totals = documentTotals(
    lines.map((l) => asPaperLine(l, classes)),
    { mode: ctx.company.taxMode, currency: work.currency, exempt },
  )
  if (shownTotal !== undefined && decimalToMinor(shownTotal, work.currency) !== totals.totalMinor)
    throw conflict(
      'price_changed',
      'The lines changed since they were shown. Show them again before signing.',
      { total: toMoney(totals.totalMinor, work.currency) },
    )
  const { id, visitId, name, company, role, purpose, image } = signed
  const { timeZone } = ctx.company
  const level = await levelFor(ctx, work)
  const paper = signedPaper({
    ...{ purpose, company: ctx.company, work, totals },
    layout: await layoutFor(ctx, 'signed'),
    lines: lines.map((line) => ({ ...line, off: reasonsOf(line, level) })),
    details: ownDetails(work, customer, site),
    certificate: exempt ? customer.certificate : '',
    signer: { name, company, role },
    signedOn: localDate(ctx.now, timeZone),
    signedAt: localTime(ctx.now, timeZone),
    takenBy: signedIn(ctx).name,
  })
  const shown = JSON.stringify(paper)
  await insertSignature(ctx.tx, {
    ...{ id, workOrderId: work.id, visitId, name, purpose, image, shown },
    ...{ at: ctx.now, by: signedIn(ctx).id, total: totals.totalMinor },
    hash: createHash('sha256').update(shown).update(image).digest('hex'),
  })
  await promiseLines(ctx.tx, work.id)
  await record(ctx, {
    subject: 'work',
    id: work.id,
    workOrderId: work.id,
    customerId: work.customerId,
    fact: workFacts.signed({
      name: saySigner(paper.signer),
      total: paper.total.amount,
      currency: work.currency,
      purpose,
    }),
  })
}
/** Wide enough for a list, on the screen of any phone. */
const SMALL = 240
export async function photo(ctx: Ctx, id: string, size: 'full' | 'small'): Promise<Raw> {
  const found = await photoById(ctx.tx, id)
  if (!found) throw notFound('photo')
  await visibleWorkOrder(ctx, found.workOrderId)
  const { mime, bytes } = found
  const drawn = async () => (await redraw(bytes, 'data', SMALL)).bytes
  return new Raw(mime, size === 'small' ? drawn : bytes, '', true)
}
/** Keeps a photo; what it is, its first bytes say, not its name. */
export async function addPhoto(
  call: Call,
  workOrderId: string,
  body: Body<'addPhoto'>,
): Promise<Answer<'addPhoto'>> {
  await call.inContext((ctx) => visibleWorkOrder(ctx, workOrderId))
  const { mime, bytes } = await redraw(fromBase64(body.data))
  return call.once(async (ctx) => {
    const work = await visibleWorkOrder(ctx, workOrderId)
    await insertPhoto(ctx.tx, {
      id: body.id,
      workOrderId,
      mime,
      bytes,
      by: signedIn(ctx).id,
      at: ctx.now,
    })
    await record(ctx, {
      subject: 'work',
      id: workOrderId,
      workOrderId,
      customerId: work.customerId,
      fact: workFacts.photoAdded(),
    })
    return { ok: true }
  })
}
