// The customer's details as a work order keeps them from the day on which it was made.
import type { CopiedDetails, Details } from '../../core/customers/changedDetails'
import type { CustomerRow } from '../customers/queries'
import type { SiteRow } from '../customers/places.queries'

export const detailsOf = (c: CustomerRow, s: SiteRow): Details => ({
  name: c.name,
  phone: c.phone,
  phone2: c.phone2,
  email: c.email,
  email2: c.email2,
  billingLine1: c.line1,
  billingTown: c.town,
  billingPostcode: c.postcode,
  siteName: s.name,
  siteLine1: s.line1,
  siteTown: s.town,
  sitePostcode: s.postcode,
  accessNote: s.accessNote,
})
/** What a work order copies of them; an address that is still to follow is not kept as none. */
export function copyOf(c: CustomerRow, s: SiteRow): CopiedDetails {
  const { siteName, siteLine1, siteTown, sitePostcode, ...rest } = detailsOf(c, s)
  return siteLine1 || siteTown ? { ...rest, siteName, siteLine1, siteTown, sitePostcode } : rest
}
/** A work order's own copy, which everybody sees and which is printed; what an older one did not copy is as it is now. */
export const ownDetails = (
  work: { details: CopiedDetails },
  customer: CustomerRow,
  site: SiteRow,
): Details => ({ ...detailsOf(customer, site), ...work.details })
