// A visit from setting off to its bill: the clock, what was found, minutes that nobody charged for, the signature, work that is closed without a bill.
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import sharp from 'sharp'
import { USUAL_BILLED_TIME, type BilledTime } from '../../core/hours/billedTime'
import { plusDays } from '../../core/time/zone'
import { closePool } from '../../server/db/pool'
import {
  callerNamed,
  type Client,
  database,
  forgetClocksAfter,
  id,
  setClock,
  signedIn,
  textOfPdf,
} from './client'

const DAY = '2026-12-16'
let office: Client
let phone: Client
let technicianId: string
let driver: string
beforeAll(async () => {
  setClock(`${DAY}T08:00`)
  office = await signedIn('office')
  const db = await database()
  // Somebody who drives alone and whose clock stands still, whatever other files left running.
  const [[free]] = (await db.query(
    `SELECT p.id, p.email, p.name FROM people p
    WHERE p.role = 'technician' AND p.bookable AND p.kind = 'employee' AND p.goes_with IS NULL
      AND p.email <> 'ines@demo.test'
      AND p.id NOT IN (SELECT person_id FROM clock_intervals WHERE ended_at IS NULL)
    ORDER BY p.email LIMIT 1`,
  )) as unknown as [[{ id: string; email: string; name: string }]]
  await db.end()
  phone = await signedIn({ email: free.email })
  technicianId = free.id
  driver = free.name
  await forgetClocksAfter(`${DAY}T05:00Z`)
})
afterAll(async () => {
  // Whoever comes next begins with nobody at work.
  const db = await database()
  await db.query(
    `UPDATE visits SET state = 'finished' WHERE technician_id = ? AND state IN ('driving', 'on_site', 'paused')`,
    [technicianId],
  )
  await db.end()
  await forgetClocksAfter(`${DAY}T05:00Z`)
  setClock('2026-11-24T10:21')
  await closePool()
})
/** A visit of Tobiah's on that day, for Fenn Orchard. */
async function booked(start: string) {
  const { customerId, sites } = await callerNamed(office, 'fenn orchard')
  const ids = { workOrderId: id(), visitId: id(), customerId }
  await office.ok('bookCall', {
    params: { id: id() },
    body: {
      workOrderId: ids.workOrderId,
      visitId: ids.visitId,
      customerId,
      siteId: sites[0]!.id,
      problem: 'Pump hums',
      technicianId,
      date: DAY,
      start,
      durationSeconds: 3600,
      override: true,
    },
  })
  return ids
}
const act = (visitId: string, what: string, at?: string) =>
  phone.send('clock', { params: { id: visitId }, body: { act: what, ...(at ? { at } : {}) } })
/** An act that a story goes on from. */
const did = async (visitId: string, what: string) => {
  const reply = await act(visitId, what)
  if (reply.status !== 200) throw new Error(`${what}: ${reply.text}`)
}
const atTime = (time: string) => setClock(`${DAY}T${time}`)
const visitOf = (visitId: string) => phone.ok('fieldVisit', { params: { id: visitId } })
const workOf = (workOrderId: string) => office.ok('workOrder', { params: { id: workOrderId } })

describe('the clock', () => {
  it('goes from setting off to the end, and each minute is somewhere', async () => {
    const { visitId, workOrderId } = await booked('09:00')
    atTime('08:30')
    await did(visitId, 'set_off')
    atTime('09:00')
    await did(visitId, 'arrive')
    atTime('09:40')
    await did(visitId, 'pause')
    atTime('09:50')
    await did(visitId, 'resume')
    atTime('10:30')
    const { body } = await act(visitId, 'finish')
    expect(body).toMatchObject({
      visit: { state: 'finished' },
      clock: { kind: null, driveSeconds: 30 * 60, siteSeconds: 80 * 60 },
    })
    expect((await workOf(workOrderId)).state).toBe('to_bill')
  })
  it.each([
    ['finish', 'planned'],
    ['pause', 'planned'],
    ['resume', 'planned'],
    ['no_access', 'planned'],
  ])('“%s” of a visit that is %s is refused, and says how it stands', async (what, state) => {
    const { visitId } = await booked('15:00')
    const reply = await act(visitId, what)
    expect([reply.status, reply.body.code, reply.body.state]).toEqual([409, 'not_now', state])
  })
  it('does not run backwards, nor into the future', async () => {
    atTime('10:45')
    const { visitId } = await booked('10:45')
    expect((await act(visitId, 'arrive', `${DAY}T17:00:00Z`)).body.code).toBe('clock_off')
    expect((await act(visitId, 'arrive', '2026-12-14T12:00:00Z')).body.code).toBe('clock_off')
    // Before the visit that ended at 10:30 had ended.
    const overlap = await act(visitId, 'arrive', `${DAY}T15:10:00Z`)
    expect(overlap.status).toBe(422)
    expect((await visitOf(visitId)).visit.state).toBe('planned')
  })
  it('a finish that was pressed too early is taken back, and the minutes add up', async () => {
    const { visitId } = await booked('11:00')
    atTime('11:00')
    await did(visitId, 'arrive')
    atTime('11:20')
    await did(visitId, 'finish')
    atTime('11:30')
    await did(visitId, 'resume')
    atTime('11:40')
    const { body } = await act(visitId, 'finish')
    expect((body as { clock: { siteSeconds: number } }).clock.siteSeconds).toBe(30 * 60)
  })
  it('a door that nobody opened leaves the work waiting for another slot', async () => {
    const { visitId, workOrderId } = await booked('12:00')
    atTime('12:00')
    await did(visitId, 'set_off')
    atTime('12:15')
    expect((await act(visitId, 'no_access')).status).toBe(200)
    expect((await workOf(workOrderId)).state).toBe('needs_slot')
  })
  it('pressed twice with one key happens once', async () => {
    const { visitId } = await booked('12:30')
    atTime('12:30')
    const input = { params: { id: visitId }, body: { act: 'arrive' }, key: id() }
    const replies = await Promise.all([phone.send('clock', input), phone.send('clock', input)])
    expect(replies.map(({ status }) => status)).toEqual([200, 200])
    expect(replies[0]!.body).toEqual(replies[1]!.body)
    await did(visitId, 'finish')
  })
})

