// SQL of a work order with all that is around it, as its page shows it.
import { customersIn, type CustomerRow } from '../customers/queries'
import { equipmentIn, sitesIn, type EquipmentRow, type SiteRow } from '../customers/places.queries'
import { suppliedAboutIn, type Supplied } from '../customers/history.queries'
import type { Tx } from '../db/pool'
import { listsIn } from '../db/queries'
import { quotesOfWorkIn, type ShortQuote } from '../quotes/queries'
import { phasesIn, type PhaseRow } from './phases.queries'
import { billedIn, type BilledLine } from './lines.queries'
import { callBacksIn, WORK, type CallBackRow, type WorkOrderRow } from './queries'
import { clockIn, toInterval, type RawInterval } from './clock.queries'
import {
  invoicesIn,
  photosIn,
  signaturesIn,
  type InvoiceOfWork,
  type PhotoRow,
  type SignatureRow,
} from './papers.queries'
import { visitsIn, type VisitRow } from './visits.queries'

/** A work order with whose it is, where, on what, and whose call-back it is, in one question. */
export async function workWithParties(tx: Tx, id: string) {
  const of = (table: string, key: string) =>
    `${table} JOIN work_orders w ON w.${key} WHERE w.id = ?`
  const got = await listsIn<{
    work: WorkOrderRow
    customer: CustomerRow
    site: SiteRow
    equipment: EquipmentRow
    supplied: Supplied
    first: { id: string; number: string }
  }>(tx, {
    work: {
      columns: WORK,
      from: 'work_orders w WHERE w.id = ?',
      values: [id],
      order: 'w.id',
      instants: ['createdAt', 'doneAt'],
      booleans: ['cancelled', 'closed'],
    },
    customer: customersIn(of('customers c', 'customer_id = c.id'), [id]),
    site: sitesIn(of('sites s', 'site_id = s.id'), [id]),
    equipment: equipmentIn('e.id = (SELECT w.equipment_id FROM work_orders w WHERE w.id = ?)', [
      id,
    ]),
    supplied: suppliedAboutIn(id),
    first: {
      columns: 'f.id, f.number',
      from: of('work_orders f', 'callback_of = f.id'),
      values: [id],
      order: 'f.id',
    },
  })
  const [work] = got.work
  return work
    ? {
        work,
        customer: got.customer[0]!,
        site: got.site[0]!,
        equipment: got.equipment[0] ?? null,
        supplied: got.supplied[0] ?? null,
        callbackOf: got.first[0] ?? null,
      }
    : null
}
/** What happened with a work order, and what was made of it, in one question. */
export async function aroundWork(tx: Tx, id: string, now: number) {
  const got = await listsIn<{
    visits: VisitRow
    clock: RawInterval
    billed: BilledLine
    invoices: InvoiceOfWork
    quotes: ShortQuote
    signatures: SignatureRow
    photos: PhotoRow
    callBacks: CallBackRow
    phases: PhaseRow
  }>(tx, {
    visits: visitsIn(id),
    clock: clockIn('k.visit_id IN (SELECT v.id FROM visits v WHERE v.work_order_id = ?)', [id]),
    billed: billedIn(id),
    invoices: invoicesIn(id),
    quotes: quotesOfWorkIn(id),
    signatures: signaturesIn(id),
    photos: photosIn(id),
    callBacks: callBacksIn(id, now),
    phases: phasesIn(id),
  })
  return { ...got, clock: got.clock.map(toInterval) }
}
