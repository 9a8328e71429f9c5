// SQL of the classes of taxes.
import type { KeptRate } from '../../core/tax/ratesOn'
import type { TaxedAs } from '../../core/pricebook/usualTaxClass'
import type { Tx } from '../db/pool'

export interface NamedTaxClass {
  id: string
  name: string
  usualFor: TaxedAs | null
  rates: KeptRate[]
}
export const taxClassRows = (tx: Tx) =>
  tx.rows<NamedTaxClass>(
    `SELECT id, name, usual_for, rates FROM tax_classes ORDER BY name LIMIT 50`,
  )
export const putTaxClass = (tx: Tx, c: NamedTaxClass) =>
  tx.run(
    `INSERT INTO tax_classes (id, name, usual_for, rates) VALUES (?, ?, ?, ?)
    ON DUPLICATE KEY UPDATE name = VALUES(name), rates = VALUES(rates)`,
    [c.id, c.name, c.usualFor, JSON.stringify(c.rates)],
  )
