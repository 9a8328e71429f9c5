// The SQL that every list shares: the count, and the rows beyond the cursor in their order.
import { fieldOf, type Tx, type Value } from './pool'
import { byPieces, byWords, wordsOf, type Search, type Searched } from './search.queries'

export interface ListSql {
  select: string
  from: string
  /** what the count needs of `from`, where that is less */
  countFrom?: string
  where: string[]
  values: Value[]
  search?: Search | null
  /** the column sorted by, and the identifier that breaks ties */
  by: string
  id: string
  descending: boolean
  limit: number
  after: [string, string] | null
}

/** A page (one row more than the limit, to know whether another follows) with the total. Each row carries `key`, its place in the order. */
export async function listRows<R>(tx: Tx, list: ListSql): Promise<Page<R>> {
  const { search } = list
  if (!search?.q.trim()) return pageOf<R>(tx, list, ALL)
  if (!wordsOf(search.q).length) return pageOf<R>(tx, list, byPieces(search))
  const found = await pageOf<R>(tx, list, byWords(search, list.id))
  // Nothing begins with that: it may be a piece from within a word.
  return found.total > 0 ? found : pageOf<R>(tx, list, byPieces(search))
}
interface Page<R> {
  rows: (R & { key: string })[]
  total: number
}
/** What is looked through: with what is searched for, which may need more of `from` than the count does without. */
function lookedThrough(q: ListSql, { from, fromValues, where, values, wide }: Searched) {
  const countFrom = wide ? q.from : (q.countFrom ?? q.from)
  return {
    from: `${from}${q.from}`,
    countFrom: `${from}${countFrom}`,
    where: [...q.where, ...where].join(' AND ') || '1 = 1',
    values: [...fromValues, ...q.values, ...values],
  }
}
const ALL: Searched = { from: '', fromValues: [], where: [], values: [], wide: false }
async function pageOf<R>(tx: Tx, q: ListSql, searched: Searched): Promise<Page<R>> {
  const { from, countFrom, where, values } = lookedThrough(q, searched)
  const total = (await tx.row<{ n: number }>(
    `SELECT COUNT(*) AS n FROM ${countFrom} WHERE ${where}`,
    values,
  ))!.n
  if (total === 0) return { rows: [], total }
  const rest = q.after ? beyond(q, q.after) : { sql: '1 = 1', values: [] }
  const order = q.descending ? 'DESC' : 'ASC'
  const rows = await tx.rows<R & { key: string }>(
    `SELECT ${q.select}, ${q.by} AS \`key\`
    FROM ${from}
    WHERE ${where} AND ${rest.sql}
    ORDER BY ${q.by} ${order}, ${q.id} ${order} LIMIT ${q.limit + 1}`,
    [...values, ...rest.values],
  )
  return { rows, total }
}

/** Written so that MariaDB walks the index to the place: a comparison of rows, `(a, b) < (?, ?)`, reads it from its beginning. */
function beyond(q: ListSql, [value, last]: [string, string]): { sql: string; values: Value[] } {
  const than = q.descending ? '<' : '>'
  const at = /^\d{4}-\d{2}-\d{2}T[\d:.]+Z$/.test(value)
    ? value.replace('T', ' ').replace('Z', '')
    : value
  return {
    sql: `${q.by} ${than}= ? AND (${q.by} ${than} ? OR ${q.id} ${than} ?)`,
    values: [at, at, last],
  }
}

/** A list that can be read for itself, or beside others in one question. */
export interface ListIn {
  /** as they stand after SELECT: `a, site_id, b AS other, (…) AS third` */
  columns: string
  /** as it stands after FROM, with its conditions */
  from: string
  values: Value[]
  order: string
  limit?: number
  /** names of fields that are times, decimals, and true or false: JSON itself knows none of them */
  instants?: readonly string[]
  decimals?: readonly string[]
  booleans?: readonly string[]
}
/** What `columns` say, one by one, with their names. */
function columnsIn(columns: string): { name: string; sql: string }[] {
  const parts: string[] = ['']
  let depth = 0
  for (const sign of columns) {
    if (sign === '(') depth++
    if (sign === ')') depth--
    if (sign === ',' && depth === 0) parts.push('')
    else parts[parts.length - 1] += sign
  }
  return parts.map((part) => {
    const [, sql, name] = /^([\s\S]*?)(?:\sAS\s+`?(\w+)`?)?$/.exec(part.trim())!
    return { sql: sql!, name: fieldOf(name ?? sql!.split('.').at(-1)!) }
  })
}
function jsonValue({ instants, decimals, booleans }: ListIn, name: string, sql: string): string {
  if (instants?.includes(name)) return `CONCAT(REPLACE(${sql}, ' ', 'T'), 'Z')`
  if (decimals?.includes(name)) return `CAST(${sql} AS CHAR)`
  if (booleans?.includes(name)) return `JSON_EXTRACT(IF(${sql}, 'true', 'false'), '$')`
  return sql
}
function listSql(list: ListIn): string {
  const { columns, from, order, limit } = list
  const pairs = columnsIn(columns).map(({ name, sql }) => {
    return `'${name}', ${jsonValue(list, name, sql)}`
  })
  return `(SELECT JSON_ARRAYAGG(JSON_OBJECT(${pairs.join(', ')}) ORDER BY
      ${order}${limit ? ` LIMIT ${limit}` : ''}) FROM ${from})`
}
/** A list, read for itself. */
export const listOf = <T>(tx: Tx, { columns, from, values, order, limit }: ListIn): Promise<T[]> =>
  tx.rows<T>(
    `SELECT ${columns} FROM ${from} ORDER BY ${order}${limit ? ` LIMIT ${limit}` : ''}`,
    values,
  )
/** Several lists in one question: a screen that shows ten things need not ask ten times. */
export async function listsIn<T extends Record<string, object>>(
  tx: Tx,
  asked: { [K in keyof T]: ListIn },
): Promise<{ [K in keyof T]: T[K][] }> {
  const lists = Object.entries<ListIn>(asked)
  const row = await tx.row<Record<string, unknown>>(
    `SELECT ${lists.map(([name, list]) => `${listSql(list)} AS \`${name}\``).join(', ')}`,
    lists.flatMap(([, list]) => list.values),
  )
  return Object.fromEntries(lists.map(([name]) => [name, row![name] ?? []])) as {
    [K in keyof T]: T[K][]
  }
}
const AT_ONCE = 5_000
const BEFORE_ALL = '00000000-0000-0000-0000-000000000000'
/** Everything that is asked for by identifier after another, some thousands at once: one by one would take longer than looking at them. */
export async function* inThousands<T extends { id: string }>(
  ask: (after: string, limit: number) => Promise<T[]>,
): AsyncGenerator<T[]> {
  for (let after = BEFORE_ALL; ;) {
    const rows = await ask(after, AT_ONCE)
    yield rows
    if (rows.length < AT_ONCE) return
    after = rows.at(-1)!.id
  }
}
