// Quotes: begun where the wish is heard, priced like work, sent as a frozen paper; a yes becomes promised work that waits for its slot.
import { isExempt } from '../../core/tax/isExempt'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { minorToDecimal, toMoney } from '../../core/money/formatMinor'
import { Decimal } from '../../core/money/decimal'
import { priceText } from '../../core/money/priceText'
import { roundToMinor } from '../../core/money/roundToMinor'
import { documentTotals } from '../../core/documents/documentTotals'
import { margin } from '../../core/documents/margin'
import { quoteState } from '../../core/quotes/quoteState'
import { whyQuoteWaits } from '../../core/quotes/whyQuoteWaits'
import { formatPhone } from '../../core/text/phone'
import { localDate, plusDays } from '../../core/time/zone'
import type { Answer, Body, Query } from '../../shared/api'
import { callById, keepCall, markCall } from '../calls/queries'
import { customerById, filesOfCallTo, levels, siteById, updateRow } from '../customers/queries'
import { signedIn, type Ctx } from '../http/context'
import { pageOf, paging } from '../http/paging'
import { record } from '../http/queries'
import type { Call } from '../http/route'
import { queueMail } from '../messages/service'
import { nextNumber, taxClasses } from '../settings/queries'
import { refreshWorkOrder, taxesOf, visibleWorkOrder } from '../visits/account'
import { detailsOf } from '../visits/details'
import {
  expanded,
  priceLines,
  withoutCosts,
  type PricedLine,
  type WantedLine,
} from '../pricebook/priceLines'
import { askBasket, basketLines } from '../pricebook/suppliers'
import {
  insertLine,
  insertVisit,
  insertWorkOrder,
  photosOf,
  workOrderById,
} from '../visits/queries'
import type { QuoteDrawing } from './pdf'
import {
  historyOfQuote,
  insertQuote,
  putQuoteLines,
  quoteById,
  quoteLines,
  quotePage,
  setQuoteState,
  updateQuote,
  type QuoteRow,
} from './queries'

type Quote = Answer<'quote'>
/** How long a price is held when nobody says otherwise; common practice of the trade. */
const HELD_DAYS = 30

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
async function changeable(ctx: Ctx, id: string, version: number): Promise<QuoteRow> {
  const quote = await visibleQuote(ctx, id, true)
  if (quote.version !== version)
    throw conflict('stale', 'Someone changed this quote in the meantime.', {
      current: await quotePaper(ctx, id),
    })
  return quote
}
const waits = (ctx: Ctx, q: Pick<QuoteRow, 'state' | 'expiresOn' | 'createdAt' | 'sentAt'>) =>
  whyQuoteWaits(
    {
      state: q.state,
      expiresOn: q.expiresOn,
      createdOn: localDate(Date.parse(q.createdAt), ctx.company.timeZone),
      sentOn: q.sentAt && localDate(Date.parse(q.sentAt), ctx.company.timeZone),
    },
    ctx.today,
  )
