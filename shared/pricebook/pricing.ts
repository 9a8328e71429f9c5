// How prices are made, how they change, and what that changed.
import { TAXED_AS } from '../../core/pricebook/usualTaxClass'
import { ENTRY_KINDS } from '../../core/pricebook/kinds'
import {
  date,
  decimal,
  flag,
  id,
  instant,
  int,
  list,
  money,
  requiredText,
  obj,
  oneOf,
  quantity,
  route,
  text,
  time,
  timeOrNone,
  definedText,
} from '../schema'
import { actual, priceSet, MONEY } from './shapes'

const tier = obj({
  fromCost: decimal('Write from which cost on.').required(),
  multiplier: decimal('Write by how much, for example 1.5.').required(),
})
/** A time of day, or the end of the day. */
const yup24 = () =>
  text(5)
    .matches(/^(([01]\d|2[0-3]):[0-5]\d|24:00)$/, 'Write the time as hh:mm.')
    .required()
const rules = {
  markups: list(
    obj({
      scope: oneOf(['all', 'category', 'supplier'] as const).required(),
      name: text(80).default(''),
      tiers: list(tier).min(1, 'A markup needs at least one step.').max(30),
    }),
  ).max(100),
  sundriesRate: decimal().required(),
  minimum: decimal(MONEY).required(),
  rounding: oneOf(['none', 'whole', 'ending'] as const).required(),
  ending: int(0, 99).default(0),
  times: list(
    obj({
      name: requiredText('Give it a name.', 40),
      days: list(int(1, 8).required()).min(1, 'Choose the days.').max(8),
      from: time().required(),
      to: yup24(),
      factor: decimal('Write by how much, for example 1.5.').required(),
    }),
  )
    .max(20)
    .default([]),
}
const year = obj({
  wages: decimal(MONEY).required(),
  burden: decimal(MONEY).required(),
  overhead: decimal(MONEY).required(),
  paidHours: decimal().required(),
  billedShare: decimal().required(),
  targetMargin: decimal().required(),
})
const pricingRules = obj({
  ...rules,
  /** says whether they still are what somebody read */
  stamp: definedText(),
  year: year.nullable().defined(),
  units: list(definedText()),
  categories: list(definedText()),
  suppliers: list(definedText()),
  labour: list(obj({ id: id().required(), name: definedText(), price: definedText() })),
  taxClasses: list(
    obj({
      id: definedText(),
      name: definedText(),
      usualFor: oneOf(TAXED_AS).nullable().defined(),
    }),
  ),
})
/** What is changed: entries that are named, or all that fit, by a rule; or each entry as it is written here. */
const change = {
  ids: list(id().required()).max(20_000).default([]),
  kind: oneOf(ENTRY_KINDS),
  category: text(120).default(''),
  supplier: text(80).default(''),
  rule: oneOf(['cost_percent', 'price_percent', 'set', 'by_rule', 'each'] as const).required(
    'Say what is done to the prices.',
  ),
  percent: text(12)
    .matches(/^-?\d{1,3}(\.\d{1,4})?$/, {
      message: 'Write a percentage, for example 4 or -2.5.',
      excludeEmptyString: true,
    })
    .default(''),
  price: text(16)
    .matches(/^\d{1,9}(\.\d{1,4})?$/, { message: MONEY, excludeEmptyString: true })
    .default(''),
  each: list(
    obj({ id: id().required(), cost: decimal(MONEY), price: decimal(MONEY), byRule: flag() }),
  )
    .max(20_000)
    .default([]),
}
const changeRow = obj({
  id: id().required(),
  code: definedText(),
  name: definedText(),
  kind: definedText(),
  follows: flag().required(),
  was: priceSet,
  becomes: priceSet,
  difference: definedText(),
  marginWas: definedText().nullable(),
  marginBecomes: definedText().nullable(),
  sold: definedText(),
  effect: definedText(),
  /** what the rule makes of the new cost, where the price is fixed */ proposed:
    definedText().nullable(),
  /** why it is asked whether this one is meant */ odd: list(
    oneOf(['far', 'below'] as const).required(),
  ),
})
export const preview = obj({
  stamp: definedText(),
  count: int().required(),
  changed: int().required(),
  follow: int().required(),
  effect: money().required(),
  soldLines: int().required(),
  margins: list(obj({ was: definedText(), becomes: definedText() })),
  rows: list(changeRow),
  questions: list(definedText(300)),
})
export const batch = obj({
  id: id().required(),
  title: definedText(),
  holdsFrom: date().required(),
  state: definedText(),
  madeBy: definedText(),
  madeAt: instant().required(),
  entries: int().required(),
})

