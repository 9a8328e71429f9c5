// Grows the demo company through the app's own services, event by event in order of time, so that its books balance by construction.
import sharp from 'sharp'
import { visitFacts } from '../server/visits/facts'
import { plusDays, localToInstant, localDate, weekday } from '../core/time/zone'
import { DAY, HOUR, MINUTE } from '../core/time/units'
import type { Ctx, Actor } from '../server/http/context'
import type { Tx } from '../server/db/pool'
import { getCompany } from '../server/settings/queries'
import { bookCall } from '../server/calls/commands'
import { insertNote } from '../server/collections/queries'
import { answerQuote, sendQuote } from '../server/quotes/commands'
import { makeInvoice } from '../server/invoices/make'
import { bookPayment } from '../server/payments/booking'
import { takeBack } from '../server/payments/commands'
import { giveTask } from '../server/tasks/commands'
import { refreshWorkOrder } from '../server/visits/account'
import { putLines } from '../server/visits/lines'
import { keepSigned } from '../server/visits/evidence'
import { setVisitState } from '../server/visits/visits.queries'
import { startClock, stopClock } from '../server/visits/clock.queries'
import { workOrderById } from '../server/visits/queries'
import { quoteById } from '../server/quotes/queries'
import { keepCall, markCall } from '../server/calls/queries'
import { sqlInstant } from '../server/db/pool'
import { record } from '../server/http/queries'
import { insertCompany, type DemoPerson } from './company'
import { insertCustomers, type DemoCustomer } from './customers'
import { insertPriceBook, type DemoEntry } from './priceBook'
import { chance } from './random'
import { beginQuote } from '../server/quotes/begin'
import {
  agreeToTexts,
  deliverAll,
  giveOwnPrices,
  insertTimesOff,
  invoiceMade,
  keepAtHand,
  linesCounted,
  linesDone,
} from './queries'

/** A hand, as customers sign in the demo. */
const HAND = await sharp(
  Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="220" height="70" fill="none" stroke="#16241f"
    stroke-width="2.5" stroke-linecap="round"><path d="M12 48c10-34 26-40 24-12s-16 22-4 8 22-24 26-8-8 22
    6 8 18-22 22-6 4 12 12-2 14-20 18-2-2 16 10 4 20-22 26-4-6 18 8 4 26-18 44-10"/></svg>`),
)
  .png()
  .toBuffer()
const PROBLEMS: [string, string, RegExp][] = [
  [
    'Pump not starting',
    'No water since this morning. Breaker trips when the pump starts.',
    /Replace control box|Find electrical fault/,
  ],
  [
    'Pump short cycling',
    'Pump starts every minute, tank sweats.',
    /Replace pressure tank|Recharge tank/,
  ],
  [
    'Softener bypassing',
    'Water is hard again, salt does not go down.',
    /Service softener|Rebed softener/,
  ],
  ['UV lamp change', 'Yearly lamp change is due.', /Change UV lamp/],
  [
    'Low pressure',
    'Pressure drops when two taps run.',
    /Replace pressure switch|Replace check valve/,
  ],
  ['Water test', 'Wants the water tested before the sale.', /Water test/],
  ['Iron filter leak', 'Puddle beneath the iron filter.', /Rebed iron filter|Replace relief valve/],
  [
    'Well cap and test',
    'Cap is cracked, insects in the water.',
    /Replace well cap|Shock-chlorinate/,
  ],
  ['RO membrane', 'Kitchen tap tastes flat.', /Change RO membrane|Change filter cartridges/],
  ['Foot valve', 'Loses prime over night.', /Replace foot valve/],
  ['No water', 'No water in the whole house.', /Replace submersible pump|Replace pump motor/],
]
/** Tasks whose hours in the book are not what they take any more. */
const DRIFT: [RegExp, number][] = [
  [/Change UV lamp/, 0.7],
  [/Replace control box|Find electrical fault/, 1.3],
  [/Service softener/, 1.35],
]
type Event = { at: number; run: (ctx: Ctx) => Promise<void> }

