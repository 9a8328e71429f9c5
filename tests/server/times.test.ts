// The clock is mended: entered, corrected, taken out, with reasons; never overlapping, never of another person or day for a technician.
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { isUnderWay } from '../../core/visits/visitLifecycle'
import type { Answer } from '../../shared/api'
import { callerNamed, forgetClocksAfter, id, setClock, signedIn, type Client } from './client'

let office: Client
let phone: Client
let me = ''
let visitId = ''
let workOrderId = ''
const at = (time: string, date = '2026-11-24') => new Date(`${date}T${time}-05:00`).toISOString()
beforeAll(async () => {
  setClock('2026-11-24T06:00')
  await forgetClocksAfter('2026-11-24T05:00:00Z')
  office = await signedIn('office')
  const { technicians, visits } = await office.ok('schedule')
  const isBusy = (of: string) => visits.some((v) => v.technicianId === of && isUnderWay(v.state))
  const free = technicians.find((t) => t.kind === 'employee' && !isBusy(t.id))!
  me = free.id
  phone = await signedIn({ email: `${free.name.split(' ')[0]!.toLowerCase()}@demo.test` })
  const caller = await callerNamed(office, 'lowfold')
  ;[workOrderId, visitId] = [id(), id()]
  await office.ok('bookCall', {
    params: { id: id() },
    body: {
      ...{ workOrderId, visitId, customerId: caller.customerId, siteId: caller.sites[0]!.id },
      ...{ problem: 'Test', technicianId: me, date: '2026-11-24', start: '06:00', override: true },
    },
  })
  for (const [time, act] of [
    ['06:10', 'set_off'],
    ['06:40', 'arrive'],
    ['08:00', 'finish'],
  ] as const) {
    setClock(`2026-11-24T${time}`)
    await phone.ok('clock', { params: { id: visitId }, body: { act } })
  }
  setClock('2026-11-24T09:00')
})
afterAll(() => setClock('2026-11-24T10:21'))

type Work = Answer<'workOrder'>
const visitOf = (work: Work) => work.visits.find((v) => v.id === visitId)!
const work = () => office.ok('workOrder', { params: { id: workOrderId } })
const timeOf = async (kind: string) => visitOf(await work()).times.find((t) => t.kind === kind)!
const mending = (t: Work['visits'][number]['times'][number], more: object = {}) => ({
  params: { id: t.id },
  body: {
    was: { from: t.from, to: t.to },
    ...{ kind: t.kind, from: t.from, to: t.to, reason: 'pressed too late' },
    ...more,
  },
})
const entering = (from: string, to: string, more: object = {}) => ({
  params: { id: visitId },
  body: {
    ...{ id: id(), personId: me, kind: 'fetch' as const, reason: 'drove to the merchant' },
    ...{ from: at(from), to: at(to) },
    ...more,
  },
})

