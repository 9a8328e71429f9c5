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

export interface ReadRow {
  row: number
  record: Partial<EntryRecord>
  problems: RowProblem[]
}
type Say = (field: RowProblem['field'], message: string) => void
const partKey = (supplier: string, part: string) => `${supplier}\u0000${part.toLowerCase()}`

/** What the rows of a list are compared with: the book, what the list itself brings, and the rows before. */
interface Around {
  options: ImportOptions
  byCode: ReadonlyMap<string, KnownEntry>
  byPart: ReadonlyMap<string, KnownEntry>
  /** kinds by code: a task may have a part inside that the same list brings */
  coming: ReadonlyMap<string, EntryRecord['kind']>
  /** rows by the entry that they are about, and by the code that they bring */
  seen: Map<string, number>
  codes: Map<string, number>
}
function around(
  rows: readonly ReadRow[],
  known: readonly KnownEntry[],
  options: ImportOptions,
): Around {
  const byCode = new Map(known.map((e) => [e.code, e]))
  const numbered = known.filter((e) => e.partNumber)
  const coded = rows.filter((r) => r.record.code)
  const kindOf = ({ code, kind }: Partial<EntryRecord>) =>
    kind ?? byCode.get(code!)?.kind ?? ('part' as const)
  return {
    options,
    byCode,
    byPart: new Map(numbered.map((e) => [partKey(e.supplier, e.partNumber), e])),
    coming: new Map(coded.map(({ record }) => [record.code!, kindOf(record)])),
    seen: new Map(),
    codes: new Map(),
  }
}
const supplierOf = (record: Partial<EntryRecord>, { options }: Around): string =>
  record.supplier ?? options.supplier
/** The entry that a row is about, if the book has it. */
function entryOf(record: Partial<EntryRecord>, list: Around): KnownEntry | undefined {
  if (list.options.by === 'code') return list.byCode.get(record.code ?? '')
  const { partNumber } = record
  return partNumber ? list.byPart.get(partKey(supplierOf(record, list), partNumber)) : undefined
}
/** Its code: the list's, the book's, or one made of the supplier's part number. */
function codeOf(record: Partial<EntryRecord>, entry: KnownEntry | undefined, list: Around): string {
  const CODE_LONGEST = 24
  const fromPart =
    list.options.by === 'part' ? record.partNumber?.slice(0, CODE_LONGEST) : undefined
  return record.code ?? entry?.code ?? fromPart ?? ''
}
/** Of two rows about one entry the second is wrong. */
function checkIdentity({ row, record }: ReadRow, code: string, list: Around, wrong: Say): void {
  const { by } = list.options
  const key = by === 'code' ? code : partKey(supplierOf(record, list), record.partNumber ?? '')
  const before = list.seen.get(key)
  if (by === 'part' && !record.partNumber) wrong('part_number', 'There is no part number.')
  else if (!code) wrong('code', 'There is no code.')
  else if (before !== undefined)
    wrong(by === 'code' ? 'code' : 'part_number', `Row ${before} is about the same entry.`)
  else list.seen.set(key, row)
}
/** Codes are each their own, whatever the rows are matched by. */
function checkCode(row: number, code: string, list: Around, wrong: Say): void {
  if (list.byCode.has(code)) wrong('code', 'Another entry has this code.')
  else if (list.codes.has(code)) wrong('code', `Row ${list.codes.get(code)} has this code, too.`)
  list.codes.set(code, row)
}
function checkSaid(record: Partial<EntryRecord>, entry: KnownEntry | undefined, wrong: Say): void {
  if (!entry && !record.name) wrong('name', 'There is no name.')
  if (!entry && record.cost === undefined && record.price === undefined)
    wrong('price', 'A new entry needs a cost or a price.')
  if (entry && record.kind && record.kind !== entry.kind)
    wrong('kind', 'The kind of an entry stays: documents were made with it.')
}
const blank = ({ category, supplier, taxClass }: ImportOptions): EntryRecord => ({
  code: '',
  kind: 'part',
  category,
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
  supplier,
  partNumber: '',
  taxClass,
  incomeCode: '',
  skills: [],
  pinned: false,
  activeFrom: null,
  activeTo: null,
  retired: false,
  inside: [],
})
/** How its price is made: a price that the list writes is meant, unless it says that the rule makes it. */
function pricingOf(
  record: Partial<EntryRecord>,
  entry: KnownEntry | undefined,
): EntryRecord['pricing'] {
  if (record.pricing !== undefined) return record.pricing
  if (record.price === undefined) return entry?.pricing ?? 'rule'
  return entry && new Decimal(record.price).eq(entry.price) ? entry.pricing : 'fixed'
}
/** The entry as it would be. What the rule makes is not the list's to say; an assembly is what is inside it. */
function becoming(
  record: Partial<EntryRecord>,
  entry: KnownEntry | undefined,
  code: string,
  list: Around,
): EntryRecord {
  const { options } = list
  const base: EntryRecord = entry ?? blank(options)
  const pricing = pricingOf(record, entry)
  const supplier = options.by === 'part' ? supplierOf(record, list) : base.supplier
  const becomes: EntryRecord = {
    ...base,
    ...record,
    code,
    pricing,
    supplier: record.supplier ?? supplier,
  }
  if (becomes.kind !== 'task') becomes.furtherPrice = null
  if (pricing === 'rule')
    Object.assign(becomes, { price: base.price, furtherPrice: base.furtherPrice })
  if (becomes.kind !== 'assembly') return becomes
  const { cost, price, seconds, furtherSeconds } = base
  return { ...becomes, cost, price, seconds, furtherSeconds }
}
function checkEntry(becomes: EntryRecord, list: Around, wrong: Say): void {
  const { taxClass, activeFrom, activeTo, labour, kind, pricing } = becomes
  const kindOfLabour = list.byCode.get(labour)?.kind ?? list.coming.get(labour)
  if (!list.options.taxClasses.has(taxClass))
    wrong('tax_class', `There is no tax class “${taxClass}”.`)
  if (activeFrom && activeTo && activeTo < activeFrom)
    wrong('active_to', 'It ends before it begins.')
  if (labour && kindOfLabour !== 'labour')
    wrong('labour', `“${labour}” is none of our labour rates.`)
  if (kind === 'task' && pricing === 'rule' && !labour)
    wrong('labour', 'A task that is priced by the rule needs its labour rate.')
}
function checkInside({ inside, kind }: EntryRecord, list: Around, wrong: Say): void {
  const holds = kind === 'task' || kind === 'assembly'
  if (inside.length && !holds) wrong('inside', 'Only a task or an assembly has something inside.')
  if (kind === 'assembly' && !inside.length) wrong('inside', 'Put something into the assembly.')
  if (new Set(inside.map((p) => p.code)).size !== inside.length)
    wrong('inside', 'The same thing stands inside twice.')
  for (const { code } of inside) {
    const fault = faultOfPart(code, kind, list)
    if (fault) wrong('inside', fault)
  }
}
/** Why something cannot stand inside, or nothing. */
function faultOfPart(code: string, kind: EntryRecord['kind'], list: Around): string {
  const within = list.coming.get(code) ?? list.byCode.get(code)?.kind
  if (!within) return `“${code}” is not in the price book.`
  const wrong = within === 'assembly' || (kind === 'task' && within !== 'part')
  return wrong ? `“${code}” cannot stand inside.` : ''
}
const changedKeys = (entry: KnownEntry, becomes: EntryRecord) =>
  (Object.keys(becomes) as (keyof EntryRecord)[]).filter(
    (key) => key in entry && !sameValue(key, entry[key], becomes[key]),
  )
