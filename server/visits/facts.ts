// What happens to work orders and visits, and how the history says it.
import { Decimal } from '../../core/money/decimal'
import { DETAIL_NAMES, type Detail } from '../../core/customers/changedDetails'
import { sayWorkKind, type FreeKind } from '../../core/visits/workKinds'
import type { NextStep, VisitAct } from '../../core/visits/visitLifecycle'
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
const minutes = (seconds: number) => Math.round(seconds / 60)
type Named = { name: string }
type Money = { amount: string; currency: string }
type Spite = { warnings: readonly string[] }

/** What stood against a booking that was made all the same, and why it was. */
export type BookedAgainst = { what: 'stop_work' | 'credit_limit'; reason: string } | null
const AGAINST = { stop_work: 'the stop on work', credit_limit: 'the credit limit' } as const
const saidAgainst = (against: BookedAgainst) =>
  against ? `, in spite of ${AGAINST[against.what]}: ${against.reason}` : ''

export const workFacts = facts('work', {
  booked: (
    f: { title: string; number: string; startAt: string | null; against: BookedAgainst } & Spite,
    say,
  ) =>
    `Call taken: ${f.title}. Booked as ${f.number}, ${f.startAt ? say.at(f.startAt) : 'no time yet'}${saidAgainst(f.against)}${inSpiteOf(f.warnings)}`,
  madeForAgreement: (f: { number: string; plan: string; dueOn: string }, say) =>
    `${f.number} made for the visit of the ${f.plan} agreement that was due by ${say.day(f.dueOn)}`,
  calledBack: (f: { kind: FreeKind; of: string; problem: string }) =>
    `${f.kind === 'warranty' ? 'Warranty visit' : 'Call-back'} of ${f.of}, without charge: ${f.problem}`,
  lookedAtAgain: (f: { number: string; kind: FreeKind }) =>
    `Has to be looked at again (${sayWorkKind(f.kind)}): ${f.number}`,
  changed: (f: { parts: readonly WorkWord[]; changes: Record<string, Change> }) =>
    `Changed ${f.parts.map((part) => WORK_WORDS[part].said).join(', ') || 'nothing'}`,
  carriedOver: (f: { details: readonly Detail[]; changes: Record<string, Change> }) =>
    `Carried over from the customer: ${f.details.map((detail) => DETAIL_NAMES[detail]).join(', ')}`,
  parked: (f: { list: string; on: string | null }, say) =>
    `Parked in “${f.list}”${f.on ? ` until ${say.day(f.on)}` : ''}`,
  unparked: (f: { list: string }) => `Taken out of “${f.list}”`,
  ratesKept: (f: { rates: readonly { name: string; price: string }[]; was: object }) =>
    `Rates of this work order: ${f.rates.map(({ name, price }) => `${name} ${price}`).join(', ') || 'as everywhere'}`,
  lineAdded: (f: Named & { quantity: string; unitPrice: string }) =>
    `Added ${new Decimal(f.quantity)} × ${f.name}`,
  lineRemoved: (f: Named & LineChange) => `Took out ${f.name}`,
  linePutBack: (f: Named & LineChange) => `Put back ${f.name}`,
  lineDone: (f: Named & LineChange & { done: boolean }) =>
    `${f.name}: ${f.done ? 'done' : 'not done'}`,
  lineChanged: (f: Named & LineChange & { now: string }) =>
    `Changed ${f.name}${f.now === f.name ? '' : ` to ${f.now}`}`,
  discounted: (f: Money & { as: string; was: string }, say) =>
    `Took ${say.money(f.amount, f.currency)} off what is not billed (${f.as})`,
  signed: (f: Named & { total: string; currency: string }, say) =>
    `Signed by ${f.name} for ${say.money(f.total, f.currency)}`,
  photoAdded: () => 'Photo added',
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
}

export const visitFacts = facts('visit', {
  clocked: (f: { act: keyof typeof CLOCKED; state: Change }) => CLOCKED[f.act],
  proposed: (f: { step: NextStep; note: string }) =>
    `${PROPOSED[f.step]}${f.note ? `: ${f.note}` : ''}`,
  findingsWritten: () => 'Findings written',
  placed: (f: Placed & Spite, say) =>
    `Visit: ${f.startAt.to ? say.at(f.startAt.to as string) : 'taken off the schedule'}${f.people.length ? `, ${f.people.join(' with ')}` : ''}${inSpiteOf(f.warnings)}`,
  locked: () => 'Visit locked where it is',
  unlocked: () => 'Visit unlocked',
  split: (f: { note: string }) => `Visit split${f.note ? `: ${f.note}` : ''}`,
  further: (f: { note: string }) => `A further visit${f.note ? `: ${f.note}` : ''}`,
  cancelled: (f: { reason: string }) => `Visit cancelled: ${f.reason || 'taken back'}`,
  broughtBack: () => 'Visit brought back',
  toldBySpeech: (f: { words: string }) => `Told by telephone: ${f.words}`,
  told: (f: { by: 'text' | 'mail'; late: boolean; to: readonly string[] }) =>
    `Told by ${f.by} ${f.late ? 'that the visit will be late' : 'when the visit is'}`,
  invited: (f: { to: readonly string[] }) => `Invitation sent to ${f.to.join(', ')}`,
})