describe('a time that was clocked wrongly', () => {
  it('is corrected by whoever it is of: the visit ends then, and the history has both values and the reason', async () => {
    const t = await timeOf('on_site')
    const now = visitOf(await phone.ok('mendTime', mending(t, { to: at('07:30') })))
    expect([now.siteSeconds, Date.parse(now.finishedAt!)]).toEqual([
      50 * 60,
      Date.parse(at('07:30')),
    ])
    expect((await work()).history[0]!.text).toMatch(
      /corrected: on site, Tue, Nov 24, 2026 06:40 to 08:00, is now Tue, Nov 24, 2026 06:40 to 07:30: pressed too late/,
    )
  })
  it('is not corrected by whoever read it before somebody else did', async () => {
    const t = await timeOf('on_site')
    await office.ok('mendTime', mending(t, { to: at('07:35') }))
    const late = await phone.send('mendTime', mending(t, { to: at('07:40') }))
    expect([late.status, late.body.code]).toEqual([409, 'stale'])
    expect((await timeOf('on_site')).to).toBe(at('07:35'))
  })
  it.each([
    ['ends before it begins', { to: at('06:00') }, 'to', 'It ends before it begins.'],
    ['has not been yet', { to: at('10:00') }, 'to', 'That has not been yet.'],
    [
      'overlaps another',
      { from: at('06:20') },
      'from',
      'This overlaps driving, Tue, Nov 24 06:10 to 06:40.',
    ],
    ['has no reason', { reason: ' ' }, 'reason', 'Say why it is changed.'],
  ])('is refused where it %s', async (_, more, path, message) => {
    const refused = await office.send('mendTime', mending(await timeOf('on_site'), more))
    expect(refused.body.errors).toEqual([{ path, message }])
  })
  it('is taken out, and its minutes with it', async () => {
    const entered = await office.ok('enterTime', entering('08:10', '08:20'))
    const t = visitOf(entered).times.find((x) => x.kind === 'fetch')!
    const gone = await office.ok('mendTime', mending(t, { removed: true }))
    expect(visitOf(gone).times.map((x) => x.kind)).toEqual(['drive', 'on_site'])
    expect((await work()).history[0]!.text).toContain('taken out: fetching a part')
  })
})
describe('time that nobody clocked', () => {
  it('is entered once, however often it is sent', async () => {
    const body = entering('08:30', '08:40')
    await phone.ok('enterTime', body)
    const again = await phone.ok('enterTime', body)
    expect(visitOf(again).times.filter((t) => t.kind === 'fetch')).toHaveLength(1)
  })
  it('of two that overlap, sent at the same moment, one is kept', async () => {
    const both = await Promise.all([
      office.send('enterTime', entering('08:45', '08:55')),
      office.send('enterTime', entering('08:50', '08:58')),
    ])
    expect(both.map(({ status }) => status).sort()).toEqual([200, 422])
    expect(both.find(({ status }) => status === 422)!.body.code).toBe('clock_overlap')
  })
  it('is the office’s to enter for others, and of other days', async () => {
    const others = (await office.ok('schedule')).technicians.find((t) => t.id !== me)!.id
    for (const more of [
      { personId: others },
      { from: at('21:00', '2026-11-23'), to: at('21:10', '2026-11-23') },
    ])
      expect((await phone.send('enterTime', entering('08:59', '09:00', more))).status).toBe(403)
    const was = entering('20:00', '20:10', {
      from: at('20:00', '2026-11-23'),
      to: at('20:10', '2026-11-23'),
    })
    expect((await office.send('enterTime', was)).status).toBe(200)
  })
})
describe('where the firm wants another person’s yes to corrected time', () => {
  let owner: Client
  const let_ = async (mendsTime: boolean) => {
    const { roles } = await owner.ok('limits')
    const technician = roles.find(({ role }) => role === 'technician')!
    await owner.ok('keepLimits', { body: { roles: [{ ...technician, mendsTime }], given: [] } })
  }
  beforeAll(async () => {
    owner = await signedIn('owner')
    await let_(false)
  })
  afterAll(() => let_(true))
  const asking = (
    route: 'mendTime' | 'enterTime',
    { params, body }: { params: { id: string }; body: object },
  ) => ({
    body: {
      id: id(),
      route,
      subjectId: params.id,
      body: JSON.stringify(body),
      reason: 'rang first',
    },
  })
  it('it is asked for, told with both values, and done as it was asked', async () => {
    const t = await timeOf('on_site')
    const wanted = mending(t, { to: at('07:20') })
    expect((await phone.send('mendTime', wanted)).body.code).toBe('over_limit')
    await phone.ok('askForYes', asking('mendTime', wanted))
    expect((await timeOf('on_site')).to).toBe(t.to)
    const [asked] = (await work()).asks
    expect(asked!.what).toMatch(/: on site, .*06:40 to 07:20 instead of on site, .*06:40 to 07:35$/)
    await office.ok('answerAsk', { params: { id: asked!.id }, body: { yes: true } })
    expect((await timeOf('on_site')).to).toBe(at('07:20'))
  })
  it('so is time that nobody clocked; what cannot have been is refused before anybody is asked', async () => {
    const wrong = entering('06:50', '07:00')
    expect((await phone.send('askForYes', asking('enterTime', wrong))).body.code).toBe(
      'clock_overlap',
    )
    await phone.ok('askForYes', asking('enterTime', entering('08:00', '08:05')))
    const [asked] = (await work()).asks
    expect(asked!.what).toMatch(/fetching a part, .*08:00 to 08:05 instead of none$/)
    await office.ok('answerAsk', { params: { id: asked!.id }, body: { yes: false } })
    expect((await work()).asks).toEqual([])
  })
})
