// SQL of a firm that begins: its row before anybody is there, and what the first owner says of it.
import type { TaxMode } from '../../core/tax/taxTotals'
import type { Tx } from '../db/pool'

/** A firm of which nothing is known yet. */
export const insertBlankFirm = (tx: Tx) =>
  tx.run(
    `INSERT IGNORE INTO company (id, name, terms, pay_to, conditions, wording, visit_messages, sources)
    VALUES (1, '', '{"kind":"days","days":15}', '', '', '{}', '{"confirmation":true,"eve":true,"onWay":true}', '[]')`,
  )
export const putBegun = (
  tx: Tx,
  f: {
    name: string
    country: string
    currency: string
    locale: string
    timeZone: string
    taxMode: TaxMode
  },
) =>
  tx.run(
    `UPDATE company
    SET name = ?, country = ?, currency = ?, locale = ?, time_zone = ?, tax_mode = ?, version = version + 1
    WHERE id = 1`,
    [f.name, f.country, f.currency, f.locale, f.timeZone, f.taxMode],
  )
export const hasPeople = async (tx: Tx): Promise<boolean> =>
  (await tx.row('SELECT 1 AS yes FROM people LIMIT 1')) !== null
export const someoneSignsIn = async (tx: Tx): Promise<boolean> =>
  (await tx.row("SELECT 1 AS yes FROM people WHERE password_hash <> '' AND active LIMIT 1")) !==
  null
