import { describe, expect, it } from 'vitest'
import { fc, test } from '@fast-check/vitest'
import {
  explainPrice,
  type PricedEntry,
  type PricingRules,
} from '../../core/pricebook/explainPrice'
import { labourRateNeeded, pointWorth } from '../../core/pricebook/labourRate'
import { markupRuleFor } from '../../core/pricebook/markupTiers'
import { oddPercent } from '../../core/pricebook/oddPercent'
import { hourCosts, labourCost, materialCost } from '../../core/pricebook/entryCost'
import { repriced, ruled } from '../../core/pricebook/reprice'
import { roundedUp } from '../../core/pricebook/roundedUp'
import { marginsByKind } from '../../core/pricebook/marginsByKind'
import { levelSaving } from '../../core/pricebook/levelPrice'
import { partPrice } from '../../core/pricebook/partPrice'
import { searchEntries } from '../../core/pricebook/searchEntries'
import { categoryTree } from '../../core/pricebook/inCategory'
import { insideHours } from '../../core/pricebook/insideHours'
import { lookAlikes } from '../../core/pricebook/lookAlikes'
import { orderedPrice } from '../../core/pricebook/priceOrder'
import { factorAt, timeSurcharge } from '../../core/pricebook/timeFactor'
import { quotedAgainstActual } from '../../core/costing/quotedAgainstActual'
import { typosToBegin } from '../../core/text/typosToBegin'
import { quantile as d3Quantile } from 'd3'
import { distance } from 'fastest-levenshtein'

