// What is unpaid, by whom, and whom to act on first.
import { mailText } from '../../core/text/mailWords'
import { wentBack, type WentBack } from '../../core/payments/takingBack'
import { sayDay } from '../../core/time/sayDay'
import { wordsOf } from '../http/queries'
import { notFound } from '../../core/errors/LedgerError'
import { ageing, BUCKETS, daysLate } from '../../core/collections/ageing'
import { paymentHabit, type PaymentHabit } from '../../core/collections/paymentHabit'
import { worklist, type Debtor, type WorklistEntry } from '../../core/collections/worklist'
import { plusDays } from '../../core/time/zone'
import { termsInWords } from '../../core/documents/dueDate'
import { toMoney } from '../../core/money/formatMinor'
import type { Answer } from '../../shared/api'
import { customerById, customersById, type CustomerRow } from '../customers/queries'
import { owedBy } from '../customers/owed.queries'
import type { Ctx } from '../http/context'
import { openInvoices } from '../invoices/queries'
import { publicLink } from '../invoices/link'
import { moneyText, notices, SHOWN_FOR_MS } from './notices'
import {
  besideOpen,
  invoicesOn,
  moneyIn,
  notesOf,
  notesUntil,
  openOn,
  paidInvoices,
  siteCount,
  type MoneyIn,
  type NoteRow,
} from './queries'
import { sayNote } from './facts'

function grouped<T extends { customerId: string }>(all: readonly T[]): Map<string, T[]> {
  const groups = new Map<string, T[]>()
  for (const one of all) {
    const own = groups.get(one.customerId)
    if (own) own.push(one)
    else groups.set(one.customerId, [one])
  }
  return groups
}
/** What came in for a promise: after the moment it was made, until its day. */
function cameSince(came: readonly MoneyIn[], promise: NoteRow, on: string): number {
  const until = promise.onDate! < on ? promise.onDate! : on
  const counts = (p: MoneyIn) =>
    p.bouncedOn === null &&
    p.receivedOn <= until &&
    (p.receivedOn > promise.notedOn ||
      (p.receivedOn === promise.notedOn && p.createdAt > promise.notedAt))
  return came.filter(counts).reduce((sum, p) => sum + p.amount, 0)
}
/** What is known of those who owe, read once for all of them. */
interface Known {
  on: string
  open: Awaited<ReturnType<typeof openOn>>
  habits: Map<string, Awaited<ReturnType<typeof paidInvoices>>>
  notes: Map<string, NoteRow[]>
  money: Map<string, MoneyIn[]>
}
async function knownOf(ctx: Ctx, on: string, open: Known['open'], ids: string[]): Promise<Known> {
  const { tx } = ctx
  const notes = grouped(await notesUntil(tx, on, ids))
  const promises = [...notes.values()].flat().filter((n) => n.kind === 'promise')
  const first = promises.map((n) => n.notedOn).sort()[0] ?? on
  return {
    ...{ on, open, notes },
    habits: grouped(await paidInvoices(tx, ids)),
    money: grouped(await moneyIn(tx, ids, first, on)),
  }
}
/** Promises as they were kept: by what came in for each. */
function promisesOf(said: readonly NoteRow[], came: readonly MoneyIn[], on: string) {
  const promises = said.filter((n) => n.kind === 'promise')
  const kept = promises.map((p) => cameSince(came, p, on) >= (p.amount ?? 1))
  const last = promises.at(-1)
  return {
    promise: last ? { amountMinor: last.amount ?? 0, on: last.onDate!, kept: kept.at(-1)! } : null,
    promisesKept: kept.filter(Boolean).length,
    promisesMade: promises.length,
  }
}
/** Reminders of what is open now: those of debts that were paid long ago do not count. */
function remindersSince<Note extends { kind: string; notedOn: string }>(
  notes: readonly Note[],
  open: readonly { issueOn: string }[],
): Note[] {
  const first = open.map((i) => i.issueOn).sort()[0]
  return notes.filter((n) => n.kind === 'reminder' && first !== undefined && n.notedOn >= first)
}
const BOUNCED_DAYS = 30
/** Money that went back counts for a month; what was entered wrongly never came. */
function cameBack({ bouncedOn, backReason }: MoneyIn, on: string): WentBack[] {
  const lately = bouncedOn !== null && bouncedOn <= on && bouncedOn > plusDays(on, -BOUNCED_DAYS)
  return lately && backReason && wentBack(backReason) ? [backReason] : []
}
/** Whether a customer is to be had by mail. */
const takesMail = ({ email, email2, mailConsent }: CustomerRow) =>
  Boolean(email || email2) && mailConsent !== 'no'
