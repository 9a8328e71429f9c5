// What the owner may give to roles, and what is kept of it.
import { describe, expect, it } from 'vitest'
import { beyond, canBeGiven, GRANTABLE_NAMES, grantsFrom } from '../../core/access/grantable'
import { mayRole, permissionsOf, rolesThatMay, ROLES } from '../../core/access/permissions'

describe('what the owner gives', () => {
  it('holds instead of what is usual, for that act alone', () => {
    const grants = grantsFrom({ 'visits.close': ['dispatch'] })
    expect(ROLES.filter((role) => mayRole(role, 'visits.close', grants))).toEqual([
      'owner',
      'dispatch',
    ])
    expect(permissionsOf('office', grants)).toEqual(
      permissionsOf('office').filter((permission) => permission !== 'visits.close'),
    )
  })
  it('is not kept where it is as usual', () => {
    const usual = Object.fromEntries(GRANTABLE_NAMES.map((name) => [name, rolesThatMay(name)]))
    expect(grantsFrom(usual)).toEqual({})
  })
  it('is never given to who has no screen for it', () =>
    expect(grantsFrom({ 'ledger.see': ['technician', 'office'] })).toEqual({
      'ledger.see': ['office'],
    }))
  it.each(GRANTABLE_NAMES)('%s: whoever usually has it can be given it', (name) => {
    for (const role of rolesThatMay(name))
      expect(role === 'owner' || canBeGiven(name, role)).toBe(true)
  })
  it('says what one role may and another may not, as the owner gave it', () => {
    expect(beyond({ role: 'books' }, { role: 'office' })).toEqual([
      'payments.takeBack',
      'ledger.see',
    ])
    expect(beyond({ role: 'technician' }, { role: 'office' })).toEqual([])
    const grants = grantsFrom({
      'payments.take': ['technician'],
      'ledger.see': ['books', 'office'],
    })
    expect(beyond({ role: 'books', grants }, { role: 'office', grants })).toEqual([
      'payments.takeBack',
    ])
    expect(beyond({ role: 'technician', grants }, { role: 'office', grants })).toEqual([
      'payments.take',
    ])
    for (const role of ROLES) expect(beyond({ role }, { role: 'owner' })).toEqual([])
  })
  it('never takes anything from an owner', () => {
    const nobody = grantsFrom(Object.fromEntries(GRANTABLE_NAMES.map((name) => [name, []])))
    expect(permissionsOf('owner', nobody)).toEqual(permissionsOf('owner'))
  })
})
