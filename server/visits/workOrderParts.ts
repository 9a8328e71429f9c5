// The parts of what a screen is told of a work order: each from what was read once for all of them.
import { sayEquipment } from '../../core/customers/sayEquipment'
import { eachWorkWord } from '../../core/visits/workWords'
import { changedDetails } from '../../core/customers/changedDetails'
import { documentTotals } from '../../core/documents/documentTotals'
import { termsInWords } from '../../core/documents/dueDate'
import { labourCost } from '../../core/costing/labourCost'
import { notAgreedMinor } from '../../core/costing/notAgreedMinor'
import { margin } from '../../core/documents/margin'
import { workedSeconds } from '../../core/hours/workedSeconds'
import { Decimal } from '../../core/money/decimal'
import { toMoney } from '../../core/money/formatMinor'
import { priceText } from '../../core/money/priceText'
import { roundToMinor } from '../../core/money/roundToMinor'
import { isExempt } from '../../core/tax/isExempt'
import type { Answer } from '../../shared/api'
import { may, signedIn, type Ctx } from '../http/context'
import { suppliedOf } from '../customers/shapes'
import { levelAmong } from '../pricebook/priceLines'
import { accountFrom, asPaperLine } from './account'
import type { aroundWork, workWithParties } from './around.queries'
import { detailsOf, ownDetails } from './details'
import { reasonsOf } from './takenOff'
import type { linesOf } from './lines.queries'
import type { currentPricing } from './uncovered'

type Paper = Answer<'workOrder'>
type Around = Awaited<ReturnType<typeof aroundWork>>
type Lines = Awaited<ReturnType<typeof linesOf>>
/** What was read of a work order. */
export interface WorkRead {
  ctx: Ctx
  parties: NonNullable<Awaited<ReturnType<typeof workWithParties>>>
  lines: Lines
  around: Around
  pricing: Awaited<ReturnType<typeof currentPricing>>
}
export const moneyOf =
  ({ parties }: WorkRead) =>
  (minor: number) =>
    toMoney(minor, parties.work.currency)
const exemptOf = ({ ctx, parties }: WorkRead) => isExempt(parties.customer, ctx.today)
export const taxOf = (read: WorkRead) => ({
  mode: read.ctx.company.taxMode,
  currency: read.parties.work.currency,
  exempt: exemptOf(read),
})

/** Whom it is for, on which terms, and what to mind about them. */
export function customerPart(read: WorkRead): Paper['customer'] {
  const { customer, work } = read.parties
  const { id, stopWork, officeNote, tags } = customer
  const copy = ownDetails(work, customer, read.parties.site)
  const { name, phone, email, email2, billingLine1, billingTown, billingPostcode } = copy
  const { level, own } = levelAmong(read.pricing.levels, work.priceLevelId)
  return {
    ...{ id, name, phone, email, email2, stopWork, officeNote, tags },
    exempt: exemptOf(read),
    level: own ? level!.name : '',
    terms: termsInWords(customer.terms ?? read.ctx.company.terms),
    address: [billingLine1, billingTown, billingPostcode].filter(Boolean).join(', '),
  }
}
/** What the work order itself keeps, and where it is. */
export function workPart({ ctx, parties, pricing }: WorkRead) {
  const { work, site, customer, equipment, supplied } = parties
  const copy = ownDetails(work, customer, site)
  const fields = pricing.fields.filter(
    (f) => f.subject === 'work_order' && (!f.retired || work.custom[f.id]),
  )
  return {
    id: work.id,
    version: work.version,
    number: work.number,
    ...eachWorkWord((word) => work[word]),
    // What is for the office is not for the van.
    officeNote: may(ctx, 'visits.list') ? work.officeNote : '',
    kind: work.kind,
    state: work.state,
    ended: work.closed || work.cancelled,
    currency: work.currency,
    createdAt: work.createdAt,
    followUp: work.followUp,
    followUpReason: work.followUpReason,
    followUpOn: work.followUpOn,
    source: work.source,
    contact: { role: '', ...work.contact },
    otherContacts: work.otherContacts,
    site: {
      id: site.id,
      name: copy.siteName,
      line1: copy.siteLine1,
      town: copy.siteTown,
      accessNote: copy.accessNote,
    },
    supplied: supplied && suppliedOf(ctx)(supplied),
    equipment: equipment ? sayEquipment(equipment) : '',
    changedDetails: changedDetails(work.details, detailsOf(customer, site)),
    answers: work.answers.map(({ question, answer }) => ({ question, answer })),
    fields: fields.map((f) => ({
      id: f.id,
      name: f.name,
      kind: f.kind,
      choices: f.choices,
      value: work.custom[f.id] ?? '',
    })),
  }
}

