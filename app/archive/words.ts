// What can be taken along and in, in words: what it is, its format, where.
import type { EXPORTED, TAKEN_IN } from '~~/shared/archive'

type Exported = (typeof EXPORTED)[number]
type TakenIn = (typeof TAKEN_IN)[number]
interface Going {
  name: string
  format: string
  /** where the file is, or the page that takes it in */
  at: string
}
const CSV = 'CSV, RFC 4180'
const csv = (what: Exported, name: string): Going => ({
  ...{ name, format: CSV, at: `/api/v1/export/${what}.csv` },
})
export const OUT: Readonly<Record<Exported, Going>> = {
  archive: {
    name: 'Everything',
    format: 'ZIP: JSON with schemas, CSV, PDF, the journal, photos',
    at: '/api/v1/archive.zip',
  },
  customers: csv('customers', 'Customers'),
  sites: csv('sites', 'Sites'),
  contacts: {
    ...{ name: 'Customers and contacts as cards', format: 'vCard, RFC 6350' },
    at: '/api/v1/export/contacts.vcf',
  },
  'work-orders': csv('work-orders', 'Work orders'),
  invoices: csv('invoices', 'Invoices'),
  payments: csv('payments', 'Payments'),
  'price-book': csv('price-book', 'The price book'),
  journal: {
    ...{ name: 'The ledger', format: 'plain-text journal, double entry' },
    at: '/api/v1/export/journal.ledger',
  },
}
export const IN: Readonly<Record<TakenIn, Going>> = {
  customers: {
    ...{
      name: 'Customers, with sites and equipment',
      format: 'CSV or vCard',
      at: '/customers/import',
    },
  },
  prices: { name: 'Prices', format: 'CSV', at: '/price-book/lists' },
  brought: {
    ...{ name: 'Open invoices and credits from before', format: 'CSV', at: '/brought-forward' },
  },
  roads: { name: 'Roads', format: 'GeoJSON', at: '/schedule/set-up' },
}
export const EVERY_WORDS = { day: 'day', week: 'week', month: 'month' } as const
