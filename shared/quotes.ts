// Quotes: begun from a call, a customer or a visit to quote; sent; answered; accepted work waits for its slot.
import { DESK, INDOORS, date, decimal, flag, id, instant, int, list, listQuery, money, need, obj, oneOf, page, route, text, version, words, quantity } from './schema'
import { sendSchema } from './invoices'

export const QUOTE_STATES = ['draft', 'sent', 'accepted', 'declined', 'expired'] as const
const WRITE = [...DESK, 'technician'] as const
const line = obj({ id: id().required(), entryId: id().nullable().defined(), kind: words(), name: words(), unit: words(), quantity: words(), unitPrice: words(), bookPrice: words().nullable(), unitCost: words().nullable(), priceFrom: words(), discount: money().required(), net: money().required(), saving: money().required() })
export const quoteDetail = obj({
  id: id().required(), version: int().required(), number: words(), state: oneOf(QUOTE_STATES).required(), waiting: words(), late: flag().required(), title: words(), scope: words(2000), orderNumber: words(), expiresOn: date().required(), currency: words(), createdAt: instant().required(), sentAt: instant().nullable().defined(), answer: words(),
  customer: obj({ id: id().required(), name: words(), prospect: flag().required(), email: words(), email2: words(), exempt: flag().required(), level: words(), mails: flag().required() }), site: obj({ id: id().required(), text: words(400), belongsTo: words() }), contact: obj({ name: words(), phone: words() }),
  owner: obj({ id: id().required(), name: words() }).nullable().default(undefined), workOrder: obj({ id: id().required(), number: words(), state: words() }).nullable().default(undefined), photos: list(id().required()),
  lines: list(line), price: obj({ net: money().required(), taxes: list(obj({ name: words(), rate: words(), tax: money().required() })), tax: money().required(), total: money().required(), saving: money().required(), savingLevel: words(), cost: money().nullable().defined(), margin: int().nullable().defined() }),
  history: list(obj({ id: int().required(), at: instant().required(), who: words(), text: words(400) })),
})
const wanted = () => list(obj({ id: id().required(), entryId: id().nullable().default(null), kind: oneOf(['task', 'part', 'labour', 'charge', 'other'] as const), name: text(160), quantity: quantity(6).required('Write the quantity.'), unitPrice: decimal('Write the price as a number, for example 48.60.'), cost: decimal('Write the cost as a number, for example 21.40.') })).max(200, 'Not more than 200 lines.')
export const quoteRoutes = {
  quotes: route({ method: 'GET', path: '/quotes', who: INDOORS, summary: 'Quotes, those that wait first', query: obj({ ...listQuery, state: oneOf(['open', ...QUOTE_STATES] as const) }), answer: page(obj({ id: id().required(), number: words(), customer: words(), title: words(), state: words(), waiting: words(), late: flag().required(), owner: words(), createdAt: instant().required(), expiresOn: date().required(), total: money().required() })) }),
  quote: route({ method: 'GET', path: '/quotes/{id}', who: [...INDOORS, 'technician'], summary: 'A quote', answer: quoteDetail }),
  quotePdf: route({ method: 'GET', path: '/quotes/{id}.pdf', who: [...INDOORS, 'technician'], summary: 'The quote as PDF', mime: 'application/pdf' }),
  beginQuote: route({
    method: 'POST', path: '/quotes', who: WRITE, summary: 'Begin a quote for a customer, from a call, or from the work order of a visit to quote',
    body: obj({ id: id().required(), customerId: id().nullable().default(null), siteId: id().nullable().default(null), workOrderId: id().nullable().default(null), callId: id().nullable().default(null), speaking: text(160).default(''), phone: text(32).default(''), title: text(160).default(''), scope: text(2000).default(''), orderNumber: text(40).default(''), source: text(60).default(''), lines: wanted().default([]) }), answer: quoteDetail,
  }),
  changeQuote: route({ method: 'PATCH', path: '/quotes/{id}', who: WRITE, summary: 'Change a draft: who pays, words, how long the price is held, lines', body: obj({ version: version(), customerId: id(), ownerId: id().nullable(), title: text(160).min(1, 'Write a title.'), scope: text(2000), orderNumber: text(40), expiresOn: date(), lines: wanted().optional().default(undefined) }), answer: quoteDetail }),
  sendQuote: route({ method: 'POST', path: '/quotes/{id}/send', who: WRITE, summary: 'Send a quote by mail; without addresses: note that it was handed over', body: obj({ version: version(), ...sendSchema }), answer: quoteDetail }),
  reopenQuote: route({ method: 'POST', path: '/quotes/{id}/reopen', who: WRITE, summary: 'Take a sent or declined quote back to change it', body: obj({ version: version() }), answer: quoteDetail }),
  answerQuote: route({ method: 'POST', path: '/quotes/{id}/answer', who: WRITE, summary: 'The customer’s answer; a yes becomes work that waits for its slot', body: obj({ version: version(), accepted: flag().required('Say what the answer is.'), words: need('Say who answered, and how.', 200), workOrderId: id().required(), visitId: id().required() }), answer: quoteDetail }),
}
