// Where everything waits: the rule itself, thing by thing, and that nothing is without a place, a next act or a reason to rest.
import { whereAgreementStands } from '../../core/waiting/whereAgreementStands'
import { describe, expect, it } from 'vitest'
import { fc, test } from '@fast-check/vitest'
import { missedBefore } from '../../core/waiting/missedBefore'
import {
  isMissed,
  PLACES,
  whereCallStands,
  whereCreditStands,
  whereInvoiceStands,
  whereMessageStands,
  wherePaperStands,
  wherePromiseStands,
  whereTaskStands,
  whereQuoteStands,
  whereVisitStands,
  whereWorkStands,
  whyToBill,
  type At,
  type CallFacts,
  type Standing,
  type VisitFacts,
  type WorkFacts,
} from '../../core/waiting/whereItStands'
import { NEXT_STEPS, visitLifecycle } from '../../core/visits/visitLifecycle'
import { WORK_ORDER_STATES } from '../../core/visits/workOrderState'
import { DAY, HOUR, MINUTE } from '../../core/time/units'

const NOW = Date.parse('2026-11-24T15:21:00Z')
const at: At = {
  today: '2026-11-24',
  now: NOW,
  missedBefore: Date.parse('2026-11-24T05:00:00Z'),
  dateOf: (instant) => new Date(instant).toISOString().slice(0, 10),
  day: (date) => date,
}
const placed = (standing: Standing) => ('place' in standing ? standing.place : null)

describe('what was planned is missed', () => {
  const firm = { today: '2026-11-24', closesAt: '18:00', timeZone: 'America/New_York' }
  it.each([
    ['at noon: what was to be over yesterday', '2026-11-24T17:00Z', '2026-11-24T05:00Z'],
    ['a minute before closing: the same', '2026-11-24T22:59Z', '2026-11-24T05:00Z'],
    ['at the closing hour: what was to be over by then', '2026-11-24T23:00Z', '2026-11-24T23:00Z'],
  ])('%s', (_, now, until) => {
    expect(missedBefore(firm, Date.parse(now))).toBe(Date.parse(until))
  })
  it('an hour later by the sun, where the clocks change', () => {
    const day = { ...firm, today: '2026-11-01', closesAt: '18:00' }
    expect(missedBefore(day, Date.parse('2026-11-01T22:30Z'))).toBe(Date.parse('2026-11-01T04:00Z'))
    expect(missedBefore(day, Date.parse('2026-11-01T23:00Z'))).toBe(Date.parse('2026-11-01T23:00Z'))
  })
  it('only where nobody began it', () => {
    const endsAt = at.missedBefore
    expect([
      isMissed({ state: 'planned', endsAt }, endsAt),
      isMissed({ state: 'planned', endsAt: endsAt + 1 }, endsAt),
      isMissed({ state: 'planned', endsAt: null }, endsAt),
      isMissed({ state: 'driving', endsAt }, endsAt),
    ]).toEqual([true, false, false, false])
  })
})

describe('a call', () => {
  const call = (over: Partial<CallFacts>): CallFacts => ({
    ...{ state: 'open', origin: 'telephone', callBackOn: null, reason: '' },
    ...over,
  })
  it.each<[string, Partial<CallFacts>, Standing]>([
    ['is begun', {}, { place: 'calls', reason: 'not booked yet', next: 'Book it, or say why not' }],
    [
      'came by the form',
      { origin: 'form' },
      { place: 'calls', reason: 'asked on the request form', next: 'Answer it' },
    ],
    [
      'was put off until today',
      { state: 'put_off', callBackOn: '2026-11-24', reason: 'asks' },
      { place: 'calls', reason: 'call back on 2026-11-24: asks', next: 'Call back' },
    ],
    [
      'was put off until tomorrow',
      { state: 'put_off', callBackOn: '2026-11-25', reason: 'asks' },
      { place: 'put_off', reason: 'call back on 2026-11-25: asks', next: 'Call back' },
    ],
    [
      'was put off without a day',
      { state: 'put_off', reason: 'asks' },
      { place: 'calls', reason: 'call back some day: asks', next: 'Call back' },
    ],
    ['was booked', { state: 'booked' }, { through: 'work order' }],
    ['was quoted', { state: 'quoted' }, { through: 'quote' }],
    ['was declined', { state: 'declined', reason: 'too far' }, { rest: 'too far' }],
  ])('that %s', (_, over, stands) => expect(whereCallStands(call(over), at)).toEqual(stands))
})

