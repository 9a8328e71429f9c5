// How a call ends, what is held meanwhile, and requests from the public form with everything that robots try.
import { createHmac } from 'node:crypto'
import type { Connection } from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Client } from './client'
import { base, callerNamed, database, id, setClock, signedIn, somethingToBill } from './client'

let office: Client, dispatch: Client, db: Connection
beforeAll(async () => {
  setClock('2026-11-24T10:21')
  ;[office, dispatch] = await Promise.all([signedIn('office'), signedIn('dispatch')])
  db = await database()
})
afterAll(async () => {
  setClock('2026-11-24T10:21')
  await db.end()
})
const keep = async (draft: object, summary = 'A call') => {
  const callId = id()
  await office.ok('saveCall', { params: { id: callId }, body: { draft, summary } })
  return callId
}
const inList = async (callId: string) =>
  (await office.ok('calls')).items.find((c) => c.id === callId)
const technician = async (name: string) =>
  (await office.ok('schedule')).technicians.find((t) => t.name.startsWith(name))!

describe('a call that two people write in', () => {
  it('is kept by whoever read it last, and refused with what stands there to the other', async () => {
    const callId = await keep({ problem: 'No water' })
    const save = (problem: string, version: number | null) =>
      office.send('saveCall', { params: { id: callId }, body: { draft: { problem }, version } })
    const first = await save('No water since six', 1)
    expect([first.status, first.body.version]).toEqual([200, 2])
    const second = await save('No water at all', 1)
    expect([second.status, second.body.code]).toEqual([409, 'stale'])
    expect(second.body).toMatchObject({
      current: { draft: { problem: 'No water since six' }, version: 2 },
    })
    // Whoever does not say what they read is taken at their word, as before.
    expect((await save('No water at all', null)).body.version).toBe(3)
  })
})
describe('a call that is not whole', () => {
  it('says what is missing and stays on the list until it is booked', async () => {
    const hallam = await callerNamed(office, 'hallam dairy')
    const callId = await keep({ customerId: hallam.customerId, problem: 'No water' })
    expect((await inList(callId))!.waiting).toBe('Still missing: the site, a time, who goes')
    await office.ok('bookCall', {
      params: { id: callId },
      body: {
        workOrderId: id(),
        visitId: id(),
        customerId: hallam.customerId,
        siteId: hallam.sites[0]!.id,
        problem: 'No water',
      },
    })
    expect(await inList(callId)).toBeUndefined()
  })
  it('holds its time on the schedule, visibly incomplete', async () => {
    const maud = await technician('Maud')
    const callId = await keep(
      { date: '2026-11-25', start: '14:00', technicianId: maud.id, durationSeconds: 3600 },
      'Somebody, later more',
    )
    const day = await dispatch.ok('schedule', { query: { date: '2026-11-25' } })
    expect(day.held).toContainEqual({
      callId,
      technicianId: maud.id,
      startAt: '2026-11-25T19:00:00.000Z',
      durationSeconds: 3600,
      summary: 'Somebody, later more',
      missing: 'customer, site, problem',
    })
    await office.ok('endCall', {
      params: { id: callId },
      body: { state: 'declined', reason: 'wrong number' },
    })
    expect(
      (await dispatch.ok('schedule', { query: { date: '2026-11-25' } })).held.map((h) => h.callId),
    ).not.toContain(callId)
  })
})