const tiers = [
  { fromCost: '100', multiplier: '1.5' },
  { fromCost: '0', multiplier: '2' },
]
describe('partPrice', () => {
  // Common practice of the trade: at 1.5, 109.95 → 164.93 and 134.95 → 202.43 (half-even would give 202.42).
  it.each([
    ['109.95', 16493],
    ['134.95', 20243],
    ['99.99', 19998],
    ['100', 15000],
    ['0', 0],
  ])('a cost of %s sells at %i', (cost, price) => expect(partPrice(cost, tiers, 'USD')).toBe(price))
  it('takes the lowest tier below all of them', () =>
    expect(partPrice('5', [{ fromCost: '10', multiplier: '3' }], 'USD')).toBe(1500))
  it('needs a tier', () => expect(() => partPrice('5', [], 'USD')).toThrow(RangeError))
})
const rules: PricingRules = {
  markups: [
    { scope: 'all', name: '', tiers },
    { scope: 'category', name: 'Pump', tiers: [{ fromCost: '0', multiplier: '1.3' }] },
    { scope: 'supplier', name: 'Northmoor', tiers: [{ fromCost: '0', multiplier: '1.9' }] },
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
const priceOf = (e: PricedEntry, r: Partial<PricingRules> = {}, further = false) =>
  explainPrice(e, { ...rules, ...r }, 'USD', further)
describe('hours are multiplied first and divided last', () => {
  // By hand, in exact fractions: 62 min × 90.15 = 93.155; 62 min × 160.65 = 166.005; 25.00 over 32 min = 46.875 an hour.
  const labour = (price: string): PricedEntry => ({
    ...task,
    seconds: 3720,
    labour: { name: 'Labour', price },
    parts: [],
    sundriesRate: '0',
  })
  it('62 min × 90.15 is 93.16', () => expect(priceOf(labour('90.15')).priceMinor).toBe(9316))
  it('62 min × 160.65, up to a whole, is 167', () =>
    expect(priceOf(labour('160.65'), { rounding: { kind: 'whole' } }).priceMinor).toBe(16700))
  it('25.00 over 32 min brings 46.88 an hour', () =>
    expect(
      priceOf({ ...labour('90'), pricing: 'fixed', price: '25.00', seconds: 1920 }).hourMinor,
    ).toBe(4688))
})
describe('why a task costs what it costs', () => {
  // Common practice of the trade; 2.2 h × 128.00 = 281.60, two valves at 12.50, 3 % of 306.60 = 9.198 → 9.20.
  it('is hours, parts and sundries', () =>
    expect(priceOf(task).reasons.map((r) => [r.code, r.amountMinor])).toEqual([
      ['labour', 28160],
      ['part', 2500],
      ['sundries', 920],
    ]))
  it('costs less as a further one: setting up is done once', () =>
    expect(priceOf(task, {}, true).reasons[0]!.amountMinor).toBe(19200))
  it.each([
    [{ kind: 'whole' }, 31600],
    [{ kind: 'ending', ending: 95 }, 31595],
    [{ kind: 'none' }, 31580],
  ] as const)('rounds %j to %i', (rounding, price) =>
    expect(priceOf(task, { rounding }).priceMinor).toBe(price),
  )
  it('is not less than the minimum, and says so', () => {
    const p = priceOf(task, { minimum: '500' })
    expect([p.priceMinor, p.reasons.at(-1)]).toEqual([
      50000,
      { code: 'minimum', text: 'not less than 500', amountMinor: 18420 },
    ])
  })
  it('may be fixed: the difference to the rule is shown, and what an hour brings', () => {
    const p = priceOf({ ...task, pricing: 'fixed', price: '399' })
    expect([p.priceMinor, p.reasons.at(-1)!.code, p.reasons.at(-1)!.amountMinor]).toEqual([
      39900,
      'fixed',
      8320,
    ])
    // (399 − 25 of parts) over 2.2 hours
    expect(p.hourMinor).toBe(17000)
  })
  it('without minor units there is nothing to round (ISO 4217: JPY has none)', () =>
    expect(roundedUp(31580, { kind: 'whole' }, 'JPY')).toBe(31580))
  test.prop([
    fc.integer({ min: 0, max: 40_000 }),
    fc.integer({ min: 0, max: 99 }),
    fc.array(
      fc.record({
        name: fc.constant('p'),
        cost: fc.constant('0'),
        kind: fc.constant('part' as const),
        furtherPrice: fc.constant(null),
        quantity: fc.integer({ min: 1, max: 40 }).map((n) => (n / 4).toString()),
        price: fc.integer({ min: 0, max: 90_000 }).map((n) => (n / 100).toFixed(2)),
      }),
      { maxLength: 5 },
    ),
    fc.integer({ min: 0, max: 400 }),
    fc.boolean(),
  ])(
    'its parts sum to it, and it ends as it should',
    (seconds, ending, parts, minimum, further) => {
      const p = priceOf(
        { ...task, seconds, furtherSeconds: seconds, parts },
        { rounding: { kind: 'ending', ending }, minimum: String(minimum) },
        further,
      )
      expect(p.reasons.reduce((n, r) => n + r.amountMinor, 0)).toBe(p.priceMinor)
      if (!p.reasons.some((r) => r.code === 'minimum')) expect(p.priceMinor % 100).toBe(ending)
      expect(p.priceMinor).toBeGreaterThanOrEqual(minimum * 100)
    },
  )
})
describe('why a part costs what it costs', () => {
  it('is its cost and what its step adds', () =>
    expect(priceOf(part).reasons).toEqual([
      { code: 'cost', text: 'cost', amountMinor: 10995 },
      { code: 'markup', text: '× 1.5: cost from 100', amountMinor: 5498 },
    ]))
  it('by its supplier before its category before all', () => {
    const of = (category: string, supplier: string) => [
      markupRuleFor({ category, supplier }, rules.markups)?.scope,
      priceOf({ ...part, category, supplier, cost: '10' }).priceMinor,
    ]
    expect([of('Pump', 'Northmoor'), of('Pump', 'Other'), of('Tank', '')]).toEqual([
      ['supplier', 1900],
      ['category', 1300],
      ['all', 2000],
    ])
  })
  it('without a rule it is as it was set', () =>
    expect(priceOf({ ...part, price: '12' }, { markups: [] })).toMatchObject({
      priceMinor: 1200,
      reasons: [{ code: 'fixed' }],
    }))
})
describe('repricing', () => {
  it('parts + 4 %: rounded for each, and fixed from then on', () =>
    expect(
      repriced({ ...part, price: '10.13' }, { kind: 'price_percent', percent: '4' }, rules, 'USD'),
    ).toEqual({ cost: '109.95', price: '10.54', furtherPrice: null, pricing: 'fixed' }))
  it('labour to 128.00', () =>
    expect(
      repriced(
        { ...part, kind: 'labour', price: '120' },
        { kind: 'set', price: '128.00' },
        rules,
        'USD',
      ),
    ).toMatchObject({ price: '128.00', pricing: 'fixed' }))
  it('a cost that rises takes a price by rule along, and leaves a fixed one', () => {
    expect(repriced(part, { kind: 'cost_percent', percent: '10' }, rules, 'USD')).toMatchObject({
      cost: '120.945',
      price: '181.42',
      pricing: 'rule',
    })
    expect(
      repriced(
        { ...part, pricing: 'fixed', price: '150' },
        { kind: 'cost_percent', percent: '10' },
        rules,
        'USD',
      ),
    ).toMatchObject({ cost: '120.945', price: '150', pricing: 'fixed' })
  })
  it('back to the rule: 109.95 → 164.93', () =>
    expect(
      repriced({ ...part, pricing: 'fixed', price: '1' }, { kind: 'by_rule' }, rules, 'USD'),
    ).toMatchObject({ price: '164.93', pricing: 'rule' }))
  it('a charge has no rule to go back to', () =>
    expect(
      repriced({ ...part, kind: 'charge', price: '95' }, { kind: 'by_rule' }, rules, 'USD'),
    ).toMatchObject({ price: '95', pricing: 'fixed' }))
  it('prices do not become negative', () =>
    expect(() => repriced(part, { kind: 'price_percent', percent: '-101' }, rules, 'USD')).toThrow(
      RangeError,
    ))
  test.prop([fc.integer({ min: 0, max: 100_000 })])(
    'what the rule makes, the rule makes again',
    (cents) => {
      const once = ruled({ ...part, cost: (cents / 100).toFixed(2) }, rules, 'USD')
      expect(ruled({ ...part, ...once }, rules, 'USD')).toEqual(once)
    },
  )
})
describe('what an hour must cost', () => {
  const year = {
    wages: '300000',
    burden: '60000',
    overhead: '140000',
    paidHours: '10000',
    billedShare: '0.5',
    targetMargin: '0.2',
  }
  it('covers the year from the hours that are billed', () =>
    expect(labourRateNeeded(year)).toBe('125'))
  // 51 % of 10 000 hours: 500 000 ÷ 5 100 ÷ 0.8 = 122.549; one point is 100 hours at 125.00.
  it('a point of billed share is worth what it brings', () =>
    expect(pointWorth(year, '125')).toEqual({ rateLess: '2.451', yearMore: '12500' }))
  it('is impossible when nothing is billed', () =>
    expect(() => labourRateNeeded({ ...year, billedShare: '0' })).toThrow(RangeError))
})
it.each([
  ['0.41', true],
  ['0.4', false],
  ['0.065', false],
  ['0.01', false],
  ['0.0065', true],
  ['0', false],
])('a rate of %s is asked about: %s', (rate, odd) => expect(oddPercent(rate)).toBe(odd))
describe('levelSaving', () => {
  const level = { id: 'a', name: 'Care agreement', off: { task: '0.15' } }
  // Common practice of the trade: 15 % off 520.05 is 78.01, leaving 442.04.
  it('takes 15 % off 520.05', () => expect(levelSaving(52005, 'task', level)).toBe(7801))
  it('leaves kinds alone that the level does not name', () =>
    expect(levelSaving(52005, 'part', level)).toBe(0))
  it('is nothing without a level', () => expect(levelSaving(52005, 'task', null)).toBe(0))
})
describe('searchEntries', () => {
  const entry = (
    id: string,
    name: string,
    more: Partial<{
      code: string
      kind: string
      category: string
      synonyms: string
      parts: string
      pinned: boolean
      used: number
    }> = {},
  ) => ({
    id,
    name,
    code: '',
    kind: 'task',
    category: '',
    synonyms: '',
    parts: '',
    pinned: false,
    used: 0,
    ...more,
  })
  const find = searchEntries([
    entry('tank', 'Replace pressure tank 44 gal', { code: 'T-160' }),
    entry('switch', 'Replace pressure switch 40/60'),
    entry('lamp', 'Change UV lamp', { parts: 'Quartz sleeve 25 W' }),
    entry('trip', 'Diagnostic visit', { synonyms: 'call-out trip', kind: 'charge' }),
    entry('pin', 'Replace pressure tank 20 gal', { pinned: true }),
    entry('elbow', 'Elbow ½ in, brass', { kind: 'part', category: 'Fitting / Elbow' }),
    entry('often', 'Elbow ¾ in, brass', { kind: 'part', category: 'Fitting / Elbow', used: 40 }),
  ])
  it('finds words in any order by their beginnings', () =>
    expect(find('tan pres 44')[0]).toBe('tank'))
  it.each([
    ['presure swich', 'switch'],
    ['diagnotsic', 'trip'],
    ['eblow 3/4', 'often'],
  ])('forgives “%s”', (typed, id) => expect(find(typed)[0]).toBe(id))
  it('finds a task by the part inside it', () => expect(find('quartz')).toEqual(['lamp']))
  it('finds by code and by synonym', () =>
    expect([find('t-160')[0], find('call out')[0]]).toEqual(['tank', 'trip']))
  it('puts pinned entries first among equals, and what is sold more often', () =>
    expect([find('pressure tank')[0], find('elbow brass')[0]]).toEqual(['pin', 'often']))
  it('a fraction is one word, however it is typed', () =>
    expect([find('elbow 1/2'), find('elbow ½')]).toEqual([['elbow'], ['elbow']]))
  it('keeps to a kind and to a category with all that stands in it', () =>
    expect([
      find('elbow', { kind: 'task' }),
      find('elbow', { category: 'Fitting' }).length,
      find('elbow', { category: 'Fit' }),
    ]).toEqual([[], 2, []]))
  it('finds nothing for what is not there', () => expect(find('chimney')).toEqual([]))
})
describe('typosToBegin', () => {
  it.each([
    ['eblow', 'elbow', 1],
    ['presure sw', 'pressure switch', 1],
    ['tank', 'tank', 0],
    ['xyz', 'tank', 3],
    ['', 'tank', 0],
  ])('%s for %s: %i', (typed, word, typos) => expect(typosToBegin(typed, word, 2)).toBe(typos))
  // Levenshtein counts a swap of neighbours as two; whatever he counts is never less than ours, for the whole word is one of its beginnings.
  test.prop([
    fc.string({ unit: fc.constantFrom('a', 'b', 'c'), maxLength: 7 }),
    fc.string({ unit: fc.constantFrom('a', 'b', 'c'), maxLength: 7 }),
  ])('is never more than the distance to the whole word', (a, b) => {
    expect(typosToBegin(a, b, 9)).toBeLessThanOrEqual(distance(a, b))
  })
})
describe('an assembly', () => {
  const inside = [
    {
      name: 'Tank',
      quantity: '1',
      price: '883',
      cost: '210',
      kind: 'task' as const,
      furtherPrice: '745',
    },
    {
      name: 'Switch',
      quantity: '1',
      price: '210',
      cost: '25',
      kind: 'task' as const,
      furtherPrice: '173',
    },
    {
      name: 'Gauge',
      quantity: '2',
      price: '21.85',
      cost: '9',
      kind: 'part' as const,
      furtherPrice: null,
    },
  ]
  const set: PricedEntry = { ...part, kind: 'assembly', parts: inside }
  it('is what is inside it, its first task at the full price and further ones at theirs', () =>
    expect(priceOf(set).reasons.map((r) => r.amountMinor)).toEqual([88300, 17300, 4370]))
  it('costs what is inside it', () =>
    expect(ruled(set, rules, 'USD')).toMatchObject({
      cost: '253',
      price: '1099.70',
      pricing: 'rule',
    }))
  it('takes the hours of its tasks, setting up once', () =>
    expect(
      insideHours([
        { code: 'T-2', kind: 'task', quantity: '1', seconds: 3600, furtherSeconds: 2700 },
        { code: 'T-1', kind: 'task', quantity: '1', seconds: 7200, furtherSeconds: 5400 },
        { code: 'P', kind: 'part', quantity: '3', seconds: 0, furtherSeconds: 0 },
      ]),
    ).toEqual({ seconds: 9900, furtherSeconds: 8100 }))
})
describe('the time of day', () => {
  const factors = [
    { name: 'Evening', days: [1, 2, 3, 4, 5], from: '18:00', to: '06:00', factor: '1.25' },
    { name: 'Weekend', days: [6, 7], from: '00:00', to: '24:00', factor: '1.5' },
    { name: 'Holiday', days: [8], from: '00:00', to: '24:00', factor: '2' },
  ]
  const at = (weekday: number, time: string, holiday = false, holidayBefore = false) =>
    factorAt(factors, { weekday, time, holiday, holidayBefore })?.name
  it.each([
    [2, '17:59', undefined],
    [2, '18:00', 'Evening'],
    [3, '05:59', 'Evening'],
    [3, '06:00', undefined],
    [6, '02:00', 'Weekend'],
    [7, '23:59', 'Weekend'],
    [1, '02:00', undefined],
  ] as const)('day %i at %s: %s', (day, time, name) => expect(at(day, time)).toBe(name))
  it('of several the highest holds', () =>
    expect([at(6, '10:00', true), at(2, '19:00', true)]).toEqual(['Holiday', 'Holiday']))
  it('a night belongs to the day on which it began', () =>
    expect([
      at(6, '03:00'),
      factorAt([factors[0]!], { weekday: 6, time: '03:00', holiday: false, holidayBefore: false })
        ?.name,
    ]).toEqual(['Weekend', 'Evening']))
  // Half of 2.2 hours at 128.00 (common practice of the trade).
  it('is multiplied first and divided last, so that no half is lost', () => {
    // 62 min × 90.30 × 0.5 = 46.655 exactly: half away from zero.
    expect(timeSurcharge({ seconds: 3720, rate: '90.30' }, '1.5', 'USD')).toBe(4666)
  })
  it('adds to labour alone', () =>
    expect(timeSurcharge({ seconds: 7920, rate: '128' }, '1.5', 'USD')).toBe(14080))
})
it.each([
  [{ free: true, typed: '9', book: '1' }, 'free'],
  [{ free: false, typed: '9', workOrder: '8', customer: '7', book: '1' }, 'typed'],
  [{ free: false, workOrder: '8', customer: '7', book: '1' }, 'work_order'],
  [{ free: false, customer: '7', book: '1' }, 'customer'],
  [{ free: false, book: '1' }, 'book'],
])('of %j the price is from %s', (sources, from) => expect(orderedPrice(sources).from).toBe(from))
describe('hours quoted against hours worked', () => {
  it('says the middle and the spread, and proposes where the book lies outside', () =>
    expect(quotedAgainstActual([3600, 4000, 4400, 5000], 2880)).toEqual({
      of: 4,
      medianSeconds: 4200,
      fromSeconds: 3900,
      toSeconds: 4550,
      quotedSeconds: 2880,
      proposedSeconds: 4320,
    }))
  it('proposes no tenths of an hour that lie as far off as the book', () =>
    expect(quotedAgainstActual([2580, 2700, 2700, 2760], 2520)?.proposedSeconds).toBeNull())
  it('proposes nothing where too little is known, or where the book says right', () =>
    expect([
      quotedAgainstActual([9000], 2880)?.proposedSeconds,
      quotedAgainstActual([3600, 4000, 4400, 5000], 4200)?.proposedSeconds,
      quotedAgainstActual([], 1),
    ]).toEqual([null, null, null]))
  // Checked against d3-array, whose quantile is of type 7.
  test.prop([fc.array(fc.integer({ min: 60, max: 40_000 }), { minLength: 1, maxLength: 30 })])(
    'has the quartiles that others have',
    (worked) => {
      const got = quotedAgainstActual(worked, 3600)!
      expect([got.fromSeconds, got.medianSeconds, got.toSeconds]).toEqual(
        [0.25, 0.5, 0.75].map((p) => Math.round(d3Quantile(worked, p)!)),
      )
    },
  )
})
describe('look-alikes', () => {
  it('are the same words in any order, small ones and plurals aside; a size tells apart', () =>
    expect(
      lookAlikes([
        { id: 'a', name: 'Replace relief valve ½ in' },
        { id: 'b', name: 'Relief valves, ½ in, replace the' },
        { id: 'c', name: 'Replace relief valve ¾ in' },
      ]),
    ).toEqual([['a', 'b']]))
})
it('categories are a tree, in order, with what is only stood in', () =>
  expect(
    categoryTree(['Pipework / Valves', 'Lab', 'Pipework / Elbows']).map((c) => [c.path, c.depth]),
  ).toEqual([
    ['Lab', 0],
    ['Pipework', 0],
    ['Pipework / Elbows', 1],
    ['Pipework / Valves', 1],
  ]))
it('a level never makes a price higher', () =>
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 1e8 }),
      fc.integer({ min: 0, max: 1_000_000 }),
      (net, off) =>
        levelSaving(net, 'task', { id: 'x', name: 'x', off: { task: (off / 1e6).toFixed(6) } }) >=
          0 &&
        levelSaving(net, 'task', { id: 'x', name: 'x', off: { task: (off / 1e6).toFixed(6) } }) <=
          net,
    ),
  ))
