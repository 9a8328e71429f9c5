// What screens and papers are told of a quote.
import { mailText } from '../../core/text/mailWords'
import { sayDay } from '../../core/time/sayDay'
import { sayEquipment } from '../../core/customers/sayEquipment'
import { saySite } from '../../core/customers/saySite'
import { actsFrom } from '../../core/documents/lifecycle'
import { addressLines, letterheadOf } from '../../core/documents/letterhead'
import { isNothing } from '../../core/documents/paperDocument'
import { documentTotals } from '../../core/documents/documentTotals'
import { margin } from '../../core/documents/margin'
import { notFound } from '../../core/errors/LedgerError'
import { Decimal } from '../../core/money/decimal'
import { toMoney } from '../../core/money/formatMinor'
import { priceText } from '../../core/money/priceText'
import { roundToMinor } from '../../core/money/roundToMinor'
import { quoteLifecycle, quotePermissions, type QuoteAct } from '../../core/quotes/quoteLifecycle'
import type { QuotePaper } from '../../core/quotes/quoteDocument'
import { quoteState } from '../../core/quotes/quoteState'
import type { Answer, Query } from '../../shared/api'
import { asksPart } from '../asks/views'
import { customerById, levels } from '../customers/queries'
import { suppliedOf } from '../customers/shapes'
import { equipmentById, siteById } from '../customers/places.queries'
import { may, signedIn, type Ctx } from '../http/context'
import { pageOf, paging } from '../http/paging'
import { historyOf } from '../http/queries'
import type { PricedLine } from '../pricebook/priceLines'
import { layoutFor } from '../settings/index'
import { taxClasses } from '../settings/queries'
import { taxesOf, visibleWorkOrder } from '../visits/account'
import { photosOf } from '../visits/papers.queries'
import { callsOfQuote } from '../calls/queries'
import { filesOf, suppliedById } from '../customers/history.queries'
import { workOrderById, type WorkOrderRow } from '../visits/queries'
import { quoteLink } from './link'
import { quoteById, quoteLines, quotePage, type QuoteRow } from './queries'
import { quoteWaits } from './waits'

export type QuoteView = Answer<'quote'>

/** A quote that the asker may see; a technician only their own, and those of work orders on which they have a visit. */
export async function visibleQuote(ctx: Ctx, id: string, lock = false): Promise<QuoteRow> {
  const quote = await quoteById(ctx.tx, id, lock)
  if (!quote) throw notFound('quote')
  const me = signedIn(ctx)
  if (me.role === 'technician' && quote.ownerId !== me.id) {
    if (!quote.workOrderId) throw notFound('quote')
    await visibleWorkOrder(ctx, quote.workOrderId)
  }
  return quote
}
/** What whoever asks may do with a quote today: what its state allows, and they are permitted. */
const actsOf = (ctx: Ctx, quote: QuoteRow): QuoteAct[] =>
  actsFrom(quoteLifecycle, quoteState(quote, ctx.today)).filter((act) =>
    may(ctx, quotePermissions[act]),
  )

export async function totalsOf(
  ctx: Ctx,
  q: Pick<QuoteRow, 'currency' | 'taxExempt' | 'siteId'>,
  lines: PricedLine[],
) {
  const site = (await siteById(ctx.tx, q.siteId))!
  const classes = await taxClasses(ctx.tx, { day: ctx.today, postcode: site.postcode })
  return documentTotals(
    lines.map((l) => ({
      quantity: l.quantity,
      unitPrice: l.unitPrice,
      discountMinor: l.discountMinor,
      taxes: taxesOf(classes, l.taxClass),
    })),
    { mode: ctx.company.taxMode, currency: q.currency, exempt: q.taxExempt },
  )
}

