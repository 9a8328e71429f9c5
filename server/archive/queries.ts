// SQL of the archive. What it asks for is made from the columns that the database says it has: no name in it comes from
// whoever asks.
import type { Tx, Value } from '../db/pool'
import type { Kept } from './contents'
import type { Row } from './rows'

export interface Column {
  name: string
  /** as information_schema calls it: `decimal`, `longtext` … */
  type: string
  /** with its length and values: `tinyint(1)`, `enum('a','b')` */
  full: string
  nullable: boolean
  key: boolean
  json: boolean
}
export interface TableColumns {
  table: string
  columns: Column[]
}
/** Every table with its columns in their order, less what the database works out by itself. */
export async function tablesWithColumns(tx: Tx): Promise<TableColumns[]> {
  const rows = await tx.rows<Omit<Column, 'json'> & { table: string; json: number }>(
    `SELECT c.table_name AS \`table\`, c.column_name AS name, c.data_type AS type, c.column_type AS \`full\`,
      c.is_nullable = 'YES' AS nullable, c.column_key = 'PRI' AS \`key\`,
      EXISTS(SELECT 1
        FROM information_schema.check_constraints k
        WHERE k.constraint_schema = c.table_schema AND k.table_name = c.table_name
          AND k.check_clause = CONCAT('json_valid(\`', c.column_name, '\`)')) AS json
    FROM information_schema.columns c
    JOIN information_schema.tables t ON t.table_schema = c.table_schema AND t.table_name = c.table_name
    WHERE c.table_schema = DATABASE() AND t.table_type = 'BASE TABLE' AND c.generation_expression IS NULL
    ORDER BY c.table_name, c.ordinal_position`,
  )
  const tables = new Map<string, Column[]>()
  for (const { table, ...column } of rows) {
    const columns = tables.get(table) ?? []
    columns.push({
      ...column,
      nullable: Boolean(column.nullable),
      key: Boolean(column.key),
      json: Boolean(column.json),
    })
    tables.set(table, columns)
  }
  return [...tables].map(([table, columns]) => ({ table, columns }))
}
export const lastMigration = async (tx: Tx): Promise<string> =>
  (await tx.row<{ name: string }>('SELECT MAX(name) AS name FROM schema_migrations'))!.name

const quoted = (name: string) => `\`${name}\``
const inOrder = (columns: readonly Column[]) =>
  columns
    .filter((c) => c.key)
    .map((c) => quoted(c.name))
    .join(', ')
/** How a column is read into a row: bytes only by their length, and of what is made anew whether there is one. */
function asked({ name }: Column, kept: Kept): string {
  if (kept.files?.[name]) return `LENGTH(${quoted(name)}) AS ${quoted(name)}`
  if (kept.remade?.[name]) return `${quoted(name)} IS NOT NULL AS ${quoted(name)}`
  return quoted(name)
}
/** The rows of a table, in the order of its key. */
export const eachRow = (tx: Tx, { table, columns }: TableColumns, kept: Kept): AsyncIterable<Row> =>
  tx.each<Row>(
    `SELECT ${columns.map((column) => asked(column, kept)).join(', ')}
    FROM ${quoted(table)}
    WHERE ${kept.where ?? 'TRUE'}
    ORDER BY ${inOrder(columns)}`,
  )
/** Which rows have bytes in a column, with what they are. */
export const rowsWithBytes = (
  tx: Tx,
  { table, column, kindIn }: { table: string; column: string; kindIn: string | null },
) =>
  tx.rows<{ id: string; kind: string | null }>(
    `SELECT id, ${kindIn ? quoted(kindIn) : 'NULL'} AS kind
    FROM ${quoted(table)}
    WHERE LENGTH(${quoted(column)}) > 0
    ORDER BY id`,
  )
export const bytesOf = async (tx: Tx, table: string, column: string, id: string): Promise<Buffer> =>
  (await tx.row<{ bytes: Buffer }>(
    `SELECT ${quoted(column)} AS bytes FROM ${quoted(table)} WHERE id = ?`,
    [id],
  ))!.bytes

/** What refers to what need not come in that order: whether all of it is there is looked at in the end. */
export const looseReferences = (tx: Tx, loose: boolean) =>
  tx.run(`SET SESSION foreign_key_checks = ${loose ? 0 : 1}`)
export const emptyTable = (tx: Tx, table: string) => tx.run(`DELETE FROM ${quoted(table)}`)
export const insertRows = (tx: Tx, table: string, columns: readonly Column[], rows: Value[][]) =>
  tx.many(
    `INSERT INTO ${quoted(table)} (${columns.map((c) => quoted(c.name)).join(', ')}) VALUES ?`,
    rows,
  )
export interface Reference {
  table: string
  column: string
  toTable: string
  toColumn: string
}
export const references = (tx: Tx) =>
  tx.rows<Reference>(
    `SELECT table_name AS \`table\`, column_name AS \`column\`, referenced_table_name AS to_table,
      referenced_column_name AS to_column
    FROM information_schema.key_column_usage
    WHERE table_schema = DATABASE() AND referenced_table_name IS NOT NULL
    ORDER BY table_name, column_name`,
  )
/** Whether a row refers to something that is not there. */
export const hasOrphan = async (tx: Tx, r: Reference): Promise<boolean> =>
  (await tx.row(
    `SELECT 1 AS yes
    FROM ${quoted(r.table)} a
    LEFT JOIN ${quoted(r.toTable)} b ON b.${quoted(r.toColumn)} = a.${quoted(r.column)}
    WHERE a.${quoted(r.column)} IS NOT NULL AND b.${quoted(r.toColumn)} IS NULL LIMIT 1`,
  )) !== null
export const customerIds = (tx: Tx) => tx.rows<{ id: string }>('SELECT id FROM customers')
export const hasTables = async (tx: Tx): Promise<boolean> =>
  (await tx.row(
    'SELECT 1 AS yes FROM information_schema.tables WHERE table_schema = DATABASE() LIMIT 1',
  )) !== null
