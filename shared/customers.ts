// Customers, their sites, contacts and equipment; who is calling; duplicates and merging.
import * as yup from 'yup'
import { DESK, INDOORS, OFFICE, amount, date, flag, id, instant, int, list, listQuery, mail, money, need, obj, ok, oneOf, page, route, text, version, words } from './schema'

export const CONSENT = ['not asked', 'yes', 'no'] as const
export const TERMS = ['receipt', 'days', 'month_end', 'next_month_day'] as const
const terms = () => obj({ kind: oneOf(TERMS).required(), days: int(0, 365), day: int(1, 31) })
const tags = () => list(text(40).min(1, 'A tag without a word.').defined()).max(12, 'Not more than 12 tags.')
/** Values of the fields that the firm invented, by the field's identifier. */
export const customValues = () => yup.object().default(undefined).test('texts', 'The firm’s own fields hold texts.', v => Object.values(v ?? {}).every(x => typeof x === 'string' && x.isWellFormed())).test('small', 'Too much in the firm’s own fields.', v => JSON.stringify(v ?? {}).length < 8000).meta({ free: true })

export const siteShape = obj({ id: id().required(), version: int().required(), name: words(), line1: words(), town: words(), postcode: words(), accessNote: words(400), lat: int().nullable().optional(), lon: int().nullable().optional(), territory: words(), custom: customValues() })
const contactShape = obj({ id: id().required(), version: int().required(), siteId: id().nullable().defined(), name: words(), role: words(), phone: words(), phone2: words(), email: words() })
const equipmentShape = obj({ id: id().required(), version: int().required(), siteId: id().required(), category: words(), make: words(), serial: words(), installedOn: date().nullable().defined(), warrantyUntil: date().nullable().defined(), nextServiceOn: date().nullable().defined(), note: words(), state: words() })
const agreementShape = obj({ id: id().required(), plan: words(), startsOn: date().required(), endsOn: date().required(), visitDueOn: date().nullable().defined(), state: words() })
const workShape = obj({ id: id().required(), number: words(), title: words(), state: words(), on: date().required(), equipmentId: id().nullable().defined() })

