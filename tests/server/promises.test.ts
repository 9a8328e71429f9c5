// A promise moves with its visit: what was promised is asked about, what the customer was told is known, and nothing that is sent names a day that does not hold.
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { isUnderWay } from '../../core/visits/visitLifecycle'
import type { Answer } from '../../shared/api'
import {
  callerNamed,
  database,
  forgetClocksAfter,
  id,
  setClock,
  signedIn,
  until,
  type Client,
} from './client'

let office: Client
/** A technician who is nowhere at the moment, and their name. */
let free: Client
let name = ''
let customerId = ''
const people = new Map<string, string>()
const NOW = '2026-11-24T10:21'
beforeAll(async () => {
  setClock(NOW)
  await forgetClocksAfter('2026-11-24T15:21:00Z')
  office = await signedIn('office')
  const { technicians, visits } = await office.ok('schedule')
  for (const t of technicians) people.set(t.name.split(' ')[0]!, t.id)
  const isBusy = (of: string) => visits.some((v) => v.technicianId === of && isUnderWay(v.state))
  name = technicians.find((t) => t.kind === 'employee' && !isBusy(t.id))!.name.split(' ')[0]!
  free = await signedIn({ email: `${name.toLowerCase()}@demo.test` })
  customerId = (await callerNamed(office, 'lowfold')).customerId
  await office.ok('changeCustomer', {
    params: { id: customerId },
    body: {
      version: (await office.ok('customer', { params: { id: customerId } })).version,
      email: 'lowfold@example.com',
      mailConsent: 'yes',
      textConsent: 'no',
    },
  })
})
beforeEach(() => setClock(NOW))
afterAll(() => setClock(NOW))

type Visit = Answer<'placeVisit'>
const at = (date: string, time: string) => new Date(`${date}T${time}-05:00`).toISOString()
const DAY = 'Tue, Feb 2'
/** Promised for a day in February of the next year, from eight to ten. */
async function booked(day = '02', more: object = {}): Promise<Visit> {
  const caller = await callerNamed(office, 'lowfold')
  const ids = { workOrderId: id(), visitId: id() }
  const date = `2027-02-${day}`
  await office.ok('bookCall', {
    params: { id: id() },
    body: {
      ...ids,
      ...{ customerId, siteId: caller.sites[0]!.id, problem: 'The pump hums.' },
      ...{ technicianId: people.get('Maud')!, date, start: '08:30' },
      ...{ promiseFrom: '08:00', promiseTo: '10:00', override: true },
      ...more,
    },
  })
  return onDay(ids.visitId, date)
}
async function onDay(visitId: string, date: string): Promise<Visit> {
  const { visits, tray } = await office.ok('schedule', { query: { date } })
  return [...visits, ...tray].find((v) => v.id === visitId)!
}
const placing = (v: Visit, date: string, time: string, more: object = {}) => ({
  params: { id: v.id },
  body: {
    technicianId: v.technicianId,
    startAt: at(date, time),
    durationSeconds: v.durationSeconds,
    version: v.version,
    ...more,
  },
})
const place = (...of: Parameters<typeof placing>) => office.ok('placeVisit', placing(...of))
const notice = (v: Visit) => office.ok('visitNotice', { params: { id: v.id } })
/** Where it stands among what is to be told. */
const toTell = async (v: Visit) =>
  (await office.ok('toActOn')).places
    .find(({ place: where }) => where === 'to_tell')!
    .items.find((item) => item.id === v.id)?.reason
const OTHER = { date: '2027-02-04', from: '13:00', to: '15:00' }
const other = { promise: OTHER, override: true }

