// What happens to work orders and visits, and how the history says it.
import { Decimal } from '../../core/money/decimal'
import { CLOCK_KINDS } from '../../core/hours/mendTime'
import { DETAIL_NAMES, type Detail } from '../../core/customers/changedDetails'
import { sayWorkKind, type FreeKind } from '../../core/visits/workKinds'
import type { NextStep, VisitAct } from '../../core/visits/visitLifecycle'
import { isSamePromise, sayPromise, type VisitPromise } from '../../core/visits/visitPromise'
import { SIGN_PURPOSES, type SignPurpose } from '../../core/visits/signedPaper'
import { WORK_WORDS, type WorkWord } from '../../core/visits/workWords'
import { facts, inSpiteOf, type Change } from '../http/facts'

const CLOCKED: Readonly<Record<Exclude<VisitAct, 'cancel' | 'bring_back'>, string>> = {
  set_off: 'Set off',
  arrive: 'Arrived',
  pause: 'Paused',
  resume: 'Went on',
  finish: 'Finished on site',
  no_access: 'Nobody let us in',
}
const PROPOSED: Readonly<Record<NextStep, string>> = {
  come_again: 'Wants to come again',
  ring: 'Wants them rung first',
  give_up: 'Wants to give it up',
}
const promisedAnew = (change: PromiseChange | undefined, day: (date: string) => string) =>
  change && !isSamePromise(change.from, change.to) ? `, ${promisedNow(change, day)}` : ''
const TOLD = {
  confirmation: 'when the visit is',
  eve: 'when the visit is',
  onWay: 'that somebody is on the way',
  late: 'that the visit will be late',
  moved: 'of another time for the visit',
  later: 'that the visit has to wait',
  off: 'that the visit will not take place',
} as const
const minutes = (seconds: number) => Math.round(seconds / 60)
type Named = { name: string }
type Money = { amount: string; currency: string }
type Spite = { warnings: readonly string[] }

type Said = WorkWord | 'kind' | 'contact' | 'otherContacts'
const OTHER_PARTS = {
  kind: 'the kind of work',
  contact: 'who is spoken to',
  otherContacts: 'who else is spoken to',
} as const
const saidPart = (part: Said) =>
  part in OTHER_PARTS
    ? OTHER_PARTS[part as keyof typeof OTHER_PARTS]
    : WORK_WORDS[part as WorkWord].said

/** What stood against a booking that was made all the same, and why it was. */
export type BookedAgainst = { what: 'stop_work' | 'credit_limit'; reason: string } | null
const AGAINST = { stop_work: 'the stop on work', credit_limit: 'the credit limit' } as const
const saidAgainst = (against: BookedAgainst) =>
  against ? `, in spite of ${AGAINST[against.what]}: ${against.reason}` : ''

export const workFacts = facts('work', {
  chargeLeftOut: (f: Named & { reason: string }) => `“${f.name}” is not charged: ${f.reason}`,
  booked: (
    f: { title: string; number: string; startAt: string | null; against: BookedAgainst } & Spite,
    say,
  ) =>
    `Call taken: ${f.title}. Booked as ${f.number}, ${f.startAt ? say.at(f.startAt) : 'no time yet'}${saidAgainst(f.against)}${inSpiteOf(f.warnings)}`,
  soldWithoutVisit: (f: { number: string; title: string }) =>
    `${f.number} begun to be billed, without a visit: ${f.title}`,
  madeForAgreement: (f: { number: string; plan: string; dueOn: string }, say) =>
    `${f.number} made for the visit of the ${f.plan} agreement that was due by ${say.day(f.dueOn)}`,
  calledBack: (f: { kind: FreeKind; of: string; problem: string }) =>
    `${f.kind === 'warranty' ? 'Warranty visit' : 'Call-back'} of ${f.of}, without charge: ${f.problem}`,
  lookedAtAgain: (f: { number: string; kind: FreeKind }) =>
    `Has to be looked at again (${sayWorkKind(f.kind)}): ${f.number}`,
  changed: (f: { parts: readonly Said[]; changes: Record<string, Change> }) =>
    `Changed ${f.parts.map(saidPart).join(', ') || 'nothing'}`,
  carriedOver: (f: { details: readonly Detail[]; changes: Record<string, Change> }) =>
    `Carried over from the customer: ${f.details.map((detail) => DETAIL_NAMES[detail]).join(', ')}`,
  parked: (f: { list: string; reason?: string; on: string | null }, say) =>
    `Parked in “${f.list}”${f.on ? ` until ${say.day(f.on)}` : ''}${f.reason ? `: ${f.reason}` : ''}`,
  unparked: (f: { list: string }) => `Taken out of “${f.list}”`,
  ratesKept: (f: { rates: readonly { name: string; price: string }[]; was: object }) =>
    `Rates of this work order: ${f.rates.map(({ name, price }) => `${name} ${price}`).join(', ') || 'as everywhere'}`,
  phased: (f: { phases: readonly string[]; was: readonly string[] }) =>
    f.phases.length ? `Phases: ${f.phases.join('; ')}` : 'No phases any more',
  lineAdded: (f: Named & { quantity: string; unitPrice: string }) =>
    `Added ${new Decimal(f.quantity)} × ${f.name}`,
  lineRemoved: (f: Named & LineChange) => `Took out ${f.name}`,
  linePutBack: (f: Named & LineChange) => `Put back ${f.name}`,
  lineDone: (f: Named & LineChange & { done: boolean }) =>
    `${f.name}: ${f.done ? 'done' : 'not done'}`,
  lineChanged: (f: Named & LineChange & { now: string }) =>
    `Changed ${f.name}${f.now === f.name ? '' : ` to ${f.now}`}`,
  discounted: (f: Money & { as: string; was: string; words?: string }, say) =>
    `Took ${say.money(f.amount, f.currency)} off what is not billed (${f.as})${f.words ? `: ${f.words}` : ''}`,
  signed: (f: Named & { total: string; currency: string; purpose?: SignPurpose }, say) =>
    `Signed by ${f.name} for ${say.money(f.total, f.currency)}${f.purpose ? `: ${SIGN_PURPOSES[f.purpose].says.toLowerCase()}` : ''}`,
  billedBeyond: (f: { amount: string; currency: string; reason: string }, say) =>
    `Billed ${say.money(f.amount, f.currency)} that was not agreed: ${f.reason}`,
  photoAdded: () => 'Photo added',
  leftUndone: (f: { names: string[]; net: string; reason: string }) =>
    `Promised and not done: ${f.names.join('; ')}: ${f.reason}`,
  timeExplained: (f: { seconds: number; reason: string }) =>
    `${minutes(f.seconds)} minutes not charged: ${f.reason}`,
  timeCharged: (f: { seconds: number }) =>
    `Charged ${minutes(f.seconds)} minutes that no line covered`,
  closed: (f: { reason: string; seconds?: number }) =>
    `Closed${f.seconds ? `, ${minutes(f.seconds)} minutes not charged` : ''}: ${f.reason}`,
  cancelled: (f: { reason: string }) => `Cancelled: ${f.reason}`,
  reopened: (f: { reason: string }) => `Goes on after all: ${f.reason}`,
  fieldFilled: (f: { field: string; value: string }) => `${f.field}: ${f.value || '–'}`,
})
/** What a changed line was, and became. */
interface LineChange {
  net: Change
  unitPrice: Change
}

