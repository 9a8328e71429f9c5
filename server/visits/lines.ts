// Lines of a work order: added from the price book or by hand, changed for this work order only, agreed by signature.
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { decimalToMinor, minorToDecimal, toMoney } from '../../core/money/formatMinor'
import { Decimal } from '../../core/money/decimal'
import { lineNet } from '../../core/documents/lineNet'
import { documentTotals } from '../../core/documents/documentTotals'
import { roundToMinor } from '../../core/money/roundToMinor'
import { levelSaving, type LineKind, type PriceLevel } from '../../core/pricebook/levelPrice'
import { orderedPrice, PRICE_FROM } from '../../core/pricebook/priceOrder'
import { timeSurcharge } from '../../core/pricebook/timeFactor'
import { localToInstant } from '../../core/time/zone'
import type { Answer, Body } from '../../shared/api'
import { customerById, levels } from '../customers/queries'
import { signedIn, type Ctx } from '../http/context'
import { fromBase64, isKind, kindOf, PICTURES } from '../http/files'
import { record } from '../http/queries'
import { applyDue } from '../pricebook/changes'
import { assembliesAmong, entriesById, labourRates, partsInside, type EntryRow } from '../pricebook/queries'
import { timeFactorAt } from '../pricebook/rules'
import { basketLines } from '../pricebook/suppliers'
import { taxClasses } from '../settings/queries'
import { accountOf, asPaperLine, refreshWorkOrder, timeCharge, uncoveredOf, visibleWorkOrder, workOrderPaper } from './account'
import { addExplained, closeWork, insertLine, insertPhoto, insertSignature, lineById, linesOf, promiseLines, setOwnPrices, updateLine, visitById, type LineRow, type WorkOrderRow } from './queries'

async function levelFor(ctx: Ctx, work: Pick<WorkOrderRow, 'priceLevelId'>): Promise<{ level: PriceLevel | null, own: boolean }> {
  const all = await levels(ctx.tx)
  const own = all.find(l => l.id === work.priceLevelId)
  return { level: own ?? all.find(l => l.kind === 'agreement') ?? null, own: Boolean(own) }
}

/** Net, the level's saving (taken off when the customer has the level, only shown when not) and the time that is covered. */
function priced<L extends PricedLine>(line: L, entry: EntryRow | null, level: { level: PriceLevel | null, own: boolean }, currency: string, keepDiscount: boolean): L {
  const gross = lineNet({ quantity: line.quantity, unitPrice: line.unitPrice }, currency)
  const savingMinor = levelSaving(gross, line.kind, level.level, currency)
  const discountMinor = keepDiscount ? line.discountMinor : level.own ? savingMinor : 0
  if (discountMinor > gross) throw invalid('discount', 'The discount is larger than the line.')
  const coversSeconds = line.kind === 'labour' ? new Decimal(line.quantity).times(3600).round().toNumber() : entry ? new Decimal(line.quantity).times(line.coversSeconds || entry.seconds).round().toNumber() : line.coversSeconds
  return { ...line, discountMinor, savingMinor, netMinor: gross - discountMinor, coversSeconds }
}

