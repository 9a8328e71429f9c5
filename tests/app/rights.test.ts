// What roles may do, as the owner sets it: what was changed is sent alone; nobody else changes it. And what came of the calls.
import { describe, expect, it, vi } from 'vitest'
import { GRANTABLE, GRANTABLE_NAMES } from '~~/core/access/grantable'
import { OUTCOMES } from '~~/core/calls/callCounts'
import { rolesThatMay, ROLES, type Role } from '~~/core/access/permissions'
import { routeOf, type Answer } from '~~/shared/api'
import { askAllAnew } from '~/lib/live'
import RoleLimits from '~/settings/RoleLimits.vue'
import { sampleOf } from './sample'
import { open, settle } from './screen'

const limits: Answer<'limits'> = {
  roles: ROLES.map((role) => ({
    ...{ role, name: role, base: role, lowerPercent: 10, belowCost: false, mendsTime: true },
  })),
  given: GRANTABLE_NAMES.map((permission) => ({
    permission,
    roles: [...rolesThatMay(permission)],
  })),
}
async function setUp(role: Role) {
  const screen = await open('/set-up', { role, server: { says: { limits: () => limits } } })
  await settle()
  const rights = screen.page.findComponent(RoleLimits)
  const box = (label: string) =>
    rights
      .findAll('label')
      .find((l) => l.text() === label)!
      .get('input')
  return { screen, rights, box }
}
describe('what each may do', () => {
  it('is one box for each act and role that it can be given to', async () => {
    const { rights, box } = await setUp('owner')
    const boxes = rights.findAll('label').filter((l) => l.text().includes(': '))
    const possible = GRANTABLE_NAMES.flatMap((name) => [...GRANTABLE[name].roles])
    // Two more for each role: below cost, and corrected time.
    expect(boxes.length).toBe(possible.length + 2 * ROLES.length)
    expect(box('technician: take money').element.checked).toBe(true)
    expect(box('dispatch: take money').element.checked).toBe(false)
  })
  it('is changed act by act: the rest is not sent, since somebody else may have changed it', async () => {
    const { screen, rights, box } = await setUp('owner')
    await box('dispatch: take money').setValue(true)
    await box('technician: corrects time alone').setValue(false)
    await rights.get('form').trigger('submit')
    await settle()
    const [sent] = screen.acts()
    expect([sent!.name, sent!.body]).toEqual([
      'keepLimits',
      {
        roles: [{ role: 'technician', lowerPercent: 10, belowCost: false, mendsTime: false }],
        given: [
          {
            permission: 'payments.take',
            roles: ['office', 'dispatch', 'books', 'technician'],
          },
        ],
      },
    ])
  })
  it('is not set back by whoever changed something else of it meanwhile', async () => {
    let said = limits
    const screen = await open('/set-up', { server: { says: { limits: () => said } } })
    await settle()
    const rights = screen.page.findComponent(RoleLimits)
    const box = (label: string) =>
      rights
        .findAll('label')
        .find((l) => l.text() === label)!
        .get('input')
    await box('dispatch: take money').setValue(true)
    said = {
      ...limits,
      given: limits.given.map((act) =>
        act.permission === 'visits.close' ? { ...act, roles: ['owner', 'dispatch'] } : act,
      ),
    }
    askAllAnew()
    await vi.waitFor(() =>
      expect(box('dispatch: close work that is not billed').element.checked).toBe(true),
    )
    expect(box('dispatch: take money').element.checked).toBe(true)
    await rights.get('form').trigger('submit')
    await settle()
    const { given } = screen.acts()[0]!.body as Answer<'limits'>
    expect(given.map(({ permission }) => permission)).toEqual(['payments.take'])
  })
  it('is read by the office, and changed by the owner alone', async () => {
    const { rights, box } = await setUp('office')
    expect(box('dispatch: take money').element.disabled).toBe(true)
    expect(rights.text()).not.toContain('Keep this')
  })
})
describe('a role of the firm’s own', () => {
  it('has its column and its row by its name, and what it begins as can be given to it', async () => {
    const foreman = { role: 'foreman', name: 'Foreman', base: 'technician' as const }
    const said: Answer<'limits'> = {
      roles: [...limits.roles, { ...limits.roles.at(-1)!, ...foreman }],
      given: limits.given,
    }
    const screen = await open('/set-up', { server: { says: { limits: said } } })
    await settle()
    const rights = screen.page.findComponent(RoleLimits)
    const labels = rights.findAll('label').map((label) => label.text())
    expect(labels).toContain('Foreman: take money')
    expect(labels).not.toContain('Foreman: see the books')
    expect(labels).toContain('Foreman: corrects time alone')
    await rights
      .findAll('label')
      .find((label) => label.text() === 'Foreman: take money')!
      .get('input')
      .setValue(true)
    await rights.get('form').trigger('submit')
    await settle()
    const { given } = screen.acts()[0]!.body as Answer<'limits'>
    expect(given).toEqual([
      {
        permission: 'payments.take',
        roles: expect.arrayContaining(['foreman', 'technician']) as string[],
      },
    ])
  })
})
describe('what came of the calls', () => {
  const answer = sampleOf(routeOf('callsCounted').answer!) as Answer<'callsCounted'>
  const came = { work: 3, quote: 0, answered: 1, declined: 0, waiting: 2 }
  const items = answer.items.map((item, i) => ({
    ...{ ...item, key: `k${i}`, name: `Source ${i}`, calls: 6, came },
  }))
  it('is drawn as long as it is, said in words, and counted beneath', async () => {
    const { page } = await open('/calls/counted', {
      server: { says: { callsCounted: { ...answer, items } } },
    })
    await settle()
    expect(page.get('svg').attributes('aria-label')).toContain(
      'Source 2: 3 work, 1 answered, 2 waiting',
    )
    const widths = page
      .findAll('svg g')[2]!
      .findAll('rect')
      .map((r) => Number(r.attributes('width')))
    expect(widths).toHaveLength(3)
    expect(widths[0]! / widths[1]!).toBeCloseTo(3)
    expect(page.text()).toContain('50 %')
    expect(page.findAll('figcaption .key')).toHaveLength(OUTCOMES.length)
  })
  it('asks for what was chosen', async () => {
    const screen = await open('/calls/counted?by=kind&from=2026-11-01', {
      server: { says: { callsCounted: { ...answer, items } } },
    })
    await settle()
    const asked = screen.sent.filter(({ name }) => name === 'callsCounted').at(-1)!
    expect(asked.url).toContain('by=kind')
    expect(asked.url).toContain('from=2026-11-01')
  })
})
