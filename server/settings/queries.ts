// SQL of the company's own row.
import type { BilledTime } from '../../core/hours/billedTime'
import type { Phrases } from '../../core/settings/phrases'
import type { KeptKind, WorkKind } from '../../core/visits/workKinds'
import type { Limits } from '../../core/access/limits'
import type { Grants } from '../../core/access/permissions'
import type { OwnRole } from '../../core/access/ownRoles'
import type { Terms } from '../../core/documents/dueDate'
import { ratesOn, type KeptRate, type Supplied } from '../../core/tax/ratesOn'
import type { TaxMode, TaxRate } from '../../core/tax/taxTotals'
import type { TaxedAs } from '../../core/pricebook/usualTaxClass'
import type { Tx } from '../db/pool'
import { listOf, type ListIn } from '../db/queries'

export interface Company {
  name: string
  line1: string
  town: string
  postcode: string
  phone: string
  email: string
  taxNumber: string
  currency: string
  locale: string
  timeZone: string
  taxMode: TaxMode
  terms: Terms
  payTo: string
  legalName: string
  registration: string
  payee: string
  bank: string
  iban: string
  bic: string
  chequeName: string
  logoId: string | null
  conditions: string
  wording: Record<string, string>
  yardLat: number | null
  yardLon: number | null
  demoDay: string | null
  /** how far a demo's own clock is from the wall's */ clockOffsetMs: number
  country: string
  /** the drive to the first visit and the one home are not working time */ drivesOutside: boolean
  /** from then on, what was planned for the day and not begun waits for another time; HH:MM */
  closesAt: string
  sources: string[]
  /** its own kinds of work, in their order */
  workKinds: KeptKind[]
  /** what it writes often, where that is not the usual */
  phrases: Phrases
  billedTime: BilledTime
  /** how long the firm stands for what it supplied; 0 where it says nothing of it */
  warrantyMonths: number
  /** how long the price of a quote is held where nobody says otherwise */
  quoteDays: number
  stateLabels: Record<string, string>
  visitMessages: { confirmation?: boolean; eve?: boolean; onWay?: boolean }
  /** where the owner says otherwise than is usual */
  limits: Partial<Record<string, Limits>>
  grants: Grants
  /** roles of its own, which grants and limits name by their codes */
  ownRoles: OwnRole[]
}
/** Who may do what, and how far. */
export type Rights = Pick<Company, 'limits' | 'grants' | 'ownRoles'>

export async function getCompany(tx: Tx): Promise<Company | null> {
  const row =
    await tx.row<Company>(`SELECT name, line1, town, postcode, phone, email, tax_number, currency,
        legal_name, registration, payee, bank, iban, bic, cheque_name, logo_id,
        locale, time_zone, tax_mode, terms, pay_to, conditions, wording, yard_lat, yard_lon,
        quote_days, demo_day, clock_offset_ms, country, drives_outside, LEFT(closes_at, 5) AS closesAt, sources, work_kinds, phrases, billed_time, warranty_months, state_labels, visit_messages,
        limits, grants, own_roles
      FROM company
      WHERE id = 1`)
  return row
}
export interface TaxClassRow {
  id: string
  rates: KeptRate[]
  /** what usually has it, where the firm says so */
  usualFor: TaxedAs | null
}
export const taxClassesIn: ListIn = {
  columns: 'id, rates, usual_for',
  from: 'tax_classes',
  values: [],
  order: 'id',
}
/** The rates of each class that hold then and there. */
export const ratesByClass = (
  rows: readonly TaxClassRow[],
  supplied: Supplied,
): Map<string, TaxRate[]> => new Map(rows.map((r) => [r.id, ratesOn(r.rates, supplied)]))
export const usualTaxClasses = (tx: Tx) => listOf<TaxClassRow>(tx, taxClassesIn)
export const taxClasses = async (tx: Tx, supplied: Supplied) =>
  ratesByClass(await usualTaxClasses(tx), supplied)
export const taxClassNames = (tx: Tx) =>
  tx.rows<Pick<TaxClassRow, 'id' | 'usualFor'> & { name: string }>(
    'SELECT id, name, usual_for FROM tax_classes ORDER BY name LIMIT 50',
  )
export interface TerritoryRow {
  id: string
  name: string
  postcodes: string[]
}
export const territoriesIn: ListIn = {
  columns: 'id, name, postcodes',
  from: 'territories',
  values: [],
  order: 'name',
  limit: 200,
}
export const territories = async (tx: Tx) => listOf<TerritoryRow>(tx, territoriesIn)
export interface QuestionRow {
  id: string
  text: string
  kind: 'yes_no' | 'text' | 'choice'
  choices: string[]
  retired: boolean
}
export const questions = async (tx: Tx): Promise<QuestionRow[]> =>
  tx.rows<QuestionRow>(
    'SELECT id, text, kind, choices, retired FROM call_questions ORDER BY position, text LIMIT 100',
  )
/** A new one comes last. */
export const putQuestion = (
  tx: Tx,
  q: {
    id: string
    text: string
    kind: string
    choices: string[]
    retired: boolean
  },
) =>
  tx.run(
    `INSERT INTO call_questions (id, text, kind, choices, position, retired)
    SELECT ?, ?, ?, ?, n.next, ?
    FROM (SELECT COALESCE(MAX(position) + 1, 0) AS next FROM call_questions) n
    ON DUPLICATE KEY UPDATE text = VALUES(text), choices = VALUES(choices),
      retired = VALUES(retired)`,
    [q.id, q.text, q.kind, JSON.stringify(q.choices), q.retired],
  )
