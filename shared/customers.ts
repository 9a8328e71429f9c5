// Customers, their sites, contacts and equipment.
import { INDOORS, DESK, date, flag, id, int, list, listQuery, mail, money, need, obj, oneOf, page, route, text, version, words } from './schema'

const site = obj({ id: id().required(), name: words(), line1: words(), town: words(), postcode: words(), accessNote: words(400), lat: int().nullable().optional(), lon: int().nullable().optional() })
export const match = obj({
  customerId: id().required(), siteId: id().nullable().defined(), name: words(), phone: words(), email: words(), place: words(400), why: words(),
  owed: money().required(), late: int().required(), openWork: list(obj({ id: id().required(), number: words(), title: words(), state: words() })),
  stopWork: words(), officeNote: words(2000), tag: words(), agreement: words(), exempt: flag().required(), equipment: list(words()), lastVisit: words(), sites: list(site),
})
export const newCustomerSchema = obj({
  id: id().required(), name: need('Write the name.', 160), phone: text(32).default(''), email: mail().default(''), email2: mail().default(''),
  siteId: id().required(), line1: need('Write the address of the site.', 160), town: text(80).default(''), postcode: text(16).default(''), source: text(60).default(''),
})
const customerRow = obj({ id: id().required(), name: words(), phone: words(), email: words(), town: words(), prospect: flag().required(), sites: int().required(), owed: money().required(), late: int().required(), tag: words() })
export const customerDetail = obj({
  id: id().required(), version: int().required(), name: words(), phone: words(), phone2: words(), email: words(), email2: words(), line1: words(), town: words(), postcode: words(),
  terms: words(), level: words(), exempt: flag().required(), certificate: words(), officeNote: words(2000), tag: words(), stopWork: words(), prospect: flag().required(),
  promised: money().required(), done: money().required(), billed: money().required(), paid: money().required(), owed: money().required(),
  sites: list(site), contacts: list(obj({ id: id().required(), name: words(), role: words(), phone: words(), email: words() })),
  equipment: list(obj({ id: id().required(), siteId: id().required(), category: words(), make: words(), serial: words(), installedOn: date().nullable().defined(), warrantyUntil: date().nullable().defined() })),
  work: list(obj({ id: id().required(), number: words(), title: words(), state: words(), on: date().required(), toBill: money().required() })),
  history: list(obj({ id: int().required(), at: words(), who: words(), text: words(400) })),
})
export const customerRoutes = {
  matches: route({ method: 'GET', path: '/matches', who: INDOORS, summary: 'Customers and sites that a caller could be', query: obj({ q: need('Type something to look for.', 100) }), answer: obj({ items: list(match) }) }),
  customers: route({ method: 'GET', path: '/customers', who: INDOORS, summary: 'Customers and prospects', query: obj({ ...listQuery, owing: oneOf(['yes'] as const) }), answer: page(customerRow) }),
  customer: route({ method: 'GET', path: '/customers/{id}', who: INDOORS, summary: 'A customer with the four columns summed', answer: customerDetail }),
  newCustomer: route({ method: 'POST', path: '/customers', who: DESK, summary: 'A new customer with one site', body: newCustomerSchema, answer: match }),
  changeCustomer: route({
    method: 'PATCH', path: '/customers/{id}', who: INDOORS, summary: 'Change a customer',
    body: obj({ version: version(), name: text(160).min(1, 'Write the name.'), phone: text(32), phone2: text(32), email: mail(), email2: mail(), line1: text(160), town: text(80), postcode: text(16), officeNote: text(2000), tag: text(40), stopWork: text(200) }),
    answer: customerDetail,
  }),
}