/** A line with its price, belonging to nothing yet: a work order and a quote are priced alike. */
export type PricedLine = Omit<LineRow, 'workOrderId' | 'visitId' | 'promisedMinor' | 'done' | 'version'>
/** `bought`: from a supplier's basket, at a cost that the supplier said */
export type WantedLine = Omit<Body<'addLines'>['lines'][number], 'done'> & { done?: boolean, unit?: string, bought?: { supplier: string, partNumber: string, cost: string, taxClass: string } }
/** An assembly becomes the lines of what is inside it, which can each be changed on the document alone. */
export async function expanded<L extends WantedLine>(ctx: Ctx, wanted: L[]): Promise<L[]> {
  const assemblies = await assembliesAmong(ctx.tx, wanted.flatMap(l => l.entryId ?? []))
  if (!assemblies.size) return wanted
  const inside = await partsInside(ctx.tx, [...assemblies])
  return wanted.flatMap((w) => {
    if (!w.entryId || !assemblies.has(w.entryId)) return [w]
    // The first line keeps the identifier that the asker gave it; the others are ours to name.
    return inside.filter(p => p.entryId === w.entryId && !p.retired).map((p, i) => ({ ...w, id: i ? ctx.id() : w.id, entryId: p.partId, kind: undefined, name: undefined, unitPrice: undefined, quantity: new Decimal(p.quantity).times(w.quantity).toFixed() }))
  })
}
export interface PricedFor { customerId: string, priceLevelId: string | null, currency: string, callbackOf?: string | null, ownPrices?: Record<string, string> }
/** Prices lines for a customer, the first task of a visit at its full price, further ones at theirs, at the time of day when the work is done. */
export async function priceLines(ctx: Ctx, of: PricedFor, wanted: WantedLine[], hasTask: boolean, at: number | null = null): Promise<PricedLine[]> {
  await applyDue(ctx)
  const entries = new Map((await entriesById(ctx.tx, wanted.flatMap(l => l.entryId ?? []))).map(e => [e.id, e]))
  const level = await levelFor(ctx, of)
  const agreed = (await customerById(ctx.tx, of.customerId))?.ownPrices ?? {}
  const time = at === null ? null : await timeFactorAt(ctx, at)
  const rates = new Map((time ? await labourRates(ctx.tx) : []).map(l => [l.id, l.price]))
  const { currency } = of
  return wanted.map((w, i) => {
    const entry = w.entryId ? entries.get(w.entryId) ?? null : null
    if (w.entryId && !entry) throw invalid(`lines[${i}].entryId`, 'This entry is not in the price book any more.')
    if (!entry && (!w.name || !w.unitPrice)) throw invalid(`lines[${i}].name`, 'A line that is not from the price book needs a name and a price.')
    if (new Decimal(w.quantity).isZero()) throw invalid(`lines[${i}].quantity`, 'The quantity is zero, so there is nothing to bill.')
    const further = entry?.kind === 'task' && hasTask && entry.furtherPrice !== null
    if (entry?.kind === 'task') hasTask = true
    const seconds = entry ? (further ? entry.furtherSeconds : entry.seconds) : 0
    const bookPrice = entry ? (further ? entry.furtherPrice! : entry.price) : null
    const more = time && entry ? labourSurcharge(entry, seconds, rates, time.factor, currency) : 0
    const book = bookPrice === null ? w.unitPrice! : more ? minorToDecimal(roundToMinor(bookPrice, currency) + more, currency) : bookPrice
    const sources = { free: Boolean(of.callbackOf), workOrder: entry ? of.ownPrices?.[entry.id] : undefined, customer: entry ? agreed[entry.id] : undefined, book }
    const ordered = orderedPrice(sources)
    // A price that says what would be said anyway was not typed by anybody: a quote sends its lines back as they are.
    const typed = w.unitPrice !== undefined && !sources.free && (entry === null || !new Decimal(w.unitPrice).eq(new Decimal(ordered.price).toDecimalPlaces(4)))
    const { price, from } = typed ? { price: w.unitPrice!, from: 'typed' as const } : ordered
    return priced({
      id: w.id, entryId: entry?.id ?? null, kind: (entry?.kind as LineKind | undefined) ?? w.kind ?? 'other', name: w.name || entry!.name, unit: w.unit ?? entry?.unit ?? 'each', quantity: w.quantity,
      // A call-back is without charge: its lines keep what they would cost and what they cost us.
      unitPrice: price, bookPrice, unitCost: w.bought?.cost ?? entry?.cost ?? '0', discountMinor: 0, taxClass: entry?.taxClass ?? w.bought?.taxClass ?? 'goods', coversSeconds: seconds,
      netMinor: 0, savingMinor: 0, supplier: w.bought?.supplier ?? entry?.supplier ?? '', partNumber: w.bought?.partNumber ?? entry?.partNumber ?? '',
      priceFrom: [w.bought && from !== 'free' ? `${w.bought.supplier}, cost by our markup` : PRICE_FROM[from], from === 'book' && further ? 'as a further one' : '', from === 'book' && more ? `${time!.name} × ${new Decimal(time!.factor)} on labour` : ''].filter(Boolean).join(', ').slice(0, 160),
    }, entry, from === 'workOrder' || from === 'customer' ? { level: null, own: false } : level, currency, false)
  })
}
/** What a time of day adds to one of an entry: to a labour rate, and to the labour in a task. */
function labourSurcharge(entry: EntryRow, seconds: number, rates: ReadonlyMap<string, string>, factor: string, currency: string): number {
  if (entry.kind === 'labour') return timeSurcharge({ seconds: 3600, rate: entry.price }, factor, currency)
  const rate = entry.kind === 'task' && entry.labourId ? rates.get(entry.labourId) : undefined
  return rate ? timeSurcharge({ seconds, rate }, factor, currency) : 0
}
export async function putLines(ctx: Ctx, work: WorkOrderRow, visitId: string | null, wanted: WantedLine[], promised: boolean): Promise<LineRow[]> {
  const hasTask = (await linesOf(ctx.tx, work.id)).some(l => l.kind === 'task')
  const all = await expanded(ctx, wanted)
  const visit = visitId ? await visitById(ctx.tx, visitId) : null
  const at = visit?.startedAt ?? visit?.startAt
  const made = (await priceLines(ctx, work, all, hasTask, at ? Date.parse(at) : null)).map((line, i) => ({ ...line, workOrderId: work.id, visitId, promisedMinor: promised ? line.netMinor : 0, done: promised ? false : all[i]!.done ?? true, version: 1 }))
  for (const line of made) await insertLine(ctx.tx, line)
  return made
}
/** What some entries would cost a customer at a time: the price to read out, as booking would make it. Lines before the customer's level, which is taken off beneath them. */
export async function tryLines(ctx: Ctx, body: Body<'tryLines'>): Promise<Answer<'tryLines'>> {
  const { currency, timeZone } = ctx.company
  const customer = body.customerId ? await customerById(ctx.tx, body.customerId) : null
  const all = await expanded(ctx, body.lines.map((l, asked) => ({ id: ctx.id(), kind: undefined, name: undefined, unitPrice: undefined, ...l, asked })))
  const lines = await priceLines(ctx, { customerId: customer?.id ?? NOBODY, priceLevelId: customer?.priceLevelId ?? null, currency }, all, false, body.date && body.start ? localToInstant(body.date, body.start, timeZone) : null)
  const m = (minor: number) => toMoney(minor, currency)
  const own = customer ? (await levels(ctx.tx)).some(l => l.id === customer.priceLevelId && l.kind === 'agreement') : false
  return {
    lines: lines.map((l, i) => ({ of: all[i]!.asked, entryId: l.entryId, name: l.name, quantity: new Decimal(l.quantity).toString(), net: m(l.netMinor + l.discountMinor), priceFrom: l.priceFrom })), own, saving: m(lines.reduce((n, l) => n + l.savingMinor, 0)), net: m(lines.reduce((n, l) => n + l.netMinor, 0)),
  }
}
const NOBODY = '00000000-0000-0000-0000-000000000000'
/** Rates of one work order alone: what its labour and its charges cost there. Lines that stand there already keep their price. */
export async function keepWorkRates(ctx: Ctx, workOrderId: string, body: Body<'keepWorkRates'>): Promise<Answer<'workOrder'>> {
  const work = await visibleWorkOrder(ctx, workOrderId, true)
  if (work.cancelled || work.closed) throw conflict('closed', 'This work order is closed; nothing can be added to it.')
  const known = new Map((await entriesById(ctx.tx, body.rates.map(r => r.entryId))).map(e => [e.id, e]))
  for (const [i, r] of body.rates.entries()) if (!['labour', 'charge'].includes(known.get(r.entryId)?.kind ?? '')) throw invalid(`rates[${i}].entryId`, 'Only labour rates and charges can be agreed for a work order.')
  if (!(await setOwnPrices(ctx.tx, workOrderId, body.version, Object.fromEntries(body.rates.map(r => [r.entryId, r.price]))))) throw conflict('stale', 'Someone changed this work order in the meantime.')
  await record(ctx, { subject: 'work', id: workOrderId, workOrderId, customerId: work.customerId, text: `Rates of this work order: ${body.rates.map(r => `${known.get(r.entryId)!.name} ${r.price}`).join(', ') || 'as everywhere'}`, data: { rates: { from: work.ownPrices, to: body.rates } } })
  return workOrderPaper(ctx, workOrderId)
}

