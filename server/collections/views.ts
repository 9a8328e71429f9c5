// What is unpaid, by whom, and whom to act on first.
import { sayDay } from '../../core/time/sayDay'
import { wordsOf } from '../http/queries'
import { notFound } from '../../core/errors/LedgerError'
import { ageing, daysLate, type BUCKETS } from '../../core/collections/ageing'
import { paymentHabit, type PaymentHabit } from '../../core/collections/paymentHabit'
import { worklist, type Debtor } from '../../core/collections/worklist'
import { plusDays } from '../../core/time/zone'
import { termsInWords } from '../../core/documents/dueDate'
import { toMoney } from '../../core/money/formatMinor'
import { DAY } from '../../core/time/units'
import type { Answer } from '../../shared/api'
import { customerById, customersById } from '../customers/queries'
import { owedBy } from '../customers/owed.queries'
import type { Ctx } from '../http/context'
import { openInvoices } from '../invoices/queries'
import { publicLink } from '../invoices/link'
import type { GivenBack } from '../payments/queries'
import {
  besideOpen,
  moneyIn,
  notesOf,
  notesUntil,
  openOn,
  paidInvoices,
  siteCount,
  type MoneyIn,
  type NoteRow,
} from './queries'
import { sayMoney } from '../../core/money/sayMoney'
import { sayNote } from './facts'

