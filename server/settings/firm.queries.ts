// SQL of who the firm is.
import type { Answer } from '../../shared/api'
import type { Tx } from '../db/pool'

export type FirmRow = Answer<'firm'>
export const firmRow = (tx: Tx, lock = false) =>
  tx.row<FirmRow>(
    `SELECT version, name, line1, town, postcode, phone, email, tax_number, terms, pay_to, conditions
    FROM company
    WHERE id = 1${lock ? ' FOR UPDATE' : ''}`,
  )
export const putFirm = (tx: Tx, f: FirmRow) =>
  tx.run(
    `UPDATE company
    SET name = ?, line1 = ?, town = ?, postcode = ?, phone = ?, email = ?, tax_number = ?,
      terms = ?, pay_to = ?, conditions = ?, version = version + 1
    WHERE id = 1`,
    [
      ...[f.name, f.line1, f.town, f.postcode, f.phone, f.email, f.taxNumber],
      ...[JSON.stringify(f.terms), f.payTo, f.conditions],
    ],
  )
