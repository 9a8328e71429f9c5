// Acts on the schedule’s set-up: hours, time off, meetings, the end of the day, drives, the yard.
import {
  lockFirm,
  putYard,
  refuseChanged,
  setClosesAt,
  setDrivesOutside,
  undoes,
} from '../settings/index'
import { personFacts, scheduleFacts } from './facts'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { dayBounds, localToInstant } from '../../core/time/zone'
import type { Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import type { Change as Became } from '../http/facts'
import { record } from '../http/queries'
import { getCompany, territories } from '../settings/queries'
import { placeWritten } from '../customers/index'
import {
  insertEntry,
  insertTimeOff,
  removeEntry,
  removeTimeOff,
  updateTechnician,
} from './setUp.queries'
import { technicianById, lockPeople } from './queries'
import type { SetUp } from './setUpView'
import { scheduleSetUp, weekOf, yardOf, YEAR } from './setUpView'

type Change = Body<'changeTechnician'>
type Person = NonNullable<Awaited<ReturnType<typeof technicianById>>>
/** Whom somebody always goes with: somebody else, who leads. */
async function leaderFor(ctx: Ctx, person: Person, wanted: Change['goesWith']) {
  const goesWith = wanted === undefined ? person.goesWith : wanted
  if (!goesWith) return goesWith
  const lead = await technicianById(ctx.tx, goesWith)
  if (goesWith === person.id || !lead) throw invalid('goesWith', 'Choose somebody else to go with.')
  if (lead.goesWith)
    throw invalid('goesWith', `${lead.name} goes with somebody as well; choose who leads.`)
  return goesWith
}
/** A home may be given as a postcode, whose middle is near enough to drive from, or by its coordinates. */
async function homeFor(ctx: Ctx, person: Person, { homePostcode, home }: Change) {
  if (!homePostcode) return home === undefined ? person.home : home
  return placeWritten(ctx.tx, homePostcode, 'homePostcode')
}
/** Skills, the licences that belong to them, and the territories that are served. */
async function abilitiesOf(ctx: Ctx, body: Change, person: Person) {
  const known = new Set((await territories(ctx.tx)).map((a) => a.id))
  // One that was taken away while they were away is served by nobody.
  const served = body.territoryIds.filter((t) => known.has(t) || !person.territoryIds.includes(t))
  if (served.some((t) => !known.has(t)))
    throw invalid('territoryIds', 'There is no such territory.')
  const skills = [...new Set(body.skills)]
  for (const [i, l] of body.licences.entries())
    if (!skills.includes(l.skill))
      throw invalid(`licences[${i}].skill`, `${l.skill} is not among the skills.`)
  return { skills, licences: body.licences, territoryIds: [...new Set(served)] }
}
export async function changeTechnician(ctx: Ctx, id: string, body: Change): Promise<SetUp> {
  // No territory is taken away meanwhile.
  await lockFirm(ctx.tx)
  const person = await technicianById(ctx.tx, id)
  if (!person) throw notFound('technician')
  const next = {
    hours: weekOf(body.hours),
    ...(await abilitiesOf(ctx, body, person)),
    kind: body.kind ?? person.kind,
    goesWith: await leaderFor(ctx, person, body.goesWith),
    startsAt: body.startsAt ?? person.startsAt,
    endsAt: body.endsAt ?? person.endsAt,
    home: await homeFor(ctx, person, body),
  }
  if (!(await updateTechnician(ctx.tx, id, body.version, next)))
    throw conflict('stale', 'Someone changed this technician in the meantime.', {
      current: (await scheduleSetUp(ctx)).technicians.find((t) => t.id === id),
    })
  const { hours, kind, licences, startsAt, endsAt, home } = person
  const from = { hours, kind, licences, startsAt, endsAt, home }
  const fact = personFacts.changed({ changes: { from, to: next } })
  await record(ctx, { subject: 'person', id, fact })
  return scheduleSetUp(ctx)
}
/** A stretch of somebody's time, as the history keeps it. */
const span = (person: string, reason: string, from: number, to: number) => ({
  person,
  reason,
  from: new Date(from).toISOString(),
  to: new Date(to).toISOString(),
})
/** A stretch of somebody's time, local, with the person it belongs to; refused when it runs backwards. */
async function stretch(
  ctx: Ctx,
  body: { personId: string },
  start: [date: string, time: string | null],
  end: [date: string, time: string | null],
): Promise<{ name: string; from: number; to: number }> {
  const zone = ctx.company.timeZone
  const person = await technicianById(ctx.tx, body.personId)
  if (!person) throw invalid('personId', 'This person cannot be booked.')
  const from = start[1] ? localToInstant(start[0], start[1], zone) : dayBounds(start[0], zone).from
  const to = end[1] ? localToInstant(end[0], end[1], zone) : dayBounds(end[0], zone).to
  if (to <= from) throw invalid('to', 'It ends before it begins.')
  if (to - from > YEAR) throw invalid('to', 'That is more than a year.')
  return { name: person.name, from, to }
}
export async function addTimeOff(ctx: Ctx, body: Body<'addTimeOff'>): Promise<SetUp> {
  const { name, from, to } = await stretch(
    ctx,
    body,
    [body.from, body.fromTime],
    [body.to, body.toTime],
  )
  await lockPeople(ctx.tx, [body.personId])
  await insertTimeOff(ctx.tx, {
    id: body.id,
    personId: body.personId,
    from,
    to,
    reason: body.reason,
  })
  await record(ctx, {
    subject: 'person',
    id: body.personId,
    fact: personFacts.off(span(name, body.reason, from, to)),
  })
  return scheduleSetUp(ctx)
}
export async function takeTimeOffBack(ctx: Ctx, id: string): Promise<SetUp> {
  if (!(await removeTimeOff(ctx.tx, id))) throw notFound('time off')
  await record(ctx, { subject: 'person', id, fact: personFacts.offTakenBack() })
  return scheduleSetUp(ctx)
}
export async function addEntry(ctx: Ctx, body: Body<'addEntry'>): Promise<SetUp> {
  const { name, from, to } = await stretch(ctx, body, [body.date, body.from], [body.date, body.to])
  await lockPeople(ctx.tx, [body.personId])
  await insertEntry(ctx.tx, { id: body.id, personId: body.personId, from, to, title: body.title })
  await record(ctx, {
    subject: 'person',
    id: body.personId,
    fact: personFacts.entryAdded(span(name, body.title, from, to)),
  })
  return scheduleSetUp(ctx)
}
export async function takeEntryBack(ctx: Ctx, id: string): Promise<SetUp> {
  if (!(await removeEntry(ctx.tx, id))) throw notFound('entry')
  await record(ctx, { subject: 'person', id, fact: personFacts.entryTakenBack() })
  return scheduleSetUp(ctx)
}
/** The firm as it is, held until this is done. */
async function firmNow(ctx: Ctx) {
  await lockFirm(ctx.tx)
  return (await getCompany(ctx.tx))!
}
export async function keepClosing(ctx: Ctx, { at }: Body<'keepClosing'>): Promise<SetUp> {
  const { closesAt: from } = await firmNow(ctx)
  if (at !== from) {
    await setClosesAt(ctx.tx, at)
    await record(ctx, {
      subject: 'settings',
      id: ctx.id(),
      fact: scheduleFacts.closes({ at: { from, to: at } }),
    })
    ctx.company.closesAt = at
  }
  return scheduleSetUp(ctx)
}
export async function keepDrives(ctx: Ctx, { outside }: Body<'keepDrives'>): Promise<SetUp> {
  if (outside !== (await firmNow(ctx)).drivesOutside) {
    await setDrivesOutside(ctx.tx, outside)
    await record(ctx, {
      subject: 'settings',
      id: ctx.id(),
      fact: outside ? scheduleFacts.drivesOutside() : scheduleFacts.drivesWithin(),
    })
    ctx.company.drivesOutside = outside
  }
  return scheduleSetUp(ctx)
}
undoes({
  'schedule.closes': {
    may: 'dispatch.setUp',
    async back(ctx, { at }: { at: Became }) {
      refuseChanged(ctx.company.closesAt, at.to)
      await keepClosing(ctx, { at: at.from as string })
    },
  },
  'schedule.yardKept': {
    may: 'dispatch.setUp',
    async back(ctx, { changes }: { changes: { yard: Became } }) {
      refuseChanged(yardOf(ctx.company), changes.yard.to)
      const shown = changes.yard.to as string
      await keepYard(ctx, { at: changes.yard.from as string, shown })
    },
  },
})
/** Where the yard is, by coordinates or a postcode; nothing is nowhere. */
export async function keepYard(ctx: Ctx, { at, shown }: Body<'keepYard'>): Promise<SetUp> {
  const company = await firmNow(ctx)
  const old = yardOf(company)
  if (old !== shown)
    throw conflict('stale', 'Someone moved the yard in the meantime.', { current: { at: old } })
  const yard = at ? await placeWritten(ctx.tx, at, 'at') : null
  await putYard(ctx.tx, yard)
  const now = { yardLat: yard?.lat ?? null, yardLon: yard?.lon ?? null }
  const fact = scheduleFacts.yardKept({ changes: { yard: { from: old, to: yardOf(now) } } })
  await record(ctx, { subject: 'settings', id: ctx.id(), fact })
  Object.assign(ctx.company, now)
  return scheduleSetUp(ctx)
}
