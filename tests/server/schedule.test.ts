// The schedule: openings and holds, hours and areas, the day plan, swapping, calendars, roads.
import ICAL from 'ical.js'
import { beforeAll, describe, expect, it } from 'vitest'
import { demoRoads } from '../../demo/roads'
import { callerNamed, type Client, id, setClock, signedIn, until } from './client'

let office: Client
let owner: Client
const people = new Map<string, string>()
beforeAll(async () => {
  setClock('2026-11-24T10:21')
  office = await signedIn('office')
  owner = await signedIn('owner')
  for (const t of (await office.ok('schedule')).technicians) people.set(t.name.split(' ')[0]!, t.id)
})
const wish = async (over: object = {}) => {
  const c = await callerNamed(office, 'fenn orchard')
  return { siteId: c.sites[0]!.id, customerId: c.customerId, durationSeconds: 3600, ...over }
}
const draft = (o: { technicianId: string; date: string; startAt: string }) => ({
  technicianId: o.technicianId,
  date: o.date,
  start: new Intl.DateTimeFormat('en-GB', {
    hour: '2-digit',
    minute: '2-digit',
    timeZone: 'America/New_York',
  }).format(new Date(o.startAt)),
  durationSeconds: 3600,
})
const planReady = (planId: string) =>
  until(async () => {
    const plan = await office.ok('dayPlan', { params: { id: planId } })
    return plan.state === 'running' ? null : plan
  })