const quoteShape = obj({ id: id().required(), number: words(), title: words(), state: words(), waiting: words(), total: money().required() })
const suppliedShape = obj({ siteId: id().required(), on: date().required(), name: words(), workOrderId: id().required(), number: words() })
export const match = obj({ customerId: id().required(), siteId: id().nullable().defined(), name: words(), phone: words(), place: words(400), prospect: flag().required(), owed: money().required(), late: int().required(), open: int().required(), stopWork: words(), why: list(words()) })
/** What to know of a customer while they are on the telephone. */
export const caller = obj({
  customerId: id().required(), version: int().required(), name: words(), phone: words(), phone2: words(), email: words(), prospect: flag().required(), tags: list(words()),
  /** open invoices less credits */ owed: money().required(), credits: money().required(), late: int().required(), creditLimit: money().nullable().defined(), overLimit: flag().required(), stopWork: words(), officeNote: words(2000), exempt: words(300), level: words(), hasAgreementLevel: flag().required(), ownPrices: list(obj({ entryId: id().required(), price: words() })),
  agreements: list(agreementShape), quotes: list(quoteShape), openWork: list(workShape), lastWork: list(workShape), equipment: list(equipmentShape), contacts: list(contactShape), sites: list(siteShape), notes: list(words(300)), supplied: list(suppliedShape),
})
export const newCustomerSchema = obj({
  id: id().required(), name: need('Write the name.', 160), phone: text(32).default(''), phone2: text(32).default(''), email: mail().default(''), email2: mail().default(''), prospect: flag().default(false),
  siteId: id().required(), line1: need('Write the address of the site.', 160), town: text(80).default(''), postcode: text(16).default(''), source: text(60).default(''),
})
const customerRow = obj({ id: id().required(), name: words(), phone: words(), email: words(), town: words(), prospect: flag().required(), sites: int().required(), owed: money().required(), late: int().required(), tags: list(words()), next: words(300) })
export const customerDetail = obj({
  id: id().required(), version: int().required(), name: words(), phone: words(), phone2: words(), email: words(), email2: words(), line1: words(), town: words(), postcode: words(), prospect: flag().required(), source: words(), assignedTo: id().nullable().defined(),
  terms: terms().nullable().defined(), termsInWords: words(), levelId: id().nullable().defined(), level: words(), exempt: flag().required(), certificate: words(), exemptUntil: date().nullable().defined(), creditLimit: money().nullable().defined(),
  officeNote: words(2000), printedNote: words(400), tags: list(words()), stopWork: words(), mailConsent: oneOf(CONSENT).required(), textConsent: oneOf(CONSENT).required(), custom: customValues(), mergedInto: id().nullable().defined(), erased: flag().required(),
  ownPrices: list(obj({ entryId: id().required(), name: words(), price: words(), bookPrice: words() })),
  promised: money().required(), done: money().required(), billed: money().required(), paid: money().required(), /** open invoices less credits */ owed: money().required(), credits: money().required(),
  notes: list(words(300)), sites: list(siteShape), contacts: list(contactShape), equipment: list(equipmentShape), agreements: list(agreementShape),
  supplied: list(suppliedShape),
  work: list(obj({ id: id().required(), number: words(), title: words(), state: words(), on: date().required(), toBill: money().required() })),
  quotes: list(quoteShape),
  papers: list(obj({ id: id().required(), number: words(), on: date().required(), total: money().required(), open: money().required(), state: words() })),
  files: list(obj({ id: id().required(), name: words(), mime: words(), at: instant().required() })),
  merges: list(obj({ id: id().required(), name: words(), at: instant().required() })),
  history: list(obj({ id: int().required(), at: words(), who: words(), text: words(400) })),
})
const alike = obj({ customerId: id().required(), name: words(), phone: words(), place: words(400), score: yup.number().required(), reasons: list(words()) })
const side = obj({ id: id().required(), name: words(), phone: words(), email: words(), place: words(400), sites: int().required(), work: int().required(), owed: money().required() })
const siteRow = obj({ id: id().required(), customerId: id().required(), customer: words(), name: words(), line1: words(), town: words(), postcode: words(), territory: words(), equipment: int().required(), accessNote: words(400) })
const siteFields = { name: text(120), line1: text(160).min(1, 'Write the address.'), town: text(80), postcode: text(16), accessNote: text(400), custom: customValues() }
const equipmentFields = { category: text(60).min(1, 'Write what it is.'), make: text(60), serial: text(60), installedOn: date().nullable(), warrantyUntil: date().nullable(), nextServiceOn: date().nullable(), note: text(200) }
const contactFields = { siteId: id().nullable(), name: text(120).min(1, 'Write the name.'), role: text(40), phone: text(32), phone2: text(32), email: mail() }

