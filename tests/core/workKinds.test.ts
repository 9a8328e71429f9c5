import { describe, expect, it } from 'vitest'
import { isAgreed } from '../../core/pricebook/priceOrder'
import { CALL_KINDS, FREE_KINDS, sayWorkKind } from '../../core/visits/workKinds'

describe('kinds of work', () => {
  it('each is a code, and said in words', () => {
    const kinds = [...CALL_KINDS, ...FREE_KINDS]
    for (const kind of kinds) {
      expect(kind).toMatch(/^[a-z_]+$/)
      expect(sayWorkKind(kind)).toMatch(/^[a-z -]+$/)
    }
    expect(new Set(kinds.map(sayWorkKind)).size).toBe(kinds.length)
  })
  it('one that is not known is said as it is', () => {
    expect(sayWorkKind('well drilling')).toBe('well drilling')
  })
})
it('an agreed price is one of a customer or of a work order', () => {
  const sources = ['free', 'typed', 'work_order', 'customer', 'book'] as const
  expect(sources.filter(isAgreed)).toEqual(['work_order', 'customer'])
})
