// What is loaded again keeps the objects that say the same, so that screens draw only what changed.
import { fc, test } from '@fast-check/vitest'
import { describe, expect, it } from 'vitest'
import { keepEqual } from '../../app/lib/keepEqual'

describe('what stays the same', () => {
  test.prop([fc.jsonValue(), fc.jsonValue()])(
    'says what was loaded, whatever was there before',
    (before, next) => {
      expect(keepEqual(before, next)).toEqual(next)
    },
  )
  test.prop([fc.jsonValue()])('is the very same when nothing changed', (value) => {
    expect(keepEqual(value, structuredClone(value))).toBe(value)
  })
  it('is kept in part: the row that changed is new, the others are those of before, also when they moved', () => {
    const before = {
      now: 1,
      rows: [
        { id: 'a', at: { h: 8 } },
        { id: 'b', at: { h: 9 } },
        { id: 'c', at: { h: 10 } },
      ],
    }
    const after = keepEqual(before, {
      now: 2,
      rows: [
        { id: 'c', at: { h: 10 } },
        { id: 'a', at: { h: 8 } },
        { id: 'b', at: { h: 12 } },
      ],
    })
    expect(after.rows[0]).toBe(before.rows[2])
    expect(after.rows[1]).toBe(before.rows[0])
    expect(after.rows[2]).not.toBe(before.rows[1])
    expect(after.rows[2]!.at.h).toBe(12)
  })
  it('a field that is gone is gone', () =>
    expect(keepEqual({ a: 1, b: 2 } as object, { a: 1 })).toEqual({ a: 1 }))
})
