// The settings of the surroundings: what is wrong with one is said in a sentence.
import { afterEach, describe, expect, it, vi } from 'vitest'
import { config, configProblems } from '../../server/config'

afterEach(() => vi.unstubAllEnvs())
describe('settings', () => {
  it.each([
    ['PUBLIC_URL', 'ledger.example', 'PUBLIC_URL is not an address.'],
    ['SMTP_URL', 'mail server', 'SMTP_URL is not an address.'],
    ['LOG_LEVEL', 'loud', 'LOG_LEVEL is none of'],
    ['OPEN_LEDGER_NOW', 'noon', 'OPEN_LEDGER_NOW is no local time'],
  ])('%s=%s is refused', (name, value, sentence) => {
    vi.stubEnv(name, value)
    expect(configProblems().join()).toContain(sentence)
  })
  it('an address that is wrong is not repeated: it may hold a password', () => {
    vi.stubEnv('SMTP_URL', 'user:hunter2 at the server')
    expect(configProblems().join()).not.toContain('hunter2')
  })
  it('that are right are taken, an address without the slash at its end', () => {
    for (const [name, value] of Object.entries({
      PUBLIC_URL: 'https://ledger.example/',
      SMTP_URL: 'smtp://localhost:2525',
      LOG_LEVEL: 'info',
      OPEN_LEDGER_NOW: 'file:/tmp/clock',
      COOKIE_SECURE: '1',
    }))
      vi.stubEnv(name, value)
    expect(configProblems()).toEqual([])
    expect([config.publicUrl, config.logLevel, config.cookieSecure]).toEqual([
      'https://ledger.example',
      'info',
      true,
    ])
  })
})
