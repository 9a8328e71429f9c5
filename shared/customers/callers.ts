// Who rings: found by number, name and place, and what they are.
import { flag, id, int, list, money, requiredText, obj, route, text, definedText } from '../schema'
import {
  siteShape,
  contactShape,
  equipmentShape,
  agreementShape,
  workShape,
  quoteShape,
  suppliedShape,
  alike,
} from './shapes'

export const match = obj({
  customerId: id().required(),
  siteId: id().nullable().defined(),
  name: definedText(),
  phone: definedText(),
  place: definedText(400),
  prospect: flag().required(),
  owed: money().required(),
  late: int().required(),
  open: int().required(),
  stopWork: definedText(),
  why: list(definedText()),
})
/** What to know of a customer while they are on the telephone. */
export const caller = obj({
  customerId: id().required(),
  version: int().required(),
  name: definedText(),
  phone: definedText(),
  phone2: definedText(),
  email: definedText(),
  prospect: flag().required(),
  tags: list(definedText()),
  /** open invoices less credits */ owed: money().required(),
  credits: money().required(),
  late: int().required(),
  creditLimit: money().nullable().defined(),
  overLimit: flag().required(),
  stopWork: definedText(),
  officeNote: definedText(2000),
  exempt: definedText(300),
  level: definedText(),
  hasAgreementLevel: flag().required(),
  ownPrices: list(obj({ entryId: id().required(), price: definedText() })),
  agreements: list(agreementShape),
  quotes: list(quoteShape),
  openWork: list(workShape),
  lastWork: list(workShape),
  equipment: list(equipmentShape),
  contacts: list(contactShape),
  sites: list(siteShape),
  notes: list(definedText(300)),
  supplied: list(suppliedShape),
})

export const callerRoutes = {
  matches: route({
    method: 'GET',
    path: '/matches',
    may: 'customers.see',
    summary: 'Customers and sites that a caller could be, with why',
    query: obj({ q: requiredText('Type something to look for.', 100) }),
    answer: obj({ items: list(match) }),
  }),
  caller: route({
    method: 'GET',
    path: '/callers/{id}',
    may: 'customers.see',
    summary: 'What to know of a customer who is calling',
    answer: caller,
  }),
  alike: route({
    method: 'POST',
    path: '/customers/alike',
    may: 'customers.make',
    summary: 'Customers that are perhaps the one being typed',
    body: obj({
      name: text(160).default(''),
      phone: text(32).default(''),
      email: text(160).default(''),
      line1: text(160).default(''),
    }),
    answer: obj({ items: list(alike) }),
  }),
}
