// The small forms of a customer's page: each says what is typed, and how it is kept. What is kept answers with the customer.
import type { Answer } from '~~/shared/api'
import { saySite } from '~~/core/customers/saySite'
import { call, newId } from '~/lib/api'
import { given } from '~/lib/given'
import { field, namesOf, type FormField } from '~/base/fields'

export type Customer = Answer<'customer'>
type Site = Customer['sites'][number]
type Contact = Customer['contacts'][number]
type Equipment = Customer['equipment'][number]
/** The firm's own fields of a row, as they are filled. */
export type OwnValues = Record<string, string>
/** What stands in such a form: its fields by name, and under `custom` the firm's own. */
export type RowValues = Record<string, string | null | OwnValues>
type Row = { version: number; custom?: unknown }
export interface OpenForm {
  title: string
  /** what it is about, among all such forms */
  about: string
  fields: readonly FormField[]
  values: RowValues
  custom?: Answer<'setUp'>['fields']
  copy?: { label: string; values: Record<string, string> } | undefined
  /** the row that it changes, as it is now */
  row?: ((c: Customer) => Row | undefined) | undefined
  save: (typed: RowValues, version: number) => Promise<Customer>
  remove?: ((version: number) => Promise<Customer>) | undefined
}
/** What a form shows of a row; of none, nothing. */
export const typedOf = (row: object | undefined, fields: readonly FormField[]): RowValues => ({
  ...Object.fromEntries(
    fields.map(({ name, kind, options }) => {
      const none = kind === 'date' || options ? null : ''
      return [name, row ? (row[name as keyof typeof row] as string | null) : none]
    }),
  ),
  custom: ((row as Row | undefined)?.custom ?? {}) as OwnValues,
})
/** One row of many, as it is now. */
const rowOf = <Kept extends { id: string }>(
  known: Kept | undefined,
  all: (c: Customer) => Kept[],
) => known && ((c: Customer) => all(c).find(({ id }) => id === known.id))
/** What must be filled; where it is not, the server says so at its field. */
const filled = (value: RowValues[string] | undefined) => given(value as string | null)
const sitesOf = (c: Customer) =>
  namesOf(c.sites.map((s) => ({ id: s.id, name: s.name || saySite(s) })))

const SITE: readonly FormField[] = [
  field('name', 'Name of the site'),
  field('line1', 'Address'),
  field('town', 'Town'),
  field('postcode', 'Postcode'),
  field('place', 'On the map: latitude, longitude', {
    placeholder: 'the middle of the postcode',
  }),
  field('accessNote', 'Access: what the technician must know', { kind: 'area' }),
]
export function siteForm(c: Customer, custom: Answer<'setUp'>['fields'], s?: Site): OpenForm {
  const { line1, town, postcode } = c
  return {
    title: s ? 'Change the site' : 'A further site',
    about: `site ${s?.id ?? c.id}`,
    fields: SITE,
    custom,
    values: typedOf(s, SITE),
    row: rowOf(s, (now) => now.sites),
    copy: line1
      ? { label: 'Same as the billing address', values: { line1, town, postcode } }
      : undefined,
    save: (typed, version) =>
      s
        ? call('changeSite', { params: { id: s.id }, body: { version, ...typed } })
        : call('newSite', {
            body: { id: newId(), customerId: c.id, ...typed },
          }),
  }
}
export function contactForm(c: Customer, k?: Contact): OpenForm {
  const fields: readonly FormField[] = [
    field('name', 'Name'),
    field('role', 'Role: occupant, accounts, caretaker…'),
    field('phone', 'Telephone'),
    field('phone2', 'Second telephone'),
    field('email', 'Mail address'),
    field('siteId', 'At', {
      options: [{ value: null, label: 'every site' }, ...sitesOf(c)],
    }),
  ]
  const change = (version: number, values: object) =>
    call('changeContact', { params: { id: k!.id }, body: { version, ...values } })
  return {
    title: k ? 'Change the contact' : 'A contact',
    about: `contact ${k?.id ?? c.id}`,
    fields,
    values: typedOf(k, fields),
    row: rowOf(k, (now) => now.contacts),
    save: ({ custom: _none, ...typed }, version) =>
      k
        ? change(version, typed)
        : call('newContact', {
            body: { id: newId(), customerId: c.id, ...typed, name: filled(typed.name) },
          }),
    remove: k && ((version) => change(version, { removed: true })),
  }
}
const EQUIPMENT: readonly FormField[] = [
  field('category', 'What it is'),
  field('make', 'Make'),
  field('serial', 'Serial number'),
  field('installedOn', 'Installed', { kind: 'date' }),
  field('warrantyUntil', 'Warranty until', { kind: 'date' }),
  field('nextServiceOn', 'Next service', { kind: 'date' }),
  field('note', 'Note'),
]
export function equipmentForm(siteId: string, e?: Equipment): OpenForm {
  const change = (version: number, values: object) =>
    call('changeEquipment', { params: { id: e!.id }, body: { version, ...values } })
  return {
    title: e ? 'Change the equipment' : 'Equipment at this site',
    about: `equipment ${e?.id ?? siteId}`,
    fields: EQUIPMENT,
    values: typedOf(e, EQUIPMENT),
    row: rowOf(e, (now) => now.equipment),
    save: ({ custom: _none, ...typed }, version) =>
      e
        ? change(version, typed)
        : call('newEquipment', {
            body: { id: newId(), siteId, ...typed, category: filled(typed.category) },
          }),
    remove: e && ((version) => change(version, { removed: true })),
  }
}
export function agreementForm(
  c: Customer,
  plans: Answer<'plans'>['items'],
  { today, figure }: { today: string; figure: (amount: string) => string },
): OpenForm {
  const offered = plans.filter(({ retired }) => !retired)
  return {
    title: 'A care agreement',
    about: `agreement ${c.id}`,
    values: { siteId: c.sites[0]?.id ?? null, planId: offered[0]?.id ?? null, startsOn: today },
    fields: [
      field('planId', 'Plan', {
        options: offered.map((p) => ({
          value: p.id,
          label: `${p.name}, ${figure(p.price)} a year`,
        })),
      }),
      field('siteId', 'Site', { options: sitesOf(c) }),
      field('startsOn', 'From', { kind: 'date' }),
    ],
    async save(typed) {
      await call('newAgreement', {
        body: {
          id: newId(),
          customerId: c.id,
          siteId: filled(typed.siteId),
          planId: filled(typed.planId),
          startsOn: filled(typed.startsOn),
        },
      })
      return call('customer', { params: { id: c.id } })
    },
  }
}
