// The schedule as people work with it: several technicians, locks, further visits, views of many days, saved filters, the map, messages, paper, territories from a file.
import { createHmac } from 'node:crypto'
import ICAL from 'ical.js'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { closePool } from '../../server/db/pool'
import { remindTomorrow } from '../../server/dispatch/visitMessages'
import { inContext } from '../../server/http/context'
import {
  callerNamed,
  type Client,
  database,
  forgetClocksAfter,
  id,
  setClock,
  signedIn,
  until,
} from './client'

let office: Client
const people = new Map<string, string>()
beforeAll(async () => {
  setClock('2026-11-24T10:21')
  office = await signedIn('office')
  for (const t of (await office.ok('schedule')).technicians) people.set(t.name.split(' ')[0]!, t.id)
})
afterAll(closePool)
const at = (date: string, time: string) =>
  new Date(Date.parse(`${date}T${time}:00Z`) + 5 * 3_600_000).toISOString()
/** A booked visit for Fenn Orchard, whose place and territory are known. */
async function booked(
  over: {
    technician?: string
    date?: string
    start?: string
    promise?: [string, string]
    seconds?: number
    moves?: object[]
  } = {},
) {
  const c = await callerNamed(office, 'fenn orchard')
  const ids = { workOrderId: id(), visitId: id() }
  await office.ok('bookCall', {
    params: { id: id() },
    body: {
      ...ids,
      customerId: c.customerId,
      siteId: c.sites[0]!.id,
      problem: 'Pump hums',
      technicianId: over.technician === '' ? null : people.get(over.technician ?? 'Maud'),
      date: over.date ?? '2026-12-10',
      start: over.start ?? '09:00',
      promiseFrom: over.promise?.[0] ?? null,
      promiseTo: over.promise?.[1] ?? null,
      durationSeconds: over.seconds ?? 7200,
      override: true,
      moves: over.moves ?? [],
    },
  })
  return {
    ...ids,
    customerId: c.customerId,
    siteId: c.sites[0]!.id,
    date: over.date ?? '2026-12-10',
  }
}
const onBoard = async (visitId: string, date = '2026-12-10') =>
  (await office.ok('schedule', { query: { date } })).visits.find((v) => v.id === visitId)!
const signed = (secret: string, path: string, body: object) => {
  const text = JSON.stringify(body)
  const t = Math.floor(Date.now() / 1000)
  return office.raw('POST', `/api/v1${path}`, text, {
    'X-Signature': `t=${t},v=${createHmac('sha256', secret).update(`${t}.`).update(text).digest('hex')}`,
  })
}

