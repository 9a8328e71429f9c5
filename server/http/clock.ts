// The one clock of the server. OPEN_LEDGER_NOW pins it: a local time, or file:PATH whose first line is one (so that a test can move it).
import { readFileSync } from 'node:fs'
import { localToInstant } from '../../core/time/zone'
import { config } from '../config'

export const clockFixed = (): boolean => Boolean(config.pinnedNow)
/** What a company's clock says: the pinned time, or the wall's; a demo's runs beside the wall's. */
export const companyNow = (company: { timeZone: string; clockOffsetMs: number }): number =>
  nowMs(company.timeZone) + (clockFixed() ? 0 : company.clockOffsetMs)
export function nowMs(zone: string): number {
  const pinned = config.pinnedNow
  if (!pinned) return Date.now()
  const local = pinned.startsWith('file:') ? readFileSync(pinned.slice(5), 'utf8').trim() : pinned
  const [date, time] = local.split('T')
  if (!date || !time)
    throw new Error(`OPEN_LEDGER_NOW is not a local time like 2026-11-24T10:21: ${local}`)
  return localToInstant(date, time, zone)
}
