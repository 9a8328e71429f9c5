// Where everything waits: each thing is in exactly one place where somebody sees it, with its reason and the next act; goes on as something
// else that does; or is at rest.
import type { Permission } from '../access/permissions'
import { whyQuoteWaits } from '../quotes/whyQuoteWaits'
import type { StoredQuoteState } from '../quotes/quoteLifecycle'
import type { StoredInvoiceState } from '../invoices/invoiceLifecycle'
import { isUnderWay, type NextStep, type VisitState } from '../visits/visitLifecycle'
import { isSamePromise, sayPromise, type VisitPromise } from '../visits/visitPromise'
import type { WorkOrderState } from '../visits/workOrderState'
import { hoursMinutes } from '../hours/workedSeconds'
import { DAY } from '../time/units'

/** The places: how each is called, where it is looked at, and who may. In the order in which work goes through them. */
export const PLACES = {
  calls: { says: 'Calls', at: '/calls', may: 'calls.see' },
  put_off: { says: 'Calls put off', at: '/calls', may: 'calls.see' },
  quotes: { says: 'Quotes', at: '/quotes', may: 'quotes.list' },
  tray: { says: 'No slot yet', at: '/schedule', may: 'dispatch.see' },
  parked: { says: 'Parked until a day', at: '/work?followUp=*', may: 'visits.list' },
  agreements: { says: 'Agreement visits due', at: '/agreements', may: 'agreements.see' },
  schedule: { says: 'Schedule', at: '/schedule', may: 'dispatch.see' },
  to_tell: { says: 'Customers to tell', at: '/to-act-on#to_tell', may: 'dispatch.see' },
  on_site: { says: 'On site', at: '/on-site', may: 'visits.list' },
  to_bill: { says: 'To bill', at: '/to-bill', may: 'visits.list' },
  to_send: { says: 'Invoices not sent', at: '/invoices?state=unsent', may: 'invoices.list' },
  unpaid: { says: 'Unpaid', at: '/unpaid', may: 'collections.work' },
  asks: { says: 'Waiting for a yes', at: '/to-act-on#asks', may: 'limits.answer' },
  tasks: { says: 'To do', at: '/to-act-on#tasks', may: 'tasks.give' },
  credits: { says: 'Credits', at: '/unpaid', may: 'collections.work' },
  mail: { says: 'Mail', at: '/messages', may: 'messages.see' },
} as const satisfies Readonly<Record<string, { says: string; at: string; may: Permission }>>
export type Place = keyof typeof PLACES
export const PLACE_NAMES = Object.keys(PLACES) as readonly Place[]

/** What can wait. */
export const KINDS = [
  'call',
  'quote',
  'agreement',
  'visit',
  'told',
  'work order',
  'invoice',
  'paper',
  'message',
  'credit',
  'promise',
  'ask',
  'task',
] as const
export type Kind = (typeof KINDS)[number]

/** In a place; or seen through something else that goes on in its stead; or at rest, so that nobody has to look. */
export type Standing =
  { place: Place; reason: string; next: string } | { through: Kind } | { rest: string }

/** What time it is to the firm: local date, epoch ms, and what was to be over by then was missed. */
export interface At {
  today: string
  now: number
  missedBefore: number
  /** the local date of an instant, epoch ms */
  dateOf: (instant: number) => string
  /** how a date is said */
  day: (date: string) => string
}

export interface CallFacts {
  state: 'open' | 'put_off' | 'booked' | 'quoted' | 'declined' | 'answered'
  origin: 'telephone' | 'form' | 'hand'
  callBackOn: string | null
  reason: string
}
/**
 * Where a call stands: among the calls until it is booked, quoted, answered or declined; one that was put off comes back on its day.
 * @example whereCallStands({ state: 'open', origin: 'form', callBackOn: null, reason: '' }, at)
 * // { place: 'calls', reason: 'asked on the request form', next: 'Answer it' }
 */
export function whereCallStands(call: CallFacts, { today, day }: At): Standing {
  const { state, origin, callBackOn, reason } = call
  if (state === 'booked') return { through: 'work order' }
  if (state === 'quoted') return { through: 'quote' }
  if (state === 'declined' || state === 'answered') return { rest: reason || state }
  if (state === 'open')
    return origin === 'form'
      ? { place: 'calls', reason: 'asked on the request form', next: 'Answer it' }
      : { place: 'calls', reason: 'not booked yet', next: 'Book it, or say why not' }
  const isDue = callBackOn === null || callBackOn <= today
  const said = `call back ${callBackOn ? `on ${day(callBackOn)}` : 'some day'}: ${reason}`
  return { place: isDue ? 'calls' : 'put_off', reason: said, next: 'Call back' }
}