describe('several technicians on a visit', () => {
  it('both are booked: the one who goes along is not free, sees it on the phone, and is named in the history', async () => {
    const made = await booked()
    const v = await onBoard(made.visitId)
    const piet = people.get('Piet')!
    const placed = await office.ok('placeVisit', {
      params: { id: v.id },
      body: {
        technicianId: v.technicianId,
        startAt: v.startAt,
        durationSeconds: v.durationSeconds,
        version: v.version,
        crewIds: [piet],
        override: true,
      },
    })
    expect(placed.crewIds).toEqual([piet])
    const clash = await office.ok('checkPlacement', {
      body: { technicianId: piet, startAt: v.startAt, durationSeconds: 3600 },
    })
    expect(clash.warnings.map((w) => w.code)).toContain('clash')
    const openings = await office.ok('openings', {
      body: {
        siteId: made.siteId,
        customerId: made.customerId,
        durationSeconds: 3600,
        from: '2026-12-10',
        days: 1,
        technicianId: piet,
        windowFrom: '09:00',
        windowTo: '10:30',
        limit: 50,
      },
    })
    expect(openings.items).toEqual([])
    const phone = await signedIn({ email: 'piet@demo.test' })
    expect(
      (await phone.ok('fieldDay', { query: { date: '2026-12-10' } })).visits.map((x) => x.id),
    ).toContain(v.id)
    expect((await phone.send('fieldVisit', { params: { id: v.id } })).status).toBe(200)
    // The clock belongs to the one whose visit it is.
    expect(
      (await phone.send('clock', { params: { id: v.id }, body: { act: 'set_off' } })).status,
    ).toBe(404)
    expect(
      (await office.ok('workOrder', { params: { id: made.workOrderId } })).history
        .map((h) => h.text)
        .join(),
    ).toContain('Maud Okonjo with Piet Sandvik')
    expect(
      (
        await office.send('placeVisit', {
          params: { id: v.id },
          body: {
            technicianId: v.technicianId,
            startAt: v.startAt,
            durationSeconds: v.durationSeconds,
            version: placed.version,
            crewIds: [id()],
            override: true,
          },
        })
      ).body.errors?.[0]?.path,
    ).toBe('crewIds[0]')
  })
  it('an apprentice goes with the one they belong to, and is never offered alone', async () => {
    const gwil = people.get('Gwil')!
    const made = await booked({ technician: 'Rosa', date: '2026-12-09' })
    expect((await onBoard(made.visitId, '2026-12-09')).alongIds).toEqual([gwil])
    const phone = await office.ok('openings', {
      body: { siteId: made.siteId, durationSeconds: 1800, limit: 50 },
    })
    expect(phone.items.some((o) => o.technicianId === gwil)).toBe(false)
    const setUp = await office.ok('scheduleSetUp')
    const g = setUp.technicians.find((t) => t.id === gwil)!
    const self = await office.send('changeTechnician', {
      params: { id: gwil },
      body: {
        version: g.version,
        hours: g.hours,
        skills: g.skills,
        territoryIds: g.territoryIds,
        goesWith: gwil,
      },
    })
    expect(self.body.errors?.[0]?.path).toBe('goesWith')
  })
})
describe('whoever goes along', () => {
  it('is clocked with the one whose visit it is, unless a clock of their own runs; an apprentice is not asked to be charged', async () => {
    // Everybody of the demo is busy at this hour: somebody new helps, and is gone again afterwards.
    const db = await database()
    const quill = id()
    await db.query(
      'INSERT INTO people (id, email, name, role, bookable, skills, hours, territory_ids, password_hash) SELECT ?, "quill@demo.test", "Quill Ashdown", role, TRUE, "[]", hours, "[]", password_hash FROM people WHERE id = ?',
      [quill, people.get('Maud')],
    )
    const along = async (visitId: string) => {
      const v = await onBoard(visitId, '2026-11-25')
      return office.ok('placeVisit', {
        params: { id: v.id },
        body: {
          technicianId: v.technicianId,
          startAt: v.startAt,
          durationSeconds: v.durationSeconds,
          version: v.version,
          crewIds: [quill],
          override: true,
        },
      })
    }
    const act = (visitId: string, name: string) =>
      office.ok('clock', { params: { id: visitId }, body: { act: name } })
    const at1 = await booked({ technician: 'Rosa', date: '2026-11-25', start: '13:00' })
    expect((await along(at1.visitId)).crewIds).toEqual([quill])
    await forgetClocksAfter('2026-11-25T18:00Z')
    setClock('2026-11-25T13:00')
    await act(at1.visitId, 'arrive')
    setClock('2026-11-25T14:00')
    await act(at1.visitId, 'finish')
    const work = await office.ok('workOrder', { params: { id: at1.workOrderId } })
    expect([...work.visits[0]!.along].sort((a, b) => a.name.localeCompare(b.name))).toEqual([
      { name: 'Gwil Harrow', seconds: 3600 },
      { name: 'Quill Ashdown', seconds: 3600 },
    ])
    // Rosa's hour and Quill's: an apprentice learns.
    expect([work.visits[0]!.siteSeconds, work.time.siteSeconds]).toEqual([3600, 7200])
    // Quill is at a visit of their own: the next one does not take their clock away from it.
    const own = await booked({ technician: 'Rosa', date: '2026-11-25', start: '16:00' })
    const o = await onBoard(own.visitId, '2026-11-25')
    await office.ok('placeVisit', {
      params: { id: o.id },
      body: {
        technicianId: quill,
        startAt: o.startAt,
        durationSeconds: o.durationSeconds,
        version: o.version,
        override: true,
      },
    })
    const next = await booked({ technician: 'Rosa', date: '2026-11-25', start: '14:30' })
    await along(next.visitId)
    await act(own.visitId, 'arrive')
    await act(next.visitId, 'arrive')
    setClock('2026-11-25T15:00')
    await act(next.visitId, 'finish')
    await act(own.visitId, 'finish')
    expect(
      (await office.ok('workOrder', { params: { id: next.workOrderId } })).visits[0]!.along,
    ).toEqual([{ name: 'Gwil Harrow', seconds: 3600 }])
    expect(
      (await office.ok('workOrder', { params: { id: own.workOrderId } })).time.siteSeconds,
    ).toBe(3600)
    // Quill is taken off a visit that runs, and begins one of their own: the first clock ends there, and nothing holds them up.
    const left = await booked({ technician: 'Rosa', date: '2026-11-25', start: '17:00' })
    const l = await along(left.visitId)
    const mine = await booked({ technician: 'Rosa', date: '2026-11-25', start: '18:00' })
    const m = await onBoard(mine.visitId, '2026-11-25')
    await office.ok('placeVisit', {
      params: { id: m.id },
      body: {
        technicianId: quill,
        startAt: m.startAt,
        durationSeconds: m.durationSeconds,
        version: m.version,
        override: true,
      },
    })
    setClock('2026-11-25T17:00')
    await act(left.visitId, 'arrive')
    const running = await onBoard(left.visitId, '2026-11-25')
    await office.ok('placeVisit', {
      params: { id: l.id },
      body: {
        technicianId: l.technicianId,
        startAt: l.startAt,
        durationSeconds: l.durationSeconds,
        version: running.version,
        crewIds: [],
        override: true,
      },
    })
    setClock('2026-11-25T17:30')
    await act(mine.visitId, 'arrive')
    setClock('2026-11-25T18:00')
    await act(left.visitId, 'finish')
    await act(mine.visitId, 'finish')
    const seconds = async (workOrderId: string) =>
      (await office.ok('workOrder', { params: { id: workOrderId } })).visits[0]!
    expect(
      (await seconds(left.workOrderId)).along.find((a) => a.name === 'Quill Ashdown')!.seconds,
    ).toBe(1800)
    expect((await seconds(mine.workOrderId)).siteSeconds).toBe(1800)
    setClock('2026-11-24T10:21')
    await db.query('UPDATE people SET bookable = FALSE, active = FALSE WHERE id = ?', [quill])
    await db.end()
  })
  it('is counted in the week as in the openings', async () => {
    const cell = async () =>
      (
        await office.ok('scheduleRange', { query: { from: '2026-12-08', to: '2026-12-08' } })
      ).cells.find((c) => c.technicianId === people.get('Ines'))!.morning
    const before = await cell()
    const made = await booked({ date: '2026-12-08', start: '08:00', seconds: 1800 })
    const v = await onBoard(made.visitId, '2026-12-08')
    await office.ok('placeVisit', {
      params: { id: v.id },
      body: {
        technicianId: v.technicianId,
        startAt: v.startAt,
        durationSeconds: v.durationSeconds,
        version: v.version,
        crewIds: [people.get('Ines')!],
        override: true,
      },
    })
    expect(await cell()).toBe(before + 1)
  })
})
describe('a skill that stands on a licence', () => {
  it('ends with it: warned of by hand, ranked lower in openings, said on the card and by the guide', async () => {
    const rosa = people.get('Rosa')!
    const site = (await callerNamed(office, 'fenn orchard')).sites[0]!.id
    const change = async (until: string | null) => {
      const r = (await office.ok('scheduleSetUp')).technicians.find((t) => t.id === rosa)!
      return office.send('changeTechnician', {
        params: { id: rosa },
        body: {
          version: r.version,
          hours: r.hours,
          skills: r.skills,
          licences: until === null ? [] : [{ skill: 'electric', until }],
          territoryIds: r.territoryIds,
        },
      })
    }
    expect((await change('2026-12-10')).status).toBe(200)
    const check = async (date: string) =>
      (
        await office.ok('checkPlacement', {
          body: {
            technicianId: rosa,
            startAt: at(date, '09:00'),
            durationSeconds: 3600,
            siteId: site,
            skills: ['electric'],
          },
        })
      ).warnings
        .filter((w) => w.code === 'skill')
        .map((w) => w.text)
    expect([await check('2026-12-10'), await check('2026-12-11')]).toEqual([
      [],
      ['Rosa’s licence for electric ended on Thu, Dec 10'],
    ])
    const opening = async (from: string) =>
      (
        await office.ok('openings', {
          body: {
            siteId: site,
            durationSeconds: 1800,
            skills: ['electric'],
            technicianId: rosa,
            from,
            days: 1,
            limit: 1,
          },
        })
      ).items[0]!
    expect([
      (await opening('2026-12-10')).reasons.some((r) => r.code === 'skill'),
      (await opening('2026-12-11')).reasons.some((r) => r.code === 'skill'),
    ]).toEqual([false, true])
    expect(
      (await office.ok('scheduleSetUp')).guide.find((g) => g.code === 'licences'),
    ).toMatchObject({
      done: false,
      text: expect.stringContaining('Rosa Illing: electric ends on Thu, Dec 10') as unknown,
    })
    const r = (await office.ok('scheduleSetUp')).technicians.find((t) => t.id === rosa)!
    expect(
      (
        await office.send('changeTechnician', {
          params: { id: rosa },
          body: {
            version: r.version,
            hours: r.hours,
            skills: ['pumps'],
            licences: [{ skill: 'electric', until: '2026-12-10' }],
            territoryIds: r.territoryIds,
          },
        })
      ).body.errors?.[0]?.path,
    ).toBe('licences[0].skill')
    await change(null)
  })
})
describe('locks, further visits, cancelling', () => {
  it('a lock holds against people, against the planner, and lets go again', async () => {
    const made = await booked({ date: '2026-12-11' })
    const v = await onBoard(made.visitId, '2026-12-11')
    const locked = await office.ok('lockVisit', {
      params: { id: v.id },
      body: { version: v.version, locked: true },
    })
    const move = (version: number) =>
      office.send('placeVisit', {
        params: { id: v.id },
        body: {
          technicianId: v.technicianId,
          startAt: at('2026-12-11', '13:00'),
          durationSeconds: v.durationSeconds,
          version,
          override: true,
        },
      })
    const refused = await move(locked.version)
    expect([refused.status, refused.body.code]).toEqual([409, 'locked'])
    const planId = id()
    await office.ok('beginPlan', { body: { id: planId, dates: ['2026-12-11'], seconds: 1 } })
    const plan = await until(async () => {
      const p = await office.ok('dayPlan', { params: { id: planId } })
      return p.state === 'running' ? null : p
    })
    expect(plan.changes.some((c) => c.visitId === v.id)).toBe(false)
    const open = await office.ok('lockVisit', {
      params: { id: v.id },
      body: { version: locked.version, locked: false },
    })
    expect((await move(open.version)).status).toBe(200)
    const loose = await booked({ technician: '', start: undefined })
    const tray = (await office.ok('schedule')).tray.find((x) => x.id === loose.visitId)!
    expect(
      (
        await office.send('lockVisit', {
          params: { id: tray.id },
          body: { version: tray.version, locked: true },
        })
      ).body.code,
    ).toBe('no_slot')
  })
  it('a split leaves the same work in two visits, once however often it is asked; a copy is as long as the first', async () => {
    const made = await booked({ date: '2026-12-14', seconds: 7200 })
    const v = await onBoard(made.visitId, '2026-12-14')
    const restId = id()
    const split = await office.ok('furtherVisit', {
      params: { id: v.id },
      body: { id: restId, version: v.version, split: true, durationSeconds: 2700 },
    })
    expect([split.of.durationSeconds, split.visit.durationSeconds, split.visit.startAt]).toEqual([
      4500,
      2700,
      null,
    ])
    const again = await office.send('furtherVisit', {
      params: { id: v.id },
      body: { id: restId, version: split.of.version, split: true, durationSeconds: 2700 },
    })
    expect((again.body as { of: { durationSeconds: number } }).of.durationSeconds).toBe(4500)
    expect((await office.ok('workOrder', { params: { id: made.workOrderId } })).state).toBe(
      'needs_slot',
    )
    const copy = await office.ok('furtherVisit', {
      params: { id: v.id },
      body: {
        id: id(),
        version: split.of.version,
        durationSeconds: 4500,
        technicianId: v.technicianId,
        startAt: at('2026-12-15', '09:00'),
      },
    })
    expect([copy.visit.workOrderId, copy.visit.promiseFrom]).toEqual([made.workOrderId, null])
    expect(
      (
        await office.send('furtherVisit', {
          params: { id: v.id },
          body: { id: id(), version: copy.of.version, split: true, durationSeconds: 4000 },
        })
      ).body.errors?.[0]?.path,
    ).toBe('durationSeconds')
    const gone = await office.ok('cancelVisit', {
      params: { id: restId },
      body: { version: split.visit.version, cancelled: true, reason: 'done in one go' },
    })
    expect((await office.ok('schedule')).tray.some((t) => t.id === restId)).toBe(false)
    expect(
      (
        await office.ok('cancelVisit', {
          params: { id: restId },
          body: { version: gone.version, cancelled: false },
        })
      ).state,
    ).toBe('planned')
  })
  it('a technician asks for a further visit from the door; the office places it, and the reason stays with it', async () => {
    const ines = await signedIn('technician')
    const own = (await ines.ok('fieldDay')).visits.find((v) => v.state === 'finished')!
    const { version } = await ines.ok('fieldVisit', { params: { id: own.id } })
    expect(
      (
        await ines.send('furtherVisit', {
          params: { id: own.id },
          body: {
            id: id(),
            version,
            durationSeconds: 3600,
            technicianId: people.get('Ines'),
            startAt: at('2026-12-01', '09:00'),
          },
        })
      ).body.code,
    ).toBe('office_places')
    const made = await ines.ok('furtherVisit', {
      params: { id: own.id },
      body: { id: id(), version, durationSeconds: 3600, note: 'waits for a control box' },
    })
    expect(
      (await office.ok('schedule')).tray.find((t) => t.id === made.visit.id)!.waiting,
    ).toContain('waits for a control box')
    await office.ok('cancelVisit', {
      params: { id: made.visit.id },
      body: { version: made.visit.version, cancelled: true, reason: 'test' },
    })
  })
})
describe('a time that nobody has yet', () => {
  it('stands on its day and among what needs somebody, counts for nobody, and is given to somebody', async () => {
    const made = await booked({
      technician: '',
      date: '2026-12-30',
      start: '09:00',
      promise: ['09:00', '11:00'],
    })
    const v = await onBoard(made.visitId, '2026-12-30')
    expect([v.technicianId, v.driveSeconds]).toEqual([null, 0])
    const range = await office.ok('scheduleRange', {
      query: { from: '2026-12-30', to: '2026-12-30' },
    })
    expect([
      range.visits.some((x) => x.id === v.id),
      range.tray.some((x) => x.id === v.id),
      range.cells.reduce((n, c) => n + c.morning, 0),
    ]).toEqual([true, true, 0])
    expect((await office.ok('workOrder', { params: { id: made.workOrderId } })).state).toBe(
      'needs_slot',
    )
    const given = await office.ok('placeVisit', {
      params: { id: v.id },
      body: {
        technicianId: people.get('Ines'),
        startAt: v.startAt,
        durationSeconds: v.durationSeconds,
        version: v.version,
        override: true,
      },
    })
    // Fenny Marsh is not hers: it is said, and not hidden.
    expect(given.misfit).toContain('The marsh is not served by Ines')
    expect(
      (await office.ok('schedule', { query: { date: '2026-12-30' } })).visits.map((x) => x.id),
    ).toContain(v.id)
    expect((await office.ok('workOrder', { params: { id: made.workOrderId } })).state).toBe(
      'scheduled',
    )
  })
  it('a break in the day is kept free by openings, and said by a placement', async () => {
    const c = await callerNamed(office, 'fenn orchard')
    const { items } = await office.ok('openings', {
      body: {
        siteId: c.sites[0]!.id,
        durationSeconds: 3600,
        from: '2026-12-31',
        days: 1,
        technicianId: people.get('Ines'),
        windowFrom: '11:15',
        windowTo: '12:15',
        limit: 50,
      },
    })
    expect(items.map((o) => o.startAt)).toEqual([])
    const { warnings } = await office.ok('checkPlacement', {
      body: {
        technicianId: people.get('Ines')!,
        startAt: at('2026-12-31', '11:30'),
        durationSeconds: 3600,
      },
    })
    expect(warnings.map((w) => w.code)).toContain('break')
    const none = await office.ok('openings', {
      body: { siteId: c.sites[0]!.id, durationSeconds: 3600, servedBy: 'The tarns', limit: 50 },
    })
    const tarns = (await office.ok('schedule')).technicians
      .filter((t) => t.territories.includes('The tarns'))
      .map((t) => t.id)
    expect(none.items.length).toBeGreaterThan(0)
    expect(none.items.every((o) => tarns.includes(o.technicianId))).toBe(true)
  })
})
describe('many days', () => {
  it('the range has every visit once, and capacity that goes with time off and holidays', async () => {
    const range = await office.ok('scheduleRange', {
      query: { from: '2026-11-23', to: '2026-11-29' },
    })
    expect(new Set(range.visits.map((v) => v.id)).size).toBe(range.visits.length)
    expect(range.cells).toHaveLength(7 * range.technicians.length)
    const cell = (name: string, date: string) =>
      range.cells.find((c) => c.technicianId === people.get(name) && c.date === date)!
    expect([
      cell('Piet', '2026-11-24').capacityMorning,
      cell('Piet', '2026-11-24').capacityAfternoon,
    ]).toEqual([2, 0])
    expect(cell('Gwil', '2026-11-24').away).toBe('college day')
    expect(cell('Ines', '2026-11-28')).toMatchObject({ works: false, capacityMorning: 0 })
    const day = await office.ok('schedule', { query: { date: '2026-11-24' } })
    expect(
      range.cells.filter((c) => c.date === '2026-11-24').reduce((n, c) => n + c.morning, 0),
    ).toBe(day.week.find((w) => w.date === '2026-11-24')!.morning)
    for (const [from, to] of [
      ['2026-11-24', '2026-11-23'],
      ['2026-01-01', '2026-03-01'],
    ] as const)
      expect(
        (await office.send('scheduleRange', { query: { from, to } })).body.errors?.[0]?.path,
      ).toBe('to')
  })
  it('filters are a person’s own, by name; the same name changes the filter', async () => {
    const owner = await signedIn('owner')
    const filter = {
      technicianIds: [people.get('Maud')!],
      territory: 'The tarns',
      skill: '',
      state: 'late',
      kind: '',
    }
    await office.ok('saveFilter', { body: { id: id(), name: 'North, late', filter } })
    const { items } = await office.ok('saveFilter', {
      body: { id: id(), name: 'North, late', filter: { ...filter, state: '' } },
    })
    expect(items.filter((l) => l.name === 'North, late').map((l) => l.filter.state)).toEqual([''])
    expect((await owner.ok('savedFilters')).items).toEqual([])
    const mine = items.find((l) => l.name === 'North, late')!
    expect((await owner.send('removeSavedFilter', { params: { id: mine.id } })).status).toBe(404)
    expect(
      (await office.ok('removeSavedFilter', { params: { id: mine.id } })).items.some(
        (l) => l.id === mine.id,
      ),
    ).toBe(false)
  })
})
describe('the map', () => {
  it('draws routes along the roads, in order, from the first place to the last', async () => {
    const map = await office.ok('mapDay')
    const ines = map.technicians.find((t) => t.name.startsWith('Ines'))!
    expect(ines.stops.length).toBeGreaterThan(1)
    expect(ines.route.length).toBeGreaterThan(ines.stops.length * 3)
    expect(ines.route[0]).toEqual([ines.start!.lon, ines.start!.lat])
    expect(ines.route.at(-1)).toEqual([ines.end!.lon, ines.end!.lat])
    expect(map.sites.length).toBeGreaterThan(150)
    const ground = JSON.parse((await office.raw('GET', '/api/v1/map/ground.geojson')).text) as {
      features: { properties: { kind?: string } }[]
    }
    expect(new Set(ground.features.map((f) => f.properties.kind ?? 'road'))).toEqual(
      new Set(['road', 'town', 'water']),
    )
  })
  it('who is near: whoever is busy comes later, from where they are; a position that was told counts', async () => {
    const c = await callerNamed(office, 'fenn orchard')
    const { items } = await office.ok('nearest', {
      body: { siteId: c.sites[0]!.id, skills: ['lab'] },
    })
    expect(items.filter((i) => i.works).map((i) => Date.parse(i.arriveAt))).toEqual(
      items
        .filter((i) => i.works)
        .map((i) => Date.parse(i.arriveAt))
        .sort((a, b) => a - b),
    )
    expect(items.find((i) => i.name.startsWith('Ines'))!.lacks).toEqual(['lab'])
    const map = await office.ok('mapDay')
    const site = map.sites.find((s) => s.id === c.sites[0]!.id)!
    // On a morning before anybody has begun: nobody is busy, whatever other tests did to this day.
    setClock('2026-11-26T07:40')
    const free = (await office.ok('nearest', { body: { siteId: site.id } })).items.find(
      (i) => i.works,
    )!
    expect((await signed('wrong', '/positions', { positions: [] })).status).toBe(401)
    expect(
      (
        await signed('test-only-positions-secret', '/positions', {
          positions: [
            {
              personId: free.technicianId,
              at: '2026-11-26T12:39:00Z',
              lat: site.lat,
              lon: site.lon,
            },
          ],
        })
      ).status,
    ).toBe(200)
    const now = (await office.ok('nearest', { body: { siteId: site.id } })).items.find(
      (i) => i.technicianId === free.technicianId,
    )!
    expect([now.driveSeconds, now.from]).toEqual([0, 'seen at 07:39'])
    setClock('2026-11-24T10:21')
  })
  it('the device is told who drives along which road', async () => {
    const { trips } = JSON.parse(
      (await signed('test-only-positions-secret', '/positions/trips', {})).text,
    ) as { trips: { personId: string; line: number[][] }[] }
    expect(trips.length).toBeGreaterThan(3)
    expect(trips.every((t) => t.line.length > 0)).toBe(true)
  })
})
describe('a time that is none', () => {
  it('is sent back at its field, where a placement is looked at, a line is priced and a call is kept', async () => {
    const placed = await office.send('checkPlacement', {
      body: {
        technicianId: people.get('Gwil')!,
        startAt: at('2026-11-25', '10:00'),
        durationSeconds: 3600,
        promiseFrom: 'null',
        promiseTo: '10.00',
      },
    })
    expect([placed.status, placed.body.errors?.map((e) => e.path).sort()]).toEqual([
      422,
      ['promiseFrom', 'promiseTo'],
    ])
    expect(
      (await office.send('tryLines', { body: { date: '2026-11-25', start: 'a b', lines: [] } }))
        .body.errors?.[0]?.path,
    ).toBe('start')
    expect(
      (
        await office.send('saveCall', {
          params: { id: id() },
          body: { draft: { technicianId: people.get('Gwil')!, date: '2026-11-25', start: '%' } },
        })
      ).status,
    ).toBe(422)
  })
})
describe('messages about visits', () => {
  const wishes = async (customerId: string, values: object) => {
    const customer = await office.ok('customer', { params: { id: customerId } })
    return office.ok('changeCustomer', {
      params: { id: customerId },
      body: { version: customer.version, ...values },
    })
  }
  it('a booking is confirmed by text to whoever wants texts, by mail otherwise, and not at all to whoever wants neither', async () => {
    const c = await callerNamed(office, 'fenn orchard')
    await wishes(c.customerId, { textConsent: 'yes' })
    await booked({ date: '2026-12-16', promise: ['09:00', '11:00'] })
    const text = await until(async () =>
      (await office.ok('messages', { query: { q: 'Fenn' } })).items.find(
        (m) => m.channel === 'text' && m.state === 'delivered' && m.body.includes('Pump hums'),
      ),
    )
    expect(text.body).toMatch(/We come on Wed, Dec 16 between 09:00 and 11:00 for “Pump hums”/)
    // STOP is heard: the next one goes by mail.
    expect(
      (await signed('test-only-text-secret', '/webhooks/text', { from: c.phone, text: ' stop ' }))
        .status,
    ).toBe(200)
    expect((await office.ok('customer', { params: { id: c.customerId } })).textConsent).toBe('no')
    await wishes(c.customerId, { email: 'fenn@example.com', mailConsent: 'yes' })
    await booked({ date: '2026-12-17', promise: ['09:00', '11:00'] })
    await until(async () =>
      (await office.ok('messages', { query: { q: 'your appointment' } })).items.some(
        (m) => m.to.includes('fenn@example.com') && m.channel === 'mail',
      ),
    )
    await wishes(c.customerId, { mailConsent: 'no' })
    const told = async () =>
      (await office.ok('messages', { query: { q: 'Fenn Orchard', limit: '1' } })).total
    const before = await told()
    expect(before).toBeGreaterThan(1)
    await booked({ date: '2026-12-18', promise: ['09:00', '11:00'] })
    expect(await told()).toBe(before)
    await wishes(c.customerId, { mailConsent: 'not asked' })
  })
  it('the day before, each is told once, and the list says who has to be rung', async () => {
    const first = await office.ok('reminders', { params: { date: '2026-11-27' } })
    expect(first.items.length).toBeGreaterThan(0)
    const after = await office.ok('sendReminders', { params: { date: '2026-11-27' } })
    expect(after.items.filter((i) => i.channel !== 'none').every((i) => i.told)).toBe(true)
    const count = async () =>
      (await office.ok('messages', { query: { q: 'your appointment is near', limit: '200' } }))
        .total
    const told = await count()
    await office.ok('sendReminders', { params: { date: '2026-11-27' } })
    expect(await count()).toBe(told)
    expect((await office.send('sendReminders', { params: { date: '2026-11-20' } })).body.code).toBe(
      'past',
    )
  })
  it('whoever is next hears that the technician has set off, with the time; a second press tells nobody twice', async () => {
    const made = await booked({
      technician: 'Gwil',
      date: '2026-11-25',
      start: '13:00',
      promise: ['13:00', '15:00'],
    })
    setClock('2026-11-25T12:50')
    await forgetClocksAfter('2026-11-25T17:50Z')
    const away = async () =>
      (await office.ok('messages', { query: { q: 'on the way', limit: '200' } })).items.filter(
        (m) => m.kind === 'visit_onWay',
      )
    const before = (await away()).length
    await office.ok('clock', { params: { id: made.visitId }, body: { act: 'set_off' } })
    const told = (await away()).find((m) => m.body.includes('Gwil'))
    expect((await away()).length).toBe(before + 1)
    expect(told!.body).toMatch(
      /Gwil is on the way to you and should arrive at about 1[23]:\d[05]\./,
    )
    await office.send('clock', { params: { id: made.visitId }, body: { act: 'set_off' } })
    expect((await away()).length).toBe(before + 1)
    await office.ok('clock', { params: { id: made.visitId }, body: { act: 'arrive' } })
    await office.ok('clock', { params: { id: made.visitId }, body: { act: 'finish' } })
    setClock('2026-11-24T10:21')
  })
  it('the firm chooses which go out by themselves, and their words; an empty one is sent back', async () => {
    const { messages } = await office.ok('scheduleSetUp')
    expect(messages).toMatchObject({ confirmation: true, eve: true, onWay: true })
    expect(
      (
        await office.send('keepVisitMessages', {
          body: { ...messages, words: { ...messages.words, late: '' }, shown: messages },
        })
      ).body.errors?.[0]?.path,
    ).toBe('words.late')
    const ours = {
      ...{ ...messages, confirmation: false },
      words: { ...messages.words, eve: '{who}, {when}, at {place}.' },
    }
    await office.ok('keepVisitMessages', { body: { ...ours, shown: messages } })
    const typo = { ...ours, words: { ...messages.words, eve: '{whoo} comes.' }, shown: ours }
    expect((await office.send('keepVisitMessages', { body: typo })).body.errors?.[0]?.path).toBe(
      'words.eve',
    )
    const before = (await office.ok('messages', { query: { q: 'your appointment', limit: '1' } }))
      .total
    const made = await booked({ date: '2026-12-23' })
    expect(
      (await office.ok('messages', { query: { q: 'your appointment', limit: '1' } })).total,
    ).toBe(before)
    const mine = (await office.ok('reminders', { params: { date: '2026-12-23' } })).items.find(
      (i) => i.visitId === made.visitId,
    )!
    expect(mine.body).toMatch(/^Maud, On Wed, Dec 23, at .*Fenny Marsh\.$/)
    await office.ok('keepVisitMessages', { body: { ...messages, shown: ours } })
  })
  it('in the afternoon tomorrow’s customers are told by themselves, and not before', async () => {
    const made = await booked({ date: '2026-12-29', promise: ['09:00', '11:00'] })
    const told = async () =>
      (await office.ok('reminders', { params: { date: '2026-12-29' } })).items.find(
        (i) => i.visitId === made.visitId,
      )!.told
    const evening = (time: string) => {
      setClock(`2026-12-28T${time}`)
      return inContext({ actor: null, ip: '' }, remindTomorrow)
    }
    await evening('15:59')
    expect(await told()).toBe(false)
    await evening('16:00')
    expect(await told()).toBe(true)
    setClock('2026-11-24T10:21')
  })
  it('a visit goes out as an invitation that an independent parser reads', async () => {
    const made = await booked({ date: '2026-12-21' })
    await office.ok('inviteToVisit', {
      params: { id: made.visitId },
      body: { to: ['caretaker@example.com'] },
    })
    const raw = await until(
      async () =>
        (
          (await (await fetch(`${process.env.MAIL_STANDIN}/mails`)).json()) as {
            to: string[]
            raw: string
          }[]
        ).find((m) => m.to.includes('caretaker@example.com'))?.raw,
    )
    expect(raw).toMatch(/method=REQUEST/i)
    const part = /Content-Type: text\/calendar[\s\S]*?\r?\n\r?\n([\s\S]*?)\r?\n--/.exec(raw)!
    const ics = /base64/i.test(part[0]!.split(/\r?\n\r?\n/)[0]!)
      ? Buffer.from(part[1]!, 'base64').toString('utf8')
      : part[1]!
          .replace(/=\r?\n/g, '')
          .replace(/=([0-9A-F]{2})/g, (_, h: string) => String.fromCharCode(parseInt(h, 16)))
    const calendar = new ICAL.Component(ICAL.parse(ics) as unknown[])
    const event = new ICAL.Event(calendar.getFirstSubcomponent('vevent')!)
    expect([
      calendar.getFirstPropertyValue('method'),
      event.startDate.toJSDate().getTime(),
      event.attendees.length,
    ]).toEqual(['REQUEST', Date.parse(at('2026-12-21', '09:00')), 1])
    // Whoever was invited hears that it is moved, and that it will not be.
    const v = await onBoard(made.visitId, '2026-12-21')
    const moved = await office.ok('placeVisit', {
      params: { id: v.id },
      body: {
        technicianId: v.technicianId,
        startAt: at('2026-12-21', '14:00'),
        durationSeconds: v.durationSeconds,
        version: v.version,
        override: true,
      },
    })
    const mails = async () =>
      (
        (await (await fetch(`${process.env.MAIL_STANDIN}/mails`)).json()) as {
          to: string[]
          raw: string
        }[]
      ).filter((m) => m.to.includes('caretaker@example.com'))
    expect(
      await until(async () => (await mails()).find((m) => m.raw.includes('14:00'))),
    ).toBeTruthy()
    await office.ok('cancelVisit', {
      params: { id: v.id },
      body: { version: moved.version, cancelled: true, reason: 'sold the house' },
    })
    expect(
      await until(async () => (await mails()).find((m) => /method=CANCEL/i.test(m.raw))),
    ).toBeTruthy()
  })
})
describe('on paper', () => {
  it('day sheets and work sheets are PDFs; a technician gets their own and no other', async () => {
    const all = await office.raw('GET', '/api/v1/schedule/2026-11-24/day-sheets.pdf')
    expect([all.status, all.text.slice(0, 5)]).toEqual([200, '%PDF-'])
    const visit = (await office.ok('schedule')).visits.find(
      (v) => v.technicianId === people.get('Tobiah'),
    )!
    expect(
      (await office.raw('GET', `/api/v1/visits/${visit.id}/work-sheet.pdf`)).text.slice(0, 5),
    ).toBe('%PDF-')
    const ines = await signedIn('technician')
    expect((await ines.raw('GET', `/api/v1/visits/${visit.id}/work-sheet.pdf`)).status).toBe(404)
    expect((await ines.raw('GET', '/api/v1/schedule/2026-11-24/day-sheets.pdf')).status).toBe(200)
    expect((await office.raw('GET', '/api/v1/schedule/yesterday/day-sheets.pdf')).status).toBe(404)
  })
})
describe('territories from a file', () => {
  it('a dry run says what would change; good rows are kept, bad ones named; out and in again is the same', async () => {
    const before = (await office.ok('scheduleSetUp')).territories
    const data =
      'Territory,Postcode\nThe isles,05001-05003\nThe isles,05010\n,05011\nThe isles,05020-05011\n'
    const dry = await office.ok('importTerritories', { body: { data } })
    expect([dry.kept, dry.territories, dry.errors.map((e) => e.line)]).toEqual([
      false,
      [{ name: 'The isles', postcodes: 4, added: 4, dropped: 0 }],
      [4, 5],
    ])
    expect((await office.ok('scheduleSetUp')).territories).toEqual(before)
    await office.ok('importTerritories', { body: { data, dryRun: false } })
    const out = (await office.raw('GET', '/api/v1/export/territories.csv')).text
    const again = await office.ok('importTerritories', { body: { data: out } })
    expect(again.territories.every((t) => t.added === 0 && t.dropped === 0)).toBe(true)
    expect(again.territories.map((t) => t.name)).toContain('The isles')
    expect(
      (await office.send('importTerritories', { body: { data: 'a,b\n1,2' } })).body.errors?.[0]
        ?.path,
    ).toBe('data')
  })
})
describe('an opening that moves others', () => {
  it('books and moves in one act, or refuses both when the day has changed', async () => {
    // Maud's 17th: one visit at 09:00 that was promised until noon. What comes before it may push it on.
    const first = await booked({
      date: '2027-01-12',
      start: '08:00',
      seconds: 3600,
      promise: ['08:00', '12:00'],
    })
    const { items } = await office.ok('openings', {
      body: {
        siteId: first.siteId,
        customerId: first.customerId,
        durationSeconds: 5400,
        from: '2027-01-12',
        days: 1,
        technicianId: people.get('Maud'),
        part: 'morning',
        windowFrom: '07:00',
        windowTo: '08:00',
        mayMove: true,
      },
    })
    const opening = items.find((o) => o.moves.length > 0)!
    expect(opening.reasons.map((r) => r.code)).toContain('moved')
    expect(opening.moves[0]).toMatchObject({ visitId: first.visitId })
    const start = new Intl.DateTimeFormat('en-GB', {
      hour: '2-digit',
      minute: '2-digit',
      timeZone: 'America/New_York',
    }).format(new Date(opening.startAt))
    const made = await booked({
      date: '2027-01-12',
      start,
      seconds: 5400,
      moves: opening.moves.map((m) => ({ visitId: m.visitId, startAt: m.startAt })),
    })
    expect(Date.parse((await onBoard(first.visitId, '2027-01-12')).startAt!)).toBe(
      Date.parse(opening.moves[0]!.startAt),
    )
    expect(Date.parse((await onBoard(made.visitId, '2027-01-12')).startAt!)).toBe(
      Date.parse(opening.startAt),
    )
    const c = await callerNamed(office, 'fenn orchard')
    const late = await office.send('bookCall', {
      params: { id: id() },
      body: {
        workOrderId: id(),
        visitId: id(),
        customerId: c.customerId,
        siteId: c.sites[0]!.id,
        problem: 'x',
        technicianId: people.get('Maud'),
        date: '2027-01-12',
        start: '10:00',
        durationSeconds: 3600,
        override: true,
        moves: [{ visitId: first.visitId, startAt: at('2027-01-12', '13:00') }],
      },
    })
    expect([late.status, late.body.code]).toEqual([409, 'day_changed'])
    expect(Date.parse((await onBoard(first.visitId, '2027-01-12')).startAt!)).toBe(
      Date.parse(opening.moves[0]!.startAt),
    )
  })
})
describe('work that is parked, and work that comes back', () => {
  it('parked, it is out of the tray until its day, and found in its list', async () => {
    const made = await booked({ technician: '', start: '09:00', date: '2026-12-22' })
    const tray = async () => (await office.ok('schedule')).tray.some((t) => t.id === made.visitId)
    expect(await tray()).toBe(true)
    const work = await office.ok('workOrder', { params: { id: made.workOrderId } })
    expect(
      (
        await office.send('followUp', {
          params: { id: work.id },
          body: { version: work.version, list: 'Ask in spring', on: '2026-11-23' },
        })
      ).body.errors?.[0]?.path,
    ).toBe('on')
    const parked = await office.ok('followUp', {
      params: { id: work.id },
      body: {
        ...{ version: work.version, list: 'Ask in spring', on: '2026-11-26' },
        reason: 'they are away',
      },
    })
    expect(parked).toMatchObject({
      ...{ followUp: 'Ask in spring', followUpOn: '2026-11-26', followUpReason: 'they are away' },
    })
    expect(await tray()).toBe(false)
    const waits = (await office.ok('toActOn')).places.flatMap(({ items }) => items)
    expect(waits.find(({ id: of }) => of === made.visitId)!.reason).toMatch(
      /: Ask in spring, they are away$/,
    )
    expect(
      (await office.ok('workOrders', { query: { followUp: 'Ask in spring' } })).items.map(
        (w) => w.id,
      ),
    ).toEqual([work.id])
    expect((await office.ok('followUpLists')).items).toContain('Ask in spring')
    setClock('2026-11-26T10:21')
    expect([
      await tray(),
      (await office.ok('workOrders', { query: { followUp: '*' } })).items.find(
        (w) => w.id === work.id,
      )!.overdue,
    ]).toEqual([true, true])
    setClock('2026-11-24T10:21')
    const out = await office.ok('followUp', {
      params: { id: work.id },
      body: { version: parked.version, list: '' },
    })
    expect([out.followUp, out.followUpReason, await tray()]).toEqual(['', '', true])
  })
  it('a call-back costs nothing to the customer and counts on the first: price, time, state, margin', async () => {
    const { items } = await office.ok('workOrders', { query: { state: 'closed', limit: '20' } })
    const first = await office.ok('workOrder', {
      params: { id: items.find((w) => w.technician)!.id },
    })
    const ids = { workOrderId: id(), visitId: id() }
    const made = await office.ok('callBack', {
      params: { id: first.id },
      body: { ...ids, problem: 'Leaks again' },
    })
    expect(
      await office.ok('callBack', {
        params: { id: first.id },
        body: { ...ids, problem: 'Leaks again' },
      }),
    ).toEqual(made)
    expect(
      (
        await office.send('callBack', {
          params: { id: made.workOrderId },
          body: { workOrderId: id(), visitId: id(), problem: 'x' },
        })
      ).body.code,
    ).toBe('is_call_back')
    const visit = (await office.ok('schedule')).tray.find((t) => t.id === ids.visitId)!
    await office.ok('placeVisit', {
      params: { id: visit.id },
      body: {
        technicianId: people.get('Gwil'),
        startAt: at('2026-11-24', '14:00'),
        durationSeconds: 3600,
        version: visit.version,
        override: true,
      },
    })
    const { items: parts } = await office.ok('searchPriceBook', { query: { q: 'valve' } })
    const priced = await office.ok('addLines', {
      params: { id: made.workOrderId },
      body: {
        lines: [{ id: id(), entryId: parts[0]!.id, kind: 'other', quantity: '1', done: true }],
      },
    })
    expect([priced.price.total.amount, priced.lines[0]!.bookPrice !== '0']).toEqual(['0.00', true])
    setClock('2026-11-24T13:30')
    await forgetClocksAfter('2026-11-24T18:30Z')
    await office.ok('clock', { params: { id: visit.id }, body: { act: 'set_off' } })
    setClock('2026-11-24T13:45')
    await office.ok('clock', { params: { id: visit.id }, body: { act: 'arrive' } })
    setClock('2026-11-24T14:45')
    const done = await office.ok('clock', { params: { id: visit.id }, body: { act: 'finish' } })
    expect([
      done.workOrder.state,
      done.workOrder.time.uncoveredSeconds,
      done.workOrder.bill.missing.some(({ why }) => why === 'no_price'),
    ]).toEqual(['closed', 0, false])
    const after = await office.ok('workOrder', { params: { id: first.id } })
    const [back] = after.callBacks
    expect([back!.number, back!.siteSeconds]).toEqual([made.number, 3600])
    // 1:15 h of driving and work at the technician's cost rate, and the part.
    expect(Number(back!.cost!.amount)).toBeGreaterThan(50)
    expect(Number(after.price.cost!.amount) - Number(first.price.cost!.amount)).toBeCloseTo(
      Number(back!.cost!.amount),
      2,
    )
    expect(after.price.margin!).toBeLessThan(first.price.margin!)
    setClock('2026-11-24T10:21')
  })
})
it('the customer’s page says what comes next, and expects people when the board does', async () => {
  const { visits } = await office.ok('schedule')
  const next = visits.filter((v) => v.state === 'planned' && v.arriveAt !== null)
  expect(next.length).toBeGreaterThan(2)
  for (const { id: visitId, arriveAt, workOrderId } of next.slice(0, 3)) {
    const { customer } = await office.ok('workOrder', { params: { id: workOrderId } })
    const { coming } = await office.ok('customer', { params: { id: customer.id } })
    expect(coming.find((v) => v.id === visitId)!.arriveAt).toBe(arriveAt)
  }
})
