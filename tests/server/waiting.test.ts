// Where everything waits: work that came to nothing comes back, a day that passed is seen, nothing leaves a list but by an act; and the proof of it.
import { spawnSync } from 'node:child_process'
import { isUnderWay } from '../../core/visits/visitLifecycle'
import { atOneMoment, type Ctx } from '../../server/http/context'
import { restate } from '../../server/visits/jobs'
import type { Answer } from '../../shared/api'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import {
  callerNamed,
  database,
  forgetClocksAfter,
  id,
  setClock,
  signedIn,
  type Client,
} from './client'

let office: Client
let owner: Client
/** A technician who is nowhere at the moment. */
let free: Answer<'schedule'>['technicians'][number]
const NOW = '2026-11-24T10:21'
beforeAll(async () => {
  setClock(NOW)
  await forgetClocksAfter('2026-11-24T15:21:00Z')
  office = await signedIn('office')
  owner = await signedIn('owner')
  const { technicians, visits } = await office.ok('schedule')
  const isBusy = (id: string) => visits.some((v) => v.technicianId === id && isUnderWay(v.state))
  free = technicians.find((t) => t.kind === 'employee' && !isBusy(t.id))!
})
beforeEach(() => setClock(NOW))
afterAll(() => setClock(NOW))

const schedule = (date?: string) => office.ok('schedule', date ? { query: { date } } : {})
const inTray = async (workOrderId: string) =>
  (await schedule()).tray.filter((v) => v.workOrderId === workOrderId)
const work = (workOrderId: string) => office.ok('workOrder', { params: { id: workOrderId } })
const isToBill = async (workOrderId: string) =>
  (await office.ok('workOrders', { query: { state: 'to_bill', limit: '200' } })).items.find(
    (w) => w.id === workOrderId,
  )
interface Booked {
  workOrderId: string
  visitId: string
}
/** Work with a visit of theirs, in the far future unless it is said otherwise. */
async function booked(
  day: number,
  at = '10:00',
  date = `2027-03-${String(day).padStart(2, '0')}`,
  more: object = {},
): Promise<Booked> {
  const caller = await callerNamed(office, 'lowfold')
  const ids = { workOrderId: id(), visitId: id() }
  await office.ok('bookCall', {
    params: { id: id() },
    body: {
      ...ids,
      customerId: caller.customerId,
      siteId: caller.sites[0]!.id,
      problem: 'Test work',
      ...{ technicianId: free.id, date, start: at, override: true },
      ...more,
    },
  })
  return ids
}
const versionOf = async ({ workOrderId, visitId }: Booked) =>
  (await work(workOrderId)).visits.find((v) => v.id === visitId)!.version
const cancelled = async (of: Booked, cancelled: boolean) =>
  office.ok('cancelVisit', {
    params: { id: of.visitId },
    body: { version: await versionOf(of), cancelled, reason: 'Not today', override: true },
  })
/** Acts of the clock, one after the other, on whatever day they were planned for. */
async function clocked({ visitId }: Booked, ...acts: string[]): Promise<void> {
  for (const act of acts)
    await office.ok('clock', { params: { id: visitId }, body: { act, otherDay: true } })
}
const sell = ({ workOrderId }: Booked, more: object = {}) =>
  office.ok('addLines', {
    params: { id: workOrderId },
    body: {
      lines: [
        {
          id: id(),
          name: 'Work',
          kind: 'other',
          quantity: '1',
          unitPrice: '80.00',
          done: true,
          ...more,
        },
      ],
    },
  })
const bill = ({ workOrderId }: Booked, to: string[] = []) =>
  office.ok('makeInvoice', { params: { id: workOrderId }, body: { id: id(), to } })

