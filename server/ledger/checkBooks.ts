// Proves that every sub-ledger agrees with the double-entry ledger.
import type { Tx } from '../db/pool'
import { CHECKS, runCheck } from './queries'

export async function checkBooks(
  tx: Tx,
): Promise<{ name: string; wrong: Record<string, unknown>[] }[]> {
  const results = []
  for (const { name, sql } of CHECKS) results.push({ name, wrong: await runCheck(tx, sql) })
  return results
}