describe('a call ends', () => {
  it('by mistake, and is taken up again as it was; what waits or was booked is not', async () => {
    const callId = await keep({ problem: 'Asks for the owner' })
    const params = { id: callId }
    const lately = async () =>
      (await office.ok('endedCalls')).items.find((call) => call.id === callId)
    const again = () => office.send('reopenCall', { params })
    expect(await again()).toMatchObject({ status: 409, body: { code: 'not_ended' } })
    await office.ok('endCall', { params, body: { state: 'answered', reason: 'she rings back' } })
    expect(await lately()).toMatchObject({ state: 'answered', reason: 'she rings back' })
    expect((await again()).status).toBe(200)
    expect(await lately()).toBeUndefined()
    expect(await inList(callId)).toMatchObject({ state: 'open' })
    const { draft } = await office.ok('call', { params })
    expect(draft.problem).toBe('Asks for the owner')
    const nobody = await office.send('reopenCall', { params: { id: id() } })
    expect(nobody.status).toBe(404)
  })
  it('and takes no words any more: whoever still typed is told, and may take it up again', async () => {
    const callId = await keep({ problem: 'Asks for the owner' })
    const params = { id: callId }
    await office.ok('endCall', { params, body: { state: 'answered', reason: 'she rings back' } })
    const draft = { problem: 'Asks for the owner, and for the bill' }
    const typed = (version: number) => office.send('saveCall', { params, body: { draft, version } })
    expect(await typed(1)).toMatchObject({ status: 409, body: { code: 'call_ended' } })
    expect((await office.ok('call', { params })).draft.problem).toBe('Asks for the owner')
    await office.ok('reopenCall', { params })
    const { version } = await office.ok('call', { params })
    expect((await typed(version)).status).toBe(200)
  })
  it('as a call-back with its day and who rings; not in the past, not in years', async () => {
    const { people } = await office.ok('setUp')
    const corin = people.find((p) => p.name.startsWith('Corin'))!
    const callId = await keep({ problem: 'wants to think' })
    const end = (callBackOn: string | null) =>
      office.send('endCall', {
        params: { id: callId },
        body: { state: 'put_off', reason: 'asks her sister', callBackOn, assignedTo: corin.id },
      })
    for (const wrong of [null, '2026-11-23', '2029-01-01'])
      expect(await end(wrong)).toMatchObject({
        status: 422,
        body: { errors: [{ path: 'callBackOn' }] },
      })
    expect((await end('2026-11-24')).status).toBe(200)
    expect(await inList(callId)).toMatchObject({
      waiting: 'Call back today: asks her sister',
      assignedTo: 'Corin Ashby',
      late: false,
    })
    setClock('2026-11-26T09:00')
    expect(await inList(callId)).toMatchObject({
      waiting: 'Call back on Tue, Nov 24: asks her sister, overdue',
      late: true,
    })
    setClock('2026-11-24T10:21')
  })
  it('as a visit to quote, which belongs to a person, and the prospect shows when', async () => {
    const made = await office.ok('newCustomer', {
      body: {
        id: id(),
        siteId: id(),
        name: 'Prospera Vail',
        line1: '3 Ford End',
        town: 'Larkmoor',
        postcode: '04101',
        prospect: true,
      },
    })
    const book = (technicianId: string | null) =>
      office.send('bookCall', {
        params: { id: id() },
        body: {
          workOrderId: id(),
          visitId: id(),
          customerId: made.customerId,
          siteId: made.sites[0]!.id,
          problem: 'A price for a softener',
          kind: 'quote_visit',
          technicianId,
          date: '2026-12-02',
          start: '11:00',
          override: true,
        },
      })
    const row = async () =>
      (await office.ok('customers', { query: { q: 'prospera', kind: 'prospect' } })).items[0]!
    expect((await row()).next).toBe('nobody has it yet')
    const quote = await office.ok('beginQuote', {
      body: {
        ...{ id: id(), customerId: made.customerId, siteId: made.sites[0]!.id },
        title: 'A softener',
      },
    })
    expect((await row()).next).toMatch(new RegExp(`^quote ${quote.number}, not sent yet`))
    expect(await book(null)).toMatchObject({
      status: 422,
      body: { errors: [{ path: 'technicianId' }] },
    })
    const ines = await technician('Ines')
    expect((await book(ines.id)).status).toBe(200)
    expect((await row()).next).toBe('visit Wed, Dec 2, Ines Calloway')
  })
  it('a prospect with ordinary work is a customer from then on', async () => {
    const made = await office.ok('newCustomer', {
      body: {
        id: id(),
        siteId: id(),
        name: 'Becomes Customer',
        line1: '3 Ford End',
        prospect: true,
      },
    })
    await office.ok('bookCall', {
      params: { id: id() },
      body: {
        workOrderId: id(),
        visitId: id(),
        customerId: made.customerId,
        siteId: made.sites[0]!.id,
        problem: 'No water',
      },
    })
    expect((await office.ok('caller', { params: { id: made.customerId } })).prospect).toBe(false)
  })
})