describe('work whose visits came to nothing', () => {
  it('waits in the tray again after its visit was cancelled, and no more once it is brought back', async () => {
    const of = await booked(1)
    expect(await inTray(of.workOrderId)).toEqual([])
    await cancelled(of, true)
    const [again] = await inTray(of.workOrderId)
    expect([again!.waiting, (await work(of.workOrderId)).state]).toEqual([
      'Its visit was cancelled, no day promised',
      'needs_slot',
    ])
    await cancelled(of, false)
    expect([await inTray(of.workOrderId), (await work(of.workOrderId)).state]).toEqual([
      [],
      'scheduled',
    ])
  })
  it('waits in the tray after nobody let them in, and no more once the door opens', async () => {
    const of = await booked(2)
    await clocked(of, 'set_off', 'no_access')
    expect((await inTray(of.workOrderId)).map((v) => v.waiting)).toEqual([
      'Nobody let us in, no day promised',
    ])
    await clocked(of, 'arrive')
    expect([await inTray(of.workOrderId), (await work(of.workOrderId)).state]).toEqual([
      [],
      'on_site',
    ])
    await clocked(of, 'finish')
  })
  it('waits once, however often it comes to nothing, and its new visit is placed like any', async () => {
    const of = await booked(3)
    await cancelled(of, true)
    const [again] = await inTray(of.workOrderId)
    const place = {
      technicianId: free.id,
      startAt: '2027-03-04T15:00:00.000Z',
      durationSeconds: 3600,
    }
    await office.ok('placeVisit', {
      params: { id: again!.id },
      body: { version: again!.version, override: true, ...place },
    })
    expect(await inTray(of.workOrderId)).toEqual([])
    await cancelled({ ...of, visitId: again!.id }, true)
    expect(await inTray(of.workOrderId)).toHaveLength(1)
  })
  it('is to bill where the way to a closed door is charged, and waits for its visit beside that', async () => {
    const of = await booked(5)
    await clocked(of, 'set_off', 'no_access')
    await sell(of)
    expect([(await work(of.workOrderId)).state, (await inTray(of.workOrderId)).length]).toEqual([
      'to_bill',
      1,
    ])
    expect((await isToBill(of.workOrderId))?.why).toContain('somebody goes there again')
  })
})

describe('a day that passed', () => {
  it('puts what nobody began into the tray at the closing hour, and leaves what is planned for the evening', async () => {
    const of = await booked(0, '15:00', '2026-11-24')
    const evening = await booked(0, '18:30', '2026-11-24')
    const waiting = async () => (await inTray(of.workOrderId)).map((v) => v.waiting)
    setClock('2026-11-24T17:59')
    expect(await waiting()).toEqual([])
    setClock('2026-11-24T18:00')
    expect(await waiting()).toEqual([
      `Was not begun by ${free.name.split(' ')[0]} on Tue, Nov 24, promised today`,
    ])
    expect(await inTray(evening.workOrderId)).toEqual([])
    setClock('2026-11-25T07:00')
    expect(await inTray(evening.workOrderId)).toHaveLength(1)
    const counted = (await office.ok('run')).schedule.noSlot
    expect(counted).toBe((await schedule()).tray.length)
  })
  it('lets it be placed anew, also where it was locked', async () => {
    const of = await booked(0, '14:00', '2026-11-24')
    const lock = { version: await versionOf(of), locked: true }
    await office.ok('lockVisit', { params: { id: of.visitId }, body: lock })
    setClock('2026-11-25T07:00')
    await office.ok('placeVisit', {
      params: { id: of.visitId },
      body: {
        version: await versionOf(of),
        override: true,
        ...{ technicianId: free.id, startAt: '2027-03-08T15:00:00.000Z', durationSeconds: 3600 },
      },
    })
    expect(await inTray(of.workOrderId)).toEqual([])
  })
})

