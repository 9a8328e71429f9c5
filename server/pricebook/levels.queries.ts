// SQL of the price levels.
import type { PriceLevel } from '../../core/pricebook/levelPrice'
import type { Tx } from '../db/pool'

export interface StoredLevel extends PriceLevel {
  kind: 'agreement' | 'trade'
}
export const putLevel = (tx: Tx, { id, name, kind, off }: StoredLevel) =>
  tx.run(
    `INSERT INTO price_levels (id, name, kind, off) VALUES (?, ?, ?, ?)
    ON DUPLICATE KEY UPDATE name = VALUES(name), kind = VALUES(kind), off = VALUES(off)`,
    [id, name, kind, JSON.stringify(off)],
  )
