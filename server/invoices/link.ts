// The customer's private page of an invoice.
import { DAY } from '../../core/time/units'
import { hashToken, linkToken } from '../access/session'
import { config } from '../config'
import type { InvoiceRow } from './queries'

/** A customer's link holds a little over a year. */
export const LINK_MS = 400 * DAY

/** Where the customer reads it; empty once the link was withdrawn. */
export const publicLink = (i: Pick<InvoiceRow, 'id' | 'linkTurn' | 'linkUntil'>): string =>
  i.linkUntil ? `${config.publicUrl}/i/${linkToken('invoice', i.id, i.linkTurn)}` : ''
/** What of an invoice’s address is kept. */
export const invoiceLinkHash = (id: string, linkTurn: number): string =>
  hashToken(linkToken('invoice', id, linkTurn))
