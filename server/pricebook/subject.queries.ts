// SQL that what goes through all subjects runs for this one.
import type { Finding } from '../subject'

/** Entries that are in use, by words that begin theirs, and by their code. */
export const FINDING: Finding = {
  kind: 'price entry',
  sql: `SELECT 'price entry' AS kind, e.id, CONCAT(e.code, ' ', e.name) AS title, e.category AS detail
    FROM price_entries e
    WHERE e.id IN (SELECT id FROM (SELECT id FROM price_entries WHERE MATCH(code, name, synonyms,
      category) AGAINST (? IN BOOLEAN MODE) UNION SELECT id FROM price_entries WHERE code LIKE ?) f)
      AND NOT e.retired
    ORDER BY e.code LIMIT 4`,
  values: ({ words, number }) => [words, number],
  to: (id) => `/price-book/${id}`,
}