export async function generate(
  tx: Tx,
  options: { day: string; at: number; seed: number; customers?: number },
): Promise<void> {
  const { day, seed } = options
  const random = chance(seed)
  const zone = 'America/New_York'
  const start = localToInstant(plusDays(day, -140), '08:00', zone)
  const people = await insertCompany(tx, random, day, seed, start)
  const book = await insertPriceBook(tx, random, start)
  const { customers } = await insertCustomers(tx, random, start, options.customers ?? 140)
  // Some have agreed to texts; nobody is texted who has not.
  for (const c of customers.filter((_, i) => i % 3 === 1 && i > 14)) await agreeToTexts(tx, c.id)
  // One pays rates of their own; a technician keeps at hand what she uses.
  const code = (c: string) => book.find((e) => e.code === c)!.id
  await giveOwnPrices(tx, 'Broadmere Hospitality', {
    [code('L-STD')]: '118',
    [code('C-DIA')]: '80',
  })
  await keepAtHand(
    tx,
    ['Replace relief valve ¾ in, 100 psi', 'Change filter cartridges 10 in, sediment'].map((n) => [
      people.find((p) => p.email === 'ines@demo.test')!.id,
      book.find((e) => e.name === n)!.id,
    ]),
  )
  const company = (await getCompany(tx))!
  const actor = (p: DemoPerson): Actor => ({
    id: p.id,
    name: p.name,
    email: p.email,
    role: p.role as Actor['role'],
    ownRole: null,
    bookable: p.bookable,
    seesCost: true,
    lacksSecondStep: false,
    grants: {},
  })
  const office = people.find((p) => p.role === 'office')!
  const books = people.find((p) => p.role === 'books')!
  const prospects = new Set(customers.filter((c) => c.prospect).map((c) => c.id))
  const regular = customers.filter((c) => !prospects.has(c.id))
  const technicians = people.filter((p) => p.bookable && !p.skills.includes('apprentice'))
  const now = options.at
  const ctxAt = (at: number, who: DemoPerson): Ctx => ({
    tx: { ...tx, afterCommit: () => {} },
    now: at,
    today: localDate(at, zone),
    actor: actor(who),
    ip: '127.0.0.1',
    company,
    id: () => random.uuid(at),
  })
  const events: Event[] = []
  const push = (at: number, run: Event['run']) => events.push({ at, run })
  const inDays = (from: number, days: number, time: string) =>
    localToInstant(plusDays(localDate(from, zone), days), time, zone)

  const plan = { random, zone, book, office, books, push, inDays, ctxAt, now, day }
  // Eight weeks of history.
  for (let back = 56; back >= 1; back--) {
    const date = plusDays(day, -back)
    if (weekday(date) > 5) continue
    for (const t of technicians) {
      let minute = 8 * 60 + random.between(0, 30)
      for (let n = random.between(1, 3); n > 0; n--) {
        const what = wanted(plan)
        const length = lengthOf(what)
        if (minute + length > 17 * 60) break
        oneVisit(
          plan,
          t,
          random.maybe(0.3) ? random.pick(regular.slice(0, 13)) : random.pick(regular),
          date,
          minute,
          length,
          back,
          what,
        )
        minute += length + random.between(25, 55)
      }
    }
  }
  // A few old ones that were never paid, and one customer who paid too much.
  for (const [name, back] of [
    ['Mill Row flats', 95],
    ['Crossways Estate', 104],
    ['Marrow & Son, joiners', 118],
    ['Wren Cottages', 84],
  ] as const)
    oneVisit(
      plan,
      technicians[back % 5]!,
      customers.find((c) => c.name === name)!,
      plusDays(day, -back),
      600,
      60,
      back,
      wanted(plan, undefined, 60),
      true,
    )
  const generous = inDays(now, -9, '11:00')
  push(generous, async () => {
    const ctx = ctxAt(generous, books)
    await bookPayment(ctx, {
      id: ctx.id(),
      customerId: customers[99]!.id,
      method: 'transfer',
      reference: 'no reference',
      amountMinor: 240_000,
      receivedOn: ctx.today,
      invoiceIds: [],
      receiptTo: [],
      mayLeaveCredit: true,
    })
  })
  today(plan, technicians, customers)
  // Two weeks ahead, thinning out.
  for (let ahead = 1; ahead <= 14; ahead++) {
    const date = plusDays(day, ahead)
    if (weekday(date) > 5) continue
    for (const t of technicians) {
      let minute = 8 * 60 + 30
      for (let n = ahead < 4 ? random.between(1, 3) : random.between(0, 1); n > 0; n--) {
        const what = wanted(plan)
        const length = lengthOf(what)
        if (minute + length > 17 * 60) break
        booking(
          plan,
          t,
          random.pick(regular),
          date,
          minute,
          length,
          now - random.between(1, 90) * HOUR,
          what,
        )
        minute += Math.max(150, Math.ceil((length + 45) / 30) * 30)
      }
    }
  }
  waiting(plan, customers)
  quotes(plan, customers)
  ended(plan)
  await insertTimesOff(tx, [
    [
      random.uuid(now),
      people.find((p) => p.email === 'gwil@demo.test')!.id,
      sqlInstant(localToInstant(day, '00:00', zone)),
      sqlInstant(localToInstant(plusDays(day, 1), '00:00', zone)),
      'college day',
    ],
    [
      random.uuid(now),
      technicians[2]!.id,
      sqlInstant(localToInstant(plusDays(day, 3), '12:00', zone)),
      sqlInstant(localToInstant(plusDays(day, 3), '18:00', zone)),
      'dentist',
    ],
  ])
  // Events may add events, always later than themselves.
  while (events.length) {
    events.sort((a, b) => b.at - a.at)
    const batch: Event[] = []
    const until = events.at(-1)!.at
    while (events.length && events.at(-1)!.at === until) batch.push(events.pop()!)
    for (const event of batch) if (event.at <= now) await event.run(ctxAt(event.at, office))
  }
  await deliverAll(tx)
  // What somebody still has to do about somebody: one is late, one is for the books.
  const tasks = [
    ['Ask for the key of the pump house', office.id, -1],
    ['Send the certificate of the last water test', office.id, 2],
    ['Ask which of the two addresses is billed', books.id, 5],
  ] as const
  for (const [i, [what, ownerId, days]] of tasks.entries()) {
    const subjectId = customers[4 + i]!.id
    const on = plusDays(day, days)
    const about = 'customer'
    await giveTask(ctxAt(now - 3 * DAY, office), {
      ...{ id: random.uuid(now), about, subjectId, what, ownerId, on },
    })
  }
}

