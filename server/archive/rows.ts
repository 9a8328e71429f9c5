// A row of a table as a line of JSON, and back: the form that every program can read.
import { fieldOf, type Value } from '../db/pool'
import type { Kept } from './contents'
import type { Column } from './queries'
import { refusal } from './read'

/** A row by the names of the code. */
export type Row = Record<string, unknown>

/** Where the bytes of a row lie in the archive. */
export const fileOf = (table: string, id: string, ending: string): string =>
  `files/${table}/${id}.${ending}`

const ENDINGS: Readonly<Record<string, string>> = {
  'image/jpeg': 'jpg',
  'image/png': 'png',
  'image/webp': 'webp',
  'image/gif': 'gif',
  'application/pdf': 'pdf',
}
export const endingOf = (kind: string | null): string => ENDINGS[kind ?? ''] ?? 'bin'

/** A row as it is written: its bytes are the name of a file. */
export function written(row: Row, table: string, columns: readonly Column[], kept: Kept): Row {
  if (!kept.files && !kept.remade) return row
  const made: Row = { ...row }
  for (const { name } of columns) {
    const [field, file] = [fieldOf(name), kept.files?.[name]]
    if (kept.remade?.[name]) made[field] = Boolean(row[field])
    if (!file || !row[field]) continue
    const ending = 'ending' in file ? file.ending : endingOf(row[fieldOf(file.kindIn)] as string)
    made[field] = { file: fileOf(table, row.id as string, ending) }
  }
  return made
}

const isInstant = (type: string) => type === 'datetime' || type === 'timestamp'
const asSql = (value: string) => value.replace('T', ' ').replace('Z', '')
/** A value of a line as the database takes it. */
function taken(value: unknown, column: Column): Value {
  if (value === null || value === undefined) return null
  if (column.json) return JSON.stringify(value)
  if (typeof value === 'boolean') return Number(value)
  if (isInstant(column.type)) return asSql(String(value))
  if (typeof value === 'number' || typeof value === 'string') return value
  throw refusal(`A ${column.name} in it is of no kind that it may be. Nothing was taken in.`)
}
/** A line as a row to insert; `bytes` reads a file of the archive. */
export async function takenRow(
  row: Row,
  columns: readonly Column[],
  kept: Kept,
  bytes: (file: string) => Promise<Buffer>,
): Promise<Value[]> {
  const values: Value[] = []
  for (const column of columns) {
    const value = row[fieldOf(column.name)]
    const remake = kept.remade?.[column.name]
    if (remake) values.push(value ? remake(row) : null)
    else if (kept.files?.[column.name] && value && typeof value === 'object')
      values.push(await bytes((value as { file: string }).file))
    else values.push(taken(value, column))
  }
  return values
}

type JsonSchema = Record<string, unknown>
const NUMBERS: Readonly<Record<string, string>> = {
  ...{ tinyint: 'integer', smallint: 'integer', int: 'integer', bigint: 'integer' },
  ...{ double: 'number' },
}
const TEXTS: Readonly<Record<string, JsonSchema>> = {
  uuid: { type: 'string', format: 'uuid' },
  date: { type: 'string', format: 'date' },
  time: { type: 'string', pattern: '^\\d{2}:\\d{2}:\\d{2}' },
  datetime: { type: 'string', format: 'date-time' },
  decimal: { type: 'string', pattern: '^-?\\d+(\\.\\d+)?$' },
}
function kindOf({ name, type, full, json }: Column, kept: Kept): JsonSchema {
  if (kept.remade?.[name]) return { type: 'boolean', description: 'whether there is one' }
  if (kept.files?.[name])
    return { type: ['object', 'integer'], properties: { file: { type: 'string' } } }
  if (json) return {}
  if (full === 'tinyint(1)') return { type: 'boolean' }
  if (type === 'enum')
    return { enum: [...full.matchAll(/'((?:[^']|'')*)'/g)].map(([, value]) => value) }
  if (NUMBERS[type]) return { type: NUMBERS[type] }
  return TEXTS[type] ?? { type: 'string' }
}
const orNull = (schema: JsonSchema): JsonSchema =>
  Object.keys(schema).length ? { anyOf: [schema, { type: 'null' }] } : schema
/** What each line of a table is, as JSON Schema (draft 2020-12). */
export const schemaOf = (table: string, columns: readonly Column[], kept: Kept): JsonSchema => ({
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: table,
  type: 'object',
  additionalProperties: false,
  required: columns.map((c) => fieldOf(c.name)),
  properties: Object.fromEntries(
    columns.map((c) => {
      const kind = kindOf(c, kept)
      return [fieldOf(c.name), c.nullable ? orNull(kind) : kind]
    }),
  ),
})
