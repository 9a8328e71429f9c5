// The classes that what is sold is taxed by. A rate that changes holds for what is billed from then on.
import { conflict, notFound } from '../../core/errors/LedgerError'
import { isOddRate, percentOfRate, rateOfPercent } from '../../core/tax/percentOfRate'
import { searchKey } from '../../core/text/searchKey'
import type { Answer, Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { putTaxClass, taxClassRows } from './taxes.queries'
import { settingFacts } from './facts'

type Classes = Answer<'taxClasses'>
const ID_SIGNS = 20
const asWritten = (rates: readonly { name: string; rate: string }[]) =>
  rates.map(({ name, rate }) => ({ name, percent: percentOfRate(rate) }))
export async function classesOfTax(ctx: Ctx): Promise<Classes> {
  const rows = await taxClassRows(ctx.tx)
  return {
    mode: ctx.company.taxMode,
    classes: rows.map(({ rates, ...row }) => ({ ...row, rates: asWritten(rates) })),
  }
}
/** A class, and a rate, is called the same for ever by what it was named first. */
const codeOf = (name: string, taken: readonly string[]): string => {
  const plain =
    searchKey(name)
      .replace(/[^a-z0-9]+/g, '-')
      .slice(0, ID_SIGNS - 3) || 'tax'
  let code = plain
  for (let n = 2; taken.includes(code); n++) code = `${plain}-${n}`
  return code
}
export async function keepTaxClass(ctx: Ctx, body: Body<'keepTaxClass'>): Promise<Classes> {
  const all = await taxClassRows(ctx.tx, true)
  const old = all.find(({ id }) => id === body.id)
  if (body.id && !old) throw notFound('class of taxes')
  const odd = body.rates.find(({ percent }) => isOddRate(percent))
  if (odd && !body.sure)
    throw conflict('odd_rate', `${odd.percent} per cent for ${odd.name}: is this right?`)
  const known = new Map(
    all.flatMap((one) => one.rates.map(({ name, code }) => [name.toLowerCase(), code] as const)),
  )
  const codes = [...known.values()]
  const rates = body.rates.map(({ name, percent }) => {
    const code = known.get(name.toLowerCase()) ?? codeOf(name, codes)
    codes.push(code)
    return { code, name, rate: rateOfPercent(percent) }
  })
  const id =
    old?.id ??
    codeOf(
      body.name,
      all.map((one) => one.id),
    )
  await putTaxClass(ctx.tx, { id, name: body.name, usualFor: old?.usualFor ?? null, rates })
  const changes = { rates: { from: old && asWritten(old.rates), to: asWritten(rates) } }
  await record(ctx, {
    ...{ subject: 'settings', id: ctx.id() },
    fact: settingFacts.taxesKept({ name: body.name, changes }),
  })
  return classesOfTax(ctx)
}