export async function addLines(ctx: Ctx, workOrderId: string, body: Body<'addLines'>): Promise<Answer<'workOrder'>> {
  return addWanted(ctx, workOrderId, body.visitId, body.lines)
}
async function addWanted(ctx: Ctx, workOrderId: string, visitId: string | null, lines: WantedLine[]): Promise<Answer<'workOrder'>> {
  const work = await visibleWorkOrder(ctx, workOrderId, true)
  if (work.cancelled || work.closed) throw conflict('closed', 'This work order is closed; nothing can be added to it.')
  if (lines.length === 0 || lines.length > 100) throw invalid('lines', 'Add between 1 and 100 lines.')
  for (const line of await putLines(ctx, work, visitId, lines, false)) {
    await record(ctx, { subject: 'work', id: work.id, workOrderId: work.id, customerId: work.customerId, text: `Added ${new Decimal(line.quantity)} × ${line.name}`, data: { price: { to: line.unitPrice } } })
  }
  await refreshWorkOrder(ctx, work.id)
  return workOrderPaper(ctx, work.id)
}

export async function addBasket(ctx: Ctx, workOrderId: string, body: Body<'addBasket'>): Promise<Answer<'workOrder'>> {
  return addWanted(ctx, workOrderId, body.visitId, await basketLines(ctx, body.items))
}
export async function changeLine(ctx: Ctx, lineId: string, body: Body<'changeLine'>): Promise<Answer<'workOrder'>> {
  const old = await lineById(ctx.tx, lineId)
  if (!old) throw notFound('line')
  const work = await visibleWorkOrder(ctx, old.workOrderId, true)
  if (old.version !== body.version) throw conflict('stale', 'Someone changed this line in the meantime.', { current: old, yours: body })
  const billed = (await accountOf(ctx, [old], work.id)).lines[0]!.billedMinor
  if (billed > 0 && (body.removed || body.unitPrice !== undefined || body.quantity !== undefined || body.discount !== undefined || body.done === false)) throw conflict('billed', 'This line is on an invoice; add a line, or correct the invoice.')
  if (body.quantity !== undefined && new Decimal(body.quantity).isZero()) throw invalid('quantity', 'The quantity is zero; take the line out instead.')
  const entry = old.entryId ? (await entriesById(ctx.tx, [old.entryId]))[0] ?? null : null
  const perUnit = new Decimal(old.quantity).isZero() ? 0 : Math.round(new Decimal(old.coversSeconds).div(old.quantity).toNumber())
  const line = priced({
    ...old, priceFrom: body.unitPrice !== undefined && !new Decimal(body.unitPrice).eq(old.unitPrice) ? PRICE_FROM.typed : old.priceFrom, quantity: body.quantity ?? old.quantity, unitPrice: body.unitPrice ?? old.unitPrice, done: body.done ?? old.done, coversSeconds: perUnit,
    discountMinor: body.discount === undefined ? old.discountMinor : decimalToMinor(body.discount, work.currency),
  }, entry, await levelFor(ctx, work), work.currency, body.discount !== undefined)
  if (!(await updateLine(ctx.tx, line, body.removed ?? false))) throw conflict('stale', 'Someone changed this line in the meantime.')
  const text = body.removed ? `Took out ${old.name}` : body.done !== undefined && body.done !== old.done ? `${old.name}: ${body.done ? 'done' : 'not done'}` : `Changed ${old.name}`
  await record(ctx, { subject: 'work', id: work.id, workOrderId: work.id, customerId: work.customerId, text, data: { net: { from: minorToDecimal(old.netMinor, work.currency), to: minorToDecimal(line.netMinor, work.currency) }, unitPrice: { from: old.unitPrice, to: line.unitPrice } } })
  await refreshWorkOrder(ctx, work.id)
  return workOrderPaper(ctx, work.id)
}