describe('openings', () => {
  it('are ranked, have reasons, and book without a warning', async () => {
    const { items, placeKnown, territory } = await office.ok('openings', { body: await wish() })
    expect(placeKnown).toBe(true)
    expect(territory).toBe('The marsh')
    expect(items.length).toBeGreaterThan(3)
    expect(items.map((o) => o.score)).toEqual([...items.map((o) => o.score)].sort((a, b) => a - b))
    const sound = items.filter((o) => o.sound)
    for (const o of sound)
      expect(
        (
          await office.ok('checkPlacement', {
            body: {
              technicianId: o.technicianId,
              startAt: o.startAt,
              durationSeconds: 3600,
              promiseFrom: o.promiseFrom,
              promiseTo: o.promiseTo,
            },
          })
        ).warnings,
      ).toEqual([])
    expect(items[0]!.reasons.map((r) => r.text).join()).toMatch(/driving.*home at \d\d:\d\d/)
  })
  it('by part of the day, day, technician, and time of day', async () => {
    const morning = await office.ok('openings', {
      body: await wish({ part: 'morning', limit: 50 }),
    })
    expect(morning.items.every((o) => Number(draft(o).start.slice(0, 2)) < 12)).toBe(true)
    const one = await office.ok('openings', {
      body: await wish({ technicianId: people.get('Maud'), from: '2026-11-27', days: 1 }),
    })
    expect(
      one.items.every((o) => o.technicianId === people.get('Maud') && o.date === '2026-11-27'),
    ).toBe(true)
    const two = await office.ok('openings', {
      body: await wish({ windowFrom: '14:00', windowTo: '15:00', limit: 50 }),
    })
    expect(two.items.every((o) => draft(o).start >= '14:00' && draft(o).start <= '15:00')).toBe(
      true,
    )
    const first = await office.ok('openings', { body: await wish({ order: 'first' }) })
    expect(first.items.filter((o) => o.sound).map((o) => o.startAt)).toEqual(
      first.items
        .filter((o) => o.sound)
        .map((o) => o.startAt)
        .sort(),
    )
    expect(
      (
        await office.send('openings', {
          body: await wish({ windowFrom: '15:00', windowTo: '14:00' }),
        })
      ).body.errors?.[0]?.path,
    ).toBe('windowTo')
  })
  it('begin with the hours where the firm says that drives lie outside them', async () => {
    const { technicians } = await office.ok('scheduleSetUp')
    const early = async () =>
      (
        await office.ok('openings', {
          body: await wish({ from: '2026-12-09', days: 1, limit: 50, part: 'morning' }),
        })
      ).items.filter((o) =>
        technicians.some((t) => t.id === o.technicianId && t.hours.some((h) => h.weekday === 3)),
      )
    const within = await early()
    expect(
      (await signedIn('dispatch').then((d) => d.send('keepDrives', { body: { outside: true } })))
        .status,
    ).toBe(403)
    expect((await office.ok('keepDrives', { body: { outside: true } })).drivesOutside).toBe(true)
    const outside = await early()
    const gained = within.filter((o) =>
      outside.some((x) => x.technicianId === o.technicianId && x.startAt < o.startAt),
    )
    expect(gained.length).toBeGreaterThan(0)
    await office.ok('keepDrives', { body: { outside: false } })
    expect(await early()).toEqual(within)
  })
  it('a chosen one is held against a second caller, for ten minutes', async () => {
    // Of another day: one of today may have begun when the ten minutes are over.
    const best = (await office.ok('openings', { body: await wish({ limit: 50 }) })).items.find(
      (o) => o.startAt > '2026-11-25',
    )
    const [mine, theirs] = [id(), id()]
    const kept = await office.ok('saveCall', {
      params: { id: mine },
      body: { draft: draft(best!), summary: 'First' },
    })
    expect(kept.heldUntil).toBe('2026-11-24T15:31:00.000Z')
    const second = await owner.ok('saveCall', {
      params: { id: theirs },
      body: { draft: draft(best!), summary: 'Second' },
    })
    expect([second.heldUntil, second.heldBy]).toEqual([null, 'Olive Brandt, for First'])
    const same = (list: { technicianId: string; startAt: string }[]) =>
      list.some((o) => o.technicianId === best!.technicianId && o.startAt === best!.startAt)
    expect(
      same((await owner.ok('openings', { body: await wish({ callId: theirs, limit: 50 }) })).items),
    ).toBe(false)
    expect(
      same((await office.ok('openings', { body: await wish({ callId: mine, limit: 50 }) })).items),
    ).toBe(true)
    expect(
      (
        await owner.ok('checkPlacement', {
          body: { technicianId: best!.technicianId, startAt: best!.startAt, durationSeconds: 3600 },
        })
      ).warnings.map((w) => w.code),
    ).toContain('held')
    setClock('2026-11-24T10:32')
    expect(
      same((await owner.ok('openings', { body: await wish({ callId: theirs, limit: 50 }) })).items),
    ).toBe(true)
    setClock('2026-11-24T10:21')
    for (const call of [mine, theirs])
      await office.ok('endCall', {
        params: { id: call },
        body: { state: 'declined', reason: 'test' },
      })
  })
  it('two who choose the same time at the same moment: one has it', async () => {
    const [best] = (await office.ok('openings', { body: await wish({ from: '2026-12-01' }) })).items
    const calls = [id(), id(), id()]
    const kept = await Promise.all(
      calls.map((c, i) =>
        (i % 2 ? owner : office).ok('saveCall', {
          params: { id: c },
          body: { draft: draft(best!), summary: `Caller ${i}` },
        }),
      ),
    )
    expect(kept.filter((k) => k.heldUntil !== null)).toHaveLength(1)
    for (const call of calls)
      await office.ok('endCall', {
        params: { id: call },
        body: { state: 'declined', reason: 'test' },
      })
  })
})
describe('hours and areas', () => {
  it('time off, a meeting and a holiday close the day, and open it again when taken back', async () => {
    const on = async () =>
      (
        await office.ok('openings', {
          body: await wish({ technicianId: people.get('Maud'), from: '2026-12-08', days: 1 }),
        })
      ).items.length
    const before = await on()
    expect(before).toBeGreaterThan(0)
    const offId = id()
    const off = await office.ok('addTimeOff', {
      body: {
        id: offId,
        personId: people.get('Maud')!,
        from: '2026-12-08',
        to: '2026-12-08',
        reason: 'moving house',
      },
    })
    expect(
      off.technicians.find((t) => t.name.startsWith('Maud'))!.off.map((o) => o.reason),
    ).toContain('moving house')
    expect(await on()).toBe(0)
    await office.ok('removeTimeOff', { params: { id: offId } })
    const entryId = id()
    await office.ok('addEntry', {
      body: {
        id: entryId,
        personId: people.get('Maud')!,
        date: '2026-12-08',
        from: '07:00',
        to: '16:00',
        title: 'First aid course',
      },
    })
    expect(await on()).toBe(0)
    expect(
      (await office.ok('schedule', { query: { date: '2026-12-08' } })).technicians
        .find((t) => t.name.startsWith('Maud'))!
        .timeOff.map((o) => o.reason),
    ).toContain('First aid course')
    await office.ok('removeEntry', { params: { id: entryId } })
    await office.ok('keepHoliday', { body: { date: '2026-12-08', name: 'Founders’ day' } })
    const closed = await office.ok('schedule', { query: { date: '2026-12-08' } })
    expect([closed.holiday, closed.technicians.flatMap((t) => t.working)]).toEqual([
      'Founders’ day',
      [],
    ])
    expect(await on()).toBe(0)
    await office.ok('keepHoliday', { body: { date: '2026-12-08', shown: 'Founders’ day' } })
    expect(await on()).toBe(before)
  })
  // 5 U.S.C. 6103: the fourth Thursday in November, 25 December, 1 January, the third Monday in January.
  it('proposes the public holidays of the country, except those that are kept already', async () => {
    const dates = async () => (await office.ok('publicHolidays')).items.map(({ date }) => date)
    const proposed = await dates()
    for (const date of ['2026-11-26', '2026-12-25', '2027-01-01', '2027-01-18'])
      expect(proposed).toContain(date)
    expect(proposed).not.toContain('2026-07-03')
    await office.ok('keepHoliday', { body: { date: '2026-12-25', name: 'Christmas' } })
    expect(await dates()).not.toContain('2026-12-25')
    await office.ok('keepHoliday', { body: { date: '2026-12-25', shown: 'Christmas' } })
  })
  // Massachusetts General Laws, chapter 4, section 7: the third Monday in April (Patriots’ Day).
  it('proposes those of a state, too, where the law has any', async () => {
    const of = (state: string) => office.ok('publicHolidays', { query: { state } })
    const day = '2027-04-19'
    const { items, states } = await of('')
    expect(items.map(({ date }) => date)).not.toContain(day)
    expect(states).toContainEqual({ code: 'MA', name: 'Massachusetts' })
    expect((await of('MA')).items.map(({ date }) => date)).toContain(day)
    const unknown = await office.send('publicHolidays', { query: { state: 'ZZ' } })
    expect(unknown).toMatchObject({ status: 422, body: { errors: [{ path: 'state' }] } })
  })
  it('impossible hours get a sentence at their place, and change nothing', async () => {
    const before = await office.ok('scheduleSetUp')
    const maud = before.technicians.find((t) => t.name.startsWith('Maud'))!
    const day = { weekday: 1, from: '08:00', to: '16:00', morning: 2, afternoon: 2 }
    const change = (hours: object[]) =>
      office.send('changeTechnician', {
        params: { id: maud.id },
        body: {
          version: maud.version,
          hours: hours as never,
          skills: maud.skills,
          territoryIds: maud.territoryIds,
        },
      })
    for (const [hours, path] of [
      [[{ ...day, to: '07:00' }], 'hours[0].to'],
      [[day, day], 'hours[1].weekday'],
      [[{ ...day, weekday: 8 }], 'hours[0].weekday'],
      [[{ ...day, from: '25:00' }], 'hours[0].from'],
    ] as const) {
      const reply = await change([...hours])
      expect([reply.status, reply.body.errors?.[0]?.path]).toEqual([422, path])
    }
    expect((await office.ok('scheduleSetUp')).technicians.find((t) => t.id === maud.id)).toEqual(
      maud,
    )
    expect(
      (
        await office.send('addTimeOff', {
          body: { id: id(), personId: maud.id, from: '2026-12-09', to: '2026-12-08', reason: 'x' },
        })
      ).body.errors?.[0]?.path,
    ).toBe('to')
    // 02:30 does not exist on the day of the clock change: it is 03:30, and the entry ends before it begins.
    expect(
      (
        await office.send('addEntry', {
          body: {
            id: id(),
            personId: maud.id,
            date: '2027-03-14',
            from: '02:30',
            to: '03:15',
            title: 'At night',
          },
        })
      ).body.errors?.[0]?.path,
    ).toBe('to')
  })
  it('a territory from ranges of postcodes; the guide says what is missing until it is there', async () => {
    // Other tests entered customers without a postcode: what counts is what this one changes.
    const before = await office.ok('scheduleSetUp')
    const marsh = before.territories.find((t) => t.name === 'The marsh')!
    const { name, postcodes } = marsh
    const emptied = await office.ok('keepTerritory', {
      body: { id: marsh.id, name, postcodes: '99990–99999', shown: { name, postcodes } },
    })
    const changed = emptied.territories.find((t) => t.id === marsh.id)!
    expect(changed.postcodes).toHaveLength(10)
    expect(emptied.guide.find((g) => g.code === 'territories')).toMatchObject({ done: false })
    expect(emptied.sitesNowhere).toBe(before.sitesNowhere + marsh.sites)
    const back = await office.ok('keepTerritory', {
      body: {
        ...{ id: marsh.id, name, postcodes: postcodes.join(' ') },
        shown: { name, postcodes: changed.postcodes },
      },
    })
    expect([back.sitesNowhere, back.guide]).toEqual([before.sitesNowhere, before.guide])
    const refused = await office.send('keepTerritory', {
      body: { id: marsh.id, name: 'The marsh', postcodes: '04110-04101' },
    })
    expect([refused.status, refused.body.code]).toEqual([422, 'bad_postcodes'])
  })
})
describe('the day plan', () => {
  it('proposes without changing anything, is never worse, and is accepted in part; the rest stays', async () => {
    const planId = id()
    const before = (await office.ok('schedule', { query: { date: '2026-11-25' } })).visits
    await office.ok('beginPlan', { body: { id: planId, dates: ['2026-11-25'], seconds: 1 } })
    // Asked twice, it is the same plan.
    expect(
      (await office.ok('beginPlan', { body: { id: planId, dates: ['2026-11-25'], seconds: 1 } }))
        .id,
    ).toBe(planId)
    const plan = await planReady(planId)
    expect(plan.state).toBe('ready')
    expect((await office.ok('schedule', { query: { date: '2026-11-25' } })).visits).toEqual(before)
    expect(plan.after!.total).toBeLessThanOrEqual(plan.before!.total)
    expect(plan.changes.length).toBeGreaterThan(1)
    const [one, ...rest] = plan.changes
    const { undo } = await office.ok('acceptPlan', {
      params: { id: planId },
      body: { visitIds: [one!.visitId] },
    })
    expect(undo).toHaveLength(1)
    const after = (await office.ok('schedule', { query: { date: '2026-11-25' } })).visits
    const placed = after.find((v) => v.id === one!.visitId)!
    expect([placed.technicianId, Date.parse(placed.startAt!)]).toEqual([
      one!.to.technicianId,
      Date.parse(one!.to.startAt!),
    ])
    for (const c of rest)
      expect(after.find((v) => v.id === c.visitId)?.startAt ?? null).toBe(
        before.find((v) => v.id === c.visitId)?.startAt ?? null,
      )
    expect(
      (
        await office.send('acceptPlan', {
          params: { id: planId },
          body: { visitIds: [one!.visitId] },
        })
      ).body.code,
    ).toBe('already_accepted')
    const { visitId: _visit, ...back } = undo[0]!
    await office.ok('placeVisit', {
      params: { id: one!.visitId },
      body: { ...back, override: true },
    })
  })
  it('what somebody moved since makes it an old one: nothing of it is done', async () => {
    const planId = id()
    await office.ok('beginPlan', { body: { id: planId, dates: ['2026-11-26'], seconds: 1 } })
    const plan = await planReady(planId)
    const moved = plan.changes[0]!
    const visit =
      (await office.ok('schedule', { query: { date: '2026-11-26' } })).visits.find(
        (v) => v.id === moved.visitId,
      ) ?? (await office.ok('schedule')).tray.find((v) => v.id === moved.visitId)!
    await owner.ok('placeVisit', {
      params: { id: visit.id },
      body: {
        technicianId: visit.technicianId,
        startAt: visit.startAt,
        durationSeconds: visit.durationSeconds + 900,
        version: visit.version,
        override: true,
      },
    })
    const refused = await office.send('acceptPlan', {
      params: { id: planId },
      body: { visitIds: plan.changes.map((c) => c.visitId) },
    })
    expect([refused.status, refused.body.code]).toEqual([409, 'plan_is_old'])
  })
  it('somebody falls ill: the rest of the day is proposed anew, and accepting it enters the time off', async () => {
    const rosa = people.get('Rosa')!
    const planId = id()
    await office.ok('beginPlan', {
      body: {
        id: planId,
        dates: ['2026-11-24'],
        absentId: rosa,
        reason: 'ill',
        tray: false,
        seconds: 1,
      },
    })
    const plan = await planReady(planId)
    const theirs = (await office.ok('schedule')).visits.filter(
      (v) => v.technicianId === rosa && v.state === 'planned',
    )
    expect(theirs.length).toBeGreaterThan(0)
    expect(plan.absent).toBe('Rosa Illing')
    expect(
      plan.changes
        .filter((c) => c.from.technicianId === rosa)
        .map((c) => c.visitId)
        .sort(),
    ).toEqual(theirs.map((v) => v.id).sort())
    expect(plan.changes.every((c) => c.to.technicianId !== rosa)).toBe(true)
    await office.ok('acceptPlan', {
      params: { id: planId },
      body: { visitIds: plan.changes.map((c) => c.visitId) },
    })
    const day = await office.ok('schedule')
    expect(day.visits.filter((v) => v.technicianId === rosa && v.state === 'planned')).toEqual([])
    expect(day.technicians.find((t) => t.id === rosa)!.timeOff.map((o) => o.reason)).toContain(
      'ill',
    )
  })
  it('stopped, it has the best so far; asked for the past or for nobody, it says so', async () => {
    const planId = id()
    await office.ok('beginPlan', { body: { id: planId, dates: ['2026-11-27'], seconds: 60 } })
    await office.ok('stopPlan', { params: { id: planId } })
    expect((await planReady(planId)).state).toBe('stopped')
    expect(
      (await office.send('beginPlan', { body: { id: id(), dates: ['2026-11-23'] } })).body
        .errors?.[0]?.path,
    ).toBe('dates')
    expect(
      (await office.send('beginPlan', { body: { id: id(), dates: ['2026-11-28'] } })).body.code,
    ).toBe('nobody_works')
    expect(
      (await office.send('acceptPlan', { params: { id: id() }, body: { visitIds: [id()] } }))
        .status,
    ).toBe(404)
  })
})
it('two visits change places in one act, or neither does', async () => {
  const { visits } = await office.ok('schedule', { query: { date: '2026-11-27' } })
  const [a, b] = visits.filter((v) => v.state === 'planned')
  const reply = await office.ok('swapVisits', {
    body: {
      first: { id: a!.id, version: a!.version },
      second: { id: b!.id, version: b!.version },
      override: true,
    },
  })
  expect(reply.visits.map((v) => [v.technicianId, v.startAt])).toEqual([
    [b!.technicianId, b!.startAt],
    [a!.technicianId, a!.startAt],
  ])
  const stale = await office.send('swapVisits', {
    body: {
      first: { id: a!.id, version: reply.visits[0]!.version },
      second: { id: b!.id, version: b!.version },
    },
  })
  expect(stale.status).toBe(409)
  expect(
    (await office.ok('schedule', { query: { date: '2026-11-27' } })).visits.find(
      (v) => v.id === a!.id,
    )!.startAt,
  ).toBe(b!.startAt)
})
describe('calendars', () => {
  it('are read by an independent parser, hold the technician’s visits and no money; a new link ends the one before', async () => {
    const maud = people.get('Maud')!
    const { url } = await office.ok('newCalendar', { params: { id: maud } })
    const text = await (await fetch(url)).text()
    const events = new ICAL.Component(ICAL.parse(text) as unknown[])
      .getAllSubcomponents('vevent')
      .map((e) => new ICAL.Event(e))
    const day = (await office.ok('schedule')).visits.filter((v) => v.technicianId === maud)
    for (const v of day) {
      const event = events.find((e) => e.uid === `${v.id}@open-ledger`)!
      expect([event.startDate.toJSDate().getTime(), event.summary]).toEqual([
        Date.parse(v.startAt!),
        `${v.title}, ${v.customer}`,
      ])
    }
    expect(day.length).toBeGreaterThan(0)
    expect(text).not.toMatch(/\$|margin|cost/i)
    await office.ok('newCalendar', { params: { id: maud } })
    expect((await fetch(url)).status).toBe(404)
  })
  it('a technician makes one of their own and of nobody else', async () => {
    const ines = await signedIn({ email: 'ines@demo.test' })
    expect((await ines.send('newCalendar', { params: { id: people.get('Ines')! } })).status).toBe(
      200,
    )
    expect((await ines.send('newCalendar', { params: { id: people.get('Maud')! } })).status).toBe(
      404,
    )
  })
})
describe('roads', () => {
  it('the demo’s roads are in use; another network takes over; what is none is refused and changes nothing', async () => {
    const before = await office.ok('roads')
    expect(before.network).toMatchObject({ name: 'Larkmoor County', parts: 1 })
    for (const [data, code] of [
      ['{', 'invalid'],
      ['{"type":"FeatureCollection","features":[]}', 'bad_roads'],
    ] as const) {
      const reply = await office.send('importRoads', { body: { id: id(), name: 'Bad', data } })
      expect([reply.status, reply.body.code]).toEqual([422, code])
    }
    expect(await office.ok('roads')).toEqual(before)
    setClock('2026-11-24T10:22')
    const roads = demoRoads() as { features: object[] }
    roads.features.push({
      type: 'Feature',
      properties: { speed: 50 },
      geometry: {
        type: 'LineString',
        coordinates: [
          [-70, 40],
          [-70.01, 40],
        ],
      },
    })
    const after = await office.ok('importRoads', {
      body: { id: id(), name: 'With an island', data: JSON.stringify(roads) },
    })
    expect(after.network).toMatchObject({ name: 'With an island', parts: 2 })
    setClock('2026-11-24T10:21')
  })
  it('a large network is read beside everything else: others are answered meanwhile', async () => {
    const roads = demoRoads() as { features: object[] }
    // An archipelago far away, so that no drive of the demo changes.
    for (let row = 0; row < 400; row++) {
      const coordinates = Array.from({ length: 500 }, (_, i) => [
        -50 + i * 0.0011,
        10 + row * 0.0013,
      ])
      roads.features.push({
        type: 'Feature',
        properties: { speed: 50 },
        geometry: { type: 'LineString', coordinates },
      })
    }
    const data = JSON.stringify(roads)
    setClock('2026-11-24T10:23')
    let read = false
    const importing = office
      .ok('importRoads', { body: { id: id(), name: 'Archipelago', data } })
      .finally(() => {
        read = true
      })
    let answers = 0
    while (!read) {
      await owner.ok('session')
      answers++
    }
    expect((await importing).network).toMatchObject({ name: 'Archipelago', parts: 401 })
    expect(answers).toBeGreaterThan(20)
    expect((await office.ok('roads')).network!.name).toBe('Archipelago')
    setClock('2026-11-24T10:21')
  })
  it('a file that is too large is refused before it is read', async () => {
    const reply = await office.raw('POST', '/api/v1/roads', {
      id: id(),
      name: 'Huge',
      data: 'x'.repeat(61_000_000),
    })
    expect(reply.status).toBe(413)
  })
})
describe('telling a customer', () => {
  it('that a visit will be late: prepared words with the expected time, by mail; or noted as rung; who wants no mails gets none', async () => {
    setClock('2026-11-24T11:20')
    const late = (await office.ok('schedule')).visits.find((v) => v.atRisk)!
    const notice = await office.ok('visitNotice', { params: { id: late.id } })
    expect(notice).toMatchObject({ late: true, customer: late.customer })
    expect(notice.body).toContain(`between ${late.promiseFrom} and ${late.promiseTo}`)
    await office.ok('tellCustomer', {
      params: { id: late.id },
      body: { version: notice.version, to: ['x@example.com'] },
    })
    await until(async () =>
      (await office.ok('messages', { query: { q: 'running late' } })).items.some(
        (m) => m.state === 'delivered' && m.to === 'x@example.com',
      ),
    )
    await office.ok('tellCustomer', {
      params: { id: late.id },
      body: { version: notice.version, spoken: 'they wait' },
    })
    const work = await office.ok('workOrder', { params: { id: late.workOrderId } })
    expect(work.history.map((h) => h.text).join()).toMatch(
      /Told by telephone: they wait.*Told by mail that the visit will be late/,
    )
    const customer = await office.ok('customer', { params: { id: work.customer.id } })
    const changed = await office.ok('changeCustomer', {
      params: { id: customer.id },
      body: { version: customer.version, mailConsent: 'no' },
    })
    expect(
      (
        await office.send('tellCustomer', {
          params: { id: late.id },
          body: { version: notice.version, to: ['x@example.com'] },
        })
      ).body.code,
    ).toBe('no_mails')
    await office.ok('changeCustomer', {
      params: { id: customer.id },
      body: { version: changed.version, mailConsent: customer.mailConsent },
    })
    setClock('2026-11-24T10:21')
  })
})