interface Plan {
  random: ReturnType<typeof chance>
  zone: string
  book: DemoEntry[]
  office: DemoPerson
  books: DemoPerson
  push: (at: number, run: Event['run']) => void
  inDays: (from: number, days: number, time: string) => number
  ctxAt: (at: number, who: DemoPerson) => Ctx
  now: number
  day: string
}
const clockText = (minute: number) =>
  `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`

interface Wanted {
  title: string
  problem: string
  entry: DemoEntry
}
/** Something that somebody wants done, and the task that it turns out to be; one that fits into so many minutes, where there is one. */
function wanted(p: Plan, about?: string, minutes = Infinity): Wanted {
  const [title, problem, pattern] = about
    ? PROBLEMS.find((x) => x[0] === about)!
    : p.random.pick(PROBLEMS)
  const all = p.book.filter(
    (e) => e.kind === 'task' && pattern.test(e.name) && Number(e.price) < 1600,
  )
  const fitting = all.filter((e) => e.seconds <= minutes * 60)
  return { title, problem, entry: p.random.pick(fitting.length ? fitting : all) }
}
/** A visit as long as its task, in quarters of an hour. */
const lengthOf = ({ entry }: Wanted) => Math.max(45, Math.ceil(entry.seconds / 900) * 15)
function kindOf(title: string): string {
  if (title === 'No water') return 'no_water'
  if (title === 'Water test') return 'water_test'
  return /membrane|lamp/.test(title) ? 'service' : 'repair'
}
/** What a payment is known by: a cheque by its number, a card by the terminal's. */
function referenceOf(random: Plan['random'], method: string): string {
  if (method === 'cheque') return String(random.between(1001, 1999))
  return method === 'card' ? `T${random.between(100000, 999999)}` : ''
}
const CAME_BY = { finished: 'finish', driving: 'set_off', on_site: 'arrive' } as const
function booking(
  p: Plan,
  technician: DemoPerson | null,
  customer: DemoCustomer,
  date: string,
  minute: number | null,
  length: number,
  at: number,
  { title, problem, entry }: Wanted,
): { workOrderId: string; visitId: string; entry: DemoEntry } {
  const ids = {
    workOrderId: p.random.uuid(at),
    visitId: p.random.uuid(at),
    call: p.random.uuid(at),
  }
  const siteId = p.random.pick(customer.siteIds)
  const from = minute === null ? null : Math.max(7 * 60, Math.floor((minute - 15) / 60) * 60)
  const withPrice = p.random.maybe(0.7)
  p.push(
    at,
    async (ctx) =>
      void (await bookCall(ctx, ids.call, {
        workOrderId: ids.workOrderId,
        visitId: ids.visitId,
        customerId: customer.id,
        siteId,
        speaking: '',
        phone: customer.phone,
        title,
        problem,
        kind: kindOf(title),
        contactId: null,
        equipmentId: null,
        suppliedLineId: null,
        answers: [],
        reason: customer.name.startsWith('Marrow') ? 'the owner agreed' : '',
        source: '',
        orderNumber: customer.name === 'Broadmere Hospitality' ? '77-310' : '',
        entries: withPrice ? [{ entryId: entry.id, quantity: '1' }] : [],
        leftOut: [],
        technicianId: technician?.id ?? null,
        date,
        start: minute === null ? null : clockText(minute),
        durationSeconds: length * 60,
        promiseFrom: from === null ? null : clockText(from),
        promiseTo: from === null ? null : clockText(from + 120),
        override: true,
        moves: [],
      })),
  )
  return { ...ids, entry }
}