type Visit = Around['visits'][number]
/** Who was along on a visit, each with their time on site. */
function alongOn(
  visit: Visit,
  clock: Around['clock'],
  now: number,
): Paper['visits'][number]['along'] {
  const others = clock.filter((i) => i.personId !== visit.technicianId)
  const names = new Map(others.map((i) => [i.personId, i.person]))
  return [...names].map(([id, name]) => {
    const theirs = others.filter((i) => i.personId === id)
    return { name, seconds: workedSeconds(theirs, now).on_site }
  })
}
const iso = (ms: number) => new Date(ms).toISOString()
export const visitsPart = ({ ctx, around }: WorkRead): Paper['visits'] =>
  around.visits.map((v) => {
    const clock = around.clock.filter((i) => i.visitId === v.id)
    const own = clock.filter((i) => i.personId === v.technicianId)
    const seconds = workedSeconds(own, ctx.now)
    return {
      id: v.id,
      version: v.version,
      technicianId: v.technicianId,
      technician: v.technician ?? '',
      along: alongOn(v, clock, ctx.now),
      startAt: v.startAt,
      state: v.state,
      driveSeconds: seconds.drive,
      siteSeconds: seconds.on_site,
      startedAt: v.startedAt,
      finishedAt: v.finishedAt,
      promise: v.promiseFrom ? `${v.promiseDate} ${v.promiseFrom}–${v.promiseTo}` : '',
      phaseId: v.phaseId,
      findings: v.findings,
      times: clock.map(({ id, personId, person, kind, startedAt, endedAt }) => ({
        ...{ id, personId, person, kind },
        from: iso(startedAt),
        to: endedAt === null ? null : iso(endedAt),
      })),
    }
  })

/** Whether something of it was signed, or accepted as a quote. */
export const agreedOn = ({
  signatures,
  quotes,
}: {
  signatures: readonly unknown[]
  quotes: readonly { state: string }[]
}): boolean => signatures.length > 0 || quotes.some(({ state }) => state === 'accepted')
/** The four columns line by line, and their sums. */
export function accountPart(read: WorkRead): Pick<Paper, 'lines' | 'totals'> {
  const money = moneyOf(read)
  const { seesCost } = signedIn(read.ctx)
  const account = accountFrom(read.lines, read.around.billed)
  const level = levelAmong(read.pricing.levels, read.parties.work.priceLevelId)
  const hasAgreed = agreedOn(read.around)
  const beyond = (l: Lines[number]) => notAgreedMinor(l, hasAgreed)
  const accounted = new Map(account.lines.map((line) => [line.id, line]))
  return {
    lines: read.lines.map((l) => {
      const a = accounted.get(l.id)!
      return {
        id: l.id,
        version: l.version,
        kind: l.kind,
        name: l.name,
        unit: l.unit,
        quantity: new Decimal(l.quantity).toString(),
        unitPrice: priceText(l.unitPrice),
        bookPrice: l.bookPrice === null ? null : priceText(l.bookPrice),
        unitCost: seesCost ? priceText(l.unitCost) : null,
        priceFrom: l.priceFrom,
        supplier: l.supplier,
        partNumber: l.partNumber,
        discount: money(l.discountMinor),
        discountWords: l.discountWords,
        off: reasonsOf(l, level).map(({ why, minor }) => ({ why, amount: money(minor) })),
        done: l.done,
        net: money(l.netMinor),
        saving: money(l.savingMinor),
        taxClass: l.taxClass,
        coversSeconds: l.coversSeconds,
        visitId: l.visitId,
        phaseId: l.phaseId,
        promised: money(a.promisedMinor),
        doneAmount: money(a.doneMinor),
        billed: money(a.billedMinor),
        paid: money(a.paidMinor),
        toBill: money(a.unbilledMinor),
        unpaid: money(a.unpaidMinor),
        notAgreed: money(beyond(l)),
      }
    }),
    totals: {
      promised: money(account.promisedMinor),
      done: money(account.doneMinor),
      billed: money(account.billedMinor),
      paid: money(account.paidMinor),
      beyondPromise: money(account.beyondPromiseMinor),
      notAgreed: money(read.lines.reduce((sum, l) => sum + beyond(l), 0)),
      toBill: money(account.toBillMinor),
      unpaid: money(account.unpaidMinor),
    },
  }
}