export interface VisitFacts {
  state: VisitState
  /** it has a time and a person */
  placed: boolean
  /** epoch ms, where it has a time */
  startsAt: number | null
  endsAt: number | null
  /** its work order ended without it */
  ended: boolean
  /** its work order is put aside until that day */
  parkedUntil: string | null
  /** in which list of the firm's own: what it waits for */
  parkedIn?: string
  /** of the visit that it comes again for */
  again: 'no_access' | 'cancelled' | null
  /** what was proposed at the closed door */
  nextStep: NextStep | null
  note: string
}
/** Whether a visit was to be over by then, and nobody began it. */
export const isMissed = (
  visit: Pick<VisitFacts, 'state' | 'endsAt'>,
  missedBefore: number,
): boolean => visit.state === 'planned' && visit.endsAt !== null && visit.endsAt <= missedBefore
const PROPOSED: Readonly<Record<NextStep, string>> = {
  come_again: 'Find another time',
  ring: 'Ring them, and find another time',
  give_up: 'Cancel it, or find another time',
}
const AGAIN = { no_access: 'nobody let us in', cancelled: 'its visit was cancelled' } as const
/**
 * Where a visit stands: on the schedule once it has its place, in the tray until then, and again when its day passed
 * and nobody began it.
 * @example whereVisitStands({ ...planned, placed: true, startsAt: yesterday, endsAt: yesterday + HOUR }, at)
 * // { place: 'tray', reason: 'was not begun on Mon, Nov 23', next: 'Find another time' }
 */
export function whereVisitStands(visit: VisitFacts, at: At): Standing {
  const { state, placed, ended, parkedUntil, parkedIn } = visit
  if (isUnderWay(state)) return whereUnderWay(visit, at)
  if (state !== 'planned') return { rest: state.replace('_', ' ') }
  if (ended) return { rest: 'its work order has ended' }
  if (placed && !isMissed(visit, at.missedBefore))
    return { place: 'schedule', reason: 'planned', next: 'Go there' }
  if (parkedUntil !== null && parkedUntil > at.today)
    return {
      place: 'parked',
      reason: `put aside until ${at.day(parkedUntil)}${parkedIn ? `: ${parkedIn}` : ''}`,
      next: 'Wait',
    }
  return { place: 'tray', ...whyInTray(visit, at) }
}
/** Why a visit waits for a place, and what to do then. */
function whyInTray(visit: VisitFacts, at: At): { reason: string; next: string } {
  const { startsAt, again, nextStep, note } = visit
  if (startsAt !== null && isMissed(visit, at.missedBefore)) {
    const reason = `was not begun on ${at.day(at.dateOf(startsAt))}`
    return { reason, next: 'Find another time' }
  }
  const reason = [again && AGAIN[again], note].filter(Boolean).join(': ') || 'not placed yet'
  return { reason, next: nextStep ? PROPOSED[nextStep] : 'Find a time' }
}
/** Whoever is on the way is seen on the day's schedule; since a day that is over, only where work goes on. */
function whereUnderWay({ state, endsAt }: VisitFacts, { missedBefore }: At): Standing {
  if (state !== 'driving')
    return { place: 'on_site', reason: state.replace('_', ' '), next: 'Let them finish' }
  return endsAt === null || endsAt > missedBefore
    ? { place: 'schedule', reason: 'on the way', next: 'Let them arrive' }
    : { place: 'on_site', reason: 'on the way since a day that is over', next: 'Ask them' }
}

export interface ToldFacts {
  state: VisitState
  /** what the customer was last told; null where they were told of no day */
  told: VisitPromise | null
  /** what is promised now */
  promise: VisitPromise | null
}
/**
 * Where it stands with what a customer was told of a visit: to be told anew once it does not hold any more, until
 * somebody is on the way.
 * @example whereToldStands({ state: 'planned', told: tuesday, promise: null }, at)
 * // { place: 'to_tell', reason: 'was told Tue, Dec 1; nothing is promised now', next: 'Tell them' }
 */
export function whereToldStands({ state, told, promise }: ToldFacts, at: At): Standing {
  const [next, said] = ['Tell them', `was told ${told ? sayPromise(told, at.day) : 'of no day'}`]
  if (state === 'cancelled')
    return !told || told.date < at.today
      ? { rest: 'nobody waits for it' }
      : { place: 'to_tell', reason: `${said}; the visit is cancelled`, next }
  if (state !== 'planned') return { rest: 'somebody came' }
  if (isSamePromise(told, promise)) return { rest: 'what they were told holds' }
  const now = promise ? `now it is ${sayPromise(promise, at.day)}` : 'nothing is promised now'
  return { place: 'to_tell', reason: `${said}; ${now}`, next }
}