function wayTo(c: CustomerRow): Debtor['way'] {
  if (takesMail(c)) return 'mail'
  return c.line1 ? 'letter' : null
}
type Ageing = ReturnType<typeof ageing>[number]
function debtorOf(r: Ageing, known: Known, way: Debtor['way']): Debtor {
  const { on, open, habits, notes, money } = known
  const { customerId, owedMinor } = r
  const due = open.filter((o) => o.customerId === customerId && o.balanceMinor > 0)
  const oldest = due.map((i) => i.dueOn).sort()[0]
  const said = notes.get(customerId) ?? []
  const came = money.get(customerId) ?? []
  const dispute = said.filter((n) => n.kind === 'dispute' || n.kind === 'settled').at(-1)
  const reminders = remindersSince(said, due)
  return {
    ...{ customerId, owedMinor, way },
    overdueMinor: r.d1_30 + r.d31_60 + r.d61_90 + r.over90,
    oldestDueOn: oldest ?? on,
    habit: paymentHabit((habits.get(customerId) ?? []).map((h) => h.days)),
    ...promisesOf(said, came, on),
    dispute: dispute?.kind === 'dispute' ? dispute.text : null,
    lastContactOn: said.at(-1)?.notedOn ?? null,
    remindersSent: reminders.length,
    lastReminderOn: reminders.at(-1)?.notedOn ?? null,
    bounced: came.flatMap((p) => cameBack(p, on))[0] ?? null,
  }
}
type Sums = Record<(typeof BUCKETS)[number] | 'creditsMinor' | 'owedMinor', number>
const SUMS = [...BUCKETS, 'creditsMinor', 'owedMinor'] as const
const addUp = (rows: readonly Sums[]): Sums =>
  Object.fromEntries(
    SUMS.map((key) => [key, rows.reduce((sum, r) => sum + r[key], 0)]),
  ) as unknown as Sums
