// Where a write comes from. A cookie is sent by any page that the browser shows, so a browser's
// write must come from a page of our own; also where nobody is signed in yet.
import { getHeader, getRequestURL, type H3Event } from 'h3'
import { LedgerError } from '../../core/errors/LedgerError'

const hostOf = (origin: string): string | null =>
  URL.canParse(origin) ? new URL(origin).host : null

/** Browsers say where a request comes from, and scripts cannot change it; programs say nothing. */
function isForeign(event: H3Event): boolean {
  const site = getHeader(event, 'Sec-Fetch-Site')
  if (site && site !== 'same-origin' && site !== 'none') return true
  const origin = getHeader(event, 'Origin')
  if (!origin || site === 'same-origin') return false
  return hostOf(origin) !== getRequestURL(event).host
}
export function refuseForeign(event: H3Event): void {
  if (isForeign(event)) throw new LedgerError('foreign_origin', 'This was sent from another site.')
}
/** A page of another site can send forms and plain text without asking us first, but no JSON. */
export function refuseForms(event: H3Event): void {
  const type = getHeader(event, 'Content-Type')
  if (type && !/^application\/(?:[\w.+-]+\+)?json\b/i.test(type)) {
    throw new LedgerError('wrong_kind', 'This address takes JSON (Content-Type: application/json).')
  }
}
