// The small forms of a customer's page: each says what is typed, and how it is kept. What is kept answers with the customer.
import type { Answer } from '~~/shared/api'
import { call, newId } from '~/lib/api'
import { given } from '~/lib/given'
import { field, namesOf, type FormField } from '~/base/fields'

export type Customer = Answer<'customer'>
type Site = Customer['sites'][number]
type Contact = Customer['contacts'][number]
type Equipment = Customer['equipment'][number]
type Typed = Record<string, string | null>
export interface OpenForm {
  title: string
  fields: readonly FormField[]
  values: Typed
  custom?: Answer<'setUp'>['fields']
  customValues?: Record<string, string>
  copy?: { label: string; values: Record<string, string> } | undefined
  save: (typed: Typed, custom: Record<string, string>) => Promise<Customer>
  remove?: (() => Promise<Customer>) | undefined
}
/** The values that a form begins with: those of a row, or nothing. */
const begin = <Row extends object>(row: Row | undefined, fields: readonly FormField[]): Typed =>
  Object.fromEntries(
    fields.map(({ name, kind, options }) => {
      const none = kind === 'date' || options ? null : ''
      return [name, row ? (row[name as keyof Row] as string | null) : none]
    }),
  )
const sitesOf = (c: Customer) =>
  namesOf(c.sites.map((s) => ({ id: s.id, name: s.name || s.line1 })))

const SITE: readonly FormField[] = [
  field('name', 'Name of the site'),
  field('line1', 'Address'),
  field('town', 'Town'),
  field('postcode', 'Postcode'),
  field('accessNote', 'Access: what the technician must know', { kind: 'area' }),
]
export function siteForm(c: Customer, custom: Answer<'setUp'>['fields'], s?: Site): OpenForm {
  const { line1, town, postcode } = c
  return {
    title: s ? 'Change the site' : 'A further site',
    fields: SITE,
    custom,
    customValues: (s?.custom ?? {}) as Record<string, string>,
    values: begin(s, SITE),
    copy: line1
      ? { label: 'Same as the billing address', values: { line1, town, postcode } }
      : undefined,
    save: (typed, own) =>
      s
        ? call('changeSite', {
            params: { id: s.id },
            body: { version: s.version, ...typed, custom: own },
          })
        : call('newSite', {
            body: {
              id: newId(),
              customerId: c.id,
              ...typed,
              line1: given(typed.line1),
              custom: own,
            },
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
  const change = (values: object) =>
    call('changeContact', { params: { id: k!.id }, body: { version: k!.version, ...values } })
  return {
    title: k ? 'Change the contact' : 'A contact',
    fields,
    values: begin(k, fields),
    save: (typed) =>
      k
        ? change(typed)
        : call('newContact', {
            body: { id: newId(), customerId: c.id, ...typed, name: given(typed.name) },
          }),
    remove: k && (() => change({ removed: true })),
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
  const change = (values: object) =>
    call('changeEquipment', { params: { id: e!.id }, body: { version: e!.version, ...values } })
  return {
    title: e ? 'Change the equipment' : 'Equipment at this site',
    fields: EQUIPMENT,
    values: begin(e, EQUIPMENT),
    save: (typed) =>
      e
        ? change(typed)
        : call('newEquipment', {
            body: { id: newId(), siteId, ...typed, category: given(typed.category) },
          }),
    remove: e && (() => change({ removed: true })),
  }
}
export function agreementForm(
  c: Customer,
  plans: Answer<'plans'>['items'],
  today: string,
): OpenForm {
  return {
    title: 'A care agreement',
    values: { siteId: c.sites[0]?.id ?? null, planId: plans[0]?.id ?? null, startsOn: today },
    fields: [
      field('planId', 'Plan', {
        options: plans.map((p) => ({ value: p.id, label: `${p.name}, ${p.price} a year` })),
      }),
      field('siteId', 'Site', { options: sitesOf(c) }),
      field('startsOn', 'From', { kind: 'date' }),
    ],
    async save(typed) {
      await call('newAgreement', {
        body: {
          id: newId(),
          customerId: c.id,
          siteId: given(typed.siteId),
          planId: given(typed.planId),
          startsOn: given(typed.startsOn),
        },
      })
      return call('customer', { params: { id: c.id } })
    },
  }
}