describe('work that is done', () => {
  it('stays to be billed while a further visit is to come', async () => {
    const of = await booked(9)
    await clocked(of, 'arrive', 'finish')
    await sell(of)
    await office.ok('furtherVisit', {
      params: { id: of.visitId },
      body: { id: id(), version: await versionOf(of), durationSeconds: 3600, note: 'the rest' },
    })
    expect([(await work(of.workOrderId)).state, (await inTray(of.workOrderId)).length]).toEqual([
      'to_bill',
      1,
    ])
    await bill(of)
    expect((await work(of.workOrderId)).state).toBe('needs_slot')
  })
  it('stays to be billed while minutes are neither charged nor explained', async () => {
    const of = await booked(10)
    await clocked(of, 'arrive')
    setClock('2026-11-24T10:33')
    await clocked(of, 'finish')
    await sell(of)
    await bill(of)
    expect((await isToBill(of.workOrderId))?.why).toBe('0:12 h that nobody charged or explained')
    const body = { seconds: 720, reason: 'Waited for the key' }
    await office.ok('explainTime', { params: { id: of.workOrderId }, body })
    expect((await work(of.workOrderId)).state).toBe('billed')
    await forgetClocksAfter('2026-11-24T15:21:00Z')
  })
  it('closed by hand, says of these minutes why they are not charged', async () => {
    const of = await booked(11)
    await clocked(of, 'arrive')
    setClock('2026-11-24T10:33')
    await clocked(of, 'finish')
    const params = { id: of.workOrderId }
    const closed = await owner.ok('closeWorkOrder', { params, body: { reason: 'Goodwill' } })
    expect([closed.state, closed.time.uncoveredSeconds]).toEqual(['closed', 0])
    expect(closed.history.map((h) => h.text)).toContain('Closed, 12 minutes not charged: Goodwill')
    await forgetClocksAfter('2026-11-24T15:21:00Z')
  })
})

describe('a work order', () => {
  const cancel = (of: Booked, client = office) =>
    client.send('cancelWorkOrder', {
      params: { id: of.workOrderId },
      body: { reason: 'They moved' },
    })
  const reopen = (of: Booked) =>
    office.send('reopenWorkOrder', {
      params: { id: of.workOrderId },
      body: { reason: 'After all' },
    })
  it('is cancelled with its visits, and comes back with them where their time is still theirs', async () => {
    const of = await booked(15)
    expect((await cancel(of)).body).toMatchObject({ state: 'cancelled' })
    expect([(await schedule('2027-03-15')).visits.length, await inTray(of.workOrderId)]).toEqual([
      0,
      [],
    ])
    expect((await reopen(of)).body).toMatchObject({ state: 'scheduled' })
    expect((await schedule('2027-03-15')).visits.map((v) => v.id)).toEqual([of.visitId])
  })
  it('comes back into the tray where somebody else has its time by then', async () => {
    const of = await booked(16)
    await cancel(of)
    await booked(16)
    expect((await reopen(of)).body).toMatchObject({ state: 'needs_slot' })
    expect((await inTray(of.workOrderId)).map((v) => v.id)).toEqual([of.visitId])
  })
  it.each<[string, (of: Booked) => Promise<unknown>, string]>([
    ['somebody is there', (of) => clocked(of, 'arrive'), 'not_finished'],
    ['work was done', (of) => clocked(of, 'arrive', 'finish'), 'was_done'],
    ['it is cancelled already', (of) => cancel(of), 'closed'],
    [
      'something is to bill',
      (of) => clocked(of, 'set_off', 'no_access').then(() => sell(of)),
      'still_to_bill',
    ],
  ])('is not cancelled while %s', async (_, before, code) => {
    const of = await booked(17)
    await before(of)
    expect((await cancel(of)).body.code).toBe(code)
    if (code === 'not_finished') await clocked(of, 'finish')
  })
  it('whose way to a closed door was billed is closed, with the visit that was to come again', async () => {
    const of = await booked(23)
    await clocked(of, 'set_off', 'no_access')
    await sell(of)
    await bill(of)
    expect([(await work(of.workOrderId)).state, (await cancel(of)).body.code]).toEqual([
      'needs_slot',
      'was_done',
    ])
    const params = { id: of.workOrderId }
    const closed = await owner.ok('closeWorkOrder', { params, body: { reason: 'They gave it up' } })
    expect([closed.state, await inTray(of.workOrderId)]).toEqual(['closed', []])
  })
  it('that was worked on waits again where nobody let them in the second time', async () => {
    const of = await booked(24)
    await clocked(of, 'arrive', 'finish')
    await sell(of)
    await bill(of)
    const further = { id: id(), version: await versionOf(of), durationSeconds: 3600, note: 'rest' }
    await office.ok('furtherVisit', {
      params: { id: of.visitId },
      body: {
        ...further,
        technicianId: free.id,
        startAt: '2027-03-25T15:00:00.000Z',
        override: true,
      },
    })
    await clocked({ ...of, visitId: further.id }, 'set_off', 'no_access')
    expect((await inTray(of.workOrderId)).map((v) => v.waiting)).toEqual([
      'Nobody let us in, no day promised',
    ])
  })
  it('that goes on is not reopened', async () => {
    expect((await reopen(await booked(18))).body.code).toBe('not_closed')
  })
  it('closed by hand goes on as what it was', async () => {
    const of = await booked(19)
    await clocked(of, 'arrive', 'finish')
    await owner.ok('closeWorkOrder', {
      params: { id: of.workOrderId },
      body: { reason: 'Goodwill' },
    })
    expect((await reopen(of)).body).toMatchObject({ state: 'to_bill' })
  })
})

