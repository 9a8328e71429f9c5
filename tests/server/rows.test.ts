// How a question's rows are read: by the names of the code, with types that the database has not.
import { afterAll, describe, expect, it } from 'vitest'
import { closePool, fieldOf, fromSnapshot, reading } from '../../server/db/pool'
import { listOf, listsIn, type ListIn } from '../../server/db/queries'

afterAll(closePool)

const SQL = `SELECT p.id AS person_id, p.bookable, p.skills, p.position AS its_place, 41.5 AS cost_rate,
  TIMESTAMP '2026-11-27 08:00:00' AS starts_at, NULL AS ends_at FROM people p WHERE p.bookable`

describe('a row', () => {
  it('has the names of the code', async () => {
    const row = await reading((tx) => tx.row<Record<string, unknown>>(`${SQL} LIMIT 1`))
    expect(Object.keys(row!)).toEqual([
      'personId',
      'bookable',
      'skills',
      'itsPlace',
      'costRate',
      'startsAt',
      'endsAt',
    ])
  })
  it('has instants, true and false, and JSON as it is', async () => {
    const row = await reading((tx) => tx.row<Record<string, unknown>>(`${SQL} LIMIT 1`))
    expect(row).toMatchObject({
      bookable: true,
      startsAt: expect.stringMatching(/^2026-11-27T08:00:00(\.0+)?Z$/),
      endsAt: null,
    })
    expect(Array.isArray(row!.skills)).toBe(true)
  })
  it('keeps what has one name already', async () => {
    expect(await reading((tx) => tx.row('SELECT 1 AS n, "a_b" AS text'))).toEqual({
      n: 1,
      text: 'a_b',
    })
  })
  it('is read alike where rows come one after the other', async () => {
    const whole = await reading((tx) => tx.rows(`${SQL} ORDER BY p.id`))
    const seen: unknown[] = []
    for await (const row of fromSnapshot((tx) => tx.each(`${SQL} ORDER BY p.id`))) seen.push(row)
    expect(seen).toEqual(whole)
    expect(seen.length).toBeGreaterThan(1)
  })
})
describe('a list beside others', () => {
  const people: ListIn = {
    columns:
      'p.id, p.bookable, CAST(p.lat AS DECIMAL(9,4)) AS costRate, p.skills, COALESCE(p.goes_with, p.id) AS leads',
    from: 'people p WHERE p.active',
    values: [],
    order: 'p.id',
    decimals: ['costRate'],
    booleans: ['bookable'],
  }
  it('is the list that is read for itself', async () => {
    const [alone, beside] = await reading(async (tx) => [
      await listOf<{ bookable: boolean }>(tx, people),
      (await listsIn<{ people: { bookable: boolean } }>(tx, { people })).people,
    ])
    expect(beside).toEqual(alone)
    expect(new Set(alone.map((p) => p.bookable))).toEqual(new Set([true, false]))
  })
  it('may be empty', async () => {
    const none = { ...people, from: 'people p WHERE p.id IS NULL' }
    expect(await reading((tx) => listsIn(tx, { none }))).toEqual({ none: [] })
  })
})
it.each([
  ['site_id', 'siteId'],
  ['line_1', 'line1'],
  ['promise_from', 'promiseFrom'],
  ['id', 'id'],
  ['linkUntil', 'linkUntil'],
])('%s becomes %s', (column, field) => {
  expect(fieldOf(column)).toBe(field)
})