/** The customer signs for the lines as shown; what they saw is kept with the picture, and becomes what was promised. */
export async function sign(ctx: Ctx, workOrderId: string, body: Body<'sign'>): Promise<Answer<'workOrder'>> {
  const work = await visibleWorkOrder(ctx, workOrderId, true)
  const image = fromBase64(body.image)
  if (!isKind(image, 'image/png')) throw invalid('image', 'The signature is not a PNG picture.', 'not_a_picture')
  const lines = await linesOf(ctx.tx, workOrderId)
  if (lines.length === 0) throw invalid('lines', 'There is nothing to agree to yet: add a line first.')
  const classes = await taxClasses(ctx.tx)
  const totals = documentTotals(lines.map(l => asPaperLine(l, classes)), { mode: ctx.company.taxMode, currency: work.currency, exempt: work.taxExempt })
  if (decimalToMinor(body.shownTotal, work.currency) !== totals.totalMinor) throw conflict('price_changed', 'The lines changed since they were shown. Show them again before signing.', { total: toMoney(totals.totalMinor, work.currency) })
  const shown = { lines: lines.map((l, i) => ({ name: l.name, quantity: l.quantity, net: minorToDecimal(totals.lineNets[i]!, work.currency) })), tax: minorToDecimal(totals.taxMinor, work.currency), total: minorToDecimal(totals.totalMinor, work.currency) }
  await insertSignature(ctx.tx, { id: body.id, workOrderId, visitId: body.visitId, name: body.name, at: ctx.now, by: signedIn(ctx).id, image, shown, total: totals.totalMinor })
  await promiseLines(ctx.tx, workOrderId)
  await record(ctx, { subject: 'work', id: workOrderId, workOrderId, customerId: work.customerId, text: `Signed by ${body.name} for ${shown.total} ${work.currency}`, data: shown })
  await refreshWorkOrder(ctx, workOrderId)
  return workOrderPaper(ctx, workOrderId)
}