describe('the list to act on', () => {
  const places = async (client = office) =>
    new Map((await client.ok('toActOn')).places.map((p) => [p.place, p]))
  it('says of each place how much waits there, as the run does', async () => {
    const [on, run] = [await places(owner), await owner.ok('run')]
    expect(on.get('calls')!.count).toBe(run.calls.count)
    expect(on.get('tray')!.count).toBe(run.schedule.noSlot)
    expect([on.get('to_bill')!.count, on.get('to_bill')!.sum]).toEqual([
      run.toBill.count,
      run.toBill.sum,
    ])
    expect([on.get('unpaid')!.count, on.get('unpaid')!.sum]).toEqual([
      run.unpaid.count,
      run.unpaid.sum,
    ])
  })
  it('names an invoice that was never sent, until it is', async () => {
    const of = await booked(22)
    await clocked(of, 'arrive', 'finish')
    await sell(of, { unitPrice: '61.00' })
    const invoice = await bill(of)
    const unsent = async () =>
      (await office.ok('invoices', { query: { state: 'unsent', limit: '200' } })).items.length
    const before = await places()
    expect(before.get('to_send')!.count).toBe(await unsent())
    await office.ok('sendInvoice', {
      params: { id: invoice.id },
      body: { to: ['lowfold@example.com'], subject: 'Bill', text: 'Here it is' },
    })
    expect((await places()).get('to_send')!.count).toBe(before.get('to_send')!.count - 1)
  })
  it('shows nobody what is not for them', async () => {
    const dispatch = await signedIn('dispatch')
    expect([...(await places(dispatch)).keys()]).not.toContain('unpaid')
    const field = await signedIn('technician')
    expect((await field.send('toActOn')).status).toBe(403)
  })
})

describe('the proof', () => {
  const run = () =>
    spawnSync(process.execPath, ['--import', 'tsx', 'scripts/check-run.ts'], {
      env: process.env,
      encoding: 'utf8',
    })
  it('is clean', () => {
    const { status, stdout } = run()
    expect([stdout.trim(), status]).toEqual(['ok    everything is in one place, and seen there', 0])
  })
  it.each([
    ['work_orders', `state = 'to_bill'`, 'state', `'billed'`, 'state billed'],
    ['work_orders', `state = 'to_bill' AND to_bill_minor > 0`, 'to_bill_minor', '1', 'toBill 1'],
    [
      'visits',
      `state = 'planned' AND start_at IS NULL`,
      'state',
      `'cancelled'`,
      'seen through its visit',
    ],
    ['quotes', `state = 'sent'`, 'state', `'accepted'`, 'seen through its work order'],
    ['calls', `state = 'open'`, 'state', `'booked'`, 'seen through its work order'],
  ])('names what was tampered with in %s: %3$s', async (table, where, column, value, says) => {
    const db = await database()
    const [rows] = await db.query(
      `SELECT id, ${column} AS was FROM ${table} WHERE ${where} ORDER BY id LIMIT 1`,
    )
    const [{ id: of, was }] = rows as [{ id: string; was: unknown }]
    await db.query(`UPDATE ${table} SET ${column} = ${value} WHERE id = ?`, [of])
    try {
      const { status, stdout } = run()
      expect([status, stdout]).toEqual([1, expect.stringContaining(says)])
    } finally {
      await db.query(`UPDATE ${table} SET ${column} = ? WHERE id = ?`, [was, of])
      await db.end()
    }
  })
})