async function clockIn(
  ctx: Ctx,
  personId: string,
  visitId: string,
  kind: 'drive' | 'on_site',
  from: number,
  to: number | null,
): Promise<void> {
  const id = ctx.id()
  await startClock(ctx.tx, { id, personId, visitId, kind, at: from })
  if (to !== null) await stopClock(ctx.tx, id, to)
}

/** What the technician does on site: marks what was promised as done, adds what came up, has it signed. */
async function work(
  p: Plan,
  ctx: Ctx,
  ids: { workOrderId: string; visitId: string; entry: DemoEntry },
  technician: DemoPerson,
  finished: boolean,
): Promise<void> {
  const order = (await workOrderById(ctx.tx, ids.workOrderId))!
  await linesDone(ctx.tx, ids.workOrderId, ids.visitId)
  const promised = await linesCounted(ctx.tx, ids.workOrderId)
  const extras = [
    ...(promised ? [] : [{ entry: ids.entry, quantity: '1' }]),
    ...(p.random.maybe(0.45)
      ? [
          {
            entry: p.random.pick(p.book.filter((e) => e.kind === 'part' && Number(e.price) < 120)),
            quantity: String(p.random.between(1, 3)),
          },
        ]
      : []),
    ...(p.random.maybe(0.2)
      ? [{ entry: p.book.find((e) => e.code === 'C-DIA')!, quantity: '1' }]
      : []),
  ]
  await putLines(
    ctx,
    { work: order, visitId: ids.visitId },
    extras.map((e) => ({
      id: ctx.id(),
      entryId: e.entry.id,
      quantity: e.quantity,
      kind: 'other' as const,
      done: true,
      name: undefined,
      unitPrice: undefined,
    })),
  )
  if (finished && p.random.maybe(0.8)) {
    await keepSigned(ctx, order, {
      ...{ id: ctx.id(), visitId: ids.visitId, company: '', role: '', image: HAND },
      name: order.contact.name || order.details.name || 'The customer',
      purpose: 'after',
    })
  }
}

