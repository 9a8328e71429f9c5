// docs/pricing.md is true: every example in it is run, and comes to what stands behind it.
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { discountOf } from '../../core/documents/discountOf'
import { margin } from '../../core/documents/margin'
import { labourCost, materialCost } from '../../core/pricebook/entryCost'
import {
  explainPrice,
  type PricedEntry,
  type PricingRules,
} from '../../core/pricebook/explainPrice'
import { labourRateNeeded, pointWorth } from '../../core/pricebook/labourRate'
import { levelSaving } from '../../core/pricebook/levelPrice'
import { markupRuleFor } from '../../core/pricebook/markupTiers'
import { oddPercent } from '../../core/pricebook/oddPercent'
import { partPrice } from '../../core/pricebook/partPrice'
import { insideHours } from '../../core/pricebook/insideHours'
import { lookAlikes } from '../../core/pricebook/lookAlikes'
import { orderedPrice } from '../../core/pricebook/priceOrder'
import { factorAt, timeSurcharge } from '../../core/pricebook/timeFactor'
import { quotedAgainstActual } from '../../core/costing/quotedAgainstActual'
import { readAmount } from '../../core/money/readAmount'
import { repriced } from '../../core/pricebook/reprice'

const rules: PricingRules = {
  markups: [
    {
      scope: 'all',
      name: '',
      tiers: [
        { fromCost: '0', multiplier: '2' },
        { fromCost: '100', multiplier: '1.5' },
      ],
    },
  ],
  sundriesRate: '0.03',
  minimum: '0',
  rounding: { kind: 'none' },
}
const task: PricedEntry = {
  kind: 'task',
  category: 'Tank',
  supplier: '',
  pricing: 'rule',
  cost: '20',
  price: '0',
  furtherPrice: null,
  seconds: 7920,
  furtherSeconds: 5400,
  labour: { name: 'Labour', price: '128' },
  parts: [
    {
      name: 'Relief valve',
      quantity: '2',
      price: '12.5',
      cost: '6',
      kind: 'part',
      furtherPrice: null,
    },
  ],
  sundriesRate: null,
}
const part: PricedEntry = {
  ...task,
  kind: 'part',
  cost: '109.95',
  seconds: 0,
  furtherSeconds: 0,
  labour: null,
  parts: [],
}
const assembly: PricedEntry = {
  ...part,
  kind: 'assembly',
  parts: [
    { name: 'Tank', quantity: '1', price: '883', cost: '210', kind: 'task', furtherPrice: '745' },
    { name: 'Switch', quantity: '1', price: '210', cost: '25', kind: 'task', furtherPrice: '173' },
    { name: 'Gauge', quantity: '2', price: '21.85', cost: '9', kind: 'part', furtherPrice: null },
  ],
}
const year = {
  wages: '300000',
  burden: '60000',
  overhead: '140000',
  paidHours: '10000',
  billedShare: '0.5',
  targetMargin: '0.2',
}
const scope = {
  assembly,
  discountOf,
  explainPrice,
  labourCost,
  margin,
  materialCost,
  task,
  factorAt,
  insideHours,
  lookAlikes,
  orderedPrice,
  quotedAgainstActual,
  readAmount,
  timeSurcharge,
  labourRateNeeded,
  levelSaving,
  markupRuleFor,
  oddPercent,
  partPrice,
  pointWorth,
  repriced,
  part,
  rules,
  year,
}

describe('docs/pricing.md', () => {
  const blocks = readFileSync('docs/pricing.md', 'utf8').matchAll(/```ts\n([\s\S]*?)```/g)
  // An example may go over several lines; it ends with what it comes to.
  const examples = [...blocks].flatMap((block) =>
    [...block[1]!.matchAll(/([\s\S]+?) \/\/ (.*)\n/g)].map(([, code, said]) => ({
      code: code!.trim(),
      said: said!,
    })),
  )
  it('has an example for each rule', () => expect(examples.length).toBeGreaterThan(15))
  it.each(examples)('$code', ({ code, said }) => {
    // Our own page, run as what it says.
    const run = new Function(...Object.keys(scope), `return ${code}`) as (
      ...values: unknown[]
    ) => unknown
    expect(run(...Object.values(scope))).toEqual(JSON.parse(said))
  })
})