describe('a visit', () => {
  const visit = (over: Partial<VisitFacts> = {}): VisitFacts => ({
    ...{ state: 'planned', placed: true, startsAt: NOW + HOUR, endsAt: NOW + 2 * HOUR },
    ...{ ended: false, parkedUntil: null, again: null, nextStep: null, note: '' },
    ...over,
  })
  const nowhere = { placed: false, startsAt: null, endsAt: null }
  const yesterday = { startsAt: NOW - DAY, endsAt: NOW - DAY + HOUR }
  it.each<[string, Partial<VisitFacts>, string | null]>([
    ['has its place', {}, 'schedule'],
    ['has none', nowhere, 'tray'],
    ['has none, and is put aside', { ...nowhere, parkedUntil: '2026-11-25' }, 'parked'],
    ['has none, and was put aside until today', { ...nowhere, parkedUntil: '2026-11-24' }, 'tray'],
    ['was not begun yesterday', yesterday, 'tray'],
    ['was not begun, and is put aside', { ...yesterday, parkedUntil: '2026-12-01' }, 'parked'],
    ['is driven to', { state: 'driving' }, 'schedule'],
    ['is driven to since yesterday', { ...yesterday, state: 'driving' }, 'on_site'],
    ['is paused', { state: 'paused' }, 'on_site'],
    ['found nobody', { state: 'no_access' }, null],
    ['is finished', { state: 'finished' }, null],
    ['belongs to work that was cancelled', { ...nowhere, ended: true }, null],
  ])('that %s', (_, over, place) => expect(placed(whereVisitStands(visit(over), at))).toBe(place))
  it.each<[Partial<VisitFacts>, string, string]>([
    [yesterday, 'was not begun on 2026-11-23', 'Find another time'],
    [nowhere, 'not placed yet', 'Find a time'],
    [{ ...nowhere, note: 'a part' }, 'a part', 'Find a time'],
    [{ ...nowhere, again: 'cancelled' }, 'its visit was cancelled', 'Find a time'],
    [
      { ...nowhere, again: 'no_access', nextStep: 'ring', note: 'the dog' },
      'nobody let us in: the dog',
      'Ring them, and find another time',
    ],
    [
      { ...nowhere, again: 'no_access', nextStep: 'give_up' },
      'nobody let us in',
      'Cancel it, or find another time',
    ],
  ])('in the tray says why, and what to do: %#', (over, reason, next) => {
    expect(whereVisitStands(visit(over), at)).toEqual({ place: 'tray', reason, next })
  })
  const instant = fc.option(fc.integer({ min: NOW - 3 * DAY, max: NOW + 3 * DAY }))
  test.prop([
    fc.record({
      state: fc.constantFrom(...visitLifecycle.states),
      placed: fc.boolean(),
      startsAt: instant,
      ended: fc.boolean(),
      parkedUntil: fc.option(fc.constantFrom('2026-11-20', '2026-11-24', '2026-12-01')),
      again: fc.option(fc.constantFrom('no_access' as const, 'cancelled' as const)),
      nextStep: fc.option(fc.constantFrom(...NEXT_STEPS)),
      note: fc.string(),
    }),
  ])('is in a place that there is, with a next act, or rests for a reason', (of) => {
    const endsAt = of.startsAt === null ? null : of.startsAt + HOUR
    const stands = whereVisitStands({ ...of, endsAt }, at)
    if ('place' in stands) {
      expect(Object.keys(PLACES)).toContain(stands.place)
      expect([stands.reason, stands.next]).not.toContain('')
    } else expect('rest' in stands && stands.rest).toBeTruthy()
  })
})

