// SQL of the tables that can be taken along.
import type { Tx } from '../db/pool'
import type { Export } from '../subject'

export const rowsFor = (tx: Tx, what: Export) =>
  tx.each<Record<string, string | number | null>>(what.sql)
