// What a rule does not fit is few, and each has its reason where contributors read it.
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'

const read = (name: string) => readFileSync(new URL(`../../${name}`, import.meta.url), 'utf8')
type Counts = Record<string, Record<string, { count: number }>>
const exceptions = JSON.parse(read('eslint-suppressions.json')) as Counts
const [, table = ''] = read('CONTRIBUTING.md').split('### What is longer than the rules allow')
const reasons = new Map(
  [...table.matchAll(/^\| `([^`]+)`\s*\| (.+?)\s*\|$/gm)].map(([, file, why]) => [file!, why!]),
)

describe('exceptions from the rules', () => {
  it('are 25 at most', () => {
    const all = Object.values(exceptions).flatMap((rules) => Object.keys(rules))
    expect(all.length).toBeLessThanOrEqual(25)
  })
  it('have their reason each, and no reason is left over', () =>
    expect([...reasons.keys()].sort()).toEqual(Object.keys(exceptions).sort()))
  it('are nowhere in what computes, serves or is shared', () => {
    const elsewhere = Object.keys(exceptions).filter((f) => /^(core|server|shared)\//.test(f))
    expect(elsewhere).toEqual([])
  })
})