describe('what was found', () => {
  it('is kept with the version that was read, and a stale one comes back with both', async () => {
    const { visitId, workOrderId } = await booked('13:00')
    const first = await visitOf(visitId)
    const params = { id: visitId }
    const version = (first as unknown as { version: number }).version
    await phone.ok('findings', { params, body: { version, findings: 'The foot valve leaked.' } })
    const stale = await phone.send('findings', { params, body: { version, findings: 'Nothing.' } })
    expect([stale.status, stale.body.code]).toEqual([409, 'stale'])
    expect(stale.body.current).toMatchObject({ findings: 'The foot valve leaked.' })
    expect(stale.body.yours).toEqual({ findings: 'Nothing.' })
    expect((await workOf(workOrderId)).visits[0]!.findings).toBe('The foot valve leaked.')
  })
  it('goes along to the bill, and is printed on it where somebody says so', async () => {
    const { visitId, workOrderId } = await booked('14:30')
    const { version } = (await visitOf(visitId)) as unknown as { version: number }
    const findings = 'The float switch was jammed; freed it.'
    await phone.ok('findings', { params: { id: visitId }, body: { version, findings } })
    const params = { id: workOrderId }
    const bill = async (findingsOf: string[]) => {
      const line = { id: id(), name: 'Work', kind: 'other', quantity: '1', unitPrice: '40.00' }
      await office.ok('addLines', { params, body: { lines: [line] } })
      return office.ok('makeInvoice', { params, body: { id: id(), beyond: 'x', findingsOf } })
    }
    expect((await bill([])).paper.found).toEqual([])
    const { paper, link } = await bill([visitId])
    expect(paper.found).toEqual([findings])
    const token = link.split('/i/')[1]!
    const seen = await office.ok('publicInvoice', { params: { token } })
    expect(seen.paper.found).toEqual([findings])
  })
  it('is nobody else’s to write', async () => {
    const { visitId } = await booked('13:30')
    const ines = await signedIn('technician')
    const version = ((await visitOf(visitId)) as unknown as { version: number }).version
    const body = { version, findings: 'I was never there.' }
    expect((await ines.send('findings', { params: { id: visitId }, body })).status).toBe(404)
  })
  it('stands on the work sheet, which the technician can print', async () => {
    const { visitId } = await booked('14:00')
    const sheet = await phone.send('workSheet', { params: { id: visitId } })
    expect(sheet.headers.get('content-type')).toContain('application/pdf')
    expect(textOfPdf(sheet.bytes)).toContain('Pump hums')
  })
  it('the day’s sheets are one paper for everybody who drives', async () => {
    const sheets = await office.send('daySheets', { params: { date: DAY } })
    expect(sheets.status).toBe(200)
    expect(textOfPdf(sheets.bytes)).toContain(driver)
  })
})

