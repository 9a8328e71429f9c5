import type { WentBack } from '../payments/takingBack'
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
  /** how they can be written to: by mail where they have an address and did not say no, else by post where they have one */
  way: 'mail' | 'letter' | null
  remindersSent: number
  lastReminderOn: string | null
  /** why money of theirs went back lately */
  bounced: WentBack | null
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
  act: 'call' | 'remind' | 'letter' | 'settle' | 'wait'
}

/**
 * Whom to act on first: money × chance that acting today brings it nearer, each with its reason and the act it proposes.
 * The chance grows with lateness against the customer's own habit and with a broken promise, falls just after a contact;
 * a dispute or a promise that still runs rests the entry; one that was kept leaves the rest of the debt where it is. Own rule; the weights are stated below.
 * @param on today in the company's zone, ISO date
 */
export function worklist(debtors: readonly Debtor[], on: string, say: Say): WorklistEntry[] {
  return debtors
    .filter((d) => d.overdueMinor > 0 || d.dispute || d.bounced || (d.promise && !d.promise.kept))
    .map((d) => entry(d, on, say))
    .sort((a, b) => Number(a.resting) - Number(b.resting) || b.score - a.score)
}

/** Days beyond the habit until the chance is one higher. */
const DAYS_TO_FULL = 60
/** Nobody was spoken to yet: longer ago than anything that counts. */
const NEVER = 99
const CONTACT_DAYS = 3
const MOST_REMINDERS = 2
const REMIND_AGAIN_DAYS = 7

type Told = Pick<WorklistEntry, 'resting' | 'reason' | 'act'> & { expectedOn?: string | null }
/** What of a debtor decides, on a day. */
interface Standing {
  d: Debtor
  on: string
  say: Say
  late: number
  /** days later than the habit says; below nought, earlier */
  beyondHabit: number
  promise: 'none' | 'running' | 'broken'
}
function standingOf(d: Debtor, on: string, say: Say): Standing {
  const late = daysLate(d.oldestDueOn, on)
  const open = d.promise && !d.promise.kept ? d.promise : null
  const runs = open && open.on >= on ? 'running' : 'broken'
  return {
    ...{ d, on, say, late },
    beyondHabit: late - (d.habit?.medianDays ?? 0),
    promise: open ? runs : 'none',
  }
}
/**
 * Weights: 0.5 at the habit, 0.5 more for each 30 days beyond it, at most 1.5 (from 60 days on), and less before it,
 * at least 0.1; a broken promise adds 1, a cheque that came back 0.8; a contact in the last three days halves.
 */
function chanceOf({ d, on, beyondHabit, promise }: Standing): number {
  const byLateness = Math.min(1.5, Math.max(0.1, 0.5 + beyondHabit / DAYS_TO_FULL))
  const chance = byLateness + (promise === 'broken' ? 1 : 0) + (d.bounced ? 0.8 : 0)
  const sinceContact = d.lastContactOn ? daysLate(d.lastContactOn, on) : NEVER
  return sinceContact < CONTACT_DAYS ? chance / 2 : chance
}
const CAME_BACK: Readonly<Record<WentBack, string>> = {
  returned: 'A cheque came back from the bank',
  charged_back: 'A card payment was charged back',
  recalled: 'A transfer was recalled',
}
const sayPromise = ({ d, say }: Standing) =>
  `Promised ${say.money(d.promise!.amountMinor)} for ${say.day(d.promise!.on)}`
/** What rests the entry, or wants a word before any reminder; nothing where neither is so. */
function asTold(standing: Standing): Told | null {
  const { d, promise, beyondHabit } = standing
  if (d.dispute)
    return { resting: true, expectedOn: null, reason: `Disputes it: “${d.dispute}”`, act: 'settle' }
  if (promise === 'running')
    return { resting: true, expectedOn: d.promise!.on, reason: sayPromise(standing), act: 'wait' }
  if (promise === 'broken') {
    const kept = `Kept ${d.promisesKept} of ${d.promisesMade} promises`
    const reason = `${sayPromise(standing)}; it has not come. ${kept}`
    return { resting: false, reason, act: 'call' }
  }
  if (d.bounced) return { resting: false, reason: CAME_BACK[d.bounced], act: 'call' }
  if (!d.habit || beyondHabit > 0) return null
  const usual = `Usually pays ${d.habit.medianDays} days after due; not later than usual yet`
  return { resting: false, reason: usual, act: 'wait' }
}
/** Two reminders, a week apart, and then a call. */
function asReminded({ d, on, say, late, beyondHabit }: Standing): Told {
  const { remindersSent: sent, lastReminderOn: last } = d
  const due = sent < MOST_REMINDERS && (last === null || daysLate(last, on) >= REMIND_AGAIN_DAYS)
  if (due) {
    const first = `${late} days late, no reminder yet`
    const next = () => `Reminder ${sent + 1} falls due; the last was on ${say.day(last!)}`
    const reason = sent === 0 ? first : next()
    if (d.way === 'mail') return { resting: false, reason, act: 'remind' }
    if (d.way) return { resting: false, reason: `${reason}; not to be had by mail`, act: 'letter' }
    return { resting: false, reason: `${reason}; neither a mail nor a postal address`, act: 'call' }
  }
  const reminders = sent === 1 ? '1 reminder' : `${sent} reminders`
  const reason = d.habit
    ? `${beyondHabit} days later than usual, ${reminders} sent`
    : `${late} days late after ${reminders}`
  return { resting: false, reason, act: 'call' }
}
function entry(d: Debtor, on: string, say: Say): WorklistEntry {
  const standing = standingOf(d, on, say)
  const { late } = standing
  const { habit } = d
  const expected = habit && Math.max(habit.medianDays, late + habit.spreadDays)
  return {
    customerId: d.customerId,
    late,
    expectedOn: expected === null ? null : plusDays(d.oldestDueOn, expected),
    spreadDays: habit?.spreadDays ?? null,
    score: Math.round(Math.max(d.overdueMinor, 1) * chanceOf(standing)),
    ...(asTold(standing) ?? asReminded(standing)),
  }
}