/** Keeps a photo; what it is, its first bytes say, not its name. */
export async function addPhoto(ctx: Ctx, workOrderId: string, body: Body<'addPhoto'>): Promise<Answer<'addPhoto'>> {
  const work = await visibleWorkOrder(ctx, workOrderId)
  const bytes = fromBase64(body.data)
  const mime = kindOf(bytes, PICTURES)
  await insertPhoto(ctx.tx, { id: body.id, workOrderId, mime, bytes, by: signedIn(ctx).id, at: ctx.now })
  await record(ctx, { subject: 'work', id: workOrderId, workOrderId, customerId: work.customerId, text: 'Photo added' })
  return { ok: true }
}

export async function explainTime(ctx: Ctx, workOrderId: string, body: Body<'explainTime'>): Promise<Answer<'workOrder'>> {
  const work = await visibleWorkOrder(ctx, workOrderId, true)
  const { uncoveredSeconds } = await uncoveredOf(ctx, work, await linesOf(ctx.tx, workOrderId))
  if (body.seconds > uncoveredSeconds) throw invalid('seconds', 'Not that many minutes are uncovered.')
  await addExplained(ctx.tx, workOrderId, body.seconds)
  await record(ctx, { subject: 'work', id: workOrderId, workOrderId, customerId: work.customerId, text: `${Math.round(body.seconds / 60)} minutes not charged: ${body.reason}` })
  await refreshWorkOrder(ctx, workOrderId)
  return workOrderPaper(ctx, workOrderId)
}
export async function chargeTime(ctx: Ctx, workOrderId: string, lineId: string): Promise<Answer<'workOrder'>> {
  const work = await visibleWorkOrder(ctx, workOrderId, true)
  const { uncoveredSeconds } = await uncoveredOf(ctx, work, await linesOf(ctx.tx, workOrderId))
  const charge = await timeCharge(ctx, uncoveredSeconds, { workOrder: work.ownPrices, customer: (await customerById(ctx.tx, work.customerId))!.ownPrices })
  if (!charge) throw conflict('nothing_uncovered', 'Every minute on site is covered by a line.')
  const line = priced({ id: lineId, workOrderId, visitId: null, kind: 'labour', unit: 'hour', bookPrice: charge.unitPrice, discountMinor: 0, savingMinor: 0, promisedMinor: 0, done: true, version: 1, supplier: '', partNumber: '', ...charge, coversSeconds: 0 }, null, await levelFor(ctx, work), work.currency, false)
  await insertLine(ctx.tx, { ...line, coversSeconds: Math.max(line.coversSeconds, uncoveredSeconds) })
  await record(ctx, { subject: 'work', id: workOrderId, workOrderId, customerId: work.customerId, text: `Charged ${Math.round(uncoveredSeconds / 60)} minutes that no line covered` })
  await refreshWorkOrder(ctx, workOrderId)
  return workOrderPaper(ctx, workOrderId)
}
export async function closeWorkOrder(ctx: Ctx, workOrderId: string, reason: string): Promise<Answer<'workOrder'>> {
  const work = await visibleWorkOrder(ctx, workOrderId, true)
  if (work.toBill > 0) throw conflict('still_to_bill', 'Something is done and not billed. Bill it, or take the line out.')
  if (!['to_bill', 'billed'].includes(work.state)) throw conflict('not_finished', 'Its visits are not finished.')
  await closeWork(ctx.tx, workOrderId)
  await record(ctx, { subject: 'work', id: workOrderId, workOrderId, customerId: work.customerId, text: `Closed: ${reason}` })
  await refreshWorkOrder(ctx, workOrderId)
  return workOrderPaper(ctx, workOrderId)
}
