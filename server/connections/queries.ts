// SQL of the outside services that the firm names itself.
import type { ConnectionKind } from '../config'
import type { Tx } from '../db/pool'

export interface ConnectionRow {
  kind: ConnectionKind
  address: string
  user: string
  /** its secret, sealed; empty for none */
  sealed: string
  version: number
}
export const connectionRows = (tx: Tx) =>
  tx.rows<ConnectionRow>(
    `SELECT kind, address, user_name AS user, sealed, version FROM connections LIMIT 10`,
  )
export const putConnection = (tx: Tx, c: Omit<ConnectionRow, 'version'>) =>
  tx.run(
    `INSERT INTO connections (kind, address, user_name, sealed) VALUES (?, ?, ?, ?)
    ON DUPLICATE KEY UPDATE address = VALUES(address), user_name = VALUES(user_name), sealed = VALUES(sealed),
      version = version + 1`,
    [c.kind, c.address, c.user, c.sealed],
  )
