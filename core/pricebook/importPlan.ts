import { Decimal } from '../money/decimal'
import type { EntryRecord, RowProblem } from './bookTable'

export interface KnownEntry extends EntryRecord {
  id: string
}
/** `code` for a list of our own, `part` for a supplier's, which knows its part numbers and not our codes. */
export interface ImportOptions {
  by: 'code' | 'part'
  supplier: string
  category: string
  taxClass: string
  taxClasses: ReadonlySet<string>
}
export interface PlannedRow {
  row: number
  state: 'new' | 'changed' | 'same' | 'wrong'
  id: string | null
  code: string
  name: string
  becomes: EntryRecord | null
  changed: (keyof EntryRecord)[]
  problems: RowProblem[]
}
export interface ImportPlan {
  rows: PlannedRow[]
  /** entries of this supplier, or of the whole book, that the list does not name any more */ vanished: KnownEntry[]
}

/**
 * What a list would do to the book: each row is new, changes an entry, says nothing new, or is wrong. A wrong row takes nothing else with
 * it. Rows are matched by our code, or by supplier and part number; of two rows about one entry the second is wrong. What a row does not
 * say stays as it is. A further price is kept for tasks only.
 * @example importPlan([{ row: 2, record: { partNumber: 'NM-7', cost: '12' }, problems: [] }], known, { by: 'part', supplier: 'Northmoor', … }).rows[0]?.state // 'changed'
 */