export interface FieldRow {
  id: string
  subject: 'customer' | 'site' | 'work_order' | 'invoice'
  name: string
  kind: 'text' | 'number' | 'date' | 'choice' | 'yes_no'
  choices: string[]
  retired: boolean
}
export const customFieldsIn: ListIn = {
  columns: 'id, subject, name, kind, choices, retired',
  from: 'custom_fields',
  values: [],
  order: 'subject, position, name',
  limit: 200,
  booleans: ['retired'],
}
export const customFields = async (tx: Tx): Promise<FieldRow[]> =>
  listOf<FieldRow>(tx, customFieldsIn)
/** A new one comes last. */
export const putField = (
  tx: Tx,
  f: {
    id: string
    subject: string
    name: string
    kind: string
    choices: string[]
    retired: boolean
  },
) =>
  tx.run(
    `INSERT INTO custom_fields (id, subject, name, kind, choices, position, retired)
    SELECT ?, ?, ?, ?, ?, n.next, ?
    FROM (SELECT COALESCE(MAX(position) + 1, 0) AS next FROM custom_fields) n
    ON DUPLICATE KEY UPDATE name = VALUES(name), choices = VALUES(choices),
      retired = VALUES(retired)`,
    [f.id, f.subject, f.name, f.kind, JSON.stringify(f.choices), f.retired],
  )
/** The firm's own lists of words, held until they are changed. */
export const wordsOfFirm = async (tx: Tx): Promise<Pick<Company, 'sources' | 'stateLabels'>> =>
  (await tx.row<Pick<Company, 'sources' | 'stateLabels'>>(
    'SELECT sources, state_labels FROM company WHERE id = 1 FOR UPDATE',
  ))!
export const putStateLabels = (tx: Tx, labels: Record<string, string>) =>
  tx.run('UPDATE company SET state_labels = ?, version = version + 1', [JSON.stringify(labels)])
export const putVisitMessages = (
  tx: Tx,
  messages: Company['visitMessages'],
  wording: Record<string, string>,
) =>
  tx.run('UPDATE company SET visit_messages = ?, wording = ?, version = version + 1', [
    JSON.stringify(messages),
    JSON.stringify(wording),
  ])
export const setWording = (tx: Tx, wording: Record<string, string>) =>
  tx.run('UPDATE company SET wording = ?, version = version + 1', [JSON.stringify(wording)])
export const setClosesAt = (tx: Tx, at: string) =>
  tx.run('UPDATE company SET closes_at = ?, version = version + 1', [at])
export const putYard = (tx: Tx, yard: { lat: number; lon: number } | null) =>
  tx.run('UPDATE company SET yard_lat = ?, yard_lon = ?, version = version + 1', [
    ...[yard?.lat ?? null, yard?.lon ?? null],
  ])
export const setDrivesOutside = (tx: Tx, outside: boolean) =>
  tx.run('UPDATE company SET drives_outside = ?, version = version + 1', [outside])
export const setClockOffset = (tx: Tx, ms: number) =>
  tx.run('UPDATE company SET clock_offset_ms = ?, version = version + 1', [ms])
export const putSources = (tx: Tx, sources: string[]) =>
  tx.run('UPDATE company SET sources = ?, version = version + 1', [JSON.stringify(sources)])
export const putWorkKinds = (tx: Tx, kinds: readonly WorkKind[]) =>
  tx.run('UPDATE company SET work_kinds = ?, version = version + 1', [JSON.stringify(kinds)])
export const putPhrases = (tx: Tx, phrases: Phrases) =>
  tx.run('UPDATE company SET phrases = ?, version = version + 1', [JSON.stringify(phrases)])
export const putBilledTime = (tx: Tx, time: BilledTime) =>
  tx.run('UPDATE company SET billed_time = ?, version = version + 1', [JSON.stringify(time)])
export const putWarranty = (tx: Tx, months: number) =>
  tx.run('UPDATE company SET warranty_months = ?, version = version + 1', [months])
/** Who may do what and how far, held until it is changed. */
export const rightsOfFirm = async (tx: Tx) =>
  (await tx.row<Rights>('SELECT limits, grants, own_roles FROM company WHERE id = 1 FOR UPDATE'))!
export const putRights = (tx: Tx, { limits, grants, ownRoles }: Rights) =>
  tx.run('UPDATE company SET limits = ?, grants = ?, own_roles = ?, version = version + 1', [
    ...[limits, grants, ownRoles].map((part) => JSON.stringify(part)),
  ])
/** Who has a role of the firm's own, and is still here; they are held until it is decided what becomes of it. */
export const peopleWithRole = (tx: Tx, code: string) =>
  tx.rows<{ name: string }>(
    'SELECT name FROM people WHERE own_role = ? AND active ORDER BY name LIMIT 5 FOR UPDATE',
    [code],
  )
/** Whoever left had it; they come back as what it began as. */
export const forgetRole = (tx: Tx, code: string) =>
  tx.run('UPDATE people SET own_role = NULL, version = version + 1 WHERE own_role = ?', [code])