async function totalsOf(
  ctx: Ctx,
  q: Pick<QuoteRow, 'currency' | 'taxExempt'>,
  lines: Awaited<ReturnType<typeof quoteLines>>,
) {
  const classes = await taxClasses(ctx.tx)
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

export async function quotePaper(ctx: Ctx, id: string): Promise<Quote> {
  const { tx } = ctx
  const q = await visibleQuote(ctx, id)
  const m = (minor: number) => toMoney(minor, q.currency)
  const customer = (await customerById(tx, q.customerId))!
  const site = (await siteById(tx, q.siteId))!
  const lines = await quoteLines(tx, id)
  const totals = await totalsOf(ctx, q, lines)
  const all = await levels(tx)
  const own = all.find((l) => l.id === q.priceLevelId)
  const seesCost = signedIn(ctx).seesCost
  const cost = lines.reduce(
    (sum, l) => sum + roundToMinor(new Decimal(l.unitCost).times(l.quantity), q.currency),
    0,
  )
  const work = q.workOrderId ? await workOrderById(tx, q.workOrderId) : null
  const { text, late } = waits(ctx, q)
  return {
    id,
    version: q.version,
    number: q.number,
    state: quoteState(q, ctx.today),
    waiting: text,
    late,
    title: q.title,
    scope: q.scope,
    orderNumber: q.orderNumber,
    expiresOn: q.expiresOn,
    currency: q.currency,
    createdAt: q.createdAt,
    sentAt: q.sentAt,
    answer: q.answer,
    customer: {
      id: customer.id,
      name: customer.name,
      prospect: customer.prospect,
      email: customer.email,
      email2: customer.email2,
      exempt: q.taxExempt,
      level: own?.name ?? '',
      mails: customer.mailConsent !== 'no',
    },
    site: {
      id: site.id,
      text: [site.name, site.line1, site.town].filter(Boolean).join(', '),
      belongsTo:
        site.customerId === customer.id ? '' : (await customerById(tx, site.customerId))!.name,
    },
    contact: q.contact,
    owner: q.ownerId ? { id: q.ownerId, name: q.owner! } : null,
    workOrder: work && { id: work.id, number: work.number, state: work.state },
    photos: work ? (await photosOf(tx, work.id)).map((p) => p.id) : [],
    lines: lines.map((l, i) => ({
      id: l.id,
      entryId: l.entryId,
      kind: l.kind,
      name: l.name,
      unit: l.unit,
      quantity: new Decimal(l.quantity).toString(),
      unitPrice: priceText(l.unitPrice),
      bookPrice: l.bookPrice,
      unitCost: seesCost ? priceText(l.unitCost) : null,
      priceFrom: l.priceFrom,
      discount: m(l.discountMinor),
      net: m(totals.lineNets[i]!),
      saving: m(l.savingMinor),
    })),
    price: {
      net: m(totals.netMinor),
      taxes: totals.taxes.map((t) => ({ name: t.name, rate: t.rate, tax: m(t.taxMinor) })),
      tax: m(totals.taxMinor),
      total: m(totals.totalMinor),
      saving: m(lines.reduce((sum, l) => sum + l.savingMinor, 0)),
      savingLevel: (own ?? all.find((l) => l.kind === 'agreement'))?.name ?? '',
      cost: seesCost ? m(cost) : null,
      margin: seesCost ? margin(totals.netMinor, cost) : null,
    },
    history: await historyOfQuote(tx, id),
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
    const { text, late } = waits(ctx, r)
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

export async function beginQuote(ctx: Ctx, body: Body<'beginQuote'>): Promise<Quote> {
  const { tx } = ctx
  const me = signedIn(ctx)
  const work = body.workOrderId ? await visibleWorkOrder(ctx, body.workOrderId, true) : null
  if (!work && me.role === 'technician') throw notFound('work order')
  // A technician quotes for the work that they were sent to, and for nobody else.
  if (work && me.role === 'technician') {
    if (body.customerId && body.customerId !== work.customerId) throw notFound('customer')
    if (body.siteId && body.siteId !== work.siteId) throw notFound('site')
  }
  const customer = await customerById(tx, body.customerId ?? work?.customerId ?? '')
  if (!customer || customer.mergedInto || customer.erasedAt)
    throw invalid('customerId', 'Choose for whom the quote is.')
  const site = await siteById(tx, body.siteId ?? work?.siteId ?? '')
  if (!site) throw invalid('siteId', 'Choose where the work would be.')
  const title = body.title || work?.title || body.scope.split(/[.\n]/)[0]!.slice(0, 80)
  if (!title) throw invalid('title', 'Write what the quote is for.')
  const number = await nextNumber(tx, 'quote')
  await insertQuote(tx, {
    id: body.id,
    number,
    customerId: customer.id,
    siteId: site.id,
    workOrderId: work?.id ?? null,
    ownerId: work?.assignedTo ?? customer.assignedTo ?? me.id,
    title,
    scope: body.scope || work?.problem || '',
    orderNumber: body.orderNumber || work?.orderNumber || '',
    source: body.source || work?.source || customer.source,
    contact:
      work && !body.speaking
        ? work.contact
        : { name: body.speaking, phone: formatPhone(body.phone, ctx.company.country) },
    expiresOn: plusDays(ctx.today, HELD_DAYS),
    priceLevelId: customer.priceLevelId,
    taxExempt: isExempt(customer, ctx.today),
    currency: ctx.company.currency,
    now: ctx.now,
  })
  await record(ctx, {
    subject: 'quote',
    id: body.id,
    workOrderId: work?.id,
    customerId: customer.id,
    text: `Quote ${number} begun: ${title}`,
  })
  await setLines(ctx, (await quoteById(tx, body.id))!, withoutCosts(ctx, body.lines))
  if (body.callId) {
    // The call has its answer: it leaves the list of calls and waits among the quotes.
    const call = await callById(tx, body.callId, true)
    if (call && !['open', 'put_off'].includes(call.state))
      throw conflict('already_answered', 'This call has its answer already.')
    if (!call)
      await keepCall(tx, {
        id: body.callId,
        draft: {},
        summary: customer.name,
        origin: 'telephone',
        by: me.id,
        at: ctx.now,
      })
    await markCall(tx, body.callId, 'quoted', { quoteId: body.id })
    await filesOfCallTo(tx, body.callId, customer.id)
  }
  if (work) await refreshWorkOrder(ctx, work.id)
  return quotePaper(ctx, body.id)
}
async function setLines(ctx: Ctx, quote: QuoteRow, wanted: WantedLine[]): Promise<void> {
  const lines = await priceLines(ctx, quote, await expanded(ctx, wanted), false)
  await putQuoteLines(ctx.tx, quote.id, lines)
  const totals = await totalsOf(ctx, quote, lines)
  await updateQuote(ctx.tx, { ...quote, net: totals.netMinor, total: totals.totalMinor })
}
export async function changeQuote(ctx: Ctx, id: string, body: Body<'changeQuote'>): Promise<Quote> {
  const old = await changeable(ctx, id, body.version)
  if (old.state !== 'draft')
    throw conflict(
      'quote_sent',
      'The customer has this quote as it was sent. Take it back before changing it.',
    )
  if (signedIn(ctx).role === 'technician' && body.customerId && body.customerId !== old.customerId)
    throw notFound('customer')
  const customer = await customerById(ctx.tx, body.customerId ?? old.customerId)
  if (!customer || customer.mergedInto || customer.erasedAt)
    throw invalid('customerId', 'Choose who pays.')
  if (body.expiresOn && body.expiresOn < ctx.today)
    throw invalid('expiresOn', 'That day has passed.')
  const quote: QuoteRow = {
    ...old,
    title: body.title ?? old.title,
    scope: body.scope ?? old.scope,
    orderNumber: body.orderNumber ?? old.orderNumber,
    expiresOn: body.expiresOn || old.expiresOn,
    ownerId: body.ownerId === undefined ? old.ownerId : body.ownerId,
    customerId: customer.id,
    priceLevelId: customer.priceLevelId,
    taxExempt: isExempt(customer, ctx.today),
  }
  const kept = await quoteLines(ctx.tx, id)
  // Somebody else pays: what the book, or the one who paid before, had priced is priced for the new one; what was typed by hand stays.
  const before =
    customer.id === old.customerId ? null : (await customerById(ctx.tx, old.customerId))!.ownPrices
  const priced = (l: (typeof kept)[number]) =>
    before !== null &&
    l.entryId !== null &&
    [l.bookPrice, before[l.entryId]].some((p) => p != null && new Decimal(p).eq(l.unitPrice))
  const bought = (id: string) => boughtOf(kept.find((l) => l.id === id))
  const wanted =
    (body.lines && withoutCosts(ctx, body.lines).map((l) => ({ ...l, ...bought(l.id) }))) ??
    kept.map((l) => ({
      id: l.id,
      entryId: l.entryId,
      kind: l.kind,
      name: l.name,
      quantity: new Decimal(l.quantity).toString(),
      ...bought(l.id),
      unitPrice: priced(l) ? undefined : new Decimal(l.unitPrice).toString(),
    }))
  await setLines(ctx, quote, wanted)
  const changed = (
    ['title', 'scope', 'orderNumber', 'expiresOn', 'ownerId', 'customerId'] as const
  ).filter((k) => quote[k] !== old[k])
  const SAID = {
    title: 'the title',
    scope: 'the scope',
    orderNumber: 'their order number',
    expiresOn: 'how long the price is held',
    ownerId: 'who has it',
    customerId: 'who pays',
  }
  const now = (await quoteById(ctx.tx, id))!
  await record(ctx, {
    subject: 'quote',
    id,
    workOrderId: old.workOrderId,
    customerId: customer.id,
    text: `Quote ${old.number}: changed ${[...changed.map((k) => SAID[k]), body.lines && 'the lines'].filter(Boolean).join(', ') || 'nothing'}`,
    data: {
      ...Object.fromEntries(changed.map((k) => [k, { from: old[k], to: quote[k] }])),
      net: {
        from: minorToDecimal(old.net, old.currency),
        to: minorToDecimal(now.net, old.currency),
      },
    },
  })
  return quotePaper(ctx, id)
}
/** What was bought for a line, or somebody said that it costs, stays with it when the line is changed. */
const boughtOf = (l: PricedLine | undefined): Pick<WantedLine, 'bought' | 'unit' | 'cost'> =>
  l && !l.supplier && !l.entryId
    ? { unit: l.unit, cost: l.unitCost }
    : l?.supplier
      ? {
          unit: l.unit,
          bought: {
            supplier: l.supplier,
            partNumber: l.partNumber,
            cost: l.unitCost,
            taxClass: l.taxClass,
          },
        }
      : {}
async function openDraft(ctx: Ctx, id: string, version: number) {
  const quote = await changeable(ctx, id, version)
  if (quote.state !== 'draft')
    throw conflict(
      'quote_sent',
      'The customer has this quote as it was sent. Take it back before changing it.',
    )
  return quote
}
export async function addQuoteBasket(
  call: Call,
  id: string,
  body: Body<'addQuoteBasket'>,
): Promise<Quote> {
  await call.inContext((ctx) => visibleQuote(ctx, id))
  const asked = await askBasket(body.items)
  return call.once(async (ctx) => {
    const quote = await openDraft(ctx, id, body.version)
    const kept = (await quoteLines(ctx.tx, id)).map((l): WantedLine => ({
      id: l.id,
      entryId: l.entryId,
      kind: l.kind,
      name: l.name,
      quantity: new Decimal(l.quantity).toString(),
      unitPrice: new Decimal(l.unitPrice).toString(),
      ...boughtOf(l),
    }))
    const added = await basketLines(ctx, asked)
    await setLines(ctx, quote, [...kept, ...added])
    await record(ctx, {
      subject: 'quote',
      id,
      workOrderId: quote.workOrderId,
      customerId: quote.customerId,
      text: `Quote ${quote.number}: ${added.length} from a supplier`,
    })
    return quotePaper(ctx, id)
  })
}
/** What the customer is shown: without costs, and frozen when it is sent. */
export async function quoteDrawing(ctx: Ctx, id: string): Promise<QuoteDrawing> {
  const q = await visibleQuote(ctx, id)
  if (q.frozen) return q.frozen as QuoteDrawing
  const { company } = ctx
  const paper = await quotePaper(ctx, id)
  const customer = (await customerById(ctx.tx, q.customerId))!
  return {
    number: q.number,
    issuedOn: ctx.today,
    expiresOn: q.expiresOn,
    title: q.title,
    scope: q.scope,
    orderNumber: q.orderNumber,
    locale: company.locale,
    currency: q.currency,
    seller: {
      name: company.name,
      address: [company.line1, `${company.town} ${company.postcode}`.trim()].filter(Boolean),
      phone: company.phone,
      email: company.email,
      taxNumber: company.taxNumber,
    },
    buyer: {
      name: customer.name,
      address: [customer.line1, `${customer.town} ${customer.postcode}`.trim()].filter(Boolean),
    },
    site: paper.site.text,
    contact: [q.contact.name, q.contact.name && q.contact.phone].filter(Boolean).join(', '),
    lines: paper.lines.map(({ name, quantity, unit, unitPrice, discount, net }) => ({
      name,
      quantity,
      unit,
      unitPrice,
      discount,
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
export async function sendQuote(ctx: Ctx, id: string, body: Body<'sendQuote'>): Promise<Quote> {
  const q = await changeable(ctx, id, body.version)
  if (q.state !== 'draft') throw conflict('quote_sent', 'This quote has been sent already.')
  if ((await quoteLines(ctx.tx, id)).length === 0)
    throw invalid('lines', 'There is nothing to offer yet: add a line first.')
  if (body.to.length > 4) throw invalid('to', 'Send it to four addresses at most.')
  if (q.expiresOn < ctx.today)
    throw invalid('expiresOn', 'Its price was held until a day that has passed. Choose a new one.')
  await setQuoteState(ctx.tx, id, {
    state: 'sent',
    frozen: await quoteDrawing(ctx, id),
    sentAt: ctx.now,
    answeredAt: null,
    answer: '',
    workOrderId: q.workOrderId,
  })
  if (body.to.length)
    await queueMail(ctx, {
      kind: 'quote',
      customerId: q.customerId,
      invoiceId: null,
      quoteId: id,
      to: body.to,
      subject: body.subject || `${ctx.company.name}: quote ${q.number}`,
      body:
        body.body ||
        `Our quote for “${q.title}” is attached. The price is held until ${q.expiresOn}.\n\n${ctx.company.name}`,
      attach: 'quote',
    })
  await record(ctx, {
    subject: 'quote',
    id,
    workOrderId: q.workOrderId,
    customerId: q.customerId,
    text: `Quote ${q.number} ${body.to.length === 0 ? 'handed over on paper' : body.to.length === 1 ? 'sent to one address' : `sent to ${body.to.length} addresses`}, ${minorToDecimal(q.total, q.currency)} ${q.currency}`,
  })
  return quotePaper(ctx, id)
}
export async function reopenQuote(ctx: Ctx, id: string, version: number): Promise<Quote> {
  const q = await changeable(ctx, id, version)
  if (q.state === 'draft')
    throw conflict('quote_draft', 'This quote is a draft; change it as it is.')
  if (q.state === 'accepted')
    throw conflict(
      'quote_accepted',
      'This quote was accepted; what changes now is changed on the work order.',
    )
  await setQuoteState(ctx.tx, id, {
    state: 'draft',
    frozen: null,
    sentAt: null,
    answeredAt: null,
    answer: '',
    workOrderId: q.workOrderId,
  })
  // A price that nobody holds any more is held anew.
  if (q.expiresOn < ctx.today)
    await updateQuote(ctx.tx, { ...q, expiresOn: plusDays(ctx.today, HELD_DAYS) })
  await record(ctx, {
    subject: 'quote',
    id,
    workOrderId: q.workOrderId,
    customerId: q.customerId,
    text: `Quote ${q.number} taken back to be changed`,
  })
  return quotePaper(ctx, id)
}
export async function answerQuote(ctx: Ctx, id: string, body: Body<'answerQuote'>): Promise<Quote> {
  const { tx } = ctx
  const q = await changeable(ctx, id, body.version)
  if (q.state === 'accepted' || q.state === 'declined')
    throw conflict('already_answered', `This quote was ${q.state} already.`)
  if (body.accepted && q.state === 'draft')
    throw conflict(
      'quote_draft',
      'This quote was never sent. Send it, or hand it over, before it is accepted.',
    )
  if (body.accepted && quoteState(q, ctx.today) === 'expired')
    throw conflict(
      'quote_expired',
      `Its price was held until ${q.expiresOn}. Take it back and send it anew.`,
    )
  const workOrderId = body.accepted ? await promise(ctx, q, body) : q.workOrderId
  await setQuoteState(tx, id, {
    state: body.accepted ? 'accepted' : 'declined',
    frozen: q.frozen,
    sentAt: q.sentAt ? Date.parse(q.sentAt) : null,
    answeredAt: ctx.now,
    answer: body.words,
    workOrderId,
  })
  await record(ctx, {
    subject: 'quote',
    id,
    workOrderId,
    customerId: q.customerId,
    text: `Quote ${q.number} ${body.accepted ? 'accepted' : 'declined'}: ${body.words}`,
  })
  if (workOrderId) await refreshWorkOrder(ctx, workOrderId)
  return quotePaper(ctx, id)
}
/** What was accepted is promised: on the work order that the quote was begun from, with a further visit, or on a new one. */
async function promise(ctx: Ctx, q: QuoteRow, body: Body<'answerQuote'>): Promise<string> {
  const { tx } = ctx
  const customer = (await customerById(tx, q.customerId))!
  const site = (await siteById(tx, q.siteId))!
  const begun = q.workOrderId ? await workOrderById(tx, q.workOrderId, true) : null
  const lines = await quoteLines(tx, q.id)
  // A work order belongs to who pays: when somebody else pays, or what it was begun from is over, the accepted work is one of its own.
  const id =
    begun && begun.customerId === q.customerId && !begun.cancelled && !begun.closed
      ? begun.id
      : body.workOrderId
  if (id === body.workOrderId) {
    const number = await nextNumber(tx, 'work_order')
    await insertWorkOrder(tx, {
      id,
      number,
      customerId: customer.id,
      siteId: site.id,
      title: q.title,
      problem: q.scope || q.title,
      kind: 'installation',
      contact: q.contact,
      orderNumber: q.orderNumber,
      priceLevelId: q.priceLevelId,
      currency: q.currency,
      details: detailsOf(customer, site),
      answers: begun?.answers ?? [],
      printedNote: customer.printedNote,
      equipmentId: begun?.equipmentId ?? null,
      assignedTo: null,
      source: q.source,
      now: ctx.now,
    })
    await record(ctx, {
      subject: 'work',
      id,
      workOrderId: id,
      customerId: customer.id,
      text: `${number} made from quote ${q.number}`,
    })
  }
  const seconds = Math.min(
    8 * 3600,
    Math.max(3600, Math.ceil(lines.reduce((sum, l) => sum + l.coversSeconds, 0) / 900) * 900),
  )
  await insertVisit(tx, {
    id: body.visitId,
    workOrderId: id,
    technicianId: null,
    startAt: null,
    durationSeconds: seconds,
    promiseDate: null,
    promiseFrom: null,
    promiseTo: null,
  })
  for (const l of lines)
    await insertLine(tx, {
      ...l,
      id: ctx.id(),
      workOrderId: id,
      visitId: body.visitId,
      promisedMinor: l.netMinor,
      done: false,
    })
  if (customer.prospect)
    await updateRow(tx, 'customers', customer.id, customer.version, { prospect: false })
  return id
}
