// The customer's private page of a quote: where it is.
import { hashToken, linkToken } from '../access/session'
import { config } from '../config'
import type { QuoteRow } from './queries'

/** What of a quote's address is kept. */
export const linkHash = (id: string): string => hashToken(linkToken('quote', id))
/** Where the customer reads a quote; empty while there is nothing to read. */
export const quoteLink = ({ id, hasLink }: Pick<QuoteRow, 'id' | 'hasLink'>): string =>
  hasLink ? `${config.publicUrl}/q/${linkToken('quote', id)}` : ''
