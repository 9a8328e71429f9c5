// SQL of the company's own row and of the counters.
import type { Terms } from '../../core/documents/dueDate'
import type { TaxMode, TaxRate } from '../../core/tax/taxTotals'
import type { Tx } from '../db/pool'

export interface Company {
  name: string, line1: string, town: string, postcode: string, phone: string, email: string, taxNumber: string, currency: string, locale: string, timeZone: string
  taxMode: TaxMode, terms: Terms, payTo: string, conditions: string, wording: Record<string, string>, yardLat: number | null, yardLon: number | null, demoDay: string | null
}
/** JSON columns arrive parsed or as text, by version of the server. */
export const json = <T>(value: unknown): T => (typeof value === 'string' ? JSON.parse(value) : value) as T

export async function getCompany(tx: Tx): Promise<Company | null> {
  const row = await tx.row<Company>(`SELECT name, line1, town, postcode, phone, email, tax_number AS taxNumber, currency, locale, time_zone AS timeZone, tax_mode AS taxMode, terms, pay_to AS payTo,
    conditions, wording, yard_lat AS yardLat, yard_lon AS yardLon, demo_day AS demoDay FROM company WHERE id = 1`)
  return row && { ...row, terms: json<Terms>(row.terms), wording: json<Record<string, string>>(row.wording) }
}
const PREFIX = { work_order: 'W-', invoice: 'I-', receipt: 'R-' } as const
/** The next human number; the row stays locked until the commit, so numbers have no gaps. */
export async function nextNumber(tx: Tx, kind: keyof typeof PREFIX): Promise<string> {
  const row = await tx.row<{ next: number }>('SELECT next_value AS next FROM counters WHERE kind = ? FOR UPDATE', [kind])
  await tx.run('UPDATE counters SET next_value = next_value + 1 WHERE kind = ?', [kind])
  return `${PREFIX[kind]}${row!.next}`
}
export async function taxClasses(tx: Tx): Promise<Map<string, TaxRate[]>> {
  const rows = await tx.rows<{ id: string, rates: unknown }>('SELECT id, rates FROM tax_classes')
  return new Map(rows.map(r => [r.id, json<TaxRate[]>(r.rates)]))
}