it('what is put aside says for what', () =>
  expect(
    whereVisitStands(
      {
        ...{ state: 'planned', placed: false, startsAt: null, endsAt: null, ended: false },
        ...{ parkedUntil: '2026-12-01', parkedIn: 'waits for a part', again: null, nextStep: null },
        note: '',
      },
      at,
    ),
  ).toMatchObject({ place: 'parked', reason: 'put aside until 2026-12-01: waits for a part' }))
describe('a work order', () => {
  const work = (over: Partial<WorkFacts> = {}): WorkFacts => ({
    ...{
      state: 'to_bill',
      toBillMinor: 100,
      uncoveredSeconds: 0,
      undone: 0,
      notAgreed: 0,
      doneAt: NOW,
    },
    ahead: false,
    ...over,
  })
  it.each(WORK_ORDER_STATES.map((state) => [state] as const))(
    'that is %s stands somewhere',
    (state) => {
      const stands = whereWorkStands(work({ state }), at)
      expect(stands).toEqual(
        {
          to_bill: { place: 'to_bill', reason: 'finished 0:00 ago', next: 'Bill it' },
          billed: { through: 'invoice' },
          closed: { rest: 'closed' },
          cancelled: { rest: 'cancelled' },
        }[state as string] ?? { through: 'visit' },
      )
    },
  )
  it.each<[Partial<WorkFacts>, string]>([
    [{ doneAt: NOW - 45 * MINUTE }, 'finished 0:45 ago'],
    [{ doneAt: NOW - DAY }, 'done a day ago and not billed'],
    [
      { doneAt: NOW - 3 * DAY, ahead: true },
      'done 3 days ago and not billed, and somebody goes there again',
    ],
    [{ toBillMinor: 0 }, 'finished, and nothing is priced'],
    [{ toBillMinor: 0, uncoveredSeconds: 720 }, '0:12 h that nobody charged or explained'],
    [{ toBillMinor: 0, undone: 1 }, 'a line was promised and not done'],
    [{ toBillMinor: 0, undone: 3 }, '3 lines were promised and not done'],
    [{ doneAt: null }, 'finished 0:00 ago'],
    [{ notAgreed: 1 }, 'finished 0:00 ago; a line is not agreed yet'],
    [{ notAgreed: 2 }, 'finished 0:00 ago; 2 lines are not agreed yet'],
  ])('to bill says why: %j', (over, reason) => {
    expect(whyToBill(work(over), at).reason).toBe(reason)
  })
})

