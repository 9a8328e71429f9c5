// Keyset paging: the cursor is the last row's sort value and id, so a page costs the same however deep it is.
import { invalid, LedgerError } from '../../core/errors/LedgerError'

export function paging(
  query: { limit?: number | undefined; after?: string | undefined; sort?: string | undefined },
  sorts: readonly string[],
  fallback: string,
) {
  const sort = query.sort || fallback
  const name = sort.replace(/^-/, '')
  if (!sorts.includes(name))
    throw invalid('sort', `This list sorts by ${sorts.join(', ')}.`, 'unknown_sort')
  let after: [string, string] | null = null
  if (query.after) {
    try {
      const [value, id] = JSON.parse(
        Buffer.from(query.after, 'base64url').toString('utf8'),
      ) as unknown[]
      if ((typeof value !== 'string' && typeof value !== 'number') || typeof id !== 'string')
        throw new Error('shape')
      after = [String(value), id]
    } catch {
      throw new LedgerError('bad_cursor', 'This cursor was not made here.')
    }
  }
  return { sort: name, descending: sort.startsWith('-'), limit: query.limit ?? 50, after }
}
/** Cuts the extra row that was asked for, and makes the cursor of the next page from the last one kept. */
export function pageOf<R extends { id: string; key: string | number }, T>(
  rows: R[],
  total: number,
  limit: number,
  shape: (row: R) => T,
): { items: T[]; next: string | null; total: number } {
  const kept = rows.slice(0, limit)
  const last = kept.at(-1)
  return {
    items: kept.map(shape),
    next:
      rows.length > limit && last
        ? Buffer.from(JSON.stringify([last.key, last.id])).toString('base64url')
        : null,
    total,
  }
}
