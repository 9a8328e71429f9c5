// A work order begins, from wherever: a call, a quote that was accepted, an agreement's visit, a call-back.
import { eachWorkWord } from '../../core/visits/workWords'
import type { CustomerRow } from '../customers/queries'
import type { SiteRow } from '../customers/places.queries'
import type { Ctx } from '../http/context'
import { nextNumber } from '../settings/numbers'
import { copyOf } from './details'
import { insertWorkOrder, type WorkOrderStart } from './queries'
import { insertVisit } from './visits.queries'

type Given = 'id' | 'title' | 'problem' | 'kind'
export type NewWorkOrder = Pick<WorkOrderStart, Given> & Partial<WorkOrderStart>

/** Makes a work order for a customer at a site, with what the customer says of all of theirs; answers its number. */
export async function makeWorkOrder(
  ctx: Ctx,
  { customer, site }: { customer: CustomerRow; site: SiteRow },
  given: NewWorkOrder,
): Promise<string> {
  const { number } = await nextNumber(ctx, 'work_order')
  await insertWorkOrder(ctx.tx, {
    contact: { name: '', phone: customer.phone },
    ...eachWorkWord(() => ''),
    priceLevelId: customer.priceLevelId,
    currency: ctx.company.currency,
    answers: [],
    printedNote: customer.printedNote,
    ...{ equipmentId: null, aboutLineId: null },
    assignedTo: null,
    source: '',
    ...given,
    number,
    customerId: customer.id,
    siteId: site.id,
    details: copyOf(customer, site),
    now: ctx.now,
  })
  return number
}
/** A visit that waits for its place on the schedule. */
export const makeWaitingVisit = (
  ctx: Ctx,
  visit: {
    id: string
    workOrderId: string
    durationSeconds: number
    note?: string
    againOf?: string
    phaseId?: string | null
  },
) =>
  insertVisit(ctx.tx, {
    ...visit,
    technicianId: null,
    startAt: null,
    promiseDate: null,
    promiseFrom: null,
    promiseTo: null,
  })