describe('calls counted', () => {
  const day = '2026-11-24'
  const counted = async (by: 'source' | 'kind' | 'about') =>
    office.ok('callsCounted', { query: { from: day, to: day, by } })
  const end = async (state: 'answered' | 'declined', about: 'bill' | 'price', source: string) => {
    const callId = id()
    const draft = { about, source, problem: 'counted' }
    await office.ok('saveCall', { params: { id: callId }, body: { draft, summary: 'Counted' } })
    await office.ok('endCall', { params: { id: callId }, body: { state, reason: 'told them' } })
    return callId
  }
  it('by what they were about, by source, by kind; one that was answered waits nowhere', async () => {
    const before = await counted('about')
    const bill = (answer: typeof before) =>
      answer.items.find(({ key }) => key === 'bill')?.came ?? { answered: 0, declined: 0 }
    const callId = await end('answered', 'bill', 'van')
    await end('declined', 'price', 'van')
    const now = await counted('about')
    expect([now.all.calls - before.all.calls, bill(now).answered - bill(before).answered]).toEqual([
      2, 1,
    ])
    expect((await office.ok('calls')).items.map((call) => call.id)).not.toContain(callId)
    for (const by of ['source', 'kind'] as const) {
      const { items, all } = await counted(by)
      expect(items.reduce((n, { calls }) => n + calls, 0)).toBe(all.calls)
    }
  })
  it('whose work is billed says so in money, once', async () => {
    const sum = async () => Number((await counted('source')).all.billed.amount)
    const before = await sum()
    const { workOrderId } = await somethingToBill(office)
    expect(await sum()).toBe(before)
    const { paper } = await office.ok('makeInvoice', {
      params: { id: workOrderId },
      body: { id: id(), to: [] },
    })
    expect(await sum()).toBeCloseTo(before + Number(paper.total.amount), 2)
  })
  it('of no days, or of days the wrong way round', async () => {
    const refused = await office.send('callsCounted', {
      query: { from: '2026-11-24', to: '2026-11-20' },
    })
    expect(refused.body.errors).toEqual([
      { path: 'to', message: 'The last day is before the first.' },
    ])
    const none = await office.ok('callsCounted', {
      query: { from: '2019-01-01', to: '2019-01-02' },
    })
    expect([none.items, none.all.calls]).toEqual([[], 0])
  })
})
describe('what a booking carries', () => {
  it('answers, equipment, contact; the same equipment shows when they ring again', async () => {
    const hallam = await callerNamed(office, 'hallam dairy')
    const { questions } = await office.ok('setUp')
    const e = hallam.equipment[0]!
    const k = hallam.contacts[0]!
    const workOrderId = id()
    await office.ok('bookCall', {
      params: { id: id() },
      body: {
        workOrderId,
        visitId: id(),
        customerId: hallam.customerId,
        siteId: e.siteId,
        equipmentId: e.id,
        contactId: k.id,
        problem: 'Leaks',
        answers: [{ questionId: questions[0]!.id, question: questions[0]!.text, answer: 'no' }],
      },
    })
    const w = await office.ok('workOrder', { params: { id: workOrderId } })
    expect(w).toMatchObject({
      equipment: `${e.make} ${e.category} ${e.serial}`,
      contact: { name: k.name, phone: k.phone },
      answers: [{ question: questions[0]!.text, answer: 'no' }],
    })
    expect(
      (await office.ok('caller', { params: { id: hallam.customerId } })).openWork.find(
        (o) => o.id === workOrderId,
      )!.equipmentId,
    ).toBe(e.id)
    const elsewhere = hallam.sites.find((s) => s.id !== e.siteId)!
    expect(
      await office.send('bookCall', {
        params: { id: id() },
        body: {
          workOrderId: id(),
          visitId: id(),
          customerId: hallam.customerId,
          siteId: elsewhere.id,
          equipmentId: e.id,
          problem: 'Leaks',
        },
      }),
    ).toMatchObject({ status: 422, body: { errors: [{ path: 'equipmentId' }] } })
  })
  it('a site of somebody else is not a place for this customer’s work', async () => {
    const [a, b] = [
      await callerNamed(office, 'hallam dairy'),
      await callerNamed(office, 'wren cottages'),
    ]
    expect(
      await office.send('bookCall', {
        params: { id: id() },
        body: {
          workOrderId: id(),
          visitId: id(),
          customerId: a.customerId,
          siteId: b.sites[0]!.id,
          problem: 'x',
        },
      }),
    ).toMatchObject({ status: 422, body: { errors: [{ path: 'siteId' }] } })
  })
  it('says another territory and a lacking skill before booking, and books all the same', async () => {
    const fenn = await callerNamed(office, 'fenn orchard')
    const maud = await technician('Maud')
    const { warnings } = await office.ok('checkPlacement', {
      body: {
        technicianId: maud.id,
        startAt: '2026-12-03T15:00:00Z',
        durationSeconds: 3600,
        siteId: fenn.sites[0]!.id,
        skills: ['lab', 'pumps'],
      },
    })
    expect(warnings.map((w) => w.text)).toEqual([
      'this is in The marsh; Maud serves The tarns',
      'Maud does not have lab among their skills',
    ])
    expect(
      (
        await office.send('bookCall', {
          params: { id: id() },
          body: {
            workOrderId: id(),
            visitId: id(),
            customerId: fenn.customerId,
            siteId: fenn.sites[0]!.id,
            problem: 'x',
            technicianId: maud.id,
            date: '2026-12-03',
            start: '10:00',
          },
        })
      ).status,
    ).toBe(200)
  })
})

