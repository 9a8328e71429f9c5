// Customers, sites and contacts in open formats.
import { writeCsv } from '../../core/formats/csv'
import { writeVcf, type Card } from '../../core/formats/vcf'
import type { Ctx } from '../http/context'
import { Raw } from '../http/route'
import { customFields } from '../settings/queries'
import { contactsForExport, customersForExport, sitesForExport } from './queries'

/** With the firm's own fields as further columns. The headings are those that an import understands. */
export async function customerCsv(ctx: Ctx, what: 'customers' | 'sites'): Promise<Raw> {
  const fields = (await customFields(ctx.tx)).filter(f => f.subject === (what === 'customers' ? 'customer' : 'site'))
  const own = (custom: Record<string, string>) => fields.map(f => custom[f.id] ?? '')
  const names = fields.map(f => f.name)
  const rows = what === 'customers'
    ? [['name', 'phone', 'phone2', 'email', 'email2', 'billing_address', 'billing_town', 'billing_postcode', 'tags', 'note', 'prospect', ...names], ...(await customersForExport(ctx.tx)).map(c => [c.name, c.phone, c.phone2, c.email, c.email2, c.line1, c.town, c.postcode, c.tags.join(', '), c.officeNote, c.prospect ? 'yes' : '', ...own(c.custom)])]
    : [['name', 'site_name', 'site_address', 'site_town', 'site_postcode', 'access note', ...names], ...(await sitesForExport(ctx.tx)).map(s => [s.customer, s.name, s.line1, s.town, s.postcode, s.accessNote, ...own(s.custom)])]
  return new Raw('text/csv; charset=utf-8', writeCsv(rows), `${what}.csv`)
}
export async function contactCards(ctx: Ctx): Promise<Raw> {
  const customers = await customersForExport(ctx.tx)
  const contacts = await contactsForExport(ctx.tx)
  const cards: Card[] = [
    ...customers.map(c => ({ uid: c.id, name: c.name, phones: [c.phone, c.phone2].filter(Boolean), mails: [c.email, c.email2].filter(Boolean), addresses: c.line1 ? [{ line1: c.line1, town: c.town, postcode: c.postcode }] : [] })),
    ...contacts.map(k => ({ uid: k.id, name: k.name, organisation: k.customer, role: k.role, phones: [k.phone, k.phone2].filter(Boolean), mails: [k.email].filter(Boolean), addresses: [] })),
  ]
  return new Raw('text/vcard; charset=utf-8', writeVcf(cards), 'contacts.vcf')
}
