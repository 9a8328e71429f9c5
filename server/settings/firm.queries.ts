// SQL of who the firm is.
import type { Answer } from '../../shared/api'
import { sqlInstant, type Tx } from '../db/pool'

export type FirmRow = Omit<Answer<'firm'>, 'timeZones'>
export const firmRow = (tx: Tx, lock = false) =>
  tx.row<FirmRow>(
    `SELECT version, name, legal_name, registration, payee, bank, iban, bic, cheque_name, logo_id, line1, town, postcode, phone, email, tax_number, terms, pay_to, conditions, quote_days,
      locale, time_zone, tax_mode, currency
    FROM company
    WHERE id = 1${lock ? ' FOR UPDATE' : ''}`,
  )
/** Whatever is looked at before it is written, and is nobody's row, is done by one at a time. */
export const lockFirm = (tx: Tx) => tx.row('SELECT id FROM company WHERE id = 1 FOR UPDATE')
export const putFirm = (tx: Tx, f: FirmRow) =>
  tx.run(
    `UPDATE company
    SET name = ?, legal_name = ?, registration = ?, payee = ?, bank = ?, iban = ?, bic = ?,
      cheque_name = ?, logo_id = ?, line1 = ?, town = ?, postcode = ?, phone = ?, email = ?, tax_number = ?,
      terms = ?, pay_to = ?, conditions = ?, quote_days = ?, locale = ?, time_zone = ?, tax_mode = ?, version = version + 1
    WHERE id = 1`,
    [
      ...[f.name, f.legalName, f.registration, f.payee, f.bank, f.iban, f.bic],
      ...[f.chequeName, f.logoId, f.line1, f.town, f.postcode, f.phone, f.email, f.taxNumber],
      ...[JSON.stringify(f.terms), f.payTo, f.conditions, f.quoteDays],
      ...[f.locale, f.timeZone, f.taxMode],
    ],
  )
/** Whether anybody was told a price yet. */
export const hasTold = async (tx: Tx): Promise<boolean> =>
  (await tx.row(
    `SELECT 1 AS yes FROM company
    WHERE EXISTS (SELECT 1 FROM quotes) OR EXISTS (SELECT 1 FROM work_lines) OR EXISTS (SELECT 1 FROM invoices WHERE import_id IS NULL)`,
  )) !== null
export const insertLogo = (tx: Tx, logo: { id: string; mime: string; bytes: Buffer; at: number }) =>
  tx.run('INSERT INTO logos (id, mime, bytes, made_at) VALUES (?, ?, ?, ?)', [
    logo.id,
    logo.mime,
    logo.bytes,
    sqlInstant(logo.at),
  ])
export const logoById = (tx: Tx, id: string) =>
  tx.row<{ mime: string; bytes: Buffer }>('SELECT mime, bytes FROM logos WHERE id = ?', [id])