describe('what is read of everything', () => {
  it('is read as it stood at one moment: what is written meanwhile is not half in it', async () => {
    const db = await database()
    const count = async ({ tx }: Ctx) =>
      (await tx.row<{ n: number }>('SELECT COUNT(*) AS n FROM messages'))!.n
    const [before, after] = await atOneMoment({ actor: null, ip: '' }, async (ctx) => {
      const first = await count(ctx)
      await db.query(
        `INSERT INTO messages (id, kind, recipients, subject, body, state, created_at)
        VALUES (UUID(), 'receipt', '[]', '', '', 'let_be', NOW(3))`,
      )
      return [first, await count(ctx)]
    })
    await db.end()
    expect(after).toBe(before)
  })
})
describe('what was promised and not done', () => {
  const promised = async (day: number) => {
    const { items } = await office.ok('priceBook', { query: { q: 'pressure switch' } })
    const of = await booked(day, '10:00', undefined, {
      entries: [{ entryId: items[0]!.id, quantity: '1' }],
    })
    await clocked(of, 'set_off', 'arrive', 'finish')
    await sell(of)
    await bill(of, ['somebody@example.org'])
    return of
  }
  it('keeps its work to be billed when all else is, until somebody says why it is not done', async () => {
    const of = await promised(8)
    const { lines, state } = await work(of.workOrderId)
    const line = lines.find(({ done }) => !done)!
    expect([state, (await isToBill(of.workOrderId))!.why]).toEqual([
      'to_bill',
      'a line was promised and not done',
    ])
    const leave = {
      params: { id: of.workOrderId },
      body: { lineIds: [line.id], reason: 'they bought one' },
    }
    const dispatch = await signedIn('dispatch')
    expect((await dispatch.send('leaveUndone', leave)).status).toBe(403)
    const left = await office.ok('leaveUndone', leave)
    expect([left.state, left.takenOut.map((l) => l.id)]).toEqual(['billed', [line.id]])
    expect(left.history[0]!.text).toBe(`Promised and not done: ${line.name}: they bought one`)
    expect((await office.send('leaveUndone', leave)).body.code).toBe('stale')
  })
  it('is left for no reason while somebody is to go there again', async () => {
    const of = await promised(11)
    const line = (await work(of.workOrderId)).lines.find(({ done }) => !done)!
    await office.ok('furtherVisit', {
      params: { id: of.visitId },
      body: { id: id(), version: await versionOf(of), durationSeconds: 3600 },
    })
    const leave = {
      params: { id: of.workOrderId },
      body: { lineIds: [line.id], reason: 'shown before' },
    }
    expect((await office.send('leaveUndone', leave)).body.code).toBe('stale')
    expect((await work(of.workOrderId)).lines.map((l) => l.id)).toContain(line.id)
  })
  it('is no gap once it is ticked, and is billed', async () => {
    const of = await promised(9)
    const line = (await work(of.workOrderId)).lines.find(({ done }) => !done)!
    const { params, body } = {
      params: { id: line.id },
      body: { version: line.version, done: true },
    }
    await office.ok('changeLine', { params, body })
    await bill(of, ['somebody@example.org'])
    expect((await work(of.workOrderId)).state).toBe('billed')
  })
})
describe('a state that an older rule kept', () => {
  it('is worked out anew, once', async () => {
    const of = await booked(10)
    const db = await database()
    await db.query(`UPDATE work_orders SET state = 'closed' WHERE id = ?`, [of.workOrderId])
    await db.end()
    expect(await restate(Date.parse('2026-11-24T15:21:00Z'))).toBe(1)
    expect((await work(of.workOrderId)).state).toBe('scheduled')
    expect(await restate(Date.parse('2026-11-24T15:21:00Z'))).toBe(0)
  })
})
