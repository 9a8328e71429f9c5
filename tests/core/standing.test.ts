// Where things stand: a work order by its visits and its money, an invoice, a quote, a technician's day; and who is worth a call first.
import { describe, expect, it } from 'vitest'
import { fc, test } from '@fast-check/vitest'
import { nowAndNext } from '../../core/dispatch/nowAndNext'
import { worklist, type Debtor } from '../../core/collections/worklist'
import { ageing, BUCKETS, bucketOf, daysLate } from '../../core/collections/ageing'
import { invoiceState } from '../../core/invoices/invoiceState'
import { invoiceLifecycle } from '../../core/invoices/invoiceLifecycle'
import { quoteState } from '../../core/quotes/quoteState'
import { quoteLifecycle, type StoredQuoteState } from '../../core/quotes/quoteLifecycle'
import { whyQuoteWaits } from '../../core/quotes/whyQuoteWaits'
import { isExempt } from '../../core/tax/isExempt'
import { plusDays } from '../../core/time/zone'
import { isUnderWay, visitLifecycle, type VisitState } from '../../core/visits/visitLifecycle'
import {
  wantsVisit,
  WORK_ORDER_STATES,
  workOrderState,
  type WorkOrderFacts,
} from '../../core/visits/workOrderState'

const TODAY = '2026-11-24'
const state = fc.constantFrom(...visitLifecycle.states)
const money = fc.integer({ min: 0, max: 1_000_000 })