describe('what an entry costs us', () => {
  it.each([
    ['a part, what was written', { kind: 'part' as const, cost: '9.5', parts: [] }, '9.5'],
    [
      'a task with nothing inside, what was written',
      { kind: 'task' as const, cost: '6', parts: [] },
      '6',
    ],
    [
      'a task, its parts',
      {
        kind: 'task' as const,
        cost: '99',
        parts: [
          { cost: '0.035', quantity: '12' },
          { cost: '10', quantity: '1' },
        ],
      },
      '10.42',
    ],
    [
      'an assembly, what is inside',
      { kind: 'assembly' as const, cost: '0', parts: [{ cost: '20', quantity: '1.5' }] },
      '30',
    ],
  ])('%s', (_, entry, cost) => expect(materialCost(entry)).toBe(cost))
  it('hours at the cost of an hour; parts take none, and a rate is its own hour', () => {
    expect(
      (['task', 'charge', 'part', 'labour'] as const).map((kind) =>
        labourCost({ kind, seconds: 5400 }, '40'),
      ),
    ).toEqual(['60', '60', '0', '0'])
  })
  it('an hour of the labour that is named, or of the standard one: pinned, else the first that is sold', () => {
    const labour = [
      { id: 'old', cost: '30', pinned: true, retired: true },
      { id: 'a', cost: '24', pinned: false },
      { id: 'b', cost: '41.5', pinned: true },
    ]
    expect([
      hourCosts(labour)('a'),
      hourCosts(labour)('old'),
      hourCosts(labour)(null),
      hourCosts(labour)('gone'),
      hourCosts(labour.slice(0, 2))(null),
      hourCosts([])(null),
    ]).toEqual(['24', '30', '41.5', '41.5', '24', '0'])
  })
  it('a fixed price stays, and has the cost of what is inside all the same', () => {
    expect(
      ruled(
        { ...task, pricing: 'fixed', cost: '1', price: '300', furtherPrice: '250' },
        rules,
        'USD',
      ),
    ).toEqual({ cost: '12', price: '300', furtherPrice: '250', pricing: 'fixed' })
  })
})