type Totals = Awaited<ReturnType<typeof totalsOf>>
/** The lines as a screen shows them: costs only for those who see them. */
function linesView(
  quote: QuoteRow,
  lines: PricedLine[],
  totals: Totals,
  seesCost: boolean,
): QuoteView['lines'] {
  const money = (minor: number) => toMoney(minor, quote.currency)
  return lines.map((line, i) => ({
    id: line.id,
    entryId: line.entryId,
    kind: line.kind,
    name: line.name,
    unit: line.unit,
    quantity: new Decimal(line.quantity).toString(),
    unitPrice: priceText(line.unitPrice),
    bookPrice: line.bookPrice,
    unitCost: seesCost ? priceText(line.unitCost) : null,
    priceFrom: line.priceFrom,
    discount: money(line.discountMinor),
    net: money(totals.lineNets[i]!),
    saving: money(line.savingMinor),
  }))
}
/** The sums of a quote, and what it leaves us. */
function priceView(
  quote: QuoteRow,
  lines: PricedLine[],
  totals: Totals,
  shown: { seesCost: boolean; savingLevel: string },
): QuoteView['price'] {
  const money = (minor: number) => toMoney(minor, quote.currency)
  const costs = lines.map((line) =>
    roundToMinor(new Decimal(line.unitCost).times(line.quantity), quote.currency),
  )
  const cost = costs.reduce((sum, minor) => sum + minor, 0)
  return {
    net: money(totals.netMinor),
    taxes: totals.taxes.map((t) => ({ name: t.name, rate: t.rate, tax: money(t.taxMinor) })),
    tax: money(totals.taxMinor),
    total: money(totals.totalMinor),
    saving: money(lines.reduce((sum, line) => sum + line.savingMinor, 0)),
    savingLevel: shown.savingLevel,
    cost: shown.seesCost ? money(cost) : null,
    margin: shown.seesCost ? margin(totals.netMinor, cost) : null,
  }
}
/** What a quote's history tells of: itself, the calls that it came of, the work that it was begun at; not the work that came of it. */
const storyOf = (quote: QuoteRow, work: WorkOrderRow | null, calls: string[]): string[] => {
  const isBegunAt = work && work.createdAt <= quote.createdAt
  return [quote.id, ...calls, ...(isBegunAt ? [work.id] : [])]
}
/** What happened before an entry of its history. */
export async function quoteEarlier(ctx: Ctx, id: string, before?: number) {
  const quote = await visibleQuote(ctx, id)
  const work = quote.workOrderId ? await workOrderById(ctx.tx, quote.workOrderId) : null
  const told = storyOf(quote, work, await callsOfQuote(ctx.tx, id))
  return { items: await historyOf(ctx, 'subject_id', told, before) }
}
/** What the firm writes with a quote. */
export async function quoteMailText({ tx, company }: Ctx, quote: QuoteRow): Promise<string> {
  const { name } = (await customerById(tx, quote.customerId))!
  return mailText('quote', company.wording, {
    ...{ name, number: quote.number, title: quote.title, company: company.name },
    until: sayDay(quote.expiresOn, company.locale, 'long'),
  })
}
/** A quote as its screen shows it, with what whoever asks may do with it. */
export async function quoteView(ctx: Ctx, id: string): Promise<QuoteView> {
  const { tx } = ctx
  const quote = await visibleQuote(ctx, id)
  const lines = await quoteLines(tx, id)
  const totals = await totalsOf(ctx, quote, lines)
  const allLevels = await levels(tx)
  const own = allLevels.find((level) => level.id === quote.priceLevelId)
  const { seesCost } = signedIn(ctx)
  const work = quote.workOrderId ? await workOrderById(tx, quote.workOrderId) : null
  const { text, late } = quoteWaits(ctx, quote)
  const calls = await callsOfQuote(tx, id)
  return {
    id,
    version: quote.version,
    number: quote.number,
    state: quoteState(quote, ctx.today),
    acts: actsOf(ctx, quote),
    waiting: text,
    late,
    title: quote.title,
    scope: quote.scope,
    orderNumber: quote.orderNumber,
    expiresOn: quote.expiresOn,
    currency: quote.currency,
    createdAt: quote.createdAt,
    sentAt: quote.sentAt,
    link: quoteLink(quote),
    answer: quote.answer,
    mail: await quoteMailText(ctx, quote),
    ...(await partiesView(ctx, quote, own?.name ?? '')),
    contact: quote.contact,
    ...(await aboutPart(ctx, quote)),
    answers: quote.answers.map(({ question, answer }) => ({ question, answer })),
    owner: quote.ownerId ? { id: quote.ownerId, name: quote.owner! } : null,
    workOrder: work && { id: work.id, number: work.number, state: work.state },
    photos: work ? (await photosOf(tx, work.id)).map((photo) => photo.id) : [],
    lines: linesView(quote, lines, totals, seesCost),
    price: priceView(quote, lines, totals, {
      seesCost,
      savingLevel: (own ?? allLevels.find((level) => level.kind === 'agreement'))?.name ?? '',
    }),
    asks: await asksPart(ctx, 'quote_id', id),
    files: (await filesOf(tx, 'call_id', calls)).map((file) => ({ id: file.id, name: file.name })),
    history: await historyOf(ctx, 'subject_id', storyOf(quote, work, calls)),
  }
}
/** What a quote is about: equipment there, or what was supplied there before. */
async function aboutPart(
  ctx: Ctx,
  { equipmentId, aboutLineId }: QuoteRow,
): Promise<Pick<QuoteView, 'equipment' | 'supplied'>> {
  const thing = equipmentId ? await equipmentById(ctx.tx, equipmentId) : null
  const supplied = aboutLineId ? await suppliedById(ctx.tx, aboutLineId) : null
  return {
    equipment: thing ? sayEquipment(thing) : '',
    supplied: supplied && suppliedOf(ctx)(supplied),
  }
}
/** Who pays, and where the work would be. */
async function partiesView(
  { tx }: Ctx,
  quote: QuoteRow,
  level: string,
): Promise<Pick<QuoteView, 'customer' | 'site'>> {
  const customer = (await customerById(tx, quote.customerId))!
  const site = (await siteById(tx, quote.siteId))!
  const foreign = site.customerId === customer.id ? null : await customerById(tx, site.customerId)
  return {
    customer: {
      id: customer.id,
      name: customer.name,
      prospect: customer.prospect,
      email: customer.email,
      email2: customer.email2,
      exempt: quote.taxExempt,
      tags: customer.tags,
      level,
      mails: customer.mailConsent !== 'no',
    },
    site: {
      id: site.id,
      text: saySite(site),
      belongsTo: foreign?.name ?? '',
    },
  }
}