describe('a work order', () => {
  const facts = (over: Partial<WorkOrderFacts> = {}): WorkOrderFacts => ({
    cancelled: false,
    closed: false,
    visits: [],
    toBillMinor: 0,
    billedMinor: 0,
    unpaidMinor: 0,
    ...over,
  })
  const visited = (...states: VisitState[]) => states.map((of) => ({ state: of, placed: true }))

  it.each<[string, Partial<WorkOrderFacts>, string]>([
    ['was begun without a visit, and has no price yet', {}, 'to_bill'],
    ['has a visit without a time', { visits: [{ state: 'planned', placed: false }] }, 'needs_slot'],
    ['has a visit with one', { visits: visited('planned') }, 'scheduled'],
    ['is driven to', { visits: visited('driving') }, 'scheduled'],
    ['is worked at', { visits: visited('finished', 'on_site') }, 'on_site'],
    ['is worked at beside a pause', { visits: visited('paused', 'on_site') }, 'on_site'],
    ['is at a pause', { visits: visited('paused', 'planned') }, 'paused'],
    [
      'needs a further visit',
      { visits: [...visited('finished'), { state: 'planned', placed: false }] },
      'needs_slot',
    ],
    ['is finished without a price', { visits: visited('finished') }, 'to_bill'],
    ['is finished and priced', { visits: visited('finished'), toBillMinor: 100 }, 'to_bill'],
    ['is billed', { visits: visited('finished'), billedMinor: 100, unpaidMinor: 100 }, 'billed'],
    [
      'is billed in part',
      { visits: visited('finished'), billedMinor: 100, toBillMinor: 1 },
      'to_bill',
    ],
    ['is paid', { visits: visited('finished'), billedMinor: 100 }, 'closed'],
    ['was sold without a visit', { toBillMinor: 100 }, 'to_bill'],
    ['found nobody at home', { visits: visited('no_access') }, 'needs_slot'],
    ['had its only visit cancelled', { visits: visited('cancelled') }, 'needs_slot'],
    ['became a quote', { visits: visited('finished'), quoted: true }, 'closed'],
    ['was without charge', { visits: visited('finished'), free: true }, 'closed'],
    [
      'was without charge, but something was sold',
      { visits: visited('finished'), free: true, toBillMinor: 5 },
      'to_bill',
    ],
    [
      'was closed with a reason',
      { visits: visited('finished'), toBillMinor: 5, closed: true },
      'closed',
    ],
    ['was cancelled', { visits: visited('planned'), cancelled: true }, 'cancelled'],
    [
      'is done in part, and has a further visit',
      { visits: visited('finished', 'planned'), toBillMinor: 5 },
      'to_bill',
    ],
    [
      'charged the way to a closed door',
      { visits: visited('no_access'), toBillMinor: 5 },
      'to_bill',
    ],
    [
      'is billed but for some minutes',
      { visits: visited('finished'), billedMinor: 100, unpaidMinor: 100, uncoveredSeconds: 720 },
      'to_bill',
    ],
    [
      'is billed and paid but for what was promised and not done',
      { visits: visited('finished'), billedMinor: 100, undone: 1 },
      'to_bill',
    ],
    [
      'was promised more, and somebody goes there again',
      { visits: visited('finished', 'planned'), billedMinor: 100, undone: 1 },
      'scheduled',
    ],
    [
      'became a quote after an hour of looking',
      { visits: visited('finished'), quoted: true, uncoveredSeconds: 3600 },
      'closed',
    ],
  ])('that %s', (_, over, expected) => expect(workOrderState(facts(over))).toBe(expected))

  const any = fc.record({
    cancelled: fc.boolean(),
    closed: fc.boolean(),
    visits: fc.array(fc.record({ state, placed: fc.boolean() }), { maxLength: 4 }),
    toBillMinor: money,
    billedMinor: money,
    unpaidMinor: money,
    quoted: fc.boolean(),
    free: fc.boolean(),
    uncoveredSeconds: fc.integer({ min: 0, max: 7200 }),
  })
  test.prop([any])('is always in one state that has a name', (of) => {
    expect(WORK_ORDER_STATES).toContain(workOrderState(of))
  })
  test.prop([any])('is the same in whatever order its visits are told', (of) => {
    expect(workOrderState({ ...of, visits: of.visits.toReversed() })).toBe(workOrderState(of))
  })
  test.prop([any])('with something to bill is never at rest, unless somebody said so', (of) => {
    fc.pre(of.toBillMinor > 0 && !of.closed && !of.cancelled)
    expect(['closed', 'billed']).not.toContain(workOrderState(of))
  })
  test.prop([any])('that somebody works at is never called anything else', (of) => {
    fc.pre(!of.closed && !of.cancelled && of.visits.some((visit) => visit.state === 'on_site'))
    expect(workOrderState(of)).toBe('on_site')
  })
  test.prop([any])('that needs a slot has a visit without one, or wants one', (of) => {
    const waits = of.visits.some((visit) => visit.state === 'planned' && !visit.placed)
    expect(workOrderState(of) !== 'needs_slot' || waits || wantsVisit(of)).toBe(true)
  })
  it.each<[VisitState[], boolean]>([
    [['finished'], false],
    [['finished', 'no_access'], true],
    [['no_access', 'finished'], false],
    [['no_access', 'cancelled'], true],
    [['finished', 'cancelled'], false],
    [['cancelled'], true],
  ])('visited as %j wants a visit: %s', (states, wants) =>
    expect(wantsVisit(facts({ visits: visited(...states) }))).toBe(wants),
  )
  test.prop([any])('that wants a visit wants no second one once it has it', (of) => {
    const with_ = { ...of, visits: [...of.visits, { state: 'planned' as const, placed: false }] }
    expect(wantsVisit(with_)).toBe(false)
  })
  test.prop([any])('is not changed by a visit that was cancelled', (of) => {
    const with_ = { ...of, visits: [...of.visits, { state: 'cancelled' as const, placed: true }] }
    expect(workOrderState(with_)).toBe(workOrderState(of))
  })
})

describe('an invoice', () => {
  const stored = fc.constantFrom('open' as const, 'void' as const, 'written_off' as const)
  test.prop([stored, money, money, fc.boolean()])(
    'has a state of its lifecycle',
    (kept, open, paid, sent) => {
      expect(invoiceLifecycle.states).toContain(invoiceState({ state: kept, open, paid, sent }))
    },
  )
  test.prop([money, money, fc.boolean()])(
    'is paid exactly when nothing is open',
    (open, paid, sent) => {
      expect(invoiceState({ state: 'open', open, paid, sent }) === 'paid').toBe(open === 0)
    },
  )
  it('that is paid in part is that, sent or not', () => {
    const part = (sent: boolean) => invoiceState({ state: 'open', open: 1, paid: 1, sent })
    expect([part(true), part(false)]).toEqual(['part_paid', 'part_paid'])
  })
})

