// SQL of what was set up, as the history keeps it.
import { placeholders, type Tx } from '../db/pool'

export interface SettingEntry {
  id: number
  code: string
  data: Record<string, unknown> | null
}
export const settingEntries = (tx: Tx, ids: readonly number[]) =>
  tx.rows<SettingEntry>(`SELECT id, code, data FROM trail WHERE id IN (${placeholders(ids)})`, [
    ...ids,
  ])