function plannedRow(read: ReadRow, list: Around): PlannedRow {
  const { row, record } = read
  const problems = [...read.problems]
  const wrong: Say = (field, message) => problems.push({ field, message })
  const entry = entryOf(record, list)
  const code = codeOf(record, entry, list)
  checkIdentity(read, code, list, wrong)
  if (code && code !== entry?.code) checkCode(row, code, list, wrong)
  checkSaid(record, entry, wrong)
  const becomes = becoming(record, entry, code, list)
  checkEntry(becomes, list, wrong)
  checkInside(becomes, list, wrong)
  const shown = { row, code, id: entry?.id ?? null, problems }
  if (!problems.length) return { ...shown, name: becomes.name, ...outcome(entry, becomes) }
  const name = record.name ?? entry?.name ?? ''
  return { ...shown, name, state: 'wrong', becomes: null, changed: [] }
}
/** What a row that is right does: something new, a change, or nothing. */
function outcome(entry: KnownEntry | undefined, becomes: EntryRecord) {
  if (!entry) return { state: 'new' as const, becomes, changed: [] }
  const changed = changedKeys(entry, becomes)
  return { state: changed.length ? ('changed' as const) : ('same' as const), becomes, changed }
}

/**
 * What a list would do to the book: each row is new, changes an entry, says nothing new, or is wrong. A wrong row takes nothing else with
 * it. Rows are matched by our code, or by supplier and part number; of two rows about one entry the second is wrong. What a row does not
 * say stays as it is. A further price is kept for tasks only.
 * @example importPlan([{ row: 2, record: { partNumber: 'NM-7', cost: '12' }, problems: [] }], known, { by: 'part', supplier: 'Northmoor', … }).rows[0]?.state // 'changed'
 */
export function importPlan(
  rows: readonly ReadRow[],
  known: readonly KnownEntry[],
  options: ImportOptions,
): ImportPlan {
  const list = around(rows, known, options)
  const planned = rows.map((read) => plannedRow(read, list))
  const named = new Set(planned.flatMap((p) => p.id ?? []))
  const theirs = (e: KnownEntry) =>
    options.by === 'code' || (e.supplier === options.supplier && e.partNumber !== '')
  return {
    rows: planned,
    vanished: known.filter((e) => !e.retired && !named.has(e.id) && theirs(e)),
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
