// What the owner may give to other roles than usual, or take from them: acts about money, prices and what ends things.
// The rest is what a role is for: a technician without a clock, or an office without calls, would be none.
import { baseOf, type OwnRole } from './ownRoles'
import { mayRole, rolesThatMay, type Grants, type Permission, type Role } from './permissions'

const MONEY = ['office', 'books'] as const
const DESK = ['office', 'dispatch'] as const
const INDOORS = ['office', 'dispatch', 'books'] as const
const OUTDOORS = [...INDOORS, 'technician'] as const

/** What each is called, and which roles have a screen for it, so that it can be given to them; the owner always may. */
export const GRANTABLE = {
  'costs.see': { words: 'see what things cost us', roles: OUTDOORS },
  'payments.take': { words: 'take money', roles: OUTDOORS },
  'payments.takeBack': { words: 'take a payment back', roles: MONEY },
  'invoices.make': { words: 'make invoices', roles: ['office', 'books', 'technician'] },
  'visits.close': { words: 'close work that is not billed', roles: INDOORS },
  'visits.cancel': { words: 'cancel visits and work', roles: INDOORS },
  'visits.rates': { words: 'change the rates of a work order', roles: INDOORS },
  'visits.mendTime': { words: 'correct clocked time', roles: ['office', 'dispatch', 'technician'] },
  'limits.answer': { words: 'say yes for others', roles: INDOORS },
  'quotes.send': { words: 'send quotes', roles: ['office', 'dispatch', 'technician'] },
  'agreements.bill': { words: 'bill agreements', roles: DESK },
  'pricebook.change': { words: 'change the price book', roles: INDOORS },
  'customers.merge': { words: 'merge customers', roles: INDOORS },
  'customers.erase': { words: 'erase a person', roles: MONEY },
  'customers.import': { words: 'import customers', roles: INDOORS },
  'ledger.see': { words: 'see the books', roles: MONEY },
  'figures.export': { words: 'take lists along as files', roles: INDOORS },
  'figures.contacts': { words: 'take addresses along as files', roles: INDOORS },
  'dispatch.setUp': { words: 'change hours, areas and people’s skills', roles: DESK },
  'access.change': { words: 'add people and let them go', roles: ['office'] },
  'settings.change': { words: 'change the set-up', roles: INDOORS },
} as const satisfies Readonly<
  Partial<Record<Permission, { words: string; roles: readonly Role[] }>>
>
export type Grantable = keyof typeof GRANTABLE
export const GRANTABLE_NAMES = Object.keys(GRANTABLE) as Grantable[]

/** Whether it can be given to a role at all. @example canBeGiven('ledger.see', 'technician') // false */
export const canBeGiven = (permission: Grantable, role: Role): boolean =>
  (GRANTABLE[permission].roles as readonly Role[]).includes(role)

interface Standing {
  role: Role
  grants?: Grants
}
/**
 * What one may do about money, prices and ends, and another may not: who adds people, or says where their mail goes,
 * would take it for themselves.
 * @example beyond({ role: 'books' }, { role: 'office' }) // ['payments.takeBack', 'ledger.see']
 */
export const beyond = (one: Standing, than: Standing): Grantable[] =>
  GRANTABLE_NAMES.filter(
    (permission) =>
      mayRole(one.role, permission, one.grants) && !mayRole(than.role, permission, than.grants),
  )

/**
 * What is kept of what the owner chose: what is as usual is not kept, so that a later version may know better.
 * Roles that it cannot be given to are left out; the firm's own are as those that they begin as.
 * @example grantsFrom({ 'payments.takeBack': ['books'], 'visits.close': ['office'] }) // { 'visits.close': ['office'] }
 */
export function grantsFrom(
  chosen: Readonly<Partial<Record<Grantable, readonly string[]>>>,
  own: readonly OwnRole[] = [],
): Grants {
  const kept = GRANTABLE_NAMES.flatMap((permission) => {
    const roles = chosen[permission]?.filter((key) => {
      const base = baseOf(key, own)
      return base !== null && canBeGiven(permission, base)
    })
    const ours = rolesThatMay(permission).filter((role) => role !== 'owner')
    const theirs = own.filter(({ base }) => ours.includes(base)).map(({ code }) => code)
    const usual = [...ours, ...theirs]
    const same = roles?.length === usual.length && usual.every((key) => roles.includes(key))
    return roles && !same ? [[permission, roles] as const] : []
  })
  return Object.fromEntries(kept)
}
