// The billing address of a customer who has none, written where it is missed: at the bill.
import { customerFacts } from '../customers/facts'
import { updateRow } from '../customers/index'
import { customersChanged } from '../customers/matching'
import { customerSearch } from '../customers/search'
import { customerById } from '../customers/queries'
import { forbidden, notFound } from '../../core/errors/LedgerError'
import type { Body } from '../../shared/api'
import { may, type Ctx } from '../http/context'
import { record } from '../http/queries'
import { setDetails } from '../visits/index'
import type { WorkOrderRow } from '../visits/queries'

type Address = NonNullable<Body<'makeInvoice'>['billing']>
/** Keeps it with the customer, for the next time, and with the work order, for this bill; an address that is there already stays. */
export async function keepBillingAddress(
  ctx: Ctx,
  work: WorkOrderRow,
  address: Address,
): Promise<void> {
  if (!may(ctx, 'customers.change')) throw forbidden('You may not do this.')
  const customer = await customerById(ctx.tx, work.customerId, true)
  if (!customer) throw notFound('customer')
  const { line1: billingLine1, town: billingTown, postcode: billingPostcode } = address
  await setDetails(ctx.tx, work.id, {
    ...work.details,
    ...{ billingLine1, billingTown, billingPostcode },
  })
  if (customer.line1) return
  const search = customerSearch({ ...customer, ...address })
  await updateRow(ctx.tx, 'customers', customer, { ...address, search })
  const { id } = customer
  const changes = { line1: { from: '', to: address.line1 }, town: { from: '', to: address.town } }
  await record(ctx, {
    subject: 'customer',
    id,
    customerId: id,
    fact: customerFacts.changed({ changes }),
  })
  customersChanged(ctx, [id])
}
