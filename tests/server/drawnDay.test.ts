// The day of a phone, as the server draws it: whose it is, for nobody else, and never from what is kept on the way.
import { beforeAll, describe, expect, it } from 'vitest'
import { Client, signedIn } from './client'

const opened = (client: Client, path = '/field') => client.raw('GET', path)
/** The page that the app draws by itself holds nothing of anybody. */
const isShell = (page: string) => !page.includes('<h1') && !page.includes('"drawn"')

describe('a technician’s day, drawn', () => {
  let ines: Client
  beforeAll(async () => {
    ines = await signedIn('technician')
  })
  it('has each visit, with the links that lead to it, and of nobody else', async () => {
    const { visits } = await ines.ok('fieldDay')
    const { status, text, headers } = await opened(ines)
    expect([status, headers.get('cache-control')]).toEqual([200, 'no-store'])
    expect(visits.length).toBeGreaterThan(1)
    for (const { id } of visits) expect(text).toContain(`href="/field/visits/${id}"`)
    const others = (await (await signedIn({ email: 'tobiah@demo.test' })).ok('fieldDay')).visits
    const foreign = others.filter((one) => visits.every(({ id }) => id !== one.id))
    expect(foreign.length).toBeGreaterThan(0)
    for (const { id } of foreign) expect(text).not.toContain(id)
  })
  it('runs no script but those that the page names by their hash', async () => {
    const { text, headers } = await opened(ines)
    const policy = headers.get('content-security-policy')!
    expect(policy).toMatch(/script-src 'self' 'sha256-/)
    expect(policy).not.toMatch(/script-src[^;]*unsafe/)
    expect(text).not.toMatch(/ on(click|load|error)=/)
  })
  it('is drawn at its own address alone', async () => {
    for (const path of ['/field?day=1', '/field/'])
      expect(isShell((await opened(ines, path)).text)).toBe(false)
    expect(await ines.raw('HEAD', '/field')).toMatchObject({ status: 200, text: '' })
    expect(isShell((await opened(ines, '/fields')).text)).toBe(true)
    expect(isShell((await opened(ines, '/me')).text)).toBe(true)
    const posted = await ines.raw('POST', '/field', {})
    expect([posted.status, isShell(posted.text)]).toEqual([200, true])
  })
  it('is not drawn for whoever is not signed in, or was', async () => {
    expect(isShell((await opened(new Client())).text)).toBe(true)
    const gone = await signedIn('technician')
    const { cookie } = gone
    await gone.ok('signOut')
    gone.cookie = cookie
    expect(isShell((await opened(gone)).text)).toBe(true)
  })
  it('waits until a second step that the role needs is set up', async () => {
    const owner = await signedIn('owner')
    await owner.ok('keepSecondStepRoles', { body: { roles: ['technician'] } })
    try {
      expect(isShell((await opened(ines)).text)).toBe(true)
    } finally {
      await owner.ok('keepSecondStepRoles', { body: { roles: [] } })
    }
    expect(isShell((await opened(ines)).text)).toBe(false)
  })
})
