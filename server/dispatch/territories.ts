// The territories by their postcodes: kept, taken away while nobody serves them, put back.
import { postcodeRange } from '../../core/customers/postcodeRange'
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import type { Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { isKnown, lockFirm, partsOf, refuseChanged, refuseOther, undoes } from '../settings/index'
import { territories } from '../settings/queries'
import { scheduleFacts } from './facts'
import { peopleSetUp, putTerritory, removeTerritory } from './setUp.queries'
import { scheduleSetUp, type SetUp } from './setUpView'

/** As many as are read: one more would be kept and seen by nobody. */
const MOST = 200
type Territory = Awaited<ReturnType<typeof territories>>[number]
type Stands = Pick<Territory, 'name' | 'postcodes'>
const stands = (of: Territory | undefined): Stands | null =>
  of ? partsOf(of, ['name', 'postcodes']) : null
/** All of them, held until this is done. */
async function territoriesNow(ctx: Ctx): Promise<Territory[]> {
  await lockFirm(ctx.tx)
  return territories(ctx.tx)
}
export async function keepTerritory(
  ctx: Ctx,
  { id, name, shown, ...written }: Body<'keepTerritory'>,
): Promise<SetUp> {
  const postcodes = postcodeRange(written.postcodes)
  const all = await territoriesNow(ctx)
  const from = stands(all.find((one) => one.id === id))
  refuseOther('this territory', { now: from, shown })
  if (!from && all.length >= MOST) throw invalid('name', `There may be ${MOST} at most.`)
  if (all.some((one) => one.id !== id && one.name.toLowerCase() === name.toLowerCase()))
    throw invalid('name', 'Another territory is called so.')
  await putTerritory(ctx.tx, { id, name, postcodes })
  const changes = { territory: { from, to: { name, postcodes } } }
  const fact = scheduleFacts.territoryKept({ id, name, postcodes: postcodes.length, changes })
  await record(ctx, { subject: 'settings', id, fact })
  return scheduleSetUp(ctx)
}
/** Sites there lie in none from then on; whoever serves it would be looked for nowhere. */
export async function dropTerritory(
  ctx: Ctx,
  id: string,
  { shown }: Body<'dropTerritory'>,
): Promise<SetUp> {
  const from = stands((await territoriesNow(ctx)).find((one) => one.id === id))
  if (!from) throw notFound('territory')
  refuseOther('this territory', { now: from, shown })
  const serving = (await peopleSetUp(ctx.tx)).filter((p) => p.territoryIds.includes(id))
  if (serving.length)
    throw conflict(
      'in_use',
      `${serving.map((p) => p.name).join(', ')} still serve ${from.name}. Let them serve others first.`,
    )
  await removeTerritory(ctx.tx, id)
  const changes = { territory: { from, to: null } }
  const fact = scheduleFacts.territoryDropped({ id, name: from.name, changes })
  await record(ctx, { subject: 'settings', id, fact })
  return scheduleSetUp(ctx)
}
interface Was {
  from: Stands | null
  to: Stands | null
}
const back = {
  ...{ may: 'dispatch.setUp' as const, fits: isKnown },
  async back(ctx: Ctx, { id, changes }: { id: string; changes: { territory: Was } }) {
    const shown = stands((await territories(ctx.tx)).find((one) => one.id === id))
    const { from, to } = changes.territory
    refuseChanged(shown, to)
    if (!from) await dropTerritory(ctx, id, { shown: shown! })
    else await keepTerritory(ctx, { ...from, id, shown, postcodes: from.postcodes.join(' ') })
  },
}
undoes({ 'schedule.territoryKept': back, 'schedule.territoryDropped': back })
