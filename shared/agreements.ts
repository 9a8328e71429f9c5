// Care agreements: plans, visits due by territory and month, renewal.
import {
  amount,
  date,
  flag,
  id,
  int,
  list,
  listQuery,
  requiredText,
  obj,
  page,
  route,
  text,
  version,
  definedText,
} from './schema'

const planShape = () => ({
  name: definedText(),
  visitsAYear: int().required(),
  /** of one visit */
  minutes: int().required(),
  price: definedText(),
  /** what its customers pay less */
  levelId: id().nullable().defined(),
  work: definedText(),
  retired: flag().required(),
})
const plans = obj({
  items: list(obj({ id: id().required(), ...planShape() })),
  levels: list(obj({ id: id().required(), name: definedText() })),
})
const row = obj({
  id: id().required(),
  version: int().required(),
  customerId: id().required(),
  customer: definedText(),
  site: definedText(400),
  territory: definedText(),
  plan: definedText(),
  startsOn: date().required(),
  endsOn: date().required(),
  visitDueOn: date().nullable().defined(),
  state: definedText(),
  phone: definedText(),
  lastVisitOn: date().nullable().defined(),
  booked: definedText(),
  price: definedText(),
  billedUntil: date().nullable().defined(),
})
export const agreementRoutes = {
  agreements: route({
    method: 'GET',
    path: '/agreements',
    may: 'agreements.see',
    summary: 'Care agreements, by what is due next',
    query: obj({
      ...listQuery,
      due: text(7).matches(/^(\d{4}-(0[1-9]|1[0-2]))?$/, 'Write the month as YYYY-MM.'),
      territory: text(80),
      ending: flag(),
    }),
    answer: page(row),
  }),
  newAgreement: route({
    method: 'POST',
    path: '/agreements',
    may: 'agreements.change',
    summary: 'A care agreement for a site',
    body: obj({
      id: id().required(),
      customerId: id().required('Choose the customer.'),
      siteId: id().required('Choose the site.'),
      planId: id().required('Choose the plan.'),
      startsOn: date().required('Choose the day on which it starts.'),
    }),
    answer: row,
  }),
  renewAgreement: route({
    method: 'POST',
    path: '/agreements/{id}/renew',
    may: 'agreements.change',
    summary: 'Renew an agreement for another year',
    body: obj({ version: version() }),
    answer: row,
  }),
  billAgreement: route({
    method: 'POST',
    path: '/agreements/{id}/bill',
    may: 'agreements.bill',
    summary: 'Make the running year of an agreement ready to be billed, once',
    body: obj({
      workOrderId: id().required(),
      lineId: id().required(),
    }),
    answer: obj({ workOrderId: id().required(), number: definedText() }),
  }),
  bookDueVisits: route({
    method: 'POST',
    path: '/agreements/visits',
    may: 'agreements.bill',
    summary: 'Make the work orders of the visits that are due, to be placed on the schedule',
    body: obj({
      items: list(
        obj({
          agreementId: id().required(),
          workOrderId: id().required(),
          visitId: id().required(),
        }),
      )
        .min(1, 'Choose at least one visit.')
        .max(200, 'Not more than 200 at once.'),
    }),
    answer: obj({
      made: list(obj({ agreementId: id().required(), number: definedText() })),
      skipped: list(obj({ agreementId: id().required(), why: definedText(300) })),
    }),
  }),
  plans: route({
    method: 'GET',
    path: '/agreement-plans',
    may: 'agreements.see',
    summary: 'The plans that the firm offers, or offered, and the price levels that one may have',
    answer: plans,
  }),
  keepPlan: route({
    method: 'POST',
    path: '/agreement-plans',
    may: 'agreements.bill',
    summary: 'Make a plan, or change one, for agreements that are made from then on',
    body: obj({
      id: id().required(),
      name: requiredText('Name the plan.', 80),
      visitsAYear: int(1, 12).required('Say how many visits a year, up to twelve.'),
      minutes: int(15, 480).default(60),
      price: amount().required('Write the price of a year.'),
      levelId: id().nullable().default(null),
      work: requiredText('Say what is done at a visit.', 160),
      /** it is not offered any more */
      retired: flag().default(false),
      /** what stood there when it was changed */
      shown: obj(planShape()).nullable().default(null),
    }),
    answer: plans,
  }),
}
