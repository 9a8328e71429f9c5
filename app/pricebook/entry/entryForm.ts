// An entry of the book as it is typed, and what is sent of it.
import type { Answer, Body } from '~~/shared/api'

export type Entry = Answer<'priceEntry'>
export type Part = Entry['parts'][number]
const HOUR = 3600
const BLANK = {
  kind: 'part' as Entry['kind'],
  code: '',
  category: '',
  name: '',
  description: '',
  technicianNote: '',
  synonyms: '',
  unit: 'each',
  taxClass: '',
  hours: '',
  furtherHours: '',
  skills: '',
  pinned: false,
  labourId: null as string | null,
  supplier: '',
  partNumber: '',
  incomeCode: '',
  activeFrom: '',
  activeTo: '',
  retired: false,
  pricing: 'rule' as 'rule' | 'fixed',
  cost: '',
  price: '',
  furtherPrice: '',
  parts: [] as Part[],
}
export type EntryForm = typeof BLANK
export const blankEntry = (): EntryForm => ({ ...BLANK, parts: [] })

const asHours = (seconds: number) => (seconds ? String(seconds / HOUR) : '')
const asSeconds = (hours: string) => Math.round(Number(hours || 0) * HOUR) || 0

export function formOf(e: Entry): EntryForm {
  const { code, category, name, description, technicianNote, synonyms, unit, taxClass } = e
  const { kind, pinned, labourId, supplier, partNumber, incomeCode, retired, price } = e
  return {
    ...{ code, category, name, description, technicianNote, synonyms, unit, taxClass },
    ...{ kind, pinned, labourId, supplier, partNumber, incomeCode, retired, price },
    hours: asHours(e.seconds),
    furtherHours: asHours(e.furtherSeconds),
    skills: e.skills.join(', '),
    activeFrom: e.activeFrom ?? '',
    activeTo: e.activeTo ?? '',
    pricing: e.pricing as EntryForm['pricing'],
    cost: e.cost ?? '0',
    furtherPrice: e.furtherPrice ?? '',
    parts: e.parts.map((part) => ({ ...part })),
  }
}
/** A task has parts inside, an assembly anything of the book. */
export const holdsParts = (kind: Entry['kind']): boolean => kind === 'task' || kind === 'assembly'
/** Whether its price may follow a rule; rates and charges are what they are, an assembly is what is in it. */
export const mayFollowRule = (kind: Entry['kind']): boolean => kind === 'task' || kind === 'part'
const pricingOf = (f: EntryForm): EntryForm['pricing'] => {
  if (f.kind === 'assembly') return 'rule'
  return mayFollowRule(f.kind) ? f.pricing : 'fixed'
}

/** What its price is worked out from. */
export const pricedOf = (f: EntryForm): Omit<Body<'tryPrice'>, 'id'> => ({
  kind: f.kind,
  name: f.name,
  category: f.category,
  supplier: f.supplier,
  pricing: pricingOf(f),
  cost: f.cost || '0',
  price: f.price || '0',
  furtherPrice: f.furtherPrice || null,
  seconds: asSeconds(f.hours),
  furtherSeconds: asSeconds(f.furtherHours || f.hours),
  labourId: f.kind === 'task' ? f.labourId : null,
  sundriesRate: null,
  parts: holdsParts(f.kind) ? f.parts.map(({ partId, quantity }) => ({ partId, quantity })) : [],
})
export const bodyOf = (f: EntryForm, version: number): Body<'keepPriceEntry'> => ({
  ...pricedOf(f),
  version,
  code: f.code,
  description: f.description,
  technicianNote: f.technicianNote,
  synonyms: f.synonyms,
  unit: f.unit || 'each',
  taxClass: f.taxClass,
  skills: f.skills
    .split(',')
    .map((skill) => skill.trim())
    .filter(Boolean),
  pinned: f.pinned,
  partNumber: f.partNumber,
  incomeCode: f.incomeCode,
  activeFrom: f.activeFrom || null,
  activeTo: f.activeTo || null,
  retired: f.retired,
})
