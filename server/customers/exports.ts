// Customers, sites and contacts in open formats, written row by row.
import { writeCsv } from '../../core/formats/csv'
import { writeVcf } from '../../core/formats/vcf'
import type { Ctx } from '../http/context'
import { customFields } from '../settings/queries'
import { contactsForExport, customersForExport, sitesForExport } from './exports.queries'

/** The firm's own fields as further columns. */
async function ownColumns(ctx: Ctx, subject: 'customer' | 'site') {
  const fields = (await customFields(ctx.tx)).filter((f) => f.subject === subject)
  return {
    names: fields.map((f) => f.name),
    of: (custom: Record<string, string>) => fields.map((f) => custom[f.id] ?? ''),
  }
}
/** The headings are those that an import understands. */
export async function* customerCsv(ctx: Ctx): AsyncGenerator<string> {
  const own = await ownColumns(ctx, 'customer')
  yield writeCsv([
    [
      'name',
      'phone',
      'phone2',
      'email',
      'email2',
      'billing_address',
      'billing_town',
      'billing_postcode',
      'tags',
      'note',
      'prospect',
      'source',
      ...own.names,
    ],
  ])
  for await (const c of customersForExport(ctx.tx)) {
    yield writeCsv([
      [
        c.name,
        c.phone,
        c.phone2,
        c.email,
        c.email2,
        c.line1,
        c.town,
        c.postcode,
        c.tags.join(', '),
        c.officeNote,
        c.prospect ? 'yes' : '',
        c.source,
        ...own.of(c.custom),
      ],
    ])
  }
}
export async function* siteCsv(ctx: Ctx): AsyncGenerator<string> {
  const own = await ownColumns(ctx, 'site')
  yield writeCsv([
    [
      'name',
      'site_name',
      'site_address',
      'site_town',
      'site_postcode',
      'access note',
      ...own.names,
    ],
  ])
  for await (const s of sitesForExport(ctx.tx)) {
    yield writeCsv([
      [s.customer, s.name, s.line1, s.town, s.postcode, s.accessNote, ...own.of(s.custom)],
    ])
  }
}
export async function* contactCards(ctx: Ctx): AsyncGenerator<string> {
  for await (const c of customersForExport(ctx.tx)) {
    const addresses = c.line1 ? [{ line1: c.line1, town: c.town, postcode: c.postcode }] : []
    yield writeVcf([
      {
        uid: c.id,
        name: c.name,
        phones: [c.phone, c.phone2].filter(Boolean),
        mails: [c.email, c.email2].filter(Boolean),
        addresses,
      },
    ])
  }
  for await (const k of contactsForExport(ctx.tx)) {
    yield writeVcf([
      {
        uid: k.id,
        name: k.name,
        organisation: k.customer,
        role: k.role,
        phones: [k.phone, k.phone2].filter(Boolean),
        mails: [k.email].filter(Boolean),
        addresses: [],
      },
    ])
  }
}