describe('margins of the book', () => {
  it('are told kind by kind: on average, the least, and how many cost more than they bring', () => {
    expect(
      marginsByKind([
        { kind: 'part', priceMinor: 200, costMinor: 100 },
        { kind: 'task', priceMinor: 1000, costMinor: 250 },
        { kind: 'part', priceMinor: 100, costMinor: 110 },
      ]),
    ).toEqual([
      { kind: 'part', entries: 2, mean: 0.2, lowest: -0.1, atLoss: 1 },
      { kind: 'task', entries: 1, mean: 0.75, lowest: 0.75, atLoss: 0 },
    ])
  })
  it('leave out what has no price, but count it', () => {
    expect(marginsByKind([{ kind: 'charge', priceMinor: 0, costMinor: 50 }])).toEqual([
      { kind: 'charge', entries: 1, mean: null, lowest: null, atLoss: 0 },
    ])
    expect(marginsByKind([])).toEqual([])
  })
  test.prop([
    fc.array(
      fc.record({
        kind: fc.constantFrom('part' as const, 'task' as const),
        priceMinor: fc.integer({ min: 1, max: 1e6 }),
        costMinor: fc.integer({ min: 0, max: 2e6 }),
      }),
    ),
  ])('lie between the least and all of the price, and count every entry once', (entries) => {
    const kinds = marginsByKind(entries)
    expect(kinds.reduce((sum, k) => sum + k.entries, 0)).toBe(entries.length)
    for (const { mean, lowest, atLoss, entries: count } of kinds) {
      expect(mean!).toBeGreaterThanOrEqual(lowest!)
      expect(mean!).toBeLessThanOrEqual(1)
      expect(atLoss).toBeLessThanOrEqual(count)
      expect(atLoss > 0).toBe(lowest! < 0)
    }
  })
})
