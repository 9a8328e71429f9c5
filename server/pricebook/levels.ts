// The price levels: what some customers pay less, for each kind of line.
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { LINE_KINDS } from '../../core/pricebook/kinds'
import { percentOfRate, rateOfPercent } from '../../core/tax/percentOfRate'
import type { Answer, Body } from '../../shared/api'
import { levels } from '../customers/queries'
import type { Ctx } from '../http/context'
import type { Change } from '../http/facts'
import { record } from '../http/queries'
import { settingFacts } from '../settings/facts'
import { lockFirm, refuseChanged, stoodBefore, undoes } from '../settings/index'
import { putLevel, type StoredLevel } from './levels.queries'

type Levels = Answer<'priceLevels'>
type Level = Levels['items'][number]
const asWritten = ({ id, name, kind, off }: StoredLevel): Level => ({
  ...{ id, name, agreement: kind === 'agreement' },
  off: LINE_KINDS.flatMap((line) =>
    off[line] ? [{ kind: line, percent: percentOfRate(off[line]) }] : [],
  ),
})
export async function priceLevels(ctx: Ctx): Promise<Levels> {
  return { items: ((await levels(ctx.tx)) as StoredLevel[]).map(asWritten) }
}
const said = ({ name, agreement, off }: Omit<Level, 'id'>) => JSON.stringify([name, agreement, off])
export async function keepPriceLevel(
  ctx: Ctx,
  { shown, ...level }: Body<'keepPriceLevel'>,
): Promise<Levels> {
  // A name that is not there yet is locked by nobody.
  await lockFirm(ctx.tx)
  const all = (await levels(ctx.tx)) as StoredLevel[]
  const old = all.find(({ id }) => id === level.id)
  const stands = old ? said(asWritten(old)) : null
  if (stands !== (shown && said(shown)))
    throw conflict('stale', 'Someone changed this level in the meantime. Look at it again.', {
      current: old ? asWritten(old) : null,
    })
  const name = level.name.toLowerCase()
  if (all.some((one) => one !== old && one.name.toLowerCase() === name))
    throw invalid('name', 'Another level is called so.')
  // In the order of the kinds, so that what stands there reads as what was shown.
  const off = level.off.filter(({ percent }) => Number(percent) > 0)
  await putLevel(ctx.tx, {
    ...{ id: level.id, name: level.name, kind: level.agreement ? 'agreement' : 'trade' },
    off: Object.fromEntries(off.map(({ kind, percent }) => [kind, rateOfPercent(percent)])),
  })
  const now = await priceLevels(ctx)
  const to = now.items.find(({ id }) => id === level.id)!
  await record(ctx, {
    ...{ subject: 'settings', id: ctx.id() },
    fact: settingFacts.levelKept({
      ...{ id: level.id, name: level.name },
      changes: { level: { from: old ? asWritten(old) : null, to } },
    }),
  })
  return now
}
undoes({
  'settings.levelKept': {
    ...{ may: 'pricebook.change', fits: stoodBefore },
    async back(ctx, { id, changes }: { id: string; changes: { level: Change } }) {
      const now = (await priceLevels(ctx)).items.find((one) => one.id === id)
      if (!now) throw notFound('price level')
      refuseChanged(said(now), said(changes.level.to as Level))
      await keepPriceLevel(ctx, { ...(changes.level.from as Level), id, shown: now })
    },
  },
})
