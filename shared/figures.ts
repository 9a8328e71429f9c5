// The run across the top band, the one search, exports and the health of the service.
import { id, int, list, money, obj, route, text, definedText } from './schema'

export const run = obj({
  calls: obj({ count: int().required(), late: int().required() }),
  schedule: obj({ count: int().required(), atRisk: int().required(), noSlot: int().required() }),
  onSite: obj({ count: int().required() }),
  toBill: obj({ count: int().required(), sum: money().required() }),
  unpaid: obj({ count: int().required(), sum: money().required(), late: int().required() }),
  quotes: obj({ count: int().required(), sum: money().required() }),
})
export const figureRoutes = {
  health: route({
    method: 'GET',
    path: '/health',
    who: 'public',
    summary: 'Whether the service and its database answer',
    answer: obj({
      /** ok; degraded where it answers and something is not done; failing with 503 */
      status: definedText(),
      db: definedText(),
      version: definedText(),
      /** what is not as it should be */
      why: list(definedText(400)),
    }),
  }),
  openapi: route({
    method: 'GET',
    path: '/openapi.json',
    who: 'public',
    summary: 'This document',
    mime: 'application/json',
  }),
  run: route({
    method: 'GET',
    path: '/run',
    shared: true,
    may: 'figures.see',
    summary: 'What waits at each stop of the run',
    answer: run,
  }),
  find: route({
    method: 'GET',
    path: '/find',
    may: 'figures.see',
    summary: 'Find anything: names, telephone numbers, addresses, numbers of papers',
    query: obj({ q: text(100).required() }),
    answer: obj({
      items: list(
        obj({
          kind: definedText(),
          id: id().required(),
          title: definedText(400),
          detail: definedText(400),
          to: definedText(200),
        }),
      ),
    }),
  }),
  journal: route({
    method: 'GET',
    path: '/export/journal.ledger',
    may: 'ledger.see',
    summary: 'The ledger as a plain-text double-entry journal',
    mime: 'text/plain',
  }),
  exportContacts: route({
    method: 'GET',
    path: '/export/contacts.vcf',
    may: 'figures.contacts',
    summary: 'Customers and contacts as cards (RFC 6350)',
    mime: 'text/vcard',
  }),
  exportCsv: route({
    method: 'GET',
    path: '/export/{what}.csv',
    may: 'figures.export',
    summary: 'invoices, payments, work-orders, customers, sites or price-book as CSV',
    mime: 'text/csv',
  }),
}
