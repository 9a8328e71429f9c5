// SQL of what stands inside tasks and assemblies.
import type { EntryKind } from '../../core/pricebook/kinds'
import { placeholders, type Tx } from '../db/pool'

/** What is inside entries: which part, how many, at what price. */
export const partsInside = (tx: Tx, entryIds: string[]) =>
  tx.rows<{
    entryId: string
    partId: string
    code: string
    name: string
    quantity: string
    price: string
    furtherPrice: string | null
    cost: string
    kind: EntryKind
    retired: boolean
  }>(
    `SELECT ep.entry_id, ep.part_id, p.code, p.name, ep.quantity, p.price, p.further_price, p.cost,
      p.kind, p.retired
    FROM price_entry_parts ep
    JOIN price_entries p ON p.id = ep.part_id
    WHERE ep.entry_id IN (${placeholders(entryIds)})
    ORDER BY p.kind, p.code`,
    entryIds,
  )
export const allPartsInside = (tx: Tx) =>
  tx.rows<{ entryId: string; partId: string; quantity: string }>(
    `SELECT ep.entry_id, ep.part_id, ep.quantity
    FROM price_entry_parts ep
    JOIN price_entries p ON p.id = ep.part_id
    ORDER BY p.kind, p.code LIMIT 200000`,
  )
/** What is inside some entries, instead of what was. */
export async function setPartsInside(
  tx: Tx,
  entryIds: readonly string[],
  parts: readonly { entryId: string; partId: string; quantity: string }[],
): Promise<void> {
  for (let i = 0; i < entryIds.length; i += 1000)
    await tx.run(
      `DELETE FROM price_entry_parts WHERE entry_id IN (${placeholders(entryIds.slice(i, i + 1000))})`,
      entryIds.slice(i, i + 1000),
    )
  if (parts.length)
    await tx.many(
      'INSERT INTO price_entry_parts (entry_id, part_id, quantity) VALUES ?',
      parts.map((p) => [p.entryId, p.partId, p.quantity]),
    )
}
export const entriesWith = (tx: Tx, partId: string) =>
  tx.rows<{ id: string; code: string; name: string; quantity: string }>(
    `SELECT e.id, e.code, e.name, ep.quantity
    FROM price_entry_parts ep
    JOIN price_entries e ON e.id = ep.entry_id
    WHERE ep.part_id = ? AND NOT e.retired
    ORDER BY e.code LIMIT 50`,
    [partId],
  )