describe('minutes that no line charges for', () => {
  const worked = async (start: string, end: string) => {
    const ids = await booked(start)
    atTime(start)
    await did(ids.visitId, 'arrive')
    atTime(end)
    await did(ids.visitId, 'finish')
    return ids
  }
  const explain = (workOrderId: string, body: object) =>
    phone.send('explainTime', { params: { id: workOrderId }, body })
  it('are all of them until something is sold', async () => {
    const { workOrderId } = await worked('15:30', '16:00')
    expect((await workOf(workOrderId)).time).toMatchObject({
      siteSeconds: 1800,
      coveredSeconds: 0,
      uncoveredSeconds: 1800,
    })
  })
  it('are left out for a reason, which the history keeps, and never more than there are', async () => {
    const { workOrderId } = await worked('16:05', '16:35')
    expect((await explain(workOrderId, { seconds: 1800, reason: '' })).status).toBe(422)
    const tooMany = await explain(workOrderId, { seconds: 3600, reason: 'a lesson' })
    expect([tooMany.status, tooMany.body.errors![0]!.path]).toEqual([422, 'seconds'])
    await explain(workOrderId, { seconds: 1200, reason: 'We taught the apprentice.' })
    const work = await workOf(workOrderId)
    expect(work.time.uncoveredSeconds).toBe(600)
    expect(work.history.some((one) => one.text.includes('We taught the apprentice.'))).toBe(true)
  })
  it('are charged as labour in one press, and then no more', async () => {
    const { workOrderId } = await worked('16:40', '17:10')
    const { time } = await workOf(workOrderId)
    const params = { id: workOrderId }
    const charged = await phone.ok('chargeTime', { params, body: { lineId: id() } })
    expect(charged.time.uncoveredSeconds).toBe(0)
    expect(charged.lines.at(-1)!.net).toEqual(time.charge)
    const again = await phone.send('chargeTime', { params, body: { lineId: id() } })
    expect([again.status, again.body.code]).toEqual([409, 'nothing_uncovered'])
  })
  it('are charged as the firm rounds them, from the moment on which it says so', async () => {
    const owner = await signedIn('owner')
    const { workOrderId } = await worked('17:12', '17:27')
    const asked = async () => Number((await workOf(workOrderId)).time.charge!.amount)
    const say = (body: BilledTime, shown: BilledTime) =>
      owner.send('keepBilledTime', { body: { ...body, shown } })
    const anHour: BilledTime = { way: 'up', stepMinutes: 15, leastMinutes: 60 }
    const quarters: BilledTime = { ...anHour, leastMinutes: 15 }
    expect((await say(quarters, USUAL_BILLED_TIME)).status).toBe(200)
    const quarter = await asked()
    expect((await say(anHour, USUAL_BILLED_TIME)).status).toBe(409)
    expect((await say(anHour, quarters)).status).toBe(200)
    expect(await asked()).toBeCloseTo(4 * quarter)
    expect((await say(USUAL_BILLED_TIME, anHour)).status).toBe(200)
    await explain(workOrderId, { seconds: 900, reason: 'A lesson' })
  })
})

describe('work that is finished', () => {
  it('without a price waits until somebody says why nothing comes of it', async () => {
    const { visitId, workOrderId } = await booked('17:30')
    atTime('17:30')
    await did(visitId, 'arrive')
    atTime('17:31')
    await did(visitId, 'finish')
    const params = { id: workOrderId }
    expect((await workOf(workOrderId)).state).toBe('to_bill')
    expect((await office.send('closeWorkOrder', { params, body: { reason: '' } })).status).toBe(422)
    const closed = await office.ok('closeWorkOrder', {
      params,
      body: { reason: 'Our own mistake.' },
    })
    expect(closed.state).toBe('closed')
    expect(closed.history[0]!.text).toContain('Our own mistake.')
  })
  it('with a price is not closed without its bill', async () => {
    const { visitId, workOrderId } = await booked('18:00')
    atTime('18:00')
    await did(visitId, 'arrive')
    atTime('18:01')
    await did(visitId, 'finish')
    const params = { id: workOrderId }
    const lines = [{ id: id(), name: 'Work', kind: 'other', quantity: '1', unitPrice: '90.00' }]
    await phone.ok('addLines', { params, body: { visitId, lines } })
    expect(
      (await office.send('closeWorkOrder', { params, body: { reason: 'never mind' } })).status,
    ).toBe(409)
  })
  it('is signed for the total that was shown, and for no other', async () => {
    const { visitId, workOrderId } = await booked('18:30')
    const params = { id: workOrderId }
    const lines = [{ id: id(), name: 'Work', kind: 'other', quantity: '1', unitPrice: '90.00' }]
    const { price } = await phone.ok('addLines', { params, body: { visitId, lines } })
    const drawn = await sharp({
      create: { width: 40, height: 20, channels: 4, background: '#16241f' },
    })
      .png()
      .toBuffer()
    const body = {
      id: id(),
      visitId,
      name: 'Mrs Fenn',
      image: `data:image/png;base64,${drawn.toString('base64')}`,
    }
    const wrong = await phone.send('sign', { params, body: { ...body, shownTotal: '1.00' } })
    expect(wrong.status).toBe(409)
    const signed = await phone.ok('sign', {
      params,
      body: { ...body, shownTotal: price.total.amount },
    })
    expect(signed.signatures.map(({ name, total }) => [name, total])).toEqual([
      ['Mrs Fenn', price.total],
    ])
  })
})

