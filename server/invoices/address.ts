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
import { visibleWorkOrder } from '../visits/account'
import { setDetails } from '../visits/index'

type Address = NonNullable<Body<'makeInvoice'>['billing']>
/** Keeps it with the customer, for the next time, and with the work order, for this bill; an address that is there already stays. */
export async function keepBillingAddress(
  ctx: Ctx,
  workOrderId: string,
  address: Address,
): Promise<void> {
  if (!may(ctx, 'customers.change')) throw forbidden('You may not do this.')
  const { customerId } = await visibleWorkOrder(ctx, workOrderId)
  // The customer first, as everywhere, then the work.
  const customer = await customerById(ctx.tx, customerId, true)
  if (!customer) throw notFound('customer')
  const { details } = await visibleWorkOrder(ctx, workOrderId, true)
  const { line1: billingLine1, town: billingTown, postcode: billingPostcode } = address
  if (!details.billingLine1)
    await setDetails(ctx.tx, workOrderId, {
      ...details,
      billingLine1,
      billingTown,
      billingPostcode,
    })
  if (customer.line1) return
  const search = customerSearch({ ...customer, ...address })
  await updateRow(ctx.tx, 'customers', customer, { ...address, search })
  const parts = Object.entries(address).filter(([, to]) => to)
  const changes = Object.fromEntries(parts.map(([part, to]) => [part, { from: '', to }]))
  const fact = customerFacts.changed({ changes })
  await record(ctx, { subject: 'customer', id: customerId, customerId, fact })
  customersChanged(ctx, [customerId])
}
