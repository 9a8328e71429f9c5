// What work of a kind usually charges: read out when it is booked, or left out for a reason that is kept.
import { invalid } from '../../core/errors/LedgerError'
import { missingCharges } from '../../core/visits/workKinds'
import type { Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { entriesOnSale } from '../pricebook/queries'
import { kindsOf } from '../settings/index'
import { workFacts } from '../visits/facts'

type Booking = Body<'bookCall'>
/** Those of its kind that are in the book, in the kind's order. */
async function usualCharges(ctx: Ctx, { kind }: Booking) {
  const { charges = [] } = kindsOf(ctx).find(({ code }) => code === kind) ?? {}
  const sold = await entriesOnSale(ctx.tx, charges, ctx.today)
  return charges.flatMap((id) => sold.filter((entry) => entry.id === id))
}
interface LeftOut {
  name: string
  reason: string
}
/** Nothing usual is forgotten: it was read out, or somebody said why not; those that are left out, by their names. */
export async function checkCharges(ctx: Ctx, body: Booking): Promise<LeftOut[]> {
  const usual = await usualCharges(ctx, body)
  const read = body.entries.map(({ entryId }) => entryId)
  const [missing] = missingCharges(
    usual.map(({ id }) => id),
    read,
    body.leftOut,
  )
  const entry = usual.find(({ id }) => id === missing)
  if (entry) throw invalid('leftOut', `Read out “${entry.name}”, or say why it is not charged.`)
  return usual
    .filter(({ id }) => !read.includes(id))
    .map(({ id, name }) => {
      const { reason } = body.leftOut.find(({ entryId }) => entryId === id)!
      return { name, reason }
    })
}
/** Why something usual is not charged stands in the history of its work order. */
export async function noteLeftOut(
  ctx: Ctx,
  { workOrderId, customerId }: Booking,
  leftOut: readonly LeftOut[],
): Promise<void> {
  for (const one of leftOut) {
    const fact = workFacts.chargeLeftOut(one)
    await record(ctx, { subject: 'work', id: workOrderId, workOrderId, customerId, fact })
  }
}