export interface WorkFacts {
  state: WorkOrderState
  toBillMinor: number
  uncoveredSeconds: number
  /** lines that were promised, and neither done nor taken out */
  undone: number
  /** lines that are done, and go beyond what the customer agreed to */
  notAgreed: number
  /** epoch ms */
  doneAt: number | null
  /** a visit of it is still to come */
  ahead: boolean
}
/**
 * Where a work order stands: to bill once something is done, else where its visits or its invoices are.
 * @example whereWorkStands({ state: 'to_bill', toBillMinor: 0, uncoveredSeconds: 0, undone: 0, notAgreed: 0, doneAt: now, ahead: false }, at)
 * // { place: 'to_bill', reason: 'finished, and nothing is priced', next: 'Price it, or say why not' }
 */
export function whereWorkStands(work: WorkFacts, at: At): Standing {
  return WORK[work.state](work, at)
}
const byVisits = (): Standing => ({ through: 'visit' })
/** A state that is missing here does not compile. */
const WORK: Readonly<Record<WorkOrderState, (work: WorkFacts, at: At) => Standing>> = {
  needs_slot: byVisits,
  scheduled: byVisits,
  on_site: byVisits,
  paused: byVisits,
  to_bill: (work, at) => ({ place: 'to_bill', ...whyToBill(work, at) }),
  billed: () => ({ through: 'invoice' }),
  closed: () => ({ rest: 'closed' }),
  cancelled: () => ({ rest: 'cancelled' }),
}
/**
 * Why a work order waits to be billed, and what to do then.
 * @example whyToBill({ state: 'to_bill', toBillMinor: 100, uncoveredSeconds: 0, undone: 0, notAgreed: 0, doneAt: now - 2 * DAY, ahead: false }, at).reason
 * // 'done 2 days ago and not billed'
 */
export function whyToBill(
  { toBillMinor, uncoveredSeconds, undone, notAgreed, doneAt, ahead }: WorkFacts,
  { now }: Pick<At, 'now'>,
): { reason: string; next: string } {
  const further = `${ahead ? ', and somebody goes there again' : ''}${saidNotAgreed(notAgreed)}`
  if (toBillMinor === 0 && uncoveredSeconds > 0)
    return {
      reason: `${hoursMinutes(uncoveredSeconds)} h that nobody charged or explained`,
      next: 'Charge them, or say why not',
    }
  if (toBillMinor === 0 && undone > 0)
    return {
      reason: `${undone === 1 ? 'a line was' : `${undone} lines were`} promised and not done`,
      next: 'Do it, or say why not',
    }
  if (toBillMinor === 0)
    return { reason: 'finished, and nothing is priced', next: 'Price it, or say why not' }
  const age = Math.max(0, now - (doneAt ?? now))
  const days = Math.floor(age / DAY)
  if (days === 0)
    return { reason: `finished ${hoursMinutes(age / 1000)} ago${further}`, next: 'Bill it' }
  const ago = days === 1 ? 'a day' : `${days} days`
  return { reason: `done ${ago} ago and not billed${further}`, next: 'Bill it' }
}

/** What nobody signed for waits with its bill: it is shown to the customer first, or billed with a reason. */
const saidNotAgreed = (lines: number) =>
  lines === 0 ? '' : `; ${lines === 1 ? 'a line is' : `${lines} lines are`} not agreed yet`

export interface QuoteFacts {
  state: StoredQuoteState
  /** local dates */
  expiresOn: string
  createdOn: string
  sentOn: string | null
  /** when its customer read it first on its page */
  openedOn: string | null
}
const ASK: Partial<Record<StoredQuoteState, string>> = {
  draft: 'Finish it and send it',
  sent: 'Ask after it',
}
/**
 * Where a quote stands: among the quotes until it is answered; accepted, it goes on as its work order.
 * @example whereQuoteStands({ state: 'accepted', expiresOn: '2026-12-24', createdOn: '2026-11-01', sentOn: null, openedOn: null }, at) // { through: 'work order' }
 */
export function whereQuoteStands(quote: QuoteFacts, { today }: At): Standing {
  if (quote.state === 'accepted') return { through: 'work order' }
  if (quote.state === 'declined') return { rest: 'declined' }
  return { place: 'quotes', reason: whyQuoteWaits(quote, today).text, next: ASK[quote.state]! }
}