/** What the office said of minutes that a flat rate does not cover, before the last days. */
const WITHIN_THE_PRICE = { seconds: 24 * 3600, reason: 'Within the flat rate' }
function oneVisit(
  p: Plan,
  technician: DemoPerson,
  customer: DemoCustomer,
  date: string,
  minute: number,
  length: number,
  back: number,
  what: Wanted,
  never = false,
): void {
  const startAt = localToInstant(date, clockText(minute), p.zone)
  const ids = booking(
    p,
    technician,
    customer,
    date,
    minute,
    length,
    p.inDays(
      startAt,
      -p.random.between(1, 4),
      `${p.random.pick(['08', '09', '11', '14', '15'])}:${p.random.between(10, 55)}`,
    ),
    what,
  )
  const arrive = startAt + p.random.between(-5, 20) * MINUTE
  const stay =
    Math.round(
      (ids.entry.seconds *
        (0.82 + p.random.next() * 0.36) *
        (DRIFT.find(([pattern]) => pattern.test(ids.entry.name))?.[1] ?? 1)) /
        60,
    ) * MINUTE
  const end = arrive + Math.min(stay, (length + 20) * MINUTE)
  p.push(end, async () => {
    const ctx = p.ctxAt(end, technician)
    await clockIn(
      ctx,
      technician.id,
      ids.visitId,
      'drive',
      arrive - p.random.between(12, 24) * MINUTE,
      arrive,
    )
    await clockIn(ctx, technician.id, ids.visitId, 'on_site', arrive, end)
    await setVisitState(ctx.tx, ids.visitId, 'finished', {
      startedAt: arrive,
      finishedAt: end,
    })
    await work(p, ctx, ids, technician, true)
    await refreshWorkOrder(ctx, ids.workOrderId)
    await record(ctx, {
      subject: 'visit',
      id: ids.visitId,
      workOrderId: ids.workOrderId,
      customerId: customer.id,
      fact: visitFacts.clocked({ act: 'finish', state: { from: 'on_site', to: 'finished' } }),
    })
  })
  // A few are forgotten: that is what the run is there to show.
  if (!never && (back < 6 ? p.random.maybe(0.25) : p.random.maybe(0.012))) return
  const billAt = end + p.random.between(1, 5) * MINUTE
  const invoiceId = p.random.uuid(billAt)
  p.push(billAt, async () => {
    const ctx = p.ctxAt(billAt, technician)
    await makeInvoice(ctx, ids.workOrderId, {
      id: invoiceId,
      dueOn: null,
      to: [customer.email].filter(Boolean),
      subject: '',
      body: '',
      shownTotal: '',
      leftOut: back < 3 ? null : WITHIN_THE_PRICE,
      beyond: '',
      findingsOf: [],
      billing: null,
    })
    const atDoor = p.random.maybe(0.4) && customer.lateness < 5
    const invoice = await invoiceMade(ctx.tx, invoiceId)
    const paidAt = atDoor
      ? billAt + MINUTE
      : p.inDays(
          localToInstant(invoice.due, '09:00', p.zone),
          customer.lateness + p.random.between(-3, 3),
          '09:30',
        )
    const method = atDoor
      ? p.random.pick(['cash', 'cheque', 'card'] as const)
      : p.random.pick(['cheque', 'transfer', 'card'] as const)
    const part = !atDoor && p.random.maybe(0.05)
    if (never || p.random.maybe(0.035)) return
    const when = Math.max(paidAt, billAt + MINUTE)
    p.push(when, async () => {
      const payCtx = p.ctxAt(when, atDoor ? technician : p.books)
      const id = payCtx.id()
      await bookPayment(payCtx, {
        id,
        customerId: customer.id,
        method,
        reference: referenceOf(p.random, method),
        amountMinor: part ? Math.round(invoice.open / 200) * 100 || invoice.open : invoice.open,
        receivedOn: payCtx.today,
        invoiceIds: [invoiceId],
        receiptTo: [],
        mayLeaveCredit: true,
      })
      if (customer.name === 'T. Oduya' && method === 'cheque') {
        const back2 = p.inDays(when, 4, '10:00')
        p.push(
          back2,
          async () =>
            void (await takeBack(p.ctxAt(back2, p.books), id, {
              why: 'returned',
              reason: 'not enough money in the account',
            })),
        )
      }
    })
    // Reminders and what was said about the late ones.
    if (customer.lateness > 12) {
      const remindAt = p.inDays(localToInstant(invoice.due, '09:00', p.zone), 7, '10:00')
      p.push(remindAt, async () => {
        const c = p.ctxAt(remindAt, p.books)
        const { open } = await invoiceMade(c.tx, invoiceId)
        if (open > 0)
          await insertNote(c.tx, {
            id: c.id(),
            customerId: customer.id,
            kind: 'reminder',
            amount: null,
            onDate: null,
            text: `for ${invoice.number}`,
            by: p.books.id,
            at: remindAt,
            on: c.today,
          })
        if (open > 0 && customer.name === 'Crossways Estate')
          await insertNote(c.tx, {
            id: c.id(),
            customerId: customer.id,
            kind: 'promise',
            amount: 200_000,
            onDate: plusDays(c.today, 4),
            text: '“Will send two thousand Friday, the rest after the fair”',
            by: p.books.id,
            at: remindAt + 1000,
            on: c.today,
          })
        if (open > 0 && customer.name === 'Mill Row flats')
          await insertNote(c.tx, {
            id: c.id(),
            customerId: customer.id,
            kind: 'dispute',
            amount: null,
            onDate: null,
            text: 'was not let in on the second visit',
            by: p.books.id,
            at: remindAt + 1000,
            on: c.today,
          })
      })
    }
  })
}

