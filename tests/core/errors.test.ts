// One catalogue of codes: each is said somewhere, has a meaning, and a status that HTTP knows.
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { ERRORS, type ErrorCode } from '../../core/errors/errors'
import { conflict, forbidden, invalid, LedgerError, notFound } from '../../core/errors/LedgerError'

const root = new URL('../../', import.meta.url).pathname
const sources = ['core', 'server', 'shared'].flatMap((folder) =>
  readdirSync(join(root, folder), { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith('.ts') && name !== 'errors/errors.ts')
    .map((name) => readFileSync(join(root, folder, name), 'utf8')),
)
/** Where a code is said: as the first of an error, the last of a refused field, the first of a pair, or chosen among two. */
const SAID = [
  /(?:conflict|LedgerError|make)\(\s*'([a-z_]+)'/g,
  /,\s*'([a-z_]+)',?\s*\)/g,
  /\[\s*'([a-z_]+)',/g,
]
const said = new Set(
  sources.flatMap((text) => SAID.flatMap((at) => [...text.matchAll(at)].map((m) => m[1]))),
)

describe('the catalogue of codes', () => {
  it.each(Object.keys(ERRORS) as ErrorCode[])('%s is said somewhere, and what it means', (code) => {
    const [status, means] = ERRORS[code]
    expect(said.has(code)).toBe(true)
    expect(means).toMatch(/^[A-Z].*\.$/)
    expect(status).toBeGreaterThanOrEqual(400)
    expect(status).toBeLessThan(600)
  })
  it('has each meaning once', () => {
    const meanings = Object.values(ERRORS).map(([, means]) => means)
    expect(new Set(meanings).size).toBe(meanings.length)
  })
})
describe('an error', () => {
  it('has the status of its code', () => {
    expect(new LedgerError('stale', 'Somebody was faster.').status).toBe(409)
    expect(new LedgerError('busy', 'Wait.').status).toBe(503)
  })
  it('names the field that must change', () =>
    expect(invalid('to', 'Write to whom it goes.')).toMatchObject({
      code: 'invalid',
      status: 422,
      errors: [{ path: 'to', message: 'Write to whom it goes.' }],
    }))
  it('of a clash carries what is true now', () =>
    expect(conflict('stale', 'Somebody was faster.', { current: 2 })).toMatchObject({
      status: 409,
      errors: [],
      extra: { current: 2 },
    }))
  it('does not tell what is missing from what is hidden', () => {
    expect(notFound('quote').message).toBe('There is no such quote, or it is not yours to see.')
    expect(forbidden('Only the owner.').status).toBe(403)
  })
})
