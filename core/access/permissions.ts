export const ROLES = ['owner', 'office', 'dispatch', 'books', 'technician'] as const
export type Role = (typeof ROLES)[number]

const OWNER = ['owner'] as const
const OFFICE = ['owner', 'office'] as const
const DESK = ['owner', 'office', 'dispatch'] as const
const MONEY = ['owner', 'office', 'books'] as const
const INDOORS = ['owner', 'office', 'dispatch', 'books'] as const
const QUOTING = [...DESK, 'technician'] as const
const BILLING = [...MONEY, 'technician'] as const

/**
 * What may be done, and by which roles: the only list of it. A route names the permission that it asks
 * for, and a screen asks with the same name, so that neither can know more than the other.
 */
export const PERMISSIONS = {
  'access.own': ROLES,
  'access.people': INDOORS,
  'access.change': OWNER,
  'archive.take': OWNER,
  'agreements.see': INDOORS,
  'agreements.change': DESK,
  'agreements.bill': OFFICE,
  'calls.see': INDOORS,
  'calls.take': DESK,
  'collections.work': MONEY,
  'connections.change': OWNER,
  'costs.see': MONEY,
  'customers.see': INDOORS,
  'customers.change': INDOORS,
  'customers.make': DESK,
  'customers.merge': OFFICE,
  'customers.erase': OWNER,
  'customers.import': OFFICE,
  'dispatch.see': INDOORS,
  'dispatch.plan': DESK,
  'dispatch.setUp': OFFICE,
  'dispatch.further': QUOTING,
  'dispatch.sheet': ROLES,
  'figures.see': INDOORS,
  'figures.export': MONEY,
  'figures.contacts': OFFICE,
  'limits.ask': ROLES,
  'limits.answer': OFFICE,
  'limits.change': OWNER,
  'ledger.see': ['owner', 'books'],
  'ledger.bring': MONEY,
  'invoices.list': MONEY,
  'invoices.see': [...INDOORS, 'technician'],
  'invoices.make': BILLING,
  'invoices.link': MONEY,
  'messages.see': INDOORS,
  'messages.retry': MONEY,
  'payments.take': BILLING,
  'payments.see': MONEY,
  'payments.takeBack': ['owner', 'books'],
  'pricebook.search': ROLES,
  'pricebook.see': INDOORS,
  'pricebook.buy': QUOTING,
  'pricebook.change': OFFICE,
  'quotes.list': INDOORS,
  'quotes.see': [...INDOORS, 'technician'],
  'quotes.copy': DESK,
  'quotes.write': QUOTING,
  'quotes.send': QUOTING,
  'quotes.answer': QUOTING,
  'settings.see': INDOORS,
  'settings.fields': INDOORS,
  'settings.change': OFFICE,
  'tasks.give': INDOORS,
  'tasks.own': ROLES,
  'visits.list': INDOORS,
  'visits.see': ROLES,
  'visits.clock': QUOTING,
  'visits.mendTime': QUOTING,
  'visits.write': QUOTING,
  'visits.follow': DESK,
  'visits.rates': OFFICE,
  'visits.sign': [...OFFICE, 'technician'],
  'visits.close': MONEY,
  'visits.cancel': DESK,
} as const satisfies Readonly<Record<string, readonly Role[]>>
export type Permission = keyof typeof PERMISSIONS

/** Whom the owner gives a permission to, where that is not as usual: roles of ours, and codes of the firm's own. */
export type Grants = Readonly<Partial<Record<Permission, readonly string[]>>>

/** Whom a permission is usually given to. @example rolesThatMay('payments.takeBack') // ['owner', 'books'] */
export const rolesThatMay = (permission: Permission): readonly Role[] => PERMISSIONS[permission]

/**
 * Whether a role may do it: as usual, or as the owner says. An owner always may.
 * @example mayRole('technician', 'invoices.list') // false
 * @example mayRole('technician', 'payments.take', { 'payments.take': ['books'] }) // false
 */
export const mayRole = (role: Role, permission: Permission, grants: Grants = {}): boolean =>
  role === 'owner' || (grants[permission] ?? rolesThatMay(permission)).some((one) => one === role)

/** Everything that a role may do. @example permissionsOf('technician').includes('visits.clock') // true */
export const permissionsOf = (role: Role, grants: Grants = {}): Permission[] =>
  (Object.keys(PERMISSIONS) as Permission[]).filter((permission) =>
    mayRole(role, permission, grants),
  )