/** The live day: finished, on site, driving, planned, late, around now. */
function today(p: Plan, technicians: DemoPerson[], customers: DemoCustomer[]): void {
  const named = (name: string) => customers.find((c) => c.name === name)!
  const nowMinute = Math.round((p.now - localToInstant(p.day, '00:00', p.zone)) / MINUTE)
  // The day is told for 10:21 and shifted, so that there is always a live one, within the working hours.
  const shift = Math.max(-75, Math.min(300, nowMinute - 621))
  const at = (minute: number) => minute + Math.round(shift / 15) * 15
  type Stop = [
    who: number,
    customer: string,
    minute: number,
    length: number,
    state: 'finished' | 'on_site' | 'driving' | 'planned',
    about: string,
  ]
  const stops: Stop[] = [
    [0, 'Lowfold Farm', 455, 80, 'finished', 'Low pressure'],
    [0, 'Tarn View School', 565, 105, 'on_site', 'Pump not starting'],
    [0, 'Wren Cottages', 710, 70, 'planned', 'Well cap and test'],
    [0, 'Broadmere Hospitality', 825, 100, 'planned', 'Pump short cycling'],
    [1, 'Peregrine Cottages', 480, 70, 'finished', 'UV lamp change'],
    [1, 'Hallam Dairy', 590, 110, 'on_site', 'Softener bypassing'],
    [1, 'Peel & Daughters', 640, 85, 'planned', 'Iron filter leak'],
    [1, 'Lowfold Farm', 810, 60, 'planned', 'RO membrane'],
    [2, 'Fenn Orchard', 435, 75, 'finished', 'Foot valve'],
    [2, 'Crossways Estate', 630, 180, 'driving', 'No water'],
    [2, 'Mill Row flats', 840, 60, 'planned', 'Low pressure'],
    [3, 'T. Oduya', 490, 65, 'finished', 'Water test'],
    [3, 'Tarn View School', 580, 80, 'on_site', 'RO membrane'],
    [3, 'Wren Cottages', 665, 55, 'planned', 'UV lamp change'],
    [4, 'Mill Row flats', 485, 90, 'finished', 'Pump short cycling'],
    [4, 'Peregrine Cottages', 545, 75, 'planned', 'Low pressure'],
    [4, 'Hallam Dairy', 705, 70, 'planned', 'No water'],
    [4, 'Broadmere Hospitality', 810, 90, 'planned', 'Pump not starting'],
  ]
  for (const [who, customer, told, length, state, about] of stops) {
    const technician = technicians[who]!
    const minute = at(told)
    const startAt = localToInstant(p.day, clockText(Math.max(0, Math.min(minute, 1380))), p.zone)
    const ids = booking(
      p,
      technician,
      named(customer),
      p.day,
      minute,
      length,
      p.inDays(
        p.now,
        -p.random.between(1, 3),
        `${p.random.pick(['08', '09', '11', '14', '15'])}:${p.random.between(10, 55)}`,
      ),
      wanted(p, about, length),
    )
    const begun = Math.min(startAt + 4 * MINUTE, p.now - 12 * MINUTE)
    if (state === 'planned') continue
    const end =
      state === 'finished'
        ? Math.min(startAt + length * MINUTE, p.now - MINUTE * (70 - who * 9))
        : p.now
    p.push(end, async () => {
      const ctx = p.ctxAt(end, technician)
      if (state === 'driving') {
        await clockIn(ctx, technician.id, ids.visitId, 'drive', p.now - 9 * MINUTE, null)
        await setVisitState(ctx.tx, ids.visitId, 'driving')
      } else {
        const from = state === 'finished' ? Math.min(begun, end - 30 * MINUTE) : begun
        await clockIn(ctx, technician.id, ids.visitId, 'drive', from - 17 * MINUTE, from)
        await clockIn(
          ctx,
          technician.id,
          ids.visitId,
          'on_site',
          from,
          state === 'finished' ? end : null,
        )
        await setVisitState(ctx.tx, ids.visitId, state, {
          startedAt: from,
          finishedAt: state === 'finished' ? end : null,
        })
        if (state === 'finished') await work(p, ctx, ids, technician, who !== 3)
      }
      await refreshWorkOrder(ctx, ids.workOrderId)
      await record(ctx, {
        subject: 'visit',
        id: ids.visitId,
        workOrderId: ids.workOrderId,
        customerId: named(customer).id,
        fact: visitFacts.clocked({ act: CAME_BY[state], state: { to: state } }),
      })
    })
  }
}