/** What has to be done again, with what it costs the work that it was done for. */
export function callBacksPart(read: WorkRead) {
  const { currency } = read.parties.work
  const { seesCost } = signedIn(read.ctx)
  const backs = read.around.callBacks.map((b) => ({
    ...b,
    costMinor: roundToMinor(new Decimal(b.material).plus(b.labour), currency),
  }))
  return {
    costMinor: backs.reduce((sum, b) => sum + b.costMinor, 0),
    callBacks: backs.map(({ id, number, kind, state, siteSeconds, costMinor }) => ({
      ...{ id, number, kind, state, siteSeconds },
      cost: seesCost ? moneyOf(read)(costMinor) : null,
    })),
  }
}
/** What the material of a line costs. What hours cost is what was clocked, not what a line of labour reckons with. */
export const materialMinor = (l: Lines[number], currency: string): number =>
  l.kind === 'labour' ? 0 : roundToMinor(new Decimal(l.unitCost).times(l.quantity), currency)
/** What it all comes to, and what it leaves; `againMinor` is what call-backs to it cost. */
export function pricePart(read: WorkRead, againMinor: number): Paper['price'] {
  const money = moneyOf(read)
  const { seesCost } = signedIn(read.ctx)
  const { work } = read.parties
  const { level } = levelAmong(read.pricing.levels, work.priceLevelId)
  const totals = documentTotals(
    read.lines.map((l) => asPaperLine(l, read.pricing.classes)),
    taxOf(read),
  )
  const material = read.lines.reduce((sum, l) => sum + materialMinor(l, work.currency), againMinor)
  const labour = labourCost(read.around.clock, read.ctx.now, work.currency)
  const cost = material + labour
  return {
    net: money(totals.netMinor),
    taxes: totals.taxes.map((t) => ({ name: t.name, rate: t.rate, tax: money(t.taxMinor) })),
    tax: money(totals.taxMinor),
    total: money(totals.totalMinor),
    saving: money(read.lines.reduce((sum, l) => sum + l.savingMinor, 0)),
    savingLevel: level?.name ?? '',
    material: seesCost ? money(material) : null,
    labour: seesCost ? money(labour) : null,
    cost: seesCost ? money(cost) : null,
    margin: seesCost ? margin(totals.netMinor, cost) : null,
  }
}
/** What labour and charges cost here: the book's, the customer's, its own. */
export const ratesPart = ({ parties, pricing }: WorkRead): Paper['rates'] =>
  pricing.entries.map((e) => ({
    entryId: e.id,
    name: e.name,
    book: priceText(e.price),
    customer: parties.customer.ownPrices[e.id] ?? null,
    workOrder: parties.work.ownPrices[e.id] ?? null,
  }))
