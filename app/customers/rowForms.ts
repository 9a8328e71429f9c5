// The small forms of a customer's page: each says what is typed, and how it is kept. What is kept answers with the customer.
import type { Answer } from '~~/shared/api'
import { call, newId } from '~/lib/api'
import { given } from '~/lib/given'
import type { RowField } from './RowForm.vue'

export type Customer = Answer<'customer'>
type Site = Customer['sites'][number]
type Contact = Customer['contacts'][number]
type Equipment = Customer['equipment'][number]
type Typed = Record<string, string | null>
export interface OpenForm {
  title: string
  fields: readonly RowField[]
  values: Typed
  custom?: Answer<'setUp'>['fields']
  customValues?: Record<string, string>
  copy?: { label: string; values: Record<string, string> } | undefined
  save: (typed: Typed, custom: Record<string, string>) => Promise<Customer>
  remove?: (() => Promise<Customer>) | undefined
}
/** The values that a form begins with: those of a row, or nothing. */
const begin = <Row extends object>(row: Row | undefined, fields: readonly RowField[]): Typed =>
  Object.fromEntries(
    fields.map(({ key, kind }) => {
      const none = kind === 'date' || kind === 'choice' ? null : ''
      return [key, row ? (row[key as keyof Row] as string | null) : none]
    }),
  )
const nameOf = (s: Site): [id: string, name: string] => [s.id, s.name || s.line1]

const SITE: readonly RowField[] = [
  { key: 'name', label: 'Name of the site' },
  { key: 'line1', label: 'Address' },
  { key: 'town', label: 'Town' },
  { key: 'postcode', label: 'Postcode' },
  { key: 'accessNote', label: 'Access: what the technician must know', kind: 'area' },
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
  const fields: readonly RowField[] = [
    { key: 'name', label: 'Name' },
    { key: 'role', label: 'Role: occupant, accounts, caretaker…' },
    { key: 'phone', label: 'Telephone' },
    { key: 'phone2', label: 'Second telephone' },
    { key: 'email', label: 'Mail address' },
    {
      key: 'siteId',
      label: 'At',
      kind: 'choice',
      choices: [['', 'every site'], ...c.sites.map(nameOf)],
    },
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
const EQUIPMENT: readonly RowField[] = [
  { key: 'category', label: 'What it is' },
  { key: 'make', label: 'Make' },
  { key: 'serial', label: 'Serial number' },
  { key: 'installedOn', label: 'Installed', kind: 'date' },
  { key: 'warrantyUntil', label: 'Warranty until', kind: 'date' },
  { key: 'nextServiceOn', label: 'Next service', kind: 'date' },
  { key: 'note', label: 'Note' },
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
      {
        key: 'planId',
        label: 'Plan',
        kind: 'choice',
        choices: plans.map((p) => [p.id, `${p.name}, ${p.price} a year`]),
      },
      { key: 'siteId', label: 'Site', kind: 'choice', choices: c.sites.map(nameOf) },
      { key: 'startsOn', label: 'From', kind: 'date' },
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