export async function listQuotes(ctx: Ctx, query: Query<'quotes'>): Promise<Answer<'quotes'>> {
  const p = paging(query, ['created'], '-created')
  const { rows, total } = await quotePage(ctx.tx, {
    ...p,
    q: query.q ?? '',
    state: query.state,
    today: ctx.today,
  })
  return pageOf(rows, total, p.limit, (r) => {
    const { text, late } = quoteWaits(ctx, r)
    return {
      id: r.id,
      number: r.number,
      customer: r.customer,
      title: r.title,
      state: quoteState(r, ctx.today),
      waiting: text,
      late,
      owner: r.owner ?? '',
      createdAt: r.createdAt,
      expiresOn: r.expiresOn,
      total: toMoney(r.total, ctx.company.currency),
    }
  })
}

/** What the customer is shown: without costs, and frozen when it is sent. */
export async function quotePaper(
  ctx: Ctx,
  id: string,
  layoutId?: string | null,
): Promise<QuotePaper> {
  const q = await visibleQuote(ctx, id)
  if (q.frozen) return q.frozen as QuotePaper
  const { company } = ctx
  const paper = await quoteView(ctx, id)
  const customer = (await customerById(ctx.tx, q.customerId))!
  const layout = await layoutFor(ctx, 'quote', {
    ...{ said: layoutId, has: customer.quoteLayoutId },
  })
  return {
    ...(layout && { layout }),
    number: q.number,
    issuedOn: ctx.today,
    expiresOn: q.expiresOn,
    title: q.title,
    scope: q.scope,
    orderNumber: q.orderNumber,
    locale: company.locale,
    currency: q.currency,
    seller: letterheadOf(company),
    buyer: {
      name: customer.name,
      address: addressLines(customer),
    },
    site: paper.site.text,
    contact: [q.contact.name, q.contact.name && q.contact.phone].filter(Boolean).join(', '),
    lines: paper.lines.map(({ name, quantity, unit, unitPrice, discount, net }) => ({
      name,
      quantity,
      unit,
      unitPrice,
      discount,
      off: isNothing(discount) ? [] : [{ why: `by ${paper.customer.level}`, amount: discount }],
      net,
    })),
    net: paper.price.net,
    taxes: paper.price.taxes,
    total: paper.price.total,
    saving: paper.customer.level
      ? null
      : { level: paper.price.savingLevel, amount: paper.price.saving },
    exempt: q.taxExempt ? customer.certificate || 'on file' : '',
  }
}