/** Quotes in every state: a draft, one that nobody has answered, one that is held for two days more, a yes, a no. */
function quotes(p: Plan, customers: DemoCustomer[]): void {
  const entry = (pattern: RegExp) => p.book.filter((e) => e.kind === 'task' && pattern.test(e.name))
  const stories: [
    customer: DemoCustomer,
    title: string,
    scope: string,
    pattern: RegExp,
    days: number,
    sent: number | null,
    answer: [number, boolean, string] | null,
  ][] = [
    [
      customers[40]!,
      'Softener for a family of five',
      'Water is 18 grains hard. Softener beside the tank, drain to the sump.',
      /softener/i,
      2,
      null,
      null,
    ],
    [
      customers.find((c) => c.name === 'Fenn Orchard')!,
      'Iron filter for the packing shed',
      'Iron stains the crates. Filter before the wash line.',
      /iron filter/i,
      13,
      12,
      null,
    ],
    [
      customers.find((c) => c.name === 'Broadmere Hospitality')!,
      'New pump for the lower well',
      'The old pump is loud and draws too much. Same depth.',
      /Replace submersible pump/i,
      28,
      28,
      null,
    ],
    [
      customers.find((c) => c.name === 'Tarn View School')!,
      'UV lamp for the kitchen',
      'The inspector asked for it.',
      /UV lamp/i,
      20,
      19,
      [11, true, 'Mr Aske rang: go ahead in the holidays'],
    ],
    [
      customers[25]!,
      'Reverse osmosis under the sink',
      'Kitchen tap tastes flat.',
      /RO membrane/i,
      33,
      32,
      [20, false, 'bought a jug filter'],
    ],
  ]
  for (const [customer, title, scope, pattern, days, sent, answer] of stories) {
    const id = p.random.uuid(p.now)
    const begun = p.inDays(p.now, -days, '10:05')
    const entries = entry(pattern).slice(0, 2)
    p.push(
      begun,
      async (ctx) =>
        void (await beginQuote(ctx, {
          id,
          customerId: customer.id,
          siteId: customer.siteIds[0]!,
          workOrderId: null,
          callId: null,
          speaking: '',
          phone: customer.phone,
          title,
          scope,
          orderNumber: '',
          source: '',
          equipmentId: null,
          suppliedLineId: null,
          answers: [],
          lines: entries.map((e) => ({
            id: ctx.id(),
            entryId: e.id,
            kind: 'task',
            name: undefined,
            quantity: '1',
            unitPrice: undefined,
          })),
        })),
    )
    if (sent === null) continue
    const sentAt = p.inDays(p.now, -sent, '16:40')
    p.push(
      sentAt,
      async (ctx) =>
        void (await sendQuote(ctx, id, {
          version: (await quoteById(ctx.tx, id))!.version,
          to: [customer.email].filter(Boolean),
          subject: '',
          body: '',
        })),
    )
    if (!answer) continue
    const answeredAt = p.inDays(p.now, -answer[0], '09:15')
    p.push(
      answeredAt,
      async (ctx) =>
        void (await answerQuote(ctx, id, {
          version: (await quoteById(ctx.tx, id))!.version,
          accepted: answer[1],
          words: answer[2],
          workOrderId: ctx.id(),
          visitId: ctx.id(),
        })),
    )
  }
}