export const pricingRoutes = {
  pricing: route({
    method: 'GET',
    path: '/pricing',
    may: 'pricebook.see',
    summary: 'The rules that prices follow',
    answer: pricingRules,
  }),
  keepPricing: route({
    method: 'POST',
    path: '/pricing',
    may: 'pricebook.change',
    summary: 'Changes the rules; prices that follow them change with them, in one act',
    body: obj({
      id: id().required(),
      ...rules,
      year: year.nullable().default(null),
      /** of the rules as they were read; without it they are changed whatever they are by now */
      stamp: text(80).default(''),
    }),
    answer: pricingRules,
  }),
  previewPrices: route({
    method: 'POST',
    path: '/price-changes/preview',
    may: 'pricebook.change',
    summary:
      'What a change of prices would do, entry by entry and to the sales of the last twelve months',
    maxBytes: 4_000_000,
    body: obj(change),
    answer: preview,
  }),
  changePrices: route({
    method: 'POST',
    path: '/price-changes',
    may: 'pricebook.change',
    summary: 'Changes prices as they were previewed, from a day on',
    maxBytes: 4_000_000,
    body: obj({
      id: id().required(),
      title: text(160).default(''),
      holdsFrom: date().nullable().default(null),
      stamp: requiredText('Look at the preview first.', 80),
      ...change,
    }),
    answer: batch,
  }),
  priceChanges: route({
    method: 'GET',
    path: '/price-changes',
    may: 'pricebook.see',
    summary: 'Changes of prices, the newest first',
    answer: obj({ items: list(batch) }),
  }),
  undoPrices: route({
    method: 'POST',
    path: '/price-changes/{id}/undo',
    may: 'pricebook.change',
    summary: 'Takes a change of prices back in one act; what was changed again since stays',
    answer: obj({ batch, left: int().required() }),
  }),
  tryLines: route({
    method: 'POST',
    path: '/price-book/lines',
    may: 'pricebook.search',
    summary: 'What some entries would cost a customer at a time of day',
    body: obj({
      customerId: id().nullable().default(null),
      date: date().default(''),
      start: timeOrNone(),
      lines: list(obj({ entryId: id().required(), quantity: quantity().required() })).max(100),
    }),
    answer: obj({
      lines: list(
        obj({
          /** which of the wanted ones; an assembly becomes several */ of: int().required(),
          entryId: id().nullable().defined(),
          name: definedText(),
          quantity: definedText(),
          net: money().required(),
          priceFrom: definedText(),
        }),
      ),
      own: flag().required(),
      saving: money().required(),
      net: money().required(),
    }),
  }),
  bookUsage: route({
    method: 'GET',
    path: '/price-book/usage',
    may: 'pricebook.see',
    summary:
      'What of the book is sold, how long tasks really take, what nobody sells, what is easily taken for something else',
    answer: obj({
      sold: list(
        obj({
          id: id().required(),
          code: definedText(),
          name: definedText(),
          kind: definedText(),
          lines: int().required(),
          quantity: definedText(),
          net: money().required(),
          book: definedText(),
          usual: definedText(),
          last: date().nullable().defined(),
        }),
      ),
      hours: list(obj({ id: id().required(), code: definedText(), name: definedText(), actual })),
      dormant: list(
        obj({
          id: id().required(),
          code: definedText(),
          name: definedText(),
          category: definedText(),
          price: definedText(),
        }),
      ),
      dormantCount: int().required(),
      alike: list(
        obj({
          entries: list(
            obj({
              id: id().required(),
              code: definedText(),
              name: definedText(),
              price: definedText(),
              last: date().nullable().defined(),
            }),
          ),
        }),
      ),
    }),
  }),
}
