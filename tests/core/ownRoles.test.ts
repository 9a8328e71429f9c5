// Roles that a firm makes: as those that they begin as, until the owner gives them more or less.
import { describe, expect, it } from 'vitest'
import { beyond, grantsFrom } from '../../core/access/grantable'
import {
  BASE_ROLES,
  baseOf,
  grantsAs,
  nameOfRole,
  withoutRole,
  withRole,
  type OwnRole,
} from '../../core/access/ownRoles'
import { mayRole, permissionsOf, type Grants } from '../../core/access/permissions'

const foreman: OwnRole = { code: 'foreman', name: 'Foreman', base: 'technician' }
const lead: OwnRole = { code: 'lead', name: 'Lead', base: 'office' }
const both = [foreman, lead]
const may = (role: OwnRole, grants: Grants) => permissionsOf(role.base, grantsAs(role, grants))

describe('a role of the firm', () => {
  it.each(BASE_ROLES)('that begins as %s may do as much', (base) => {
    const role = { code: 'x', name: 'X', base }
    expect(may(role, {})).toEqual(permissionsOf(base))
    const grants = grantsFrom({ 'visits.close': ['dispatch'], 'payments.take': ['books'] })
    expect(may(role, withRole(grants, role))).toEqual(permissionsOf(base, grants))
  })
  it('is given more or less than those that it begins as, who stay as they are', () => {
    const grants = grantsFrom({ 'invoices.make': ['office', 'books', 'foreman'] }, both)
    expect(mayRole('technician', 'invoices.make', grants)).toBe(false)
    expect(may(foreman, grants)).toContain('invoices.make')
    expect(may(lead, grants)).not.toContain('invoices.make')
    expect(mayRole('office', 'invoices.make', grantsAs(null, grants))).toBe(true)
    const standing = { role: foreman.base, grants: grantsAs(foreman, grants) }
    expect(beyond(standing, { role: 'technician', grants })).toEqual(['invoices.make'])
  })
  it('is kept nowhere where it is as usual, and given nothing that its kind has no screen for', () => {
    expect(grantsFrom({ 'visits.close': ['office', 'books', 'lead'] }, both)).toEqual({})
    expect(grantsFrom({ 'visits.close': ['office', 'books'] }, both)).toEqual({
      'visits.close': ['office', 'books'],
    })
    expect(grantsFrom({ 'ledger.see': ['books', 'foreman', 'gone', 'lead'] }, both)).toEqual({
      'ledger.see': ['books', 'lead'],
    })
  })
  it('leaves nothing behind', () => {
    const grants = { 'visits.close': ['office', 'lead'], 'payments.take': ['books'] }
    expect(withoutRole(grants, 'lead')).toEqual({
      'visits.close': ['office'],
      'payments.take': ['books'],
    })
  })
  it('has a name and stands for a role of ours; one that is gone for none', () => {
    expect(['office', 'lead', 'gone'].map((key) => baseOf(key, both))).toEqual([
      ...['office', 'office', null],
    ])
    expect(['office', 'lead', 'gone'].map((key) => nameOfRole(key, both))).toEqual([
      ...['office', 'Lead', 'gone'],
    ])
  })
})