/** Sums by age as they are told. */
function saySums(ctx: Ctx, { creditsMinor, owedMinor, ...ages }: Sums) {
  const m = (minor: number) => toMoney(minor, ctx.company.currency)
  const { current, d1_30, d31_60, d61_90, over90 } = ages
  return {
    current: m(current),
    d1_30: m(d1_30),
    d31_60: m(d31_60),
    d61_90: m(d61_90),
    over90: m(over90),
    credits: m(creditsMinor),
    /** what the open invoices come to, before credits are taken off */
    open: m(owedMinor + creditsMinor),
    owed: m(owedMinor),
  }
}
function sayEntry(ctx: Ctx, e: WorklistEntry, d: Debtor, c: CustomerRow) {
  const { customerId, reason, expectedOn, spreadDays, act, resting } = e
  const { name, phone, email } = c
  return {
    ...{ customerId, name, phone, email, reason, expectedOn, spreadDays, act, resting },
    owed: toMoney(d.owedMinor, ctx.company.currency),
    overdue: toMoney(d.overdueMinor, ctx.company.currency),
    late: Math.max(0, e.late),
  }
}
/** Who owes on a day, what is known of each, and in which order they deserve attention. */
async function owingOn(ctx: Ctx, on: string) {
  const open = await openOn(ctx.tx, on)
  const beside = await besideOpen(ctx.tx, on, ctx.now - SHOWN_FOR_MS)
  const rows = ageing(open, beside.credits, on)
  const owe = rows.filter((r) => r.owedMinor > 0)
  const ids = owe.map((r) => r.customerId)
  const known = await knownOf(ctx, on, open, ids)
  const all = await customersById(
    ctx.tx,
    rows.map((r) => r.customerId),
  )
  const customers = new Map(all.map((c) => [c.id, c]))
  const debtor = (r: Ageing) => debtorOf(r, known, wayTo(customers.get(r.customerId)!))
  const debtors = new Map(owe.map((r) => [r.customerId, debtor(r)]))
  const day = (date: string) => sayDay(date, ctx.company.locale)
  const list = worklist([...debtors.values()], on, { money: moneyText(ctx), day })
  return { rows, beside, debtors, list, customers }
}
/** The latest promise of each who owes, and whether the worklist shows it. */
export async function promisesNow(ctx: Ctx) {
  const { debtors, list } = await owingOn(ctx, ctx.today)
  const shown = new Set(list.map((e) => e.customerId))
  return [...debtors.values()].flatMap(({ customerId, promise, owedMinor }) =>
    promise
      ? [{ customerId, promise: { ...promise, owedMinor }, shown: shown.has(customerId) }]
      : [],
  )
}
export async function unpaid(ctx: Ctx, wanted?: string): Promise<Answer<'unpaid'>> {
  const on = wanted || ctx.today
  const { rows, beside, debtors, list, customers } = await owingOn(ctx, on)
  const totals = addUp(rows)
  const ledger = beside.ledger[0]!.sum
  return {
    on,
    totals: saySums(ctx, totals),
    ledger: toMoney(ledger, ctx.company.currency),
    agrees: ledger === totals.owedMinor,
    resting: list.filter((e) => e.resting).length,
    customers: rows.map((r) => ({
      customerId: r.customerId,
      name: customers.get(r.customerId)?.name ?? '',
      oldestLate: r.oldestLate,
      ...saySums(ctx, r),
    })),
    notices: notices(ctx, beside.givenBack),
    worklist: list.map((e) =>
      sayEntry(ctx, e, debtors.get(e.customerId)!, customers.get(e.customerId)!),
    ),
  }
}
function habitInWords({ medianDays, spreadDays, of }: PaymentHabit): string {
  const when = `${Math.abs(medianDays)} days ${medianDays >= 0 ? 'after' : 'before'} due`
  return `pays ${when}, ± ${spreadDays}, from ${of} invoices`
}
type Open = Awaited<ReturnType<typeof openInvoices>>
const MOST_LISTED = 15
/** The next reminder as it would be sent: about what is late, or about all that is open where nothing is. */
function reminderOf(ctx: Ctx, name: string, step: number, open: Open): Answer<'owing'>['reminder'] {
  const { company } = ctx
  const text = moneyText(ctx)
  const late = open.filter((i) => i.dueOn < ctx.today)
  const asked = late.length ? late : open
  const sum = asked.reduce((total, i) => total + i.balanceMinor, 0)
  const due = (i: Open[number]) => sayDay(i.dueOn, company.locale, 'withYear')
  const more = asked.length > MOST_LISTED ? [`and ${asked.length - MOST_LISTED} more`] : []
  const shown = asked.slice(0, MOST_LISTED)
  const says = (i: Open[number]) => `${i.number}, due ${due(i)}: ${text(i.balanceMinor)}`
  const about = asked.length === 1 ? `invoice ${asked[0]!.number}` : `${asked.length} open invoices`
  const saying = (list: string[]) =>
    mailText(step === 1 ? 'reminder1' : 'reminder2', company.wording, {
      ...{ name, sum: text(sum), company: company.name },
      list: [...list, ...more].join('\n\n'),
    })
  return {
    step,
    asked: toMoney(sum, company.currency),
    subject: `${company.name}: ${about}`,
    body: saying(shown.map((i) => `${says(i)}\n${publicLink(i)}`)),
    // On paper nobody follows a link.
    letter: saying(shown.map(says)),
  }
}
/** What was said about what they owe, in words. */
function saidPart(ctx: Ctx, notes: Awaited<ReturnType<typeof notesOf>>): Answer<'owing'>['said'] {
  const words = wordsOf(ctx)
  const sumOf = (amount: number | null) =>
    amount === null ? { amount } : toMoney(amount, ctx.company.currency)
  return notes.map((n) => ({
    id: n.id,
    kind: n.kind,
    text: sayNote({ ...n, ...sumOf(n.amount) }, words),
    on: n.notedAt,
    who: n.who ?? '',
  }))
}
/** What a customer owes on a day, with the papers that say so, by the rule of the list beside which it stands. */
async function owedOn(ctx: Ctx, id: string, on: string) {
  const invoices = await invoicesOn(ctx.tx, id, on)
  const [{ credits } = { credits: 0 }] = await owedBy(ctx.tx, [id], on)
  const open = invoices.reduce((sum, i) => sum + i.balanceMinor, 0)
  return { open, credits, invoices: invoices.filter((i) => i.balanceMinor > 0) }
}
export async function owing(ctx: Ctx, id: string, wanted?: string): Promise<Answer<'owing'>> {
  const { tx } = ctx
  const on = wanted || ctx.today
  const c = await customerById(tx, id)
  if (!c) throw notFound('customer')
  const m = (minor: number) => toMoney(minor, ctx.company.currency)
  const open = await openInvoices(tx, id, null, false)
  const habit = paymentHabit((await paidInvoices(tx, [id])).map((p) => p.days))
  const notes = await notesOf(tx, id, on)
  const step = remindersSince(notes, open).length + 1
  const shown = await owedOn(ctx, id, on)
  const { name, phone, email, email2 } = c
  return {
    customerId: id,
    ...{ name, phone, email, email2, mails: takesMail(c) },
    terms: termsInWords(c.terms ?? ctx.company.terms),
    sites: (await siteCount(tx, id))!.n,
    owed: m(shown.open - shown.credits),
    credits: m(shown.credits),
    open: m(shown.open),
    habit: habit ? habitInWords(habit) : 'no habit known yet',
    invoices: shown.invoices.map((i) => ({
      id: i.id,
      number: i.number,
      dueOn: i.dueOn,
      issueOn: i.issueOn,
      late: Math.max(0, daysLate(i.dueOn, on)),
      total: m(i.total),
      open: m(i.balanceMinor),
      work: i.work ?? '',
    })),
    said: saidPart(ctx, notes),
    reminder: reminderOf(ctx, name, step, open),
  }
}
