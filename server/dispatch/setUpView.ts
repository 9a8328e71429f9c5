// What scheduling needs, and what of it is there.
import { territoryOf } from '../../core/customers/territoryOf'
import { placeOf } from '../../core/dispatch/placeOf'
import { sayPoint } from '../../core/dispatch/readPoint'
import { invalid } from '../../core/errors/LedgerError'
import { counted } from '../../core/text/counted'
import { sayDay } from '../../core/time/sayDay'
import { dayBounds, plusDays } from '../../core/time/zone'
import { DAY } from '../../core/time/units'
import type { Answer, Body } from '../../shared/api'
import { nowhere as nowhereOf } from '../customers/index'
import type { Ctx } from '../http/context'
import { territories } from '../settings/queries'
import { wordsOf } from './messageWords'
import { comingOff, peopleSetUp, sitesByPostcode } from './setUp.queries'
import { currentRoads } from './roads.queries'
import { entriesBetween, holidaysBetween, type Hours } from './queries'

export type SetUp = Answer<'scheduleSetUp'>
export const YEAR = 366 * DAY
/** How long before its end a licence is spoken of (our own rule). */
const LICENCE_SOON_DAYS = 30
type People = Awaited<ReturnType<typeof peopleSetUp>>
type Area = Awaited<ReturnType<typeof territories>>[number]
/** What was read of the schedule's set-up. */
interface Read {
  people: People
  areas: Area[]
  off: Awaited<ReturnType<typeof comingOff>>
  entries: Awaited<ReturnType<typeof entriesBetween>>
  /** sites by territory, and how many lie in none */
  sites: ReadonlyMap<string, number>
  nowhere: number
  /** sites whose place is not known */
  unplaced: number
  roads: string | null
}
async function readSetUp(ctx: Ctx): Promise<Read> {
  const { tx } = ctx
  const { from } = dayBounds(ctx.today, ctx.company.timeZone)
  const areas = await territories(tx)
  const sites = new Map<string, number>()
  let nowhere = 0
  for (const { postcode, sites: count } of await sitesByPostcode(tx)) {
    const area = territoryOf(postcode, areas)
    if (area) sites.set(area.id, (sites.get(area.id) ?? 0) + count)
    else nowhere += count
  }
  return {
    people: await peopleSetUp(tx),
    areas,
    off: await comingOff(tx, from),
    entries: await entriesBetween(tx, from, from + YEAR),
    sites,
    nowhere,
    unplaced: (await nowhereOf(tx)).reduce((n, { sites: some }) => n + some, 0),
    roads: (await currentRoads(tx))?.name ?? null,
  }
}
const technicianPart = (
  p: People[number],
  { off, entries }: Read,
): SetUp['technicians'][number] => ({
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
})
function territoryPart(area: Area, { people, sites }: Read): SetUp['territories'][number] {
  const serving = people.filter((p) => p.territoryIds.includes(area.id))
  return {
    ...area,
    people: serving.map((p) => p.name),
    sites: sites.get(area.id) ?? 0,
    ...capacity(serving),
  }
}
/** Licences that ended, or will soon, of people who need them. */
function endingLicences({ today, company }: Ctx, people: People): string[] {
  const soon = plusDays(today, LICENCE_SOON_DAYS)
  const say = (name: string, { skill, until }: People[number]['licences'][number]) =>
    `${name}: ${skill} ${until < today ? 'ended' : 'ends'} on ${sayDay(until, company.locale)}`
  return people.flatMap(({ name, licences, skills }) =>
    licences
      .filter((l) => skills.includes(l.skill) && l.until < soon)
      .map((licence) => say(name, licence)),
  )
}
/** One thing that scheduling needs: whether it is there, what is said of it, and where it is mended. */
interface Need {
  code: string
  where: '#technicians' | '#where' | '#territories' | '#messages' | '#roads'
  done: boolean
  yes: string
  no: string
}
function peopleNeeds(ctx: Ctx, { people }: Read): Need[] {
  const where = '#technicians'
  const named = (test: (p: People[number]) => boolean) => people.filter(test).map((p) => p.name)
  const idle = named((p) => Object.keys(p.hours).length === 0)
  const homeless = named((p) => p.start === null)
  const ending = endingLicences(ctx, people)
  return [
    {
      ...{ code: 'people', where, done: people.length > 0 },
      yes: `${people.length} can be booked`,
      no: 'Nobody can be booked yet: offers and the schedule need technicians',
    },
    {
      ...{ code: 'hours', where, done: people.length > 0 && idle.length === 0 },
      yes: 'Everybody has weekly hours',
      no: `Without weekly hours nobody is offered: ${idle.join(', ') || 'enter technicians first'}`,
    },
    {
      ...{ code: 'places', where, done: homeless.length === 0 },
      yes: 'Where everybody starts from is known',
      no: `Driving is not counted for ${homeless.join(', ')}: where they start from is not known`,
    },
    {
      ...{ code: 'licences', where, done: ending.length === 0 },
      yes: 'No licence ends within a month',
      no: `${ending.join('; ')}. Whoever lacks the licence is not offered as able to do the work`,
    },
  ]
}
function territoryNeeds({ areas, people, nowhere, unplaced }: Read): Need[] {
  const unused = areas.filter((a) => !people.some((p) => p.territoryIds.includes(a.id)))
  const lie = nowhere === 1 ? 'site lies' : 'sites lie'
  return [
    {
      ...{ code: 'sites', where: '#where', done: unplaced === 0 },
      yes: 'Every site has its place',
      no: `Driving is not counted to ${counted(unplaced, 'site')}: where ${unplaced === 1 ? 'it is' : 'they are'} is not known`,
    },
    {
      code: 'territories',
      where: '#territories',
      done: areas.length > 0 && nowhere === 0,
      yes: 'Every site lies in a territory',
      no: areas.length
        ? `${nowhere} ${lie} in no territory: anybody is offered there`
        : 'No territory yet: everybody is offered everywhere',
    },
    {
      code: 'served',
      where: '#technicians',
      done: unused.length === 0,
      yes: 'Every territory has its people',
      no: `Nobody serves ${unused.map((a) => a.name).join(', ')}`,
    },
  ]
}
const otherNeeds = ({ company }: Ctx, { roads }: Read): Need[] => [
  {
    code: 'messages',
    where: '#messages',
    done: Object.values(company.visitMessages).some(Boolean),
    yes: 'Customers hear of their visits by themselves',
    no: 'Nobody is told of a visit by itself: choose which messages go out',
  },
  {
    code: 'roads',
    where: '#roads',
    done: roads !== null,
    yes: `Driving goes along the roads of ${roads ?? ''}`,
    no: 'Driving is estimated by distance: import a road network for truer times',
  },
]
/** In the order in which somebody who sets up would go through them. */
const GUIDE = [
  'people',
  'hours',
  'places',
  'sites',
  'territories',
  'served',
  'licences',
  'messages',
  'roads',
] as const
function guideOf(ctx: Ctx, read: Read): SetUp['guide'] {
  const needs = [...peopleNeeds(ctx, read), ...territoryNeeds(read), ...otherNeeds(ctx, read)]
  const byCode = new Map(needs.map((need) => [need.code, need]))
  return GUIDE.map((name) => {
    const { code, done, yes, no, where } = byCode.get(name)!
    return { code, done, text: done ? yes : no, where }
  })
}
/** Where the yard is, as it is written; nothing where nobody said. */
export const yardOf = ({ yardLat, yardLon }: Pick<Ctx['company'], 'yardLat' | 'yardLon'>) => {
  const yard = placeOf({ lat: yardLat, lon: yardLon })
  return yard ? sayPoint(yard) : ''
}
export async function scheduleSetUp(ctx: Ctx): Promise<SetUp> {
  const read = await readSetUp(ctx)
  const { company } = ctx
  return {
    closesAt: company.closesAt,
    drivesOutside: company.drivesOutside,
    technicians: read.people.map((p) => technicianPart(p, read)),
    territories: read.areas.map((a) => territoryPart(a, read)),
    holidays: await holidaysBetween(ctx.tx, ctx.today, '2999-12-31'),
    sitesNowhere: read.nowhere,
    roads: read.roads ?? '',
    yard: yardOf(company),
    messages: messagesOf(ctx),
    guide: guideOf(ctx, read),
  }
}
/** What customers are told by itself, and all words of it. */
export const messagesOf = (ctx: Ctx): SetUp['messages'] => ({
  ...{ confirmation: false, eve: false, onWay: false, ...ctx.company.visitMessages },
  words: wordsOf(ctx),
})
/** What these people take on an ordinary week's fullest day: a territory's capacity is the sum of its people's (common practice of the trade). */
function capacity(people: { hours: Hours }[]): { morning: number; afternoon: number } {
  const most = (half: 'morning' | 'afternoon') =>
    people.reduce((sum, p) => sum + Math.max(0, ...Object.values(p.hours).map((h) => h[half])), 0)
  return { morning: most('morning'), afternoon: most('afternoon') }
}
type Day = Body<'changeTechnician'>['hours'][number]
function checkDay(h: Day, i: number): void {
  const { from, to, breakFrom, breakTo } = h
  if (to <= from) throw invalid(`hours[${i}].to`, 'The day ends before it begins.')
  if (Boolean(breakFrom) !== Boolean(breakTo))
    throw invalid(`hours[${i}].breakTo`, 'Say from when until when the break is.')
  if (breakFrom && (breakTo <= breakFrom || breakFrom < from || breakTo > to))
    throw invalid(`hours[${i}].breakTo`, 'The break lies within the day, and ends after it begins.')
}
/** A week as it is kept: by weekday, with breaks where there are any. */
export function weekOf(hours: readonly Day[]): Hours {
  const week: Hours = {}
  for (const [i, h] of hours.entries()) {
    checkDay(h, i)
    if (week[h.weekday]) throw invalid(`hours[${i}].weekday`, 'This day is there twice.')
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