describe('a quote', () => {
  const stored = fc.constantFrom<StoredQuoteState>('draft', 'sent', 'accepted', 'declined')
  const day = fc.integer({ min: -60, max: 60 }).map((days) => plusDays(TODAY, days))
  test.prop([stored, day])('expires only where it was sent and not answered', (kept, expiresOn) => {
    const now = quoteState({ state: kept, expiresOn }, TODAY)
    expect(quoteLifecycle.states).toContain(now)
    expect(now === 'expired').toBe(kept === 'sent' && expiresOn < TODAY)
  })
  test.prop([stored, day, day, day])(
    'waits for a reason, or for nothing',
    (kept, expiresOn, createdOn, sentOn) => {
      const { text, late } = whyQuoteWaits(
        { state: kept, expiresOn, createdOn, sentOn, openedOn: null },
        TODAY,
      )
      expect(text === '').toBe(kept === 'accepted' || kept === 'declined')
      if (text === '') expect(late).toBe(false)
    },
  )
  it.each([
    ['today', 0, 'the price is held until today, no answer'],
    ['tomorrow', 1, 'the price is held until tomorrow, no answer'],
    ['in three days', 3, 'the price is held for 3 days more, no answer'],
    ['in four days', 4, 'sent 8 days ago, no answer'],
  ])('whose price ends %s says so, and presses', (_, days, text) =>
    expect(
      whyQuoteWaits(
        {
          state: 'sent',
          expiresOn: plusDays(TODAY, days),
          createdOn: '2026-11-01',
          sentOn: '2026-11-16',
          openedOn: null,
        },
        TODAY,
      ),
    ).toEqual({ text, late: true }),
  )
  it('that was sent yesterday does not press yet', () =>
    expect(
      whyQuoteWaits(
        {
          ...{ state: 'sent', expiresOn: '2026-12-24', createdOn: '2026-11-01' },
          ...{ sentOn: '2026-11-23', openedOn: null },
        },
        TODAY,
      ),
    ).toEqual({ text: 'sent yesterday, no answer', late: false }))
})

describe('a technician’s day', () => {
  const at = (hour: number) => `2026-11-24T${String(hour).padStart(2, '0')}:00:00Z`
  const visit = fc.record({
    state,
    arriveAt: fc.option(fc.integer({ min: 0, max: 23 }).map(at)),
  })
  it('is at the visit that is under way, and goes on to the one that is expected first', () => {
    const visits = [
      { state: 'planned' as const, arriveAt: at(16) },
      { state: 'finished' as const, arriveAt: at(8) },
      { state: 'on_site' as const, arriveAt: at(10) },
      { state: 'planned' as const, arriveAt: at(13) },
    ]
    expect(nowAndNext(visits)).toEqual({ now: visits[2], next: visits[3], over: 1, left: 2 })
  })
  it('counts a door that nobody opened as over, and what was cancelled nowhere', () =>
    expect(
      nowAndNext([
        { state: 'no_access', arriveAt: at(8) },
        { state: 'cancelled', arriveAt: at(9) },
      ]),
    ).toEqual({ now: null, next: null, over: 1, left: 0 }))
  test.prop([fc.array(visit, { maxLength: 8 })])('counts each visit once', (visits) => {
    const { now, over, left } = nowAndNext(visits)
    const cancelled = visits.filter((one) => one.state === 'cancelled').length
    const underWay = visits.filter((one) => isUnderWay(one.state)).length
    expect(over + left + underWay + cancelled).toBe(visits.length)
    expect(now !== null).toBe(underWay > 0)
  })
  test.prop([fc.array(visit, { maxLength: 8 })])(
    'goes on to nothing that is expected later than another',
    (visits) => {
      const { next } = nowAndNext(visits)
      const times = visits
        .filter((one) => one.state === 'planned' && one.arriveAt !== null)
        .map((one) => one.arriveAt!)
      expect(next?.arriveAt ?? null).toBe(times.toSorted()[0] ?? null)
    },
  )
})