describe('a photograph', () => {
  const picture = () =>
    sharp({ create: { width: 30, height: 30, channels: 3, background: '#888' } })
      .jpeg()
      .toBuffer()
  it('stands on the work order, and is seen by whoever may see the work', async () => {
    const { workOrderId } = await booked('19:00')
    const photo = id()
    const data = `data:image/jpeg;base64,${(await picture()).toString('base64')}`
    await phone.ok('addPhoto', { params: { id: workOrderId }, body: { id: photo, data } })
    const { photos } = await workOf(workOrderId)
    expect(photos).toHaveLength(1)
    const seen = await phone.send('photo', { params: { id: photos[0]!.id } })
    expect(seen.headers.get('content-type')).toMatch(/^image\//)
    const ines = await signedIn('technician')
    expect((await ines.send('photo', { params: { id: photos[0]!.id } })).status).toBe(404)
  })
  it('that is none is refused at its field', async () => {
    const { workOrderId } = await booked('19:30')
    const data = `data:image/jpeg;base64,${Buffer.from('not a picture').toString('base64')}`
    const reply = await phone.send('addPhoto', {
      params: { id: workOrderId },
      body: { id: id(), data },
    })
    expect(reply.status).toBe(422)
  })
})

describe('a visit that nobody began', () => {
  const notBegun = async (date: string) =>
    (await phone.ok('fieldDay', { query: { date } })).notBegun.map((visit) => visit.id)
  it('stays with whoever should have for a fortnight, and is gone once it is begun or moved', async () => {
    const { visitId } = await booked('20:15')
    expect(await notBegun(DAY)).not.toContain(visitId)
    expect(await notBegun(plusDays(DAY, 1))).toContain(visitId)
    expect(await notBegun(plusDays(DAY, 14))).toContain(visitId)
    expect(await notBegun(plusDays(DAY, 15))).not.toContain(visitId)
    atTime('20:15')
    await did(visitId, 'arrive')
    expect(await notBegun(plusDays(DAY, 1))).not.toContain(visitId)
    await did(visitId, 'finish')
  })
})

describe('a line that was taken out', () => {
  const lineOf = async () => {
    const { workOrderId, visitId } = await booked('20:40')
    const lineId = id()
    const wanted = {
      id: lineId,
      name: 'A float switch',
      kind: 'other',
      quantity: '2',
      unitPrice: '31.50',
    }
    await office.ok('addLines', { params: { id: workOrderId }, body: { lines: [wanted] } })
    const change = (version: number, removed: boolean) =>
      office.send('changeLine', { params: { id: lineId }, body: { version, removed } })
    expect((await change(1, true)).status).toBe(200)
    return { workOrderId, visitId, lineId, change }
  }
  it('is named until it is put back, as it was, and the history says both', async () => {
    const { workOrderId, lineId, change } = await lineOf()
    const out = await workOf(workOrderId)
    expect([out.lines, out.totals.done.amount]).toEqual([[], '0.00'])
    expect(out.takenOut).toMatchObject([
      { id: lineId, version: 2, name: 'A float switch', net: { amount: '63.00' } },
    ])
    expect((await change(2, false)).status).toBe(200)
    const back = await workOf(workOrderId)
    expect(back.lines).toMatchObject([{ id: lineId, quantity: '2', net: { amount: '63.00' } }])
    expect(back.takenOut).toEqual([])
    expect(back.history.map(({ text }) => text).slice(0, 2)).toEqual([
      'Put back A float switch',
      'Took out A float switch',
    ])
  })
  it('comes back once, whoever of two was faster, and is no line to be changed meanwhile', async () => {
    const { change, lineId } = await lineOf()
    const done = { version: 2, done: false }
    expect((await office.send('changeLine', { params: { id: lineId }, body: done })).status).toBe(
      404,
    )
    const both = await Promise.all([change(2, false), change(2, false)])
    expect(both.filter(({ status }) => status === 200)).toHaveLength(1)
  })
  it('does not come back into work that is closed', async () => {
    const { workOrderId, visitId, change } = await lineOf()
    atTime('20:40')
    await did(visitId, 'arrive')
    atTime('20:50')
    await did(visitId, 'finish')
    const params = { id: workOrderId }
    await office.ok('closeWorkOrder', { params, body: { reason: 'Not wanted.' } })
    expect((await workOf(workOrderId)).takenOut).toEqual([])
    const reply = await change(2, false)
    expect([reply.status, reply.body.code]).toEqual([409, 'closed'])
  })
})