/** Calls and work orders that wait: no slot yet, half-filled, to be rung back. */
function waiting(p: Plan, customers: DemoCustomer[]): void {
  const named = (name: string) => customers.find((c) => c.name === name)!
  booking(
    p,
    null,
    named('Hallam Dairy'),
    p.day,
    null,
    120,
    p.now - 22 * MINUTE,
    wanted(p, 'No water', 120),
  )
  booking(
    p,
    null,
    named('Fenn Orchard'),
    plusDays(p.day, 1),
    null,
    90,
    p.now - 200 * MINUTE,
    wanted(p, 'Softener bypassing', 90),
  )
  booking(
    p,
    null,
    named('Peregrine Cottages'),
    plusDays(p.day, 6),
    null,
    45,
    p.now - 26 * HOUR,
    wanted(p, 'UV lamp change', 45),
  )
  booking(
    p,
    null,
    customers[30]!,
    plusDays(p.day, 2),
    null,
    60,
    p.now - 30 * HOUR,
    wanted(p, 'Water test', 60),
  )
  const call = (
    minutes: number,
    summary: string,
    draft: object,
    back?: [number, string],
    origin: 'telephone' | 'form' = 'telephone',
  ) => {
    const id = p.random.uuid(p.now)
    const at = p.now - minutes * MINUTE
    p.push(at, async (ctx) => {
      await keepCall(ctx.tx, {
        id,
        draft,
        summary,
        origin,
        by: origin === 'form' ? null : p.office.id,
        at,
      })
      if (back)
        await markCall(ctx.tx, id, 'put_off', {
          reason: back[1],
          callBackOn: plusDays(p.day, back[0]),
        })
    })
  }
  call(6, 'E. Marrow, smell in the water', {
    query: 'marrow',
    problem: 'Water smells of eggs since Sunday',
  })
  call(
    41,
    'Greta Sorley, brown water',
    {
      query: 'Greta Sorley',
      isNew: true,
      name: 'Greta Sorley',
      speaking: 'Greta Sorley',
      phone: '(607) 555-0192',
      email: 'sorley@example.com',
      line1: '11 Sedge Avenue',
      town: 'High Tarn',
      postcode: '04118',
      problem: 'Brown water after the storm.\nWished for: Thursday afternoon',
      source: 'web page',
    },
    undefined,
    'form',
  )
  call(18, 'Someone on Sluice Street', { query: 'sluice', problem: '' })
  call(
    1500,
    `${customers[40]!.name}, new softener`,
    {
      query: customers[40]!.name,
      customerId: customers[40]!.id,
      siteId: customers[40]!.siteIds[0],
      problem: 'Wants a price for a softener',
    },
    [0, 'asks her husband first'],
  )
  call(
    3000,
    `${customers[52]!.name}, tank`,
    {
      query: customers[52]!.name,
      customerId: customers[52]!.id,
      siteId: customers[52]!.siteIds[0],
      problem: 'Tank replacement',
    },
    [-1, 'waits for the insurance'],
  )
}
/** Calls of the last weeks that came to no work: how long ago, about what, and how they ended. */
const ENDED_CALLS = [
  [2, 'bill', 'Asks why the drive is charged twice', 'answered', 'two visits; explained'],
  [3, 'price', 'What a new pressure tank costs', 'answered', 'told the range, wants to think'],
  [6, 'new_work', 'Pool pump in Stanfield', 'declined', 'too far for us'],
  [8, 'running_work', 'When the pump comes that was ordered', 'answered', 'Thursday'],
  [11, 'complaint', 'Tyre marks on the lawn', 'answered', 'we come and rake it'],
  [15, 'price', 'What a water test costs', 'answered', 'told the price'],
  [19, 'new_work', 'Septic tank to be emptied', 'declined', 'not our trade'],
  [24, 'bill', 'Wants the invoice once more', 'answered', 'sent again'],
] as const
/** With a chance of their own: nothing else of the demo changes with them. */
function ended(p: Plan): void {
  const own = chance(ENDED_CALLS.length)
  for (const [days, about, summary, state, reason] of ENDED_CALLS) {
    const id = own.uuid(p.now)
    const at = p.now - days * DAY
    p.push(at, async (ctx) => {
      const draft = { about, problem: summary, source: about === 'new_work' ? 'neighbour' : '' }
      await keepCall(ctx.tx, { id, draft, summary, origin: 'telephone', by: p.office.id, at })
      await markCall(ctx.tx, id, state, { reason })
    })
  }
}