describe('a care agreement', () => {
  const agreement = { endsOn: '2027-06-30', visitDueOn: '2026-11-30', booked: false }
  it.each([
    [{}, 'a visit is due by 2026-11-30'],
    [{ visitDueOn: '2026-10-31' }, 'a visit was due by 2026-10-31'],
  ])('whose visit is due waits for it: %j', (over, reason) => {
    const stands = whereAgreementStands({ ...agreement, ...over }, at)
    expect(stands).toEqual({ place: 'agreements', reason, next: 'Make the visit' })
  })
  it.each([
    [{ booked: true }, { through: 'work order' }],
    [{ visitDueOn: '2026-12-01' }, { rest: 'no visit is due' }],
    [{ visitDueOn: null }, { rest: 'no visit is due' }],
    [{ endsOn: '2026-11-01' }, { rest: 'ended' }],
  ])('waits for nothing else: %j', (over, stands) => {
    expect(whereAgreementStands({ ...agreement, ...over }, at)).toEqual(stands)
  })
})
describe('papers and money', () => {
  const quote = {
    expiresOn: '2026-12-24',
    createdOn: '2026-11-20',
    sentOn: '2026-11-21',
    openedOn: null,
  }
  it.each([
    ['draft', 'quotes'],
    ['sent', 'quotes'],
    ['accepted', null],
    ['declined', null],
  ] as const)('a quote that is %s stands in %s', (state, place) => {
    expect(placed(whereQuoteStands({ ...quote, state }, at))).toBe(place)
  })
  it('a quote whose price is no longer held still waits among the quotes', () => {
    const stands = whereQuoteStands({ ...quote, state: 'sent', expiresOn: '2026-11-20' }, at)
    expect(stands).toMatchObject({ place: 'quotes', next: 'Ask after it' })
  })
  const invoice = { state: 'open' as const, openMinor: 500, dueOn: '2026-11-23' }
  it.each([
    [{}, { place: 'unpaid', reason: 'was due on 2026-11-23', next: 'Remind them' }],
    [
      { dueOn: '2026-11-24' },
      { place: 'unpaid', reason: 'is due on 2026-11-24', next: 'Wait for it' },
    ],
    [{ openMinor: 0 }, { rest: 'paid' }],
    [{ state: 'written_off' as const, openMinor: 0 }, { rest: 'written off' }],
  ])('an invoice %j is owed, or rests', (over, stands) => {
    expect(whereInvoiceStands({ ...invoice, ...over }, at)).toEqual(stands)
  })
  it.each([
    [{ sent: false, bounced: false }, 'to_send'],
    [{ sent: true, bounced: true }, 'to_send'],
    [{ sent: true, bounced: false }, null],
    [{ sent: false, bounced: false, openMinor: 0 }, null],
    [{ sent: false, bounced: false, state: 'void' as const }, null],
  ])('its paper %j is to send, or rests', (over, place) => {
    expect(placed(wherePaperStands({ ...invoice, ...over }))).toBe(place)
  })
  const message = { kind: 'receipt', error: 'no such box', followed: false }
  it.each([
    [
      { state: 'waiting' as const },
      { place: 'mail', reason: 'waits to be sent', next: 'It goes by itself' },
    ],
    [
      { state: 'failed' as const },
      {
        place: 'mail',
        reason: 'did not arrive: no such box',
        next: 'Mend the address and send it again',
      },
    ],
    [{ state: 'failed' as const, kind: 'invoice' }, { through: 'paper' }],
    [{ state: 'failed' as const, followed: true }, { rest: 'sent again since' }],
    [{ state: 'delivered' as const }, { rest: 'delivered' }],
  ])('a message %j', (over, stands) => {
    expect(whereMessageStands({ ...message, ...over })).toEqual(stands)
  })
  it.each([
    [{ on: null }, 'Ines'],
    [{ on: '2026-11-24' }, 'Ines, due by 2026-11-24'],
    [{ on: '2026-11-23' }, 'Ines, was due by 2026-11-23'],
  ])('a task %j waits for its owner', (over, reason) => {
    const task = { done: false, owner: 'Ines', ...over }
    expect(whereTaskStands(task, at)).toMatchObject({ place: 'tasks', reason })
    expect(whereTaskStands({ ...task, done: true }, at)).toEqual({ rest: 'done' })
  })
  it('money on no invoice waits, until there is none', () => {
    expect([whereCreditStands(1), whereCreditStands(0)].map(placed)).toEqual(['credits', null])
  })
  it.each([
    [{ on: '2026-11-23', kept: false, owedMinor: 5 }, 'Ring them'],
    [{ on: '2026-11-24', kept: false, owedMinor: 5 }, 'Wait for it'],
    [{ on: '2026-11-23', kept: true, owedMinor: 5 }, undefined],
    [{ on: '2026-11-23', kept: false, owedMinor: 0 }, undefined],
  ])('a promise %j', (promise, next) => {
    const stands = wherePromiseStands(promise, at)
    expect('next' in stands ? stands.next : undefined).toBe(next)
  })
})