/** Where a visit was, and where it is now. */
interface Placed {
  people: readonly string[]
  startAt: Change
  technicianId: Change
  crewIds: Change
  durationSeconds: Change
  /** not told by entries from before it was kept */
  promise?: PromiseChange
}
type ClockKind = keyof typeof CLOCK_KINDS
/** From when to when; without an end it still ran. */
interface Span {
  from: string
  to: string | null
}
const saySpan = ({ from, to }: Span, at: (instant: string) => string) =>
  `${at(from)} to ${to ? at(to).slice(-5) : 'now'}`
interface PromiseChange {
  from: VisitPromise | null
  to: VisitPromise | null
}
/** What is promised now, where that has changed. */
const promisedNow = ({ from, to }: PromiseChange, day: (date: string) => string) =>
  to
    ? `promised ${sayPromise(to, day)}${from ? ` instead of ${sayPromise(from, day)}` : ''}`
    : 'nothing promised for now'

export const visitFacts = facts('visit', {
  clocked: (f: { act: keyof typeof CLOCKED; state: Change }) => CLOCKED[f.act],
  proposed: (f: { step: NextStep; note: string }) =>
    `${PROPOSED[f.step]}${f.note ? `: ${f.note}` : ''}`,
  timeEntered: (f: { person: string; kind: ClockKind; now: Span; reason: string }, say) =>
    `Time of ${f.person} entered: ${CLOCK_KINDS[f.kind]}, ${saySpan(f.now, say.at)}: ${f.reason}`,
  timeMended: (
    f: {
      person: string
      kind: ClockKind
      was: Span
      now: Span
      becomes: ClockKind
      reason: string
    },
    say,
  ) =>
    `Time of ${f.person} corrected: ${CLOCK_KINDS[f.kind]}, ${saySpan(f.was, say.at)}, is now ${f.becomes === f.kind ? '' : `${CLOCK_KINDS[f.becomes]}, `}${saySpan(f.now, say.at)}: ${f.reason}`,
  timeTakenOut: (f: { person: string; kind: ClockKind; was: Span; reason: string }, say) =>
    `Time of ${f.person} taken out: ${CLOCK_KINDS[f.kind]}, ${saySpan(f.was, say.at)}: ${f.reason}`,
  begunOnOtherDay: (f: { planned: string | null }, say) =>
    f.planned ? `Begun on another day than planned, ${say.at(f.planned)}` : 'Begun without a time',
  findingsWritten: () => 'Findings written',
  placed: (f: Placed & Spite, say) =>
    `Visit: ${f.startAt.to ? say.at(f.startAt.to as string) : 'taken off the schedule'}${f.people.length ? `, ${f.people.join(' with ')}` : ''}${promisedAnew(f.promise, say.day)}${inSpiteOf(f.warnings)}`,
  promised: (f: { promise: PromiseChange; known: boolean }, say) =>
    `Visit: ${promisedNow(f.promise, say.day)}${f.known ? '; they know' : ''}`,
  locked: () => 'Visit locked where it is',
  unlocked: () => 'Visit unlocked',
  split: (f: { note: string }) => `Visit split${f.note ? `: ${f.note}` : ''}`,
  further: (f: { note: string }) => `A further visit${f.note ? `: ${f.note}` : ''}`,
  cancelled: (f: { reason: string }) => `Visit cancelled: ${f.reason || 'taken back'}`,
  broughtBack: () => 'Visit brought back',
  toldBySpeech: (f: { words: string }) => `Told by telephone: ${f.words}`,
  told: (f: { by: 'text' | 'mail'; what: keyof typeof TOLD; to: readonly string[]; late?: true }) =>
    // Entries from before there were more than two say only whether it was late.
    `Told by ${f.by} ${TOLD[f.what ?? (f.late ? 'late' : 'confirmation')]}`,
  invited: (f: { to: readonly string[] }) => `Invitation sent to ${f.to.join(', ')}`,
})