export interface InvoiceFacts {
  state: StoredInvoiceState
  openMinor: number
  dueOn: string
}
/** Where what is owed for an invoice stands. @example whereInvoiceStands({ state: 'open', openMinor: 0, dueOn: '2026-12-24' }, at) // { rest: 'paid' } */
export function whereInvoiceStands(
  { state, openMinor, dueOn }: InvoiceFacts,
  { today, day }: At,
): Standing {
  if (state !== 'open') return { rest: state.replace('_', ' ') }
  if (openMinor === 0) return { rest: 'paid' }
  const late = dueOn < today
  return {
    place: 'unpaid',
    reason: `${late ? 'was due' : 'is due'} on ${day(dueOn)}`,
    next: late ? 'Remind them' : 'Wait for it',
  }
}
export interface PaperFacts extends InvoiceFacts {
  sent: boolean
  /** every mail with it failed */
  bounced: boolean
}
/**
 * Where an invoice stands as a paper, of which the customer has to hear: not sent, or no mail of it arrived.
 * @example wherePaperStands({ state: 'open', openMinor: 100, dueOn: '2026-12-24', sent: true, bounced: true }, at)
 * // { place: 'to_send', reason: 'no mail with it arrived', next: 'Mend the address and send it again' }
 */
export function wherePaperStands({ state, openMinor, sent, bounced }: PaperFacts): Standing {
  if (state !== 'open' || openMinor === 0) return { rest: 'nothing is asked for on it' }
  if (!sent) return { place: 'to_send', reason: 'was never sent', next: 'Send it' }
  if (!bounced) return { rest: 'sent' }
  const next = 'Mend the address and send it again'
  return { place: 'to_send', reason: 'no mail with it arrived', next }
}

export interface MessageFacts {
  state: 'waiting' | 'delivered' | 'failed' | 'let_be'
  kind: string
  error: string
  /** a later message of its kind about the same did not fail */
  followed: boolean
}
/**
 * Where a message stands. An invoice that did not arrive waits as its paper does.
 * @example whereMessageStands({ state: 'failed', kind: 'receipt', error: 'no such box', followed: false }).reason // 'did not arrive: no such box'
 */
export function whereMessageStands({ state, kind, error, followed }: MessageFacts): Standing {
  if (state === 'delivered') return { rest: 'delivered' }
  if (state === 'let_be') return { rest: 'is not sent any more' }
  if (state === 'waiting')
    return { place: 'mail', reason: 'waits to be sent', next: 'It goes by itself' }
  if (followed) return { rest: 'sent again since' }
  if (kind === 'invoice') return { through: 'paper' }
  return {
    place: 'mail',
    reason: `did not arrive: ${error}`,
    next: 'Mend the address and send it again',
  }
}

/** Where money stands that a customer paid and that no invoice took. @example whereCreditStands(500).place // 'credits' */
export const whereCreditStands = (unappliedMinor: number): Standing =>
  unappliedMinor === 0
    ? { rest: 'applied' }
    : { place: 'credits', reason: 'paid, and on no invoice', next: 'Apply it, or give it back' }

export interface AskFacts {
  state: 'asked' | 'given' | 'refused' | 'withdrawn'
  reason: string
  askedBy: string
}
/**
 * Where stands what somebody asked another person's yes for.
 * @example whereAskStands({ state: 'asked', reason: 'an old customer', askedBy: 'Ines' }).reason // 'Ines asks: an old customer'
 */
export const whereAskStands = ({ state, reason, askedBy }: AskFacts): Standing =>
  state === 'asked'
    ? { place: 'asks', reason: `${askedBy} asks: ${reason}`, next: 'Say yes or no' }
    : { rest: state }

export interface TaskFacts {
  done: boolean
  owner: string
  /** local date by which it is to be done, where one was said */
  on: string | null
}
/**
 * Where stands what somebody is to do.
 * @example whereTaskStands({ done: false, owner: 'Ines', on: '2026-11-20' }, at).reason // 'Ines, was due by Fri, Nov 20'
 */
export function whereTaskStands({ done, owner, on }: TaskFacts, { today, day }: At): Standing {
  if (done) return { rest: 'done' }
  const due = on ? `, ${on < today ? 'was due' : 'due'} by ${day(on)}` : ''
  return { place: 'tasks', reason: `${owner}${due}`, next: 'Do it, or give it on' }
}

export interface PromiseFacts {
  on: string
  kept: boolean
  /** what its customer owes now */
  owedMinor: number
}
/**
 * Where the latest promise of a customer to pay stands: with what they owe, until it came or they owe nothing.
 * @example wherePromiseStands({ on: '2026-11-20', kept: false, owedMinor: 500 }, at)
 * // { place: 'unpaid', reason: 'promised for Fri, Nov 20; it has not come', next: 'Ring them' }
 */
export function wherePromiseStands(
  { on, kept, owedMinor }: PromiseFacts,
  { today, day }: At,
): Standing {
  if (kept) return { rest: 'kept' }
  if (owedMinor <= 0) return { rest: 'nothing is owed' }
  return on < today
    ? {
        place: 'unpaid',
        reason: `promised for ${day(on)}; it has not come`,
        next: 'Ring them',
      }
    : { place: 'unpaid', reason: `promised for ${day(on)}`, next: 'Wait for it' }
}