export function importPlan(
  rows: readonly { row: number; record: Partial<EntryRecord>; problems: RowProblem[] }[],
  known: readonly KnownEntry[],
  options: ImportOptions,
): ImportPlan {
  const byCode = new Map(known.map((e) => [e.code, e]))
  const partKey = (supplier: string, part: string) => `${supplier}\u0000${part.toLowerCase()}`
  const byPart = new Map(
    known.filter((e) => e.partNumber).map((e) => [partKey(e.supplier, e.partNumber), e]),
  )
  // A task may have a part inside that the same list brings.
  const coming = new Map(
    rows.flatMap((r) =>
      r.record.code
        ? [[r.record.code, r.record.kind ?? byCode.get(r.record.code)?.kind ?? 'part'] as const]
        : [],
    ),
  )
  const seen = new Map<string, number>()
  const codes = new Map<string, number>()
  const planned = rows.map(({ row, record, problems: said }): PlannedRow => {
    const problems = [...said]
    const supplier = record.supplier ?? options.supplier
    const byNumber = () =>
      record.partNumber ? byPart.get(partKey(supplier, record.partNumber)) : undefined
    const entry = options.by === 'code' ? byCode.get(record.code ?? '') : byNumber()
    const code =
      record.code ??
      entry?.code ??
      (options.by === 'part' ? record.partNumber?.slice(0, 24) : undefined) ??
      ''
    const shown = { row, code, name: record.name ?? entry?.name ?? '' }
    const wrong = (field: RowProblem['field'], message: string) => problems.push({ field, message })
    const key = options.by === 'code' ? code : partKey(supplier, record.partNumber ?? '')
    if (options.by === 'part' && !record.partNumber)
      wrong('part_number', 'There is no part number.')
    else if (!code) wrong('code', 'There is no code.')
    else if (seen.has(key))
      wrong(
        options.by === 'code' ? 'code' : 'part_number',
        `Row ${seen.get(key)} is about the same entry.`,
      )
    else seen.set(key, row)
    if (code && code !== entry?.code) {
      // Codes are each their own, whatever the rows are matched by.
      if (byCode.has(code)) wrong('code', 'Another entry has this code.')
      else if (codes.has(code)) wrong('code', `Row ${codes.get(code)} has this code, too.`)
      codes.set(code, row)
    }
    if (!entry && !record.name) wrong('name', 'There is no name.')
    if (!entry && record.cost === undefined && record.price === undefined)
      wrong('price', 'A new entry needs a cost or a price.')
    if (entry && record.kind && record.kind !== entry.kind)
      wrong('kind', 'The kind of an entry stays: documents were made with it.')
    const blank: EntryRecord = {
      code,
      kind: 'part',
      category: options.category,
      name: '',
      description: '',
      technicianNote: '',
      synonyms: '',
      unit: 'each',
      cost: '0',
      pricing: 'rule',
      price: '0',
      furtherPrice: null,
      seconds: 0,
      furtherSeconds: 0,
      labour: '',
      sundriesRate: null,
      supplier: options.supplier,
      partNumber: '',
      taxClass: options.taxClass,
      incomeCode: '',
      skills: [],
      pinned: false,
      activeFrom: null,
      activeTo: null,
      retired: false,
      inside: [],
    }
    const base: EntryRecord = entry ?? {
      ...blank,
      pricing: record.price !== undefined && record.pricing === undefined ? 'fixed' : 'rule',
    }
    const { code: _, ...rest } = record
    const becomes: EntryRecord = {
      ...base,
      ...rest,
      code,
      supplier: record.supplier ?? (options.by === 'part' ? supplier : base.supplier),
    }
    // A price that the list writes is meant, unless it says that the rule makes it.
    if (
      entry &&
      record.price !== undefined &&
      record.pricing === undefined &&
      !new Decimal(record.price).eq(entry.price)
    )
      becomes.pricing = 'fixed'
    if (becomes.kind !== 'task') becomes.furtherPrice = null
    // What the rule makes is not the list's to say; an assembly is what is inside it.
    if (becomes.pricing === 'rule')
      Object.assign(becomes, { price: base.price, furtherPrice: base.furtherPrice })
    if (becomes.kind === 'assembly')
      Object.assign(becomes, {
        cost: base.cost,
        price: base.price,
        seconds: base.seconds,
        furtherSeconds: base.furtherSeconds,
      })
    if (!options.taxClasses.has(becomes.taxClass))
      wrong('tax_class', `There is no tax class “${becomes.taxClass}”.`)
    if (becomes.activeFrom && becomes.activeTo && becomes.activeTo < becomes.activeFrom)
      wrong('active_to', 'It ends before it begins.')
    if (
      becomes.labour &&
      (byCode.get(becomes.labour)?.kind ?? coming.get(becomes.labour)) !== 'labour'
    )
      wrong('labour', `“${becomes.labour}” is none of our labour rates.`)
    if (becomes.kind === 'task' && becomes.pricing === 'rule' && !becomes.labour)
      wrong('labour', 'A task that is priced by the rule needs its labour rate.')
    if (becomes.inside.length && becomes.kind !== 'task' && becomes.kind !== 'assembly')
      wrong('inside', 'Only a task or an assembly has something inside.')
    if (becomes.kind === 'assembly' && !becomes.inside.length)
      wrong('inside', 'Put something into the assembly.')
    if (new Set(becomes.inside.map((p) => p.code)).size !== becomes.inside.length)
      wrong('inside', 'The same thing stands inside twice.')
    for (const p of becomes.inside) {
      const kind = coming.get(p.code) ?? byCode.get(p.code)?.kind
      if (!kind) wrong('inside', `“${p.code}” is not in the price book.`)
      else if (kind === 'assembly' || (becomes.kind === 'task' && kind !== 'part'))
        wrong('inside', `“${p.code}” cannot stand inside.`)
    }
    if (problems.length)
      return {
        ...shown,
        state: 'wrong',
        id: entry?.id ?? null,
        becomes: null,
        changed: [],
        problems,
      }
    const changed = entry
      ? (Object.keys(becomes) as (keyof EntryRecord)[]).filter(
          (k) => k in entry && !sameValue(k, entry[k], becomes[k]),
        )
      : []
    const known = changed.length ? 'changed' : 'same'
    return {
      ...shown,
      name: becomes.name,
      state: entry ? known : 'new',
      id: entry?.id ?? null,
      becomes,
      changed,
      problems,
    }
  })
  const named = new Set(planned.flatMap((p) => p.id ?? []))
  return {
    rows: planned,
    vanished: known.filter(
      (e) =>
        !e.retired &&
        !named.has(e.id) &&
        (options.by === 'part' ? e.supplier === options.supplier && e.partNumber !== '' : true),
    ),
  }
}
const AMOUNTS = new Set<keyof EntryRecord>(['cost', 'price', 'furtherPrice', 'sundriesRate'])
function sameValue(key: keyof EntryRecord, a: unknown, b: unknown): boolean {
  if (AMOUNTS.has(key) && typeof a === 'string' && typeof b === 'string')
    return new Decimal(a).eq(b)
  if (Array.isArray(a) && Array.isArray(b)) return sorted(a) === sorted(b)
  return a === b
}
const sorted = (list: unknown[]) =>
  JSON.stringify(
    list
      .map((v) =>
        typeof v === 'object' && v !== null && 'quantity' in v
          ? { ...v, quantity: new Decimal(String(v.quantity)).toString() }
          : v,
      )
      .map((v) => JSON.stringify(v, typeof v === 'object' && v ? Object.keys(v).sort() : undefined))
      .sort(),
  )

/**
 * Whether a list leaves out so much of what it should name that retiring the rest is asked once: more than ten entries and more than a
 * fifth (our own rule). A short list taken for the whole of it would empty the book.
 * @example leavesOutMuch({ vanished: 890, named: 12 }) // true
 * @example leavesOutMuch({ vanished: 30, named: 870 }) // false
 */
export const leavesOutMuch = ({ vanished, named }: { vanished: number; named: number }): boolean =>
  vanished > 10 && vanished * 5 > vanished + named
