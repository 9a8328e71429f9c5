/**
 * The next value of some data, with every part that says the same as before being the very same object: what is drawn from such a part
 * is not drawn anew. Rows that have an `id` are compared with the row of that id, wherever it stands.
 * @example keepEqual(before, after) === before // when nothing changed
 */
export function keepEqual<T>(before: unknown, next: T): T {
  if (
    before === next ||
    typeof before !== 'object' ||
    typeof next !== 'object' ||
    before === null ||
    next === null ||
    Array.isArray(before) !== Array.isArray(next)
  )
    return next
  if (Array.isArray(next)) {
    const old = before as unknown[]
    const byId = new Map(old.flatMap((row) => (hasId(row) ? [[row.id, row] as const] : [])))
    const kept = next.map((row: unknown, i) =>
      keepEqual(hasId(row) ? byId.get(row.id) : old[i], row),
    )
    return (kept.length === old.length && kept.every((row, i) => row === old[i]) ? old : kept) as T
  }
  const old = before as Record<string, unknown>
  const entries = Object.entries(next).map(
    ([key, value]) => [key, keepEqual(old[key], value)] as const,
  )
  return (
    entries.length === Object.keys(old).length &&
    entries.every(([key, value]) => key in old && value === old[key])
      ? old
      : Object.fromEntries(entries)
  ) as T
}
const hasId = (row: unknown): row is { id: string } =>
  typeof row === 'object' && row !== null && 'id' in row && typeof row.id === 'string'