const moneyText =
  ({ company }: Ctx) =>
  (minor: number) =>
    sayMoney(toMoney(minor, company.currency), company.locale)
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
export async function unpaid(ctx: Ctx, wanted?: string): Promise<Answer<'unpaid'>> {
  const on = wanted || ctx.today
  const { tx } = ctx
  const m = (minor: number) => toMoney(minor, ctx.company.currency)
  const open = await openOn(tx, on)
  const beside = await besideOpen(tx, on, ctx.now - SHOWN_FOR_MS)
  const rows = ageing(open, beside.credits, on)
  const customers = new Map(
    (
      await customersById(
        tx,
        rows.map((r) => r.customerId),
      )
    ).map((c) => [c.id, c]),
  )
  const owing = rows.filter((x) => x.owedMinor > 0)
  const ids = owing.map((r) => r.customerId)
  const habits = grouped(await paidInvoices(tx, ids))
  const notes = grouped(await notesUntil(tx, on, ids))
  const firstPromise =
    [...notes.values()]
      .flat()
      .filter((n) => n.kind === 'promise')
      .map((n) => n.notedOn)
      .sort()[0] ?? on
  const money = grouped(await moneyIn(tx, ids, firstPromise, on))
  const debtors: Debtor[] = []
  for (const r of owing) {
    const mine = open.filter((o) => o.customerId === r.customerId && o.balanceMinor > 0)
    const said = notes.get(r.customerId) ?? []
    const came = money.get(r.customerId) ?? []
    const promises = said.filter((n) => n.kind === 'promise')
    const kept = new Map(promises.map((p) => [p.id, cameSince(came, p, on) >= (p.amount ?? 1)]))
    const last = promises.at(-1)
    const dispute = said.filter((n) => n.kind === 'dispute' || n.kind === 'settled').at(-1)
    const reminders = said.filter(
      (n) => n.kind === 'reminder' && n.notedOn >= mine.map((i) => i.dueOn).sort()[0]!,
    )
    debtors.push({
      customerId: r.customerId,
      owedMinor: r.owedMinor,
      overdueMinor: r.d1_30 + r.d31_60 + r.d61_90 + r.over90,
      oldestDueOn: mine.map((i) => i.dueOn).sort()[0] ?? on,
      habit: paymentHabit((habits.get(r.customerId) ?? []).map((h) => h.days)),
      promise: last
        ? { amountMinor: last.amount ?? 0, on: last.onDate!, kept: kept.get(last.id)! }
        : null,
      promisesKept: [...kept.values()].filter(Boolean).length,
      promisesMade: promises.length,
      dispute: dispute?.kind === 'dispute' ? dispute.text : null,
      lastContactOn: said.at(-1)?.notedOn ?? null,
      remindersSent: reminders.length,
      lastReminderOn: reminders.at(-1)?.notedOn ?? null,
      bounced: came.some(
        (p) => p.bouncedOn !== null && p.bouncedOn <= on && p.bouncedOn > plusDays(on, -30),
      ),
    })
  }
  const list = worklist(debtors, on, {
    money: moneyText(ctx),
    day: (date) => sayDay(date, ctx.company.locale),
  })
  const total = (key: (typeof BUCKETS)[number] | 'creditsMinor' | 'owedMinor') =>
    rows.reduce((sum, r) => sum + r[key], 0)
  const buckets = (
    r: Record<(typeof BUCKETS)[number], number> & { creditsMinor: number; owedMinor: number },
  ) => ({
    current: m(r.current),
    d1_30: m(r.d1_30),
    d31_60: m(r.d31_60),
    d61_90: m(r.d61_90),
    over90: m(r.over90),
    credits: m(r.creditsMinor),
    owed: m(r.owedMinor),
  })
  const ledger = beside.ledger[0]!.sum
  return {
    on,
    totals: buckets({
      current: total('current'),
      d1_30: total('d1_30'),
      d31_60: total('d31_60'),
      d61_90: total('d61_90'),
      over90: total('over90'),
      creditsMinor: total('creditsMinor'),
      owedMinor: total('owedMinor'),
    }),
    ledger: m(ledger),
    agrees: ledger === total('owedMinor'),
    resting: list.filter((e) => e.resting).length,
    customers: rows.map((r) => ({
      customerId: r.customerId,
      name: customers.get(r.customerId)?.name ?? '',
      oldestLate: r.oldestLate,
      ...buckets(r),
    })),
    notices: notices(ctx, beside.givenBack),
    worklist: list.map((e) => {
      const c = customers.get(e.customerId)!
      const d = debtors.find((x) => x.customerId === e.customerId)!
      return {
        customerId: e.customerId,
        name: c.name,
        phone: c.phone,
        email: c.email,
        owed: m(d.owedMinor),
        overdue: m(d.overdueMinor),
        late: Math.max(0, e.late),
        reason: e.reason,
        expectedOn: e.expectedOn,
        spreadDays: e.spreadDays,
        act: e.act,
        resting: e.resting,
      }
    }),
  }
}
const SHOWN_FOR_MS = 14 * DAY
/** Card payments that came twice and went back by themselves: the customer may ask. */
function notices(ctx: Ctx, charges: readonly GivenBack[]): Answer<'unpaid'>['notices'] {
  const money = moneyText(ctx)
  const said = ({ number, amount, state, at }: GivenBack): string => {
    const what = `to the card that paid ${number} a second time`
    if (state === 'refunded') return `${money(amount)} went back ${what}`
    // What the terminal does not do by itself, somebody has to: it is said until it is done.
    if (ctx.now - Date.parse(at) > DAY)
      return `${money(amount)} has not gone back ${what}: give it back at the terminal`
    return `${money(amount)} is on its way back ${what}`
  }
  return charges.map((charge) => ({
    id: charge.id,
    invoiceId: charge.invoiceId,
    customerId: charge.customerId,
    name: charge.name,
    at: charge.at,
    done: charge.state === 'refunded',
    text: said(charge),
  }))
}
function habitInWords({ medianDays, spreadDays, of }: PaymentHabit): string {
  const when = `${Math.abs(medianDays)} days ${medianDays >= 0 ? 'after' : 'before'} due`
  return `pays ${when}, ± ${spreadDays}, from ${of} invoices`
}
export async function owing(ctx: Ctx, id: string, wanted?: string): Promise<Answer<'owing'>> {
  const { tx } = ctx
  const on = wanted || ctx.today
  const c = await customerById(tx, id)
  if (!c) throw notFound('customer')
  const m = (minor: number) => toMoney(minor, ctx.company.currency)
  const text = moneyText(ctx)
  const words = wordsOf(ctx)
  const open = await openInvoices(tx, id, null, false)
  const habit = paymentHabit((await paidInvoices(tx, [id])).map((p) => p.days))
  const [{ owed, credits } = { owed: 0, credits: 0 }] = await owedBy(tx, [id], ctx.today)
  const notes = await notesOf(tx, id)
  const step = notes.filter((n) => n.kind === 'reminder').length + 1
  const late = open.filter((i) => i.dueOn < ctx.today)
  const asked = late.length ? late : open
  const sum = asked.reduce((total, i) => total + i.balanceMinor, 0)
  const most = 15
  const list =
    asked
      .slice(0, most)
      .map(
        (i) =>
          `${i.number}, due ${sayDay(i.dueOn, ctx.company.locale, 'withYear')}: ${text(i.balanceMinor)}\n${publicLink(i)}`,
      )
      .join('\n\n') + (asked.length > most ? `\n\nand ${asked.length - most} more` : '')
  const wording = ctx.company.wording[step === 1 ? 'reminder1' : 'reminder2'] ?? '{list}'
  return {
    customerId: id,
    name: c.name,
    phone: c.phone,
    email: c.email,
    email2: c.email2,
    terms: termsInWords(c.terms ?? ctx.company.terms),
    sites: (await siteCount(tx, id))!.n,
    owed: m(owed),
    credits: m(credits),
    open: m(owed + credits),
    habit: habit ? habitInWords(habit) : 'no habit known yet',
    invoices: open.map((i) => ({
      id: i.id,
      number: i.number,
      dueOn: i.dueOn,
      issueOn: i.issueOn,
      late: Math.max(0, daysLate(i.dueOn, on)),
      total: m(i.total),
      open: m(i.balanceMinor),
      work: i.work ?? '',
    })),
    said: notes.map((n) => ({
      id: n.id,
      kind: n.kind,
      text: sayNote({ ...n, ...(n.amount === null ? { amount: null } : m(n.amount)) }, words),
      on: n.notedAt,
      who: n.who ?? '',
    })),
    reminder: {
      step,
      asked: m(sum),
      subject: `${ctx.company.name}: ${asked.length === 1 ? `invoice ${asked[0]!.number}` : `${asked.length} open invoices`}`,
      body: wording
        .replaceAll('{name}', c.name)
        .replaceAll('{sum}', text(sum))
        .replaceAll('{list}', list)
        .replaceAll('{company}', ctx.company.name),
    },
  }
}
