// What scheduling needs to know: hours, time off, territories, holidays; and the guide that says what is still missing, and for what.
import { personFacts, scheduleFacts } from './facts'
import { postcodeRange } from '../../core/customers/postcodeRange'
import { territoryOf } from '../../core/customers/territoryOf'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { sayDay } from '../../core/time/sayDay'
import { dayBounds, localToInstant, plusDays } from '../../core/time/zone'
import { DAY } from '../../core/time/units'
import type { Answer, Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { putVisitMessages, setDrivesOutside, territories } from '../settings/queries'
import { middleOf } from '../customers/queries'
import { wordsOf } from './visitMessages'
import {
  comingOff,
  currentRoads,
  entriesBetween,
  holidaysBetween,
  insertEntry,
  insertTimeOff,
  peopleSetUp,
  putHoliday,
  putTerritory,
  removeEntry,
  removeTimeOff,
  sitesByPostcode,
  technicianById,
  updateTechnician,
  type Hours,
  lockPeople,
} from './queries'

type SetUp = Answer<'scheduleSetUp'>
const YEAR = 366 * DAY
/** How long before its end a licence is spoken of (our own rule). */
const LICENCE_SOON_DAYS = 30
export async function scheduleSetUp(ctx: Ctx): Promise<SetUp> {
  const { tx } = ctx
  const { from } = dayBounds(ctx.today, ctx.company.timeZone)
  const [people, areas, off, entries, counts, roads] = [
    await peopleSetUp(tx),
    await territories(tx),
    await comingOff(tx, from),
    await entriesBetween(tx, from, from + YEAR),
    await sitesByPostcode(tx),
    await currentRoads(tx),
  ]
  const sites = new Map<string, number>()
  let nowhere = 0
  for (const c of counts) {
    const area = territoryOf(c.postcode, areas)
    if (area) sites.set(area.id, (sites.get(area.id) ?? 0) + c.sites)
    else nowhere += c.sites
  }
  const without = (test: (p: (typeof people)[number]) => boolean) =>
    people.filter(test).map((p) => p.name)
  const idle = without((p) => Object.keys(p.hours).length === 0)
  const homeless = without((p) => p.start === null)
  const soon = plusDays(ctx.today, LICENCE_SOON_DAYS)
  const ending = people.flatMap((p) =>
    p.licences
      .filter((l) => p.skills.includes(l.skill) && l.until < soon)
      .map(
        (l) =>
          `${p.name}: ${l.skill} ${l.until < ctx.today ? 'ended' : 'ends'} on ${sayDay(l.until, ctx.company.locale)}`,
      ),
  )
  const unused = areas.filter((a) => !people.some((p) => p.territoryIds.includes(a.id)))
  const say = (
    code: string,
    done: boolean,
    yes: string,
    no: string,
    where: string,
  ): SetUp['guide'][number] => ({ code, done, text: done ? yes : no, where })
  return {
    drivesOutside: ctx.company.drivesOutside,
    technicians: people.map((p) => ({
      id: p.id,
      version: p.version,
      name: p.name,
      skills: p.skills,
      licences: p.licences,
      territoryIds: p.territoryIds,
      placeKnown: p.start !== null,
      kind: p.kind,
      goesWith: p.goesWith,
      startsAt: p.startsAt,
      endsAt: p.endsAt,
      home: p.home,
      calendar: p.calendar,
      hours: Object.entries(p.hours).map(([weekday, h]) => ({
        weekday: Number(weekday),
        ...h,
        breakFrom: h.breakFrom ?? '',
        breakTo: h.breakTo ?? '',
      })),
      off: off.filter((o) => o.personId === p.id).map(({ personId: _person, ...o }) => o),
      entries: entries
        .filter((e) => e.personId === p.id)
        .map((e) => ({ id: e.id, from: e.fromAt, to: e.toAt, title: e.title })),
    })),
    territories: areas.map((a) => ({
      ...a,
      people: people.filter((p) => p.territoryIds.includes(a.id)).map((p) => p.name),
      sites: sites.get(a.id) ?? 0,
      ...capacity(people.filter((p) => p.territoryIds.includes(a.id))),
    })),
    holidays: await holidaysBetween(tx, ctx.today, '2999-12-31'),
    sitesNowhere: nowhere,
    roads: roads?.name ?? '',
    yardKnown: ctx.company.yardLat !== null,
    messages: {
      confirmation: false,
      eve: false,
      onWay: false,
      ...ctx.company.visitMessages,
      words: wordsOf(ctx),
    },
    guide: [
      say(
        'people',
        people.length > 0,
        `${people.length} can be booked`,
        'Nobody can be booked yet: offers and the schedule need technicians',
        '#technicians',
      ),
      say(
        'hours',
        people.length > 0 && idle.length === 0,
        'Everybody has weekly hours',
        `Without weekly hours nobody is offered: ${idle.join(', ') || 'enter technicians first'}`,
        '#technicians',
      ),
      say(
        'places',
        homeless.length === 0,
        'Where everybody starts from is known',
        `Driving is not counted for ${homeless.join(', ')}: where they start from is not known`,
        '#technicians',
      ),
      say(
        'territories',
        areas.length > 0 && nowhere === 0,
        'Every site lies in a territory',
        areas.length === 0
          ? 'No territory yet: everybody is offered everywhere'
          : `${nowhere} ${nowhere === 1 ? 'site lies' : 'sites lie'} in no territory: anybody is offered there`,
        '#territories',
      ),
      say(
        'served',
        unused.length === 0,
        'Every territory has its people',
        `Nobody serves ${unused.map((a) => a.name).join(', ')}`,
        '#technicians',
      ),
      say(
        'licences',
        ending.length === 0,
        'No licence ends within a month',
        `${ending.join('; ')}. Whoever lacks the licence is not offered as able to do the work`,
        '#technicians',
      ),
      say(
        'messages',
        Object.values(ctx.company.visitMessages).some(Boolean),
        'Customers hear of their visits by themselves',
        'Nobody is told of a visit by itself: choose which messages go out',
        '#messages',
      ),
      say(
        'roads',
        roads !== null,
        `Driving goes along the roads of ${roads?.name ?? ''}`,
        'Driving is estimated by distance: import a road network for truer times',
        '#roads',
      ),
    ],
  }
}
/** What these people take on an ordinary week's fullest day: a territory's capacity is the sum of its people's (common practice of the trade). */
function capacity(people: { hours: Hours }[]): { morning: number; afternoon: number } {
  const most = (half: 'morning' | 'afternoon') =>
    people.reduce((sum, p) => sum + Math.max(0, ...Object.values(p.hours).map((h) => h[half])), 0)
  return { morning: most('morning'), afternoon: most('afternoon') }
}
function weekOf(hours: Body<'changeTechnician'>['hours']): Hours {
  const week: Hours = {}
  for (const [i, h] of hours.entries()) {
    if (h.to <= h.from) throw invalid(`hours[${i}].to`, 'The day ends before it begins.')
    if (week[h.weekday]) throw invalid(`hours[${i}].weekday`, 'This day is there twice.')
    if (Boolean(h.breakFrom) !== Boolean(h.breakTo))
      throw invalid(`hours[${i}].breakTo`, 'Say from when until when the break is.')
    if (h.breakFrom && (h.breakTo <= h.breakFrom || h.breakFrom < h.from || h.breakTo > h.to))
      throw invalid(
        `hours[${i}].breakTo`,
        'The break lies within the day, and ends after it begins.',
      )
    week[h.weekday] = {
      from: h.from,
      to: h.to,
      morning: h.morning,
      afternoon: h.afternoon,
      ...(h.breakFrom ? { breakFrom: h.breakFrom, breakTo: h.breakTo } : {}),
    }
  }
  return week
}
export async function changeTechnician(
  ctx: Ctx,
  id: string,
  body: Body<'changeTechnician'>,
): Promise<SetUp> {
  const person = await technicianById(ctx.tx, id)
  if (!person) throw notFound('technician')
  const hours = weekOf(body.hours)
  const known = new Set((await territories(ctx.tx)).map((a) => a.id))
  if (body.territoryIds.some((t) => !known.has(t)))
    throw invalid('territoryIds', 'There is no such territory.')
  const goesWith = body.goesWith === undefined ? person.goesWith : body.goesWith
  if (goesWith) {
    const lead = await technicianById(ctx.tx, goesWith)
    if (goesWith === id || !lead) throw invalid('goesWith', 'Choose somebody else to go with.')
    if (lead.goesWith)
      throw invalid('goesWith', `${lead.name} goes with somebody as well; choose who leads.`)
  }
  // A home may be given as a postcode: its middle is near enough to drive from, until somebody points at the map.
  const middle = body.homePostcode ? await middleOf(ctx.tx, '', body.homePostcode) : null
  if (body.homePostcode && middle?.lat == null)
    throw invalid(
      'homePostcode',
      'No site is known in this postcode, so nobody knows where it is. Point at the map instead.',
    )
  const pointedAt = body.home === undefined ? person.home : body.home
  const home = middle?.lat != null ? { lat: middle.lat, lon: middle.lon! } : pointedAt
  const skills = [...new Set(body.skills)]
  for (const [i, l] of body.licences.entries())
    if (!skills.includes(l.skill))
      throw invalid(`licences[${i}].skill`, `${l.skill} is not among the skills.`)
  const next = {
    hours,
    skills,
    licences: body.licences,
    territoryIds: [...new Set(body.territoryIds)],
    kind: body.kind ?? person.kind,
    goesWith,
    startsAt: body.startsAt ?? person.startsAt,
    endsAt: body.endsAt ?? person.endsAt,
    home,
  }
  if (!(await updateTechnician(ctx.tx, id, body.version, next)))
    throw conflict('stale', 'Someone changed this technician in the meantime.', {
      current: (await scheduleSetUp(ctx)).technicians.find((t) => t.id === id),
    })
  await record(ctx, {
    subject: 'person',
    id,
    fact: personFacts.changed({
      changes: {
        from: {
          hours: person.hours,
          kind: person.kind,
          licences: person.licences,
          startsAt: person.startsAt,
          endsAt: person.endsAt,
          home: person.home,
        },
        to: next,
      },
    }),
  })
  return scheduleSetUp(ctx)
}
/** A stretch of somebody's time, local, with the person it belongs to; refused when it runs backwards. */
/** A stretch of somebody's time, as the history keeps it. */
const span = (person: string, reason: string, from: number, to: number) => ({
  person,
  reason,
  from: new Date(from).toISOString(),
  to: new Date(to).toISOString(),
})
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
export async function keepTerritory(ctx: Ctx, body: Body<'keepTerritory'>): Promise<SetUp> {
  const postcodes = postcodeRange(body.postcodes)
  await putTerritory(ctx.tx, { id: body.id, name: body.name, postcodes })
  await record(ctx, {
    subject: 'settings',
    id: body.id,
    fact: scheduleFacts.territoryKept({ name: body.name, postcodes: postcodes.length }),
  })
  return scheduleSetUp(ctx)
}
export async function keepHoliday(ctx: Ctx, body: Body<'keepHoliday'>): Promise<SetUp> {
  await putHoliday(ctx.tx, body.date, body.name)
  await record(ctx, {
    subject: 'settings',
    id: ctx.id(),
    fact: body.name
      ? scheduleFacts.holidayKept({ on: body.date, name: body.name })
      : scheduleFacts.holidayTakenBack({ on: body.date }),
  })
  return scheduleSetUp(ctx)
}
export async function keepDrives(ctx: Ctx, { outside }: Body<'keepDrives'>): Promise<SetUp> {
  if (outside !== ctx.company.drivesOutside) {
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
export async function keepVisitMessages(ctx: Ctx, body: Body<'keepVisitMessages'>): Promise<SetUp> {
  const { words, ...which } = body
  const wording = {
    ...ctx.company.wording,
    ...Object.fromEntries(Object.entries(words).map(([k, text]) => [`visit_${k}`, text])),
  }
  await putVisitMessages(ctx.tx, which, wording)
  await record(ctx, {
    subject: 'settings',
    id: ctx.id(),
    fact: scheduleFacts.messagesChanged({
      changes: { from: ctx.company.visitMessages, to: which },
    }),
  })
  Object.assign(ctx.company, { visitMessages: which, wording })
  return scheduleSetUp(ctx)
}
