import { describe, expect, it } from 'vitest'
import { isAgreed } from '../../core/pricebook/priceOrder'
import {
  FREE_KINDS,
  isFreeKind,
  missingCharges,
  sayWorkKind,
  USUAL_KINDS,
  workKinds,
} from '../../core/visits/workKinds'

const own = { code: 'leak', name: 'leak search', minutes: 90, skills: ['gas'], retired: false }
describe('kinds of work', () => {
  it('of a firm are its own, and those that rules speak of, each once', () => {
    const called = { ...USUAL_KINDS[1]!, name: 'yearly visit' }
    const all = workKinds([own, called])
    expect(all.map(({ code }) => code)).toEqual([
      ...['leak', 'service', 'repair', 'installation', 'quote_visit'],
    ])
    expect(sayWorkKind('service', all)).toBe('yearly visit')
    expect(workKinds([])).toEqual(USUAL_KINDS)
    // As it was kept before kinds charged anything.
    expect(all[0]!.charges).toEqual([])
    expect(workKinds([{ ...own, charges: ['a'] }])[0]!.charges).toEqual(['a'])
  })
  it('one that is not known is said as it is; what is free has words of ours', () => {
    expect(sayWorkKind('well drilling', workKinds([own]))).toBe('well drilling')
    expect(FREE_KINDS.map((kind) => sayWorkKind(kind))).toEqual(['call-back', 'warranty'])
    expect([isFreeKind('warranty'), isFreeKind('repair')]).toEqual([true, false])
  })
})
describe('what a kind charges', () => {
  const left = (reason: string) => [{ entryId: 'b', reason }]
  it.each([
    [['a', 'b'], [], [], ['a', 'b']],
    [['a', 'b'], ['b', 'c'], [], ['a']],
    [['a', 'b'], ['a'], left('promised'), []],
    [['a', 'b'], ['a'], left(' '), ['b']],
    [[], ['a'], left('promised'), []],
  ])('%j of which %j is read out and %j left out: missing is %j', (charges, read, out, missing) =>
    expect(missingCharges(charges, read, out)).toEqual(missing),
  )
})
it('an agreed price is one of a customer or of a work order', () => {
  const sources = ['free', 'typed', 'work_order', 'customer', 'book'] as const
  expect(sources.filter(isAgreed)).toEqual(['work_order', 'customer'])
})
