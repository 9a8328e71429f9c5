import { describe, expect, it } from 'vitest'
import { fc, test } from '@fast-check/vitest'
import { labourRateNeeded, taskPrice } from '../../core/pricebook/taskPrice'
import { levelSaving } from '../../core/pricebook/levelPrice'
import { partPrice } from '../../core/pricebook/partPrice'
import { searchEntries } from '../../core/pricebook/searchEntries'

const tiers = [{ fromCost: '100', multiplier: '1.5' }, { fromCost: '0', multiplier: '2' }]
describe('partPrice', () => {
  // Common practice of the trade: at 1.5, 109.95 → 164.93 and 134.95 → 202.43 (half-even would give 202.42).
  it.each([['109.95', 16493], ['134.95', 20243], ['99.99', 19998], ['100', 15000], ['0', 0]])('a cost of %s sells at %i', (cost, price) => expect(partPrice(cost, tiers, 'USD')).toBe(price))
  it('takes the lowest tier below all of them', () => expect(partPrice('5', [{ fromCost: '10', multiplier: '3' }], 'USD')).toBe(1500))
  it('needs a tier', () => expect(() => partPrice('5', [], 'USD')).toThrow(RangeError))
})
describe('taskPrice', () => {
  const recipe = { secondsFirst: 7920, secondsFurther: 5400, labourRatePerHour: '128', parts: [{ quantity: '2', sellMinor: 1250 }], sundriesRate: '0.03' }
  it('is hours, parts and sundries', () => expect(taskPrice(recipe, false, 'USD')).toEqual({ labourMinor: 28160, partsMinor: 2500, sundriesMinor: 920, roundingMinor: 0, priceMinor: 31580 }))
  it('costs less as a further one: setting up is done once', () => expect(taskPrice(recipe, true, 'USD').priceMinor).toBeLessThan(taskPrice(recipe, false, 'USD').priceMinor))
  it.each([[{ kind: 'whole' }, 31600], [{ kind: 'ending', ending: 95 }, 31595], [{ kind: 'none' }, 31580]] as const)('rounds %j to %i', (rounding, price) => expect(taskPrice({ ...recipe, rounding }, false, 'USD').priceMinor).toBe(price))
  it('is not less than the minimum', () => expect(taskPrice({ ...recipe, minimumMinor: 50000 }, false, 'USD').priceMinor).toBe(50000))
  it('may be fixed', () => expect(taskPrice({ ...recipe, fixedMinor: 39900 }, false, 'USD')).toMatchObject({ priceMinor: 39900, roundingMinor: 8320 }))
  test.prop([fc.integer({ min: 0, max: 40_000 }), fc.integer({ min: 0, max: 99 })])('its parts sum to it', (seconds, ending) => {
    const p = taskPrice({ ...recipe, secondsFirst: seconds, rounding: { kind: 'ending', ending } }, false, 'USD')
    expect(p.labourMinor + p.partsMinor + p.sundriesMinor + p.roundingMinor).toBe(p.priceMinor)
    expect(p.priceMinor % 100).toBe(ending)
    expect(p.roundingMinor).toBeGreaterThanOrEqual(0)
    expect(p.roundingMinor).toBeLessThan(100)
  })
})
describe('labourRateNeeded', () => {
  it('covers the year from the hours that are billed', () => expect(labourRateNeeded({ wages: '300000', burden: '60000', overhead: '140000', paidHours: '10000', billedShare: '0.5', targetMargin: '0.2' })).toBe('125'))
  it('is impossible when nothing is billed', () => expect(() => labourRateNeeded({ wages: '1', burden: '0', overhead: '0', paidHours: '1', billedShare: '0', targetMargin: '0' })).toThrow(RangeError))
})
describe('levelSaving', () => {
  const level = { id: 'a', name: 'Care agreement', off: { task: '0.15' } }
  // Common practice of the trade: 15 % off 520.05 is 78.01, leaving 442.04.
  it('takes 15 % off 520.05', () => expect(levelSaving(52005, 'task', level)).toBe(7801))
  it('leaves kinds alone that the level does not name', () => expect(levelSaving(52005, 'part', level)).toBe(0))
  it('is nothing without a level', () => expect(levelSaving(52005, 'task', null)).toBe(0))
})
describe('searchEntries', () => {
  const entry = (id: string, name: string, more: Partial<{ code: string, synonyms: string, parts: string, pinned: boolean }> = {}) => ({ id, name, code: '', category: '', synonyms: '', parts: '', pinned: false, ...more })
  const find = searchEntries([entry('tank', 'Replace pressure tank 44 gal', { code: 'T-160' }), entry('switch', 'Replace pressure switch 40/60'), entry('lamp', 'Change UV lamp', { parts: 'Quartz sleeve 25 W' }), entry('trip', 'Diagnostic visit', { synonyms: 'call-out trip' }), entry('pin', 'Replace pressure tank 20 gal', { pinned: true })])
  it('finds words in any order by their beginnings', () => expect(find('tan pres 44')[0]).toBe('tank'))
  it('forgives a typo', () => expect(find('presure swich')[0]).toBe('switch'))
  it('finds a task by the part inside it', () => expect(find('quartz')).toEqual(['lamp']))
  it('finds by code and by synonym', () => expect([find('t-160')[0], find('call out')[0]]).toEqual(['tank', 'trip']))
  it('puts pinned entries first among equals', () => expect(find('pressure tank')[0]).toBe('pin'))
  it('finds nothing for what is not there', () => expect(find('chimney')).toEqual([]))
})