describe('a visit that is moved out of what was promised', () => {
  it('is asked about, with what could be promised instead: from when somebody is to be expected', async () => {
    const v = await booked()
    const refused = await office.send('placeVisit', placing(v, '2027-02-04', '14:10'))
    expect(refused.body).toMatchObject({
      code: 'placement_warning',
      warnings: [
        { code: 'outside_promise', text: `it was promised for ${DAY}, between 08:00 and 10:00` },
      ],
      asked: {
        promise: { date: '2027-02-02', from: '08:00', to: '10:00' },
        proposed: { date: '2027-02-04', from: '14:00', to: '16:00' },
      },
    })
    expect((await onDay(v.id, '2027-02-02')).startAt).toBe(v.startAt)
  })
  it('is not asked about within its window', async () => {
    const v = await booked('03')
    expect(await place(v, '2027-02-03', '09:45')).toMatchObject({
      toTell: false,
      promiseFrom: '08:00',
    })
  })
  it('with another promise: everything speaks of the new day, and the customer is told of it', async () => {
    const v = await booked()
    const moved = await place(v, '2027-02-04', '13:30', other)
    expect(moved).toMatchObject({
      promiseDate: '2027-02-04',
      promiseFrom: '13:00',
      told: { date: '2027-02-02', from: '08:00', to: '10:00' },
      toTell: true,
    })
    expect(await toTell(v)).toBe(
      `was told ${DAY}, between 08:00 and 10:00; now it is Thu, Feb 4, between 13:00 and 15:00`,
    )
    const said = await notice(v)
    expect([said.kind, said.text]).toEqual([
      'moved',
      expect.stringMatching(
        /would come on Tue, Feb 2 between 08:00 and 10:00\. Now we come on Thu, Feb 4 between 13:00 and 15:00/,
      ),
    ])
    const { items } = await office.ok('reminders', { params: { date: '2027-02-04' } })
    expect(items.find((i) => i.visitId === v.id)).toMatchObject({
      body: expect.stringContaining('Feb 4 between 13:00 and 15:00') as string,
      broken: '',
    })
    await office.ok('tellCustomer', {
      params: { id: v.id },
      body: { version: said.version, to: ['lowfold@example.com'] },
    })
    expect([await toTell(v), (await onDay(v.id, '2027-02-04')).toTell]).toEqual([undefined, false])
    const mail = await until(async () =>
      (await office.ok('messages', { query: { q: 'another time' } })).items.find(
        (m) => m.state === 'delivered' && m.body.includes('Thu, Feb 4'),
      ),
    )
    expect(mail.kind).toBe('visit_moved')
    // And it moves no more silently than the first time.
    expect((await office.send('placeVisit', placing(moved, '2027-02-05', '09:00'))).body.code).toBe(
      'placement_warning',
    )
  })
  it('with nothing promised for now: they are told that it has to wait', async () => {
    const v = await booked('08')
    const moved = await place(v, '2027-02-09', '13:30', { promise: null, override: true })
    expect([moved.promiseDate, moved.toTell]).toEqual([null, true])
    expect((await notice(v)).kind).toBe('later')
    await office.ok('tellCustomer', {
      params: { id: v.id },
      body: { version: moved.version, spoken: 'they wait for our call' },
    })
    expect(await onDay(v.id, '2027-02-09')).toMatchObject({ told: null, toTell: false })
  })
  it('with a customer who knows already: nobody has to be told', async () => {
    const v = await booked('10')
    const moved = await place(v, '2027-02-04', '14:30', { ...other, known: true })
    expect(moved).toMatchObject({ told: OTHER, toTell: false })
  })
  it('with the promise kept: no reminder names it, until somebody has decided', async () => {
    const v = await booked('11')
    const moved = await place(v, '2027-02-12', '09:00', { override: true })
    expect(moved).toMatchObject({ promiseDate: '2027-02-11', toTell: false })
    const mine = async () =>
      (await office.ok('sendReminders', { params: { date: '2027-02-12' } })).items.find(
        (i) => i.visitId === v.id,
      )!
    expect(await mine()).toMatchObject({
      told: false,
      broken: 'Thu, Feb 11, between 08:00 and 10:00',
      body: '',
    })
    const promise = { date: '2027-02-12', from: '08:00', to: '10:00' }
    const promised = await office.ok('promiseVisit', {
      params: { id: v.id },
      body: { version: moved.version, promise, known: true },
    })
    expect(await mine()).toMatchObject({ told: true, broken: '' })
    // Of another day they are reminded anew.
    const again = await place(promised, '2027-02-15', '09:00', {
      promise: { ...promise, date: '2027-02-15' },
      override: true,
    })
    const { items } = await office.ok('reminders', { params: { date: '2027-02-15' } })
    expect(items.find((i) => i.visitId === again.id)!.told).toBe(false)
  })
  it('cannot be promised a window that ends before it begins', async () => {
    const v = await booked('16')
    const promise = { date: '2027-02-17', from: '15:00', to: '13:00' }
    const refused = await office.send(
      'placeVisit',
      placing(v, '2027-02-17', '14:00', { promise, override: true }),
    )
    expect(refused.body.errors).toEqual([
      { path: 'promise.to', message: 'The window ends before it begins.' },
    ])
  })
})
it('who heard that nobody comes, or of no day, is told of the next one', async () => {
  const v = await booked('17')
  const off = await office.ok('cancelVisit', {
    params: { id: v.id },
    body: { version: v.version, cancelled: true, reason: 'no money', known: true },
  })
  expect(off.toTell).toBe(false)
  const back = await office.ok('cancelVisit', {
    params: { id: v.id },
    body: { version: off.version, cancelled: false, override: true },
  })
  expect([back.toTell, (await notice(v)).kind]).toEqual([true, 'confirmation'])
  await office.ok('tellCustomer', {
    params: { id: v.id },
    body: { version: back.version, spoken: 'glad of it' },
  })
  expect(await toTell(v)).toBeUndefined()
})
describe('what was told', () => {
  it('of a cancelled visit is taken back by a message, or is known', async () => {
    const v = await booked('18')
    const body = { version: v.version, cancelled: true, reason: 'no money' }
    const off = await office.ok('cancelVisit', { params: { id: v.id }, body })
    expect([off.toTell, await toTell(v), (await notice(v)).kind]).toEqual([
      true,
      'was told Thu, Feb 18, between 08:00 and 10:00; the visit is cancelled',
      'off',
    ])
    await office.ok('tellCustomer', {
      params: { id: v.id },
      body: { version: off.version, spoken: 'they know' },
    })
    expect(await toTell(v)).toBeUndefined()
    const w = await booked('19')
    await office.ok('cancelWorkOrder', {
      params: { id: w.workOrderId },
      body: { reason: 'they rang', known: true },
    })
    expect(await toTell(w)).toBeUndefined()
  })
  it('is told of the visit as it is: words that were read before it moved are refused', async () => {
    const v = await booked('22')
    const { version } = await notice(v)
    await place(v, '2027-02-04', '15:00', other)
    const refused = await office.send('tellCustomer', {
      params: { id: v.id },
      body: { version, to: ['lowfold@example.com'] },
    })
    expect([refused.body.code, (refused.body.current as { kind: string }).kind]).toEqual([
      'stale',
      'moved',
    ])
  })
  it('and has not left yet is not sent any more, once it does not hold', async () => {
    const v = await booked('23')
    const db = await database()
    const message = id()
    await db.query(
      `INSERT INTO messages (id, kind, customer_id, visit_id, recipients, subject, body, state, created_at)
      VALUES (?, 'visit_confirmation', ?, ?, '["lowfold@example.com"]', 'Yours', 'On Tue, Feb 23', 'waiting', UTC_TIMESTAMP(3))`,
      [message, customerId, v.id],
    )
    await place(v, '2027-02-04', '16:00', other)
    const [rows] = await db.query('SELECT state FROM messages WHERE id = ?', [message])
    await db.end()
    expect(rows).toEqual([{ state: 'let_be' }])
  })
})
it('two visits that change places are warned of like one that moves, and each keeps what was promised', async () => {
  const [a, b] = [await booked('24'), await booked('25')]
  const seen = ({ id: visitId, version }: Visit) => ({ id: visitId, version })
  const body = { first: seen(a), second: seen(b) }
  const refused = await office.send('swapVisits', { body })
  expect(refused.body.code).toBe('placement_warning')
  expect((refused.body.warnings as { code: string }[]).map((w) => w.code)).toEqual([
    'outside_promise',
    'outside_promise',
  ])
  const { visits } = await office.ok('swapVisits', { body: { ...body, override: true } })
  expect(visits.map((v) => [v.startAt, v.promiseDate])).toEqual([
    [b.startAt, a.promiseDate],
    [a.startAt, b.promiseDate],
  ])
})
it.each([
  ['a half day that is full', '2027-02-26', '11:00', 'capacity'],
  ['a time that has passed', '2026-11-24', '06:00', 'past'],
])('a visit is warned of at %s', async (_, date, time, code) => {
  for (let hour = 8; hour < 12 && code === 'capacity'; hour++)
    await booked('26', { start: `0${hour}:00`.slice(-5), durationSeconds: 1800 })
  const { warnings } = await office.ok('checkPlacement', {
    body: { technicianId: people.get('Maud')!, startAt: at(date, time), durationSeconds: 1800 },
  })
  expect(warnings.map((w) => w.code)).toContain(code)
})
describe('whoever begins a visit of another day', () => {
  it('is asked, and then stands on the day on which it is begun, for whoever dispatches to see', async () => {
    const v = await booked('27', { technicianId: people.get(name)! })
    const set_off = { params: { id: v.id }, body: { act: 'set_off' as const } }
    const refused = await free.send('clock', set_off)
    expect([refused.status, refused.body.code, refused.body.detail]).toEqual([
      409,
      'other_day',
      'This visit is planned for Sat, Feb 27. Begin it now all the same?',
    ])
    await free.ok('clock', { ...set_off, body: { act: 'set_off', otherDay: true } })
    const board = await office.ok('schedule')
    const now = board.visits.find((x) => x.id === v.id)!
    expect([now.state, Date.parse(now.startAt!)]).toEqual([
      'driving',
      Date.parse(at('2026-11-24', '10:21')),
    ])
    const { history } = await office.ok('workOrder', { params: { id: v.workOrderId } })
    expect(history.map((h) => h.text)).toContain(
      'Begun on another day than planned, Sat, Feb 27, 2027 08:30',
    )
    // One arrival time: on the board, on the phone, and in what the customer is told.
    const phone = (await free.ok('fieldVisit', { params: { id: v.id } })).visit
    const next = (await free.ok('fieldDay', { query: { date: '2026-11-24' } })).visits.find(
      (x) => x.id === v.id,
    )!
    expect([phone.driveSeconds, next.driveSeconds]).toEqual([now.driveSeconds, now.driveSeconds])
    expect(now.driveSeconds).toBeGreaterThan(0)
    await free.ok('clock', { params: { id: v.id }, body: { act: 'arrive' } })
    await free.ok('clock', { params: { id: v.id }, body: { act: 'finish' } })
  })
})
