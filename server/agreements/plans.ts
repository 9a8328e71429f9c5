// The plans that care agreements are made from; an agreement keeps what it was made with.
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { decimalToMinor, minorToDecimal } from '../../core/money/formatMinor'
import { Decimal } from '../../core/money/decimal'
import type { Answer, Body } from '../../shared/api'
import { levels } from '../customers/queries'
import type { Ctx } from '../http/context'
import type { Change } from '../http/facts'
import { record } from '../http/queries'
import { settingFacts } from '../settings/facts'
import { lockFirm, refuseChanged, stoodBefore, undoes } from '../settings/index'
import { allPlans, putPlan, type PlanRow } from './queries'

type Plans = Answer<'plans'>
type Plan = Plans['items'][number]
const asWritten = ({ visitSeconds, retired, price, ...plan }: PlanRow): Plan => ({
  ...plan,
  ...{
    minutes: visitSeconds / 60,
    retired: Boolean(retired),
    price: new Decimal(price).toString(),
  },
})
/** Prices with the places of the currency. */
const inMoney = ({ company }: Ctx, plan: Plan): Plan => ({
  ...plan,
  price: minorToDecimal(decimalToMinor(plan.price, company.currency), company.currency),
})
export async function listPlans(ctx: Ctx): Promise<Plans> {
  const rows = await allPlans(ctx.tx)
  const there = await levels(ctx.tx)
  return {
    items: rows.map((row) => inMoney(ctx, asWritten(row))),
    levels: there.map(({ id, name }) => ({ id, name })),
  }
}
const said = ({ name, visitsAYear, minutes, price, levelId, work, retired }: Omit<Plan, 'id'>) =>
  JSON.stringify([name, visitsAYear, minutes, price, levelId, work, retired])
export async function keepPlan(ctx: Ctx, { shown, ...plan }: Body<'keepPlan'>): Promise<Plans> {
  // A name that is not there yet is locked by nobody.
  await lockFirm(ctx.tx)
  const all = (await allPlans(ctx.tx)).map((row) => inMoney(ctx, asWritten(row)))
  const old = all.find(({ id }) => id === plan.id)
  if ((old ? said(old) : null) !== (shown && said(shown)))
    throw conflict('stale', 'Someone changed this plan in the meantime. Look at it again.', {
      current: old ?? null,
    })
  const name = plan.name.toLowerCase()
  if (all.some((one) => one !== old && one.name.toLowerCase() === name))
    throw invalid('name', 'Another plan is called so.')
  if (plan.levelId && !(await levels(ctx.tx)).some(({ id }) => id === plan.levelId))
    throw invalid('levelId', 'This price level is not there any more.')
  const { currency } = ctx.company
  const price = minorToDecimal(decimalToMinor(plan.price, currency), currency)
  await putPlan(ctx.tx, { ...plan, price, visitSeconds: plan.minutes * 60 })
  const { id: _, ...is } = { ...plan, price }
  await record(ctx, {
    ...{ subject: 'settings', id: plan.id },
    fact: settingFacts.planKept({
      ...{ id: plan.id, name: plan.name },
      changes: { plan: { from: old ?? null, to: is } },
    }),
  })
  return listPlans(ctx)
}
undoes({
  'settings.planKept': {
    ...{ may: 'agreements.bill', fits: stoodBefore },
    async back(ctx, { id, changes }: { id: string; changes: { plan: Change } }) {
      const now = (await listPlans(ctx)).items.find((one) => one.id === id)
      if (!now) throw notFound('care plan')
      refuseChanged(said(now), said(changes.plan.to as Plan))
      await keepPlan(ctx, { ...(changes.plan.from as Plan), id, shown: now })
    },
  },
})
