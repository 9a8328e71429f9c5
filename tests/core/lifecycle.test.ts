// Lives and permissions as data: what the lists must hold, whatever stands in them.
import { describe, expect, it } from 'vitest'
import { actsFrom, canAct, stateAfter, type Lifecycle } from '../../core/documents/lifecycle'
import { mayRole, PERMISSIONS, permissionsOf, ROLES } from '../../core/access/permissions'
import { invoiceLifecycle, invoicePermissions } from '../../core/invoices/invoiceLifecycle'
import {
  CLOCK_ACTS,
  clockActsFrom,
  isUnderWay,
  visitLifecycle,
  visitPermissions,
} from '../../core/visits/visitLifecycle'
import { quoteLifecycle, quotePermissions } from '../../core/quotes/quoteLifecycle'

const LIVES: Record<string, Lifecycle> = {
  quote: quoteLifecycle,
  invoice: invoiceLifecycle,
  visit: visitLifecycle,
}

describe.each(Object.entries(LIVES))('the life of a %s', (_, life) => {
  it('leads from and to states that it has', () => {
    for (const act of Object.values(life.acts))
      expect(life.states).toEqual(
        expect.arrayContaining([...act.from, ...(act.to ? [act.to] : [])]),
      )
  })
})

describe('a quote', () => {
  it('begins as a draft; every state can be reached from there or follows from the day', () => {
    const reached = new Set<string>(['draft', 'expired'])
    for (let i = 0; i < quoteLifecycle.states.length; i++)
      for (const { from, to } of Object.values(quoteLifecycle.acts))
        if (from.some((state) => reached.has(state))) reached.add(to)
    expect([...reached].sort()).toEqual([...quoteLifecycle.states].sort())
  })
  it.each([
    ['draft', ['change', 'send', 'decline']],
    ['sent', ['accept', 'decline', 'reopen']],
    ['expired', ['decline', 'reopen']],
    ['declined', ['reopen']],
    ['accepted', []],
  ] as const)('that is %s allows %j', (state, acts) => {
    expect(actsFrom(quoteLifecycle, state)).toEqual(acts)
    expect(canAct(quoteLifecycle, 'change', state)).toBe(state === 'draft')
  })
  it('is what its act says afterwards', () =>
    expect([stateAfter(quoteLifecycle, 'send'), stateAfter(quoteLifecycle, 'reopen')]).toEqual([
      'sent',
      'draft',
    ]))
  it('asks a permission for each act, which everybody who writes quotes has', () => {
    for (const permission of Object.values(quotePermissions)) {
      expect(mayRole('technician', permission)).toBe(true)
      expect(mayRole('books', permission)).toBe(false)
    }
  })
})

describe('an invoice', () => {
  it.each([
    ['not_sent', ['pay', 'send', 'link']],
    ['sent', ['pay', 'send', 'link']],
    ['part_paid', ['pay', 'send', 'link']],
    ['paid', ['send', 'link']],
    ['void', ['link']],
    ['written_off', ['link']],
  ] as const)('that is %s allows %j', (state, acts) =>
    expect(actsFrom(invoiceLifecycle, state)).toEqual(acts),
  )
  it('is billed at the door, and its link is the office’s', () => {
    const door = Object.entries(invoicePermissions).filter(([, may]) => mayRole('technician', may))
    expect(door.map(([act]) => act)).toEqual(['pay', 'send'])
  })
})

describe('a visit', () => {
  it.each([
    ['planned', ['set_off', 'arrive']],
    ['driving', ['arrive', 'no_access']],
    ['on_site', ['finish', 'pause', 'no_access']],
    ['paused', ['resume', 'finish']],
    ['finished', ['resume']],
    ['no_access', ['arrive']],
    ['cancelled', []],
  ] as const)('that is %s allows its technician %j', (state, acts) =>
    expect(clockActsFrom(state)).toEqual(acts),
  )
  it('keeps its technician from another one exactly while it is under way', () =>
    expect(visitLifecycle.states.filter(isUnderWay)).toEqual(['driving', 'on_site', 'paused']))
  it('begins planned, and every state can be reached from there', () => {
    const reached = new Set<string>(['planned'])
    for (let i = 0; i < visitLifecycle.states.length; i++)
      for (const { from, to } of Object.values(visitLifecycle.acts))
        if (from.some((state) => reached.has(state))) reached.add(to)
    expect([...reached].sort()).toEqual([...visitLifecycle.states].sort())
  })
  it('is called off by who plans, and clocked by everybody who goes', () => {
    expect(mayRole('technician', visitPermissions.cancel)).toBe(false)
    for (const act of CLOCK_ACTS) expect(mayRole('technician', visitPermissions[act])).toBe(true)
  })
})

describe('permissions', () => {
  it('are never given to nobody, and always to the owner', () => {
    for (const roles of Object.values(PERMISSIONS)) expect(roles).toContain('owner')
  })
  // Written down a second time on purpose: what a change of the list above must not do by the way.
  it.each([
    [
      'technician',
      ['customers.see', 'invoices.list', 'collections.work', 'ledger.see', 'dispatch.plan'],
    ],
    ['books', ['dispatch.plan', 'calls.take', 'quotes.write', 'pricebook.change', 'visits.write']],
    ['dispatch', ['collections.work', 'payments.take', 'invoices.make', 'pricebook.change']],
    ['office', ['ledger.see', 'payments.takeBack', 'customers.erase']],
  ] as const)('%s may not %j', (role, permissions) => {
    for (const permission of permissions) expect(mayRole(role, permission)).toBe(false)
  })
  it('of all roles together are all', () =>
    expect(new Set(ROLES.flatMap((role) => permissionsOf(role)))).toEqual(
      new Set(Object.keys(PERMISSIONS)),
    ))
})
