// What scheduling needs, and what of it is there.
import { territoryOf } from '../../core/customers/territoryOf'
import { invalid } from '../../core/errors/LedgerError'
import { sayDay } from '../../core/time/sayDay'
import { dayBounds, plusDays } from '../../core/time/zone'
import { DAY } from '../../core/time/units'
import type { Answer, Body } from '../../shared/api'
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
export function weekOf(hours: Body<'changeTechnician'>['hours']): Hours {
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
