// The customer's details as a work order keeps them from the day on which it was made.
import type { Details } from '../../core/customers/changedDetails'
import type { CustomerRow, SiteRow } from '../customers/queries'

export const detailsOf = (c: CustomerRow, s: SiteRow): Details => ({
  name: c.name,
  telephone: c.phone,
  'second telephone': c.phone2,
  'mail address': c.email,
  'second mail address': c.email2,
  'billing address': c.line1,
  'billing town': c.town,
  'billing postcode': c.postcode,
  site: s.name,
  'site address': s.line1,
  'site town': s.town,
  'site postcode': s.postcode,
  'access note': s.accessNote,
})