describe('whom to act on', () => {
  const say = { money: String, day: (date: string) => date }
  const day = fc.integer({ min: -120, max: 60 }).map((days) => plusDays(TODAY, days))
  const debtor: fc.Arbitrary<Debtor> = fc.record({
    customerId: fc.uuid(),
    overdueMinor: money,
    owedMinor: money,
    oldestDueOn: day,
    habit: fc.option(
      fc.record({
        medianDays: fc.integer({ min: -5, max: 60 }),
        spreadDays: fc.integer({ min: 1, max: 20 }),
      }),
    ),
    promise: fc.option(fc.record({ amountMinor: money, on: day, kept: fc.boolean() })),
    promisesKept: fc.nat(5),
    promisesMade: fc.nat(5),
    dispute: fc.option(fc.constantFrom('the pump hums', 'too dear')),
    lastContactOn: fc.option(day),
    way: fc.constantFrom('mail' as const, 'letter' as const, null),
    remindersSent: fc.nat(4),
    lastReminderOn: fc.option(day),
    bounced: fc.option(fc.constantFrom('returned', 'charged_back', 'recalled')),
  })
  const known = (one: Debtor) => ({
    ...one,
    lastReminderOn: one.remindersSent ? (one.lastReminderOn ?? TODAY) : null,
  })
  const debtors = fc.array(debtor.map(known), { maxLength: 12 })
  test.prop([debtors])(
    'names everybody who is late, disputes, had a cheque back or promised what has not come, and nobody else',
    (all) => {
      const promised = (one: Debtor) => one.promise !== null && !one.promise.kept
      const wanted = all.filter(
        (one) => one.overdueMinor > 0 || one.dispute || one.bounced || promised(one),
      )
      const ids = (of: { customerId: string }[]) => of.map((one) => one.customerId).toSorted()
      expect(ids(worklist(all, TODAY, say))).toEqual(ids(wanted))
    },
  )
  test.prop([debtors])('puts what rests last, and the others by what acting brings', (all) => {
    const list = worklist(all, TODAY, say)
    const resting = list.findIndex((one) => one.resting)
    if (resting >= 0) expect(list.slice(resting).every((one) => one.resting)).toBe(true)
    const scores = list.filter((one) => !one.resting).map((one) => one.score)
    expect(scores).toEqual(scores.toSorted((a, b) => b - a))
  })
  test.prop([debtors])('gives each a reason and an act', (all) => {
    for (const one of worklist(all, TODAY, say)) {
      expect(one.reason).not.toBe('')
      expect(one.reason).not.toMatch(/undefined|null|NaN/)
      expect(['call', 'remind', 'letter', 'settle', 'wait']).toContain(one.act)
    }
  })
  test.prop([debtor.map(known)])('never sinks by owing more', (one) => {
    const score = (overdueMinor: number) =>
      worklist([{ ...one, overdueMinor: overdueMinor + 1 }], TODAY, say)[0]!.score
    expect(score(one.overdueMinor + 5000)).toBeGreaterThanOrEqual(score(one.overdueMinor))
  })
})

describe('how late', () => {
  const due = fc.integer({ min: -200, max: 200 }).map((days) => plusDays(TODAY, days))
  const open = fc.array(
    fc.record({ customerId: fc.constantFrom('a', 'b', 'c'), dueOn: due, balanceMinor: money }),
    { maxLength: 20 },
  )
  const credits = fc.array(
    fc.record({ customerId: fc.constantFrom('a', 'b', 'd'), amountMinor: money }),
    { maxLength: 5 },
  )
  test.prop([open, credits])(
    'sums to what is open less credits, to the cent',
    (invoices, given) => {
      const rows = ageing(invoices, given, TODAY)
      const sum = (of: number[]) => of.reduce((all, one) => all + one, 0)
      expect(sum(rows.map((row) => row.owedMinor))).toBe(
        sum(invoices.map((one) => one.balanceMinor)) - sum(given.map((one) => one.amountMinor)),
      )
      for (const row of rows)
        expect(sum(BUCKETS.map((bucket) => row[bucket])) - row.creditsMinor).toBe(row.owedMinor)
    },
  )
  it.each([
    [-1, 'current'],
    [0, 'current'],
    [1, 'd1_30'],
    [30, 'd1_30'],
    [31, 'd31_60'],
    [60, 'd31_60'],
    [61, 'd61_90'],
    [90, 'd61_90'],
    [91, 'over90'],
  ] as const)('%i days is %s', (late, bucket) => expect(bucketOf(late)).toBe(bucket))
  test.prop([due])('is counted both ways alike', (dueOn) => {
    expect(daysLate(dueOn, TODAY)).toBe(-daysLate(TODAY, dueOn) || 0)
  })
})

describe('who pays no tax', () => {
  it.each([
    [{ taxExempt: false, exemptUntil: null }, false],
    [{ taxExempt: false, exemptUntil: '2027-01-01' }, false],
    [{ taxExempt: true, exemptUntil: null }, true],
    [{ taxExempt: true, exemptUntil: '2026-11-23' }, false],
    [{ taxExempt: true, exemptUntil: TODAY }, true],
    [{ taxExempt: true, exemptUntil: '2026-11-25' }, true],
  ])('%j: %s', (who, exempt) => expect(isExempt(who, TODAY)).toBe(exempt))
})
