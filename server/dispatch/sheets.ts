// The schedule on paper: day sheets of technicians, the work sheet of a visit.
import { sayEquipment } from '../../core/customers/sayEquipment'
import { saySite } from '../../core/customers/saySite'
import { ownDetails } from '../visits/details'
import { sayContact } from '../../core/visits/workContacts'
import { hoursMinutes } from '../../core/hours/workedSeconds'
import { Decimal } from '../../core/money/decimal'
import { notFound } from '../../core/errors/LedgerError'
import { sayDay } from '../../core/time/sayDay'
import { localDate, localTime } from '../../core/time/zone'
import { customerById } from '../customers/queries'
import { equipmentById, siteById } from '../customers/places.queries'
import { daySheetPdf } from '../documents/daySheetPdf'
import { workSheetPdf } from '../documents/workSheetPdf'
import { signedIn, type Ctx } from '../http/context'
import { Raw } from '../http/route'
import { visibleWorkOrder } from '../visits/account'
import { linesOf } from '../visits/lines.queries'
import { visitById } from '../visits/visits.queries'
import { schedule } from './board'

const SAID: Record<string, string> = { finished: 'done', no_access: 'nobody let us in' }
export async function daySheets(ctx: Ctx, date: string, technicianId?: string): Promise<Raw> {
  const me = signedIn(ctx)
  // A technician prints their own day and nobody else's.
  const only = me.role === 'technician' ? me.id : technicianId
  const day = await schedule(ctx, date)
  const time = (iso: string | number) =>
    localTime(typeof iso === 'string' ? Date.parse(iso) : iso, ctx.company.timeZone)
  const people = day.technicians.filter((t) =>
    only
      ? t.id === only
      : day.visits.some((v) => v.technicianId === t.id || v.crewIds.includes(t.id)) ||
        t.working.length > 0,
  )
  if (!people.length) throw notFound('technician')
  const nameOf = (id: string | null) =>
    day.technicians.find((t) => t.id === id)?.name.split(' ')[0] ?? ''
  const sheets = people.map((t) => ({
    name: t.name,
    day: sayDay(date, ctx.company.locale),
    hours: t.working.map((w) => `${time(w.from)}–${time(w.to)}`).join(', '),
    along: day.technicians.filter((x) => x.goesWith === t.id).map((x) => x.name.split(' ')[0]!),
    stops: day.visits
      .filter(
        (v) => v.technicianId === t.id || v.crewIds.includes(t.id) || v.alongIds.includes(t.id),
      )
      .map((v) => ({
        time: time(v.startAt!),
        until: time(Date.parse(v.startAt!) + v.durationSeconds * 1000),
        drive:
          v.driveSeconds && v.technicianId === t.id
            ? `${Math.round(v.driveSeconds / 60)} min drive`
            : '',
        number: v.number,
        title: `${v.title}${SAID[v.state] ? ` (${SAID[v.state]})` : ''}`,
        customer: v.customer,
        place: [v.place, v.town].filter(Boolean).join(', '),
        promise: v.promiseFrom ? `${v.promiseFrom}–${v.promiseTo}` : '',
        contact: v.contact,
        notes: [v.officeNote, v.accessNote, v.note].filter(Boolean),
        crew: [
          v.technicianId === t.id ? '' : `with ${nameOf(v.technicianId)}`,
          ...v.crewIds.filter((c) => c !== t.id).map((c) => `with ${nameOf(c)}`),
        ]
          .filter(Boolean)
          .join(', '),
      })),
    other: t.timeOff.map((o) => ({ time: `${time(o.from)}–${time(o.to)}`, text: o.reason })),
    home: t.homeAt
      ? `Home at about ${time(t.homeAt)}, ${hoursMinutes(t.homeDriveSeconds)} h drive.`
      : '',
  }))
  return new Raw(
    'application/pdf',
    () => daySheetPdf(ctx.company.name, ctx.company.locale, sheets),
    `day-sheets-${date}.pdf`,
  )
}
export async function workSheet(ctx: Ctx, id: string): Promise<Raw> {
  const visit = await visitById(ctx.tx, id)
  if (!visit) throw notFound('visit')
  const work = await visibleWorkOrder(ctx, visit.workOrderId)
  const [customer, site, lines, thing] = [
    (await customerById(ctx.tx, work.customerId))!,
    (await siteById(ctx.tx, work.siteId))!,
    await linesOf(ctx.tx, work.id),
    work.equipmentId ? await equipmentById(ctx.tx, work.equipmentId) : null,
  ]
  const copy = ownDetails(work, customer, site)
  const zone = ctx.company.timeZone
  const at = visit.startAt ? Date.parse(visit.startAt) : null
  const pdf = () =>
    workSheetPdf({
      number: work.number,
      title: work.title,
      firm: ctx.company.name,
      locale: ctx.company.locale,
      when:
        at === null
          ? 'no time yet'
          : `${sayDay(localDate(at, zone), ctx.company.locale)}, ${localTime(at, zone)}, ${hoursMinutes(visit.durationSeconds)} h`,
      who: visit.technician ?? 'nobody yet',
      customer: copy.name,
      place: saySite({
        ...{ name: copy.siteName, line1: copy.siteLine1 },
        town: [copy.siteTown, copy.sitePostcode].filter(Boolean).join(', '),
      }),
      contact: [
        sayContact(work.contact) || work.contact.phone || copy.phone,
        ...work.otherContacts.map(sayContact),
      ].join('; '),
      problem: work.problem,
      notes: [copy.accessNote, customer.officeNote].filter(Boolean),
      equipment: thing ? sayEquipment(thing) : '',
      promise: visit.promiseFrom ? `${visit.promiseFrom}–${visit.promiseTo}` : '',
      lines: lines.map((l) => ({ quantity: new Decimal(l.quantity).toString(), name: l.name })),
      answers: work.answers,
    })
  return new Raw('application/pdf', pdf, `work-sheet-${work.number}.pdf`)
}
