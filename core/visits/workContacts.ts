/** Somebody to speak to about a work order, and as what: the tenant, the caretaker, who pays. */
export interface WorkContact {
  name: string
  phone: string
  role: string
}
/** More are no contacts but a directory. */
export const MOST_CONTACTS = 6

/**
 * A contact in one line: who, as what, and their number; nothing where nobody is named.
 * @example sayContact({ name: 'Ann Lee', role: 'tenant', phone: '555 0101' }) // 'Ann Lee (tenant), 555 0101'
 */
export function sayContact({
  name,
  phone,
  role = '',
}: Omit<WorkContact, 'role'> & { role?: string }) {
  if (!name) return ''
  return [role ? `${name} (${role})` : name, phone].filter(Boolean).join(', ')
}
