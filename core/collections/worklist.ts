import { plusDays } from '../time/zone'
import { daysLate } from './ageing'

export interface Debtor {
  customerId: string
  overdueMinor: number
  owedMinor: number
  oldestDueOn: string
  habit: { medianDays: number; spreadDays: number } | null
  /** the latest promise to pay */
  promise: { amountMinor: number; on: string; kept: boolean } | null
  promisesKept: number
  promisesMade: number
  dispute: string | null
  /** an ISO date */
  lastContactOn: string | null
  remindersSent: number
  lastReminderOn: string | null
  bounced: boolean
}
/** How sums, in minor units, and days are said. */
export interface Say {
  money: (minor: number) => string
  day: (date: string) => string
}
export interface WorklistEntry {
  customerId: string
  score: number
  resting: boolean
  late: number
  reason: string
  expectedOn: string | null
  spreadDays: number | null
  act: 'call' | 'remind' | 'settle' | 'wait'
}

/**
 * Whom to act on first: money × chance that acting today brings it nearer, each with its reason and the act it proposes.
 * The chance grows with lateness against the customer's own habit and with a broken promise, falls just after a contact;
 * a dispute or a promise that still runs rests the entry; one that was kept leaves the rest of the debt where it is. Own rule; the weights are stated below.
 * @param on today in the company's zone, ISO date
 */
export function worklist(debtors: readonly Debtor[], on: string, say: Say): WorklistEntry[] {
  return debtors
    .filter((d) => d.overdueMinor > 0 || d.dispute || d.bounced)
    .map((d) => entry(d, on, say))
    .sort((a, b) => Number(a.resting) - Number(b.resting) || b.score - a.score)
}

/** Days beyond the habit until the chance is one higher. */
const DAYS_TO_FULL = 60

function entry(d: Debtor, on: string, { money, day }: Say): WorklistEntry {
  const late = daysLate(d.oldestDueOn, on)
  const usual = d.habit?.medianDays ?? 0
  const expectedOn = d.habit
    ? plusDays(d.oldestDueOn, Math.max(usual, late + d.habit.spreadDays))
    : null
  const spreadDays = d.habit?.spreadDays ?? null
  const sinceContact = d.lastContactOn ? daysLate(d.lastContactOn, on) : 99
  const running = d.promise && !d.promise.kept && d.promise.on >= on
  const broken = d.promise && !d.promise.kept && d.promise.on < on
  const beyondHabit = late - usual
  // Weights: 0.5 at the habit, half as much again for each 30 days beyond it, at most 1.5 (from 60 days on); a broken promise adds 1, a cheque that came back 0.8; a contact in the last three days halves.
  let chance =
    Math.min(1.5, Math.max(0.1, 0.5 + beyondHabit / DAYS_TO_FULL)) +
    (broken ? 1 : 0) +
    (d.bounced ? 0.8 : 0)
  if (sinceContact < 3) chance /= 2
  const common = {
    customerId: d.customerId,
    late,
    expectedOn,
    spreadDays,
    score: Math.round(Math.max(d.overdueMinor, 1) * chance),
  }
  if (d.dispute)
    return {
      ...common,
      resting: true,
      expectedOn: null,
      reason: `Disputes it: “${d.dispute}”`,
      act: 'settle',
    }
  if (running)
    return {
      ...common,
      resting: true,
      expectedOn: d.promise!.on,
      reason: `Promised ${money(d.promise!.amountMinor)} for ${day(d.promise!.on)}`,
      act: 'wait',
    }
  if (broken)
    return {
      ...common,
      resting: false,
      reason: `Promised ${money(d.promise!.amountMinor)} for ${day(d.promise!.on)}; it has not come. Kept ${d.promisesKept} of ${d.promisesMade} promises`,
      act: 'call',
    }
  if (d.bounced)
    return { ...common, resting: false, reason: 'A cheque came back from the bank', act: 'call' }
  if (d.habit && beyondHabit <= 0)
    return {
      ...common,
      resting: false,
      reason: `Usually pays ${usual} days after due; not later than usual yet`,
      act: 'wait',
    }
  const next = d.remindersSent + 1
  const reminders = d.remindersSent === 1 ? '1 reminder' : `${d.remindersSent} reminders`
  if (d.remindersSent < 2 && (d.lastReminderOn === null || daysLate(d.lastReminderOn, on) >= 7)) {
    return {
      ...common,
      resting: false,
      reason:
        d.remindersSent === 0
          ? `${late} days late, no reminder yet`
          : `Reminder ${next} falls due; the last was on ${day(d.lastReminderOn!)}`,
      act: 'remind',
    }
  }
  return {
    ...common,
    resting: false,
    reason: d.habit
      ? `${beyondHabit} days later than usual, ${reminders} sent`
      : `${late} days late after ${reminders}`,
    act: 'call',
  }
}
