// The classes that what is sold is taxed by. A rate that changes holds for what is billed from then on.
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { codedRates } from '../../core/tax/codedRates'
import { saidTwice, type KeptRate } from '../../core/tax/ratesOn'
import { isOddRate, percentOfRate, rateOfPercent } from '../../core/tax/percentOfRate'
import { searchKey } from '../../core/text/searchKey'
import type { Answer, Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { putTaxClass, taxClassRows, type NamedTaxClass } from './taxes.queries'
import { settingFacts } from './facts'
import { lockFirm } from './firm.queries'

type Classes = Answer<'taxClasses'>
const ID_SIGNS = 20
type Written = Classes['classes'][number]['rates'][number]
const asWritten = (rates: readonly Omit<KeptRate, 'code'>[]): Written[] =>
  rates.map(({ name, rate, from = '', until = '', postcodes = [] }) => ({
    ...{ name, percent: percentOfRate(rate), from, until },
    postcodes: postcodes.join(', '),
  }))
const listed = (postcodes: string): string[] =>
  postcodes
    .split(',')
    .map((one) => one.trim())
    .filter(Boolean)
/** What is not said is not kept, so that a rate without a day reads as it always did. */
const asKept = ({ name, percent, from, until, postcodes }: Written): Omit<KeptRate, 'code'> => ({
  ...{ name, rate: rateOfPercent(percent) },
  ...(from ? { from } : {}),
  ...(until ? { until } : {}),
  ...(listed(postcodes).length ? { postcodes: listed(postcodes) } : {}),
})
export async function classesOfTax(ctx: Ctx): Promise<Classes> {
  const rows = await taxClassRows(ctx.tx)
  return {
    mode: ctx.company.taxMode,
    classes: rows.map(({ rates, ...row }) => ({ ...row, rates: asWritten(rates) })),
  }
}
/** What a class, or a tax, is known by: its name, and a number where another is known by that. */
const codeOf = (name: string, taken: readonly string[]): string => {
  const plain =
    searchKey(name)
      .replace(/[^a-z0-9]+/g, '-')
      .slice(0, ID_SIGNS - 3) || 'tax'
  let code = plain
  for (let n = 2; taken.includes(code); n++) code = `${plain}-${n}`
  return code
}
const stood = ({ name, rates }: NamedTaxClass) => JSON.stringify([name, asWritten(rates)])
/** What was shown is what stands there, or somebody else was here meanwhile. */
async function mustStand(ctx: Ctx, old: NamedTaxClass, shown: Body<'keepTaxClass'>['shown']) {
  if (shown && stood(old) === JSON.stringify([shown.name, shown.rates])) return
  const current = (await classesOfTax(ctx)).classes.find(({ id }) => id === old.id)
  throw conflict('stale', 'Someone changed these taxes in the meantime. Look at them again.', {
    current,
  })
}
function checkRates(rates: Body<'keepTaxClass'>['rates'], sure: boolean): void {
  const twice = saidTwice(rates.map((rate) => ({ ...rate, postcodes: listed(rate.postcodes) })))
  if (twice >= 0)
    throw invalid(
      `rates[${twice}].name`,
      'This tax stands here twice from the same day. Say from when each holds, or add them up.',
    )
  const backward = rates.findIndex(({ from, until }) => until !== '' && until < from)
  if (backward >= 0) throw invalid(`rates[${backward}].until`, 'It would end before it begins.')
  const odd = rates.find(({ percent }) => isOddRate(percent))
  if (odd && !sure)
    throw conflict('odd_rate', `${odd.percent} per cent for ${odd.name}: is this right?`)
}
export async function keepTaxClass(ctx: Ctx, body: Body<'keepTaxClass'>): Promise<Classes> {
  // A class that is not there yet is locked by nobody.
  await lockFirm(ctx.tx)
  const all = await taxClassRows(ctx.tx)
  const old = all.find(({ id }) => id === body.id)
  if (body.id && !old) throw notFound('class of taxes')
  if (old) await mustStand(ctx, old, body.shown)
  checkRates(body.rates, body.sure)
  const rates = codedRates(
    body.rates.map(asKept),
    all.flatMap((one) => (one === old ? [] : one.rates)),
    codeOf,
  )
  const ids = all.map((one) => one.id)
  const id = old?.id ?? codeOf(body.name, ids)
  await putTaxClass(ctx.tx, { id, name: body.name, usualFor: old?.usualFor ?? null, rates })
  const changes = { rates: { from: old && asWritten(old.rates), to: asWritten(rates) } }
  await record(ctx, {
    ...{ subject: 'settings', id: ctx.id() },
    fact: settingFacts.taxesKept({ id, name: body.name, changes }),
  })
  return classesOfTax(ctx)
}