describe('the public request form', () => {
  const PNG = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
    'base64',
  )
  const stamp = (age: number) => {
    const at = String(Date.now() - age)
    return `${at}.${createHmac('sha256', process.env.OPEN_LEDGER_SECRET!).update(`request:${at}`).digest('base64url')}`
  }
  const send = async (fields: Record<string, string>, pictures: Buffer[] = []) => {
    const form = new FormData()
    for (const [k, v] of Object.entries({
      name: 'Robin Reed',
      phone: '+44 20 7946 0911',
      problem: 'Pump hums and does not start',
      stamp: stamp(20_000),
      ...fields,
    }))
      form.set(k, v)
    pictures.forEach((p, i) =>
      form.append('pictures', new Blob([new Uint8Array(p)]), `picture-${i}.png`),
    )
    const reply = await fetch(`${base}/request`, {
      method: 'POST',
      body: form,
      redirect: 'manual',
      headers: { Accept: 'application/json' },
    })
    return {
      status: reply.status,
      body: (await reply.json().catch(() => ({}))) as {
        code?: string
        errors?: { path: string }[]
      },
    }
  }
  const requests = async () =>
    (await office.ok('calls')).items.filter(
      (c) => c.origin === 'form' && c.summary.startsWith('Robin Reed'),
    )
  let minute = 0
  // Each test has its own quarter of an hour, so that the limit of one does not count for the next.
  const later = () =>
    setClock(
      `2026-11-24T1${Math.floor((minute += 15) / 60)}:${String(minute % 60).padStart(2, '0')}`,
    )

  it('lands in the list at once, with its pictures and its words, and becomes an ordinary call', async () => {
    later()
    expect(
      (
        await send({ wanted: 'Thursday', email: 'robin@example.com', town: 'Otterfall' }, [
          PNG,
          PNG,
        ])
      ).status,
    ).toBe(303)
    const [r] = await requests()
    expect(r).toMatchObject({
      takenBy: '',
      origin: 'form',
      draft: {
        isNew: true,
        name: 'Robin Reed',
        phone: '+44 20 7946 0911',
        problem: 'Pump hums and does not start\nWished for: Thursday',
      },
    })
    expect(r!.waiting).toContain('nobody has answered yet')
    expect(r!.files.length).toBe(2)
    const made = await office.ok('newCustomer', {
      body: {
        id: id(),
        siteId: id(),
        name: 'Robin Reed',
        line1: '5 Reed Bank',
        phone: '+442079460911',
      },
    })
    const workOrderId = id()
    await office.ok('bookCall', {
      params: { id: r!.id },
      body: {
        workOrderId,
        visitId: id(),
        customerId: made.customerId,
        siteId: made.sites[0]!.id,
        problem: r!.draft.problem,
      },
    })
    expect((await office.ok('workOrder', { params: { id: workOrderId } })).photos.length).toBe(2)
    expect((await office.ok('customer', { params: { id: made.customerId } })).files.length).toBe(2)
    expect(await requests()).toEqual([])
  })
  it('a number that we know proposes who it is, and decides nothing', async () => {
    later()
    expect((await send({ name: 'Robin Reed junior', phone: '+44 (0)20 7946 0911' })).status).toBe(
      303,
    )
    const [r] = await requests()
    expect(r!.draft).toMatchObject({
      customerId: null,
      query: 'Robin Reed',
      speaking: 'Robin Reed junior',
      problem: 'Pump hums and does not start\nPerhaps Robin Reed',
    })
    await office.ok('endCall', {
      params: { id: r!.id },
      body: { state: 'declined', reason: 'test' },
    })
  })
  it('a robot is answered and not heard: the hidden field filled, or faster than hands', async () => {
    later()
    expect((await send({ website: 'http://cheap.example' })).status).toBe(303)
    expect((await send({ stamp: stamp(200) })).status).toBe(303)
    expect(await requests()).toEqual([])
  })
  it('a stamp that is made up or old, no way to answer, a wrong mail, a file that is no picture, too many of them', async () => {
    later()
    const wrong: [Record<string, string>, Buffer[], number, string][] = [
      [{ stamp: '1.made-up' }, [], 422, 'stale_form'],
      [{ stamp: stamp(13 * 3_600_000) }, [], 422, 'stale_form'],
      [{ phone: '' }, [], 422, 'invalid'],
      [{ email: 'not a mail' }, [], 422, 'invalid'],
      [{ problem: '' }, [], 422, 'invalid'],
      [{}, [Buffer.from('MZ this is a program')], 422, 'not_a_picture'],
      [{}, [PNG, PNG, PNG, PNG, PNG], 422, 'too_many_pictures'],
    ]
    for (const [fields, pictures, status, code] of wrong)
      expect(await send(fields, pictures), code).toMatchObject({ status, body: { code } })
    expect(await requests()).toEqual([])
  })
  it('a body beyond its bounds is refused while it arrives', async () => {
    later()
    expect((await send({}, [Buffer.alloc(21_000_000)])).status).toBe(413)
    expect(
      (
        await fetch(`${base}/request`, {
          method: 'POST',
          body: '{}',
          headers: { 'Content-Type': 'application/json', Accept: 'application/json' },
        })
      ).status,
    ).toBe(415)
  })
  it('may be framed, and nothing else may', async () => {
    const [form, rest] = await Promise.all([fetch(`${base}/request`), fetch(`${base}/sign-in`)])
    expect(form.headers.get('content-security-policy')).toContain('frame-ancestors *')
    expect(form.headers.get('x-frame-options')).toBeNull()
    expect(rest.headers.get('content-security-policy')).toContain(`frame-ancestors 'none'`)
    expect(rest.headers.get('x-frame-options')).toBe('DENY')
    for (const r of [form, rest])
      expect(r.headers.get('content-security-policy')).not.toMatch(/script-src[^;]*unsafe-inline/)
  })
  it('ten thousand requests: a few are taken, the rest are told to wait, and the office goes on working', async () => {
    later()
    const statuses: number[] = []
    for (let i = 0; i < 10_000; i += 200) {
      statuses.push(
        ...(await Promise.all(
          Array.from({ length: 200 }, () =>
            fetch(`${base}/request`, {
              method: 'POST',
              body: new URLSearchParams({
                name: 'Robin Reed',
                phone: '6075550191',
                problem: 'flood',
                stamp: stamp(20_000),
              }),
              redirect: 'manual',
              headers: { Accept: 'application/json' },
            }).then((r) => {
              void r.arrayBuffer()
              return r.status
            }),
          ),
        )),
      )
    }
    expect((await office.ok('run')).calls.count).toBeGreaterThan(0)
    expect(statuses.filter((s) => s === 303).length).toBeGreaterThan(0)
    expect(statuses.filter((s) => s === 303).length).toBeLessThanOrEqual(5)
    expect(statuses.filter((s) => s === 429).length).toBe(
      10_000 - statuses.filter((s) => s === 303).length,
    )
    expect((await requests()).length).toBe(statuses.filter((s) => s === 303).length)
    await db.query(`UPDATE calls SET state = 'declined' WHERE summary LIKE 'Robin Reed%'`)
  })
})