export const customerRoutes = {
  matches: route({ method: 'GET', path: '/matches', who: INDOORS, summary: 'Customers and sites that a caller could be, with why', query: obj({ q: need('Type something to look for.', 100) }), answer: obj({ items: list(match) }) }),
  caller: route({ method: 'GET', path: '/callers/{id}', who: INDOORS, summary: 'What to know of a customer who is calling', answer: caller }),
  alike: route({ method: 'POST', path: '/customers/alike', who: DESK, summary: 'Customers that are perhaps the one being typed', body: obj({ name: text(160).default(''), phone: text(32).default(''), email: text(160).default(''), line1: text(160).default('') }), answer: obj({ items: list(alike) }) }),
  customers: route({ method: 'GET', path: '/customers', who: INDOORS, summary: 'Customers and prospects', query: obj({ ...listQuery, owing: oneOf(['yes'] as const), kind: oneOf(['prospect', 'customer'] as const), tag: text(40) }), answer: page(customerRow) }),
  customer: route({ method: 'GET', path: '/customers/{id}', who: INDOORS, summary: 'A customer with the four columns summed', answer: customerDetail }),
  newCustomer: route({ method: 'POST', path: '/customers', who: DESK, summary: 'A new customer with one site', body: newCustomerSchema, answer: caller }),
  changeCustomer: route({
    method: 'PATCH', path: '/customers/{id}', who: INDOORS, summary: 'Change a customer',
    body: obj({
      version: version(), name: text(160).min(1, 'Write the name.'), phone: text(32), phone2: text(32), email: mail(), email2: mail(), line1: text(160), town: text(80), postcode: text(16), officeNote: text(2000), printedNote: text(400), stopWork: text(200), source: text(60),
      tags: tags().optional(), prospect: flag(), assignedTo: id().nullable(), terms: terms().nullable().default(undefined), levelId: id().nullable(), exempt: flag(), certificate: text(80), exemptUntil: date().nullable(), creditLimit: amount().nullable(),
      ownPrices: list(obj({ entryId: id().required(), price: amount().required() })).max(50).optional(), mailConsent: oneOf(CONSENT), textConsent: oneOf(CONSENT), custom: customValues(),
    }),
    answer: customerDetail,
  }),
  sites: route({ method: 'GET', path: '/sites', who: INDOORS, summary: 'Sites, by address', query: obj({ ...listQuery, territory: text(80) }), answer: page(siteRow) }),
  newSite: route({ method: 'POST', path: '/sites', who: DESK, summary: 'A further site of a customer', body: obj({ id: id().required(), customerId: id().required(), ...siteFields, line1: need('Write the address.', 160) }), answer: customerDetail }),
  changeSite: route({ method: 'PATCH', path: '/sites/{id}', who: DESK, summary: 'Change a site', body: obj({ version: version(), ...siteFields }), answer: customerDetail }),
  newContact: route({ method: 'POST', path: '/contacts', who: DESK, summary: 'A contact of a customer or of one of its sites', body: obj({ id: id().required(), customerId: id().required(), ...contactFields, name: need('Write the name.', 120) }), answer: customerDetail }),
  changeContact: route({ method: 'PATCH', path: '/contacts/{id}', who: DESK, summary: 'Change or take out a contact', body: obj({ version: version(), ...contactFields, removed: flag() }), answer: customerDetail }),
  newEquipment: route({ method: 'POST', path: '/equipment', who: DESK, summary: 'Equipment at a site', body: obj({ id: id().required(), siteId: id().required(), ...equipmentFields, category: need('Write what it is.', 60) }), answer: customerDetail }),
  changeEquipment: route({ method: 'PATCH', path: '/equipment/{id}', who: DESK, summary: 'Change or take out equipment', body: obj({ version: version(), ...equipmentFields, removed: flag() }), answer: customerDetail }),
  addFile: route({ method: 'POST', path: '/files', who: DESK, summary: 'Keep a picture or document of a customer or a call (JPEG, PNG, WebP or PDF, 5 MB at most)', maxBytes: 7_000_000, body: obj({ id: id().required(), customerId: id().nullable().default(null), callId: id().nullable().default(null), name: need('Give it a name.', 160), data: need('Choose a file.', 6_900_000) }), answer: ok }),
  file: route({ method: 'GET', path: '/files/{id}', who: INDOORS, summary: 'A picture or document', mime: 'application/octet-stream' }),
  duplicates: route({ method: 'GET', path: '/duplicates', who: INDOORS, summary: 'Pairs of customers that are perhaps one', answer: obj({ items: list(obj({ first: side, second: side, score: yup.number().required(), reasons: list(words()) })) }) }),
  notDuplicates: route({ method: 'POST', path: '/customers/{id}/apart', who: OFFICE, summary: 'Say that two customers are not the same', body: obj({ otherId: id().required() }), answer: ok }),
  mergePreview: route({ method: 'GET', path: '/customers/{id}/merge', who: OFFICE, summary: 'What merging another customer into this one would move', query: obj({ other: id().required('Choose the other customer.') }), answer: obj({ kept: side, merged: side, fields: list(obj({ name: words(), kept: words(2000), merged: words(2000) })), moves: list(obj({ what: words(), count: int().required() })) }) }),
  merge: route({ method: 'POST', path: '/customers/{id}/merge', who: OFFICE, summary: 'Merge another customer into this one; everything moves along', body: obj({ id: id().required(), otherId: id().required('Choose the other customer.'), take: list(text(40).defined()).default([]) }), answer: customerDetail }),
  undoMerge: route({ method: 'POST', path: '/merges/{id}/undo', who: OFFICE, summary: 'Take a merge apart again', answer: customerDetail }),
  personData: route({ method: 'GET', path: '/customers/{id}/data.json', who: ['owner'], summary: 'Everything that is kept about a customer, for the person it is about', mime: 'application/json' }),
  erase: route({ method: 'POST', path: '/customers/{id}/erase', who: ['owner'], summary: 'Take a person’s data out; papers that must stay are made anonymous', body: obj({ version: version(), name: need('Write the customer’s name to say that you mean it.', 160) }), answer: ok }),
}
