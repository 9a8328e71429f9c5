// The price book: as it is searched and added from, as it is built, and how its prices change.
import { ENTRY_KINDS } from '../core/pricebook/kinds'
import { BOOK_FIELDS } from '../core/pricebook/bookTable'
import { quoteDetail } from './quotes'
import { workOrder } from './visits'
import {
  date,
  decimal,
  flag,
  id,
  instant,
  int,
  list,
  listQuery,
  money,
  requiredText,
  obj,
  ok,
  oneOf,
  page,
  quantity,
  route,
  text,
  time,
  timeOrNone,
  version,
  definedText,
} from './schema'

const entryShape = {
  id: id().required(),
  code: definedText(),
  kind: oneOf(ENTRY_KINDS).required(),
  category: definedText(),
  name: definedText(),
  synonyms: definedText(255),
  parts: definedText(2000),
  unit: definedText(),
  price: definedText(),
  furtherPrice: definedText().nullable(),
  cost: definedText().nullable(),
  /** what its hours cost us, besides what is bought for it */ labourCost: definedText().nullable(),
  taxClass: definedText(),
  seconds: int().required(),
  furtherSeconds: int().required(),
  skills: list(definedText()),
  pinned: flag().required(),
  agreementSaving: money().required(),
}
export const entry = obj(entryShape)
/** An entry as the browser searches it: with how often it was sold of late, and its picture. */
const found = obj({
  ...entryShape,
  pricing: definedText(),
  used: int().required(),
  lastSold: date().nullable().defined(),
  pictureId: id().nullable().defined(),
})
const reason = obj({ code: definedText(), text: definedText(300), amount: definedText() })
const why = obj({ price: definedText(), reasons: list(reason), hour: definedText().nullable() })
const priceSet = obj({
  cost: definedText().nullable(),
  price: definedText(),
  furtherPrice: definedText().nullable(),
  pricing: definedText(),
})
const facts = {
  code: requiredText('Give it a code of its own.', 24),
  kind: oneOf(ENTRY_KINDS).required(),
  category: requiredText('Say which category it stands in.', 120),
  name: requiredText('Give it a name.', 160),
  description: text(2000).default(''),
  technicianNote: text(2000).default(''),
  synonyms: text(255).default(''),
  unit: text(16).default('each'),
  taxClass: requiredText('Choose how it is taxed.', 20),
  seconds: int(0, 360_000).default(0),
  furtherSeconds: int(0, 360_000).default(0),
  skills: list(text(60).min(1).defined()).max(30).default([]),
  pinned: flag().default(false),
  labourId: id().nullable().default(null),
  sundriesRate: decimal().nullable().default(null),
  supplier: text(80).default(''),
  partNumber: text(60).default(''),
  incomeCode: text(24).default(''),
  activeFrom: date().nullable().default(null),
  activeTo: date().nullable().default(null),
  retired: flag().default(false),
}
const MONEY = 'Write the amount as a number, for example 100.00.'
const wanted = {
  pricing: oneOf(['rule', 'fixed'] as const).required(),
  cost: decimal(MONEY).default('0'),
  price: decimal(MONEY).default('0'),
  furtherPrice: decimal(MONEY).nullable().default(null),
}
const inside = list(obj({ partId: id().required(), quantity: quantity().required() }))
  .max(100)
  .default([])
const entryBody = obj({
  version: int(0).required('Say which version you changed.'),
  ...facts,
  ...wanted,
  parts: inside,
})
/** Hours as they were worked, beside those of the book; seconds. */
const actual = obj({
  of: int().required(),
  medianSeconds: int().required(),
  fromSeconds: int().required(),
  toSeconds: int().required(),
  quotedSeconds: int().required(),
  proposedSeconds: int().nullable().defined(),
})
/** What it costs us: what is bought for it, and its hours. */
const costs = obj({ material: definedText(), labour: definedText() })
const entryPaper = obj({
  id: id().required(),
  version: int().required(),
  code: definedText(),
  kind: oneOf(ENTRY_KINDS).required(),
  category: definedText(),
  name: definedText(),
  description: definedText(2000),
  technicianNote: definedText(2000),
  synonyms: definedText(255),
  unit: definedText(),
  taxClass: definedText(),
  seconds: int().required(),
  furtherSeconds: int().required(),
  skills: list(definedText()),
  pinned: flag().required(),
  labourId: id().nullable().defined(),
  sundriesRate: definedText().nullable(),
  supplier: definedText(),
  partNumber: definedText(),
  incomeCode: definedText(),
  activeFrom: date().nullable().defined(),
  activeTo: date().nullable().defined(),
  retired: flag().required(),
  pricing: definedText(),
  cost: definedText().nullable(),
  price: definedText(),
  furtherPrice: definedText().nullable(),
  pricedOn: date().nullable().defined(),
  parts: list(
    obj({
      partId: id().required(),
      code: definedText(),
      name: definedText(),
      quantity: definedText(),
      price: definedText(),
      kind: definedText(),
    }),
  ),
  pictureId: id().nullable().defined(),
  why,
  whyFurther: why.nullable().defined(),
  costs: costs.nullable().defined(),
  margin: definedText().nullable(),
  history: list(
    obj({
      title: definedText(),
      state: definedText(),
      holdsFrom: date().required(),
      madeAt: instant().required(),
      madeBy: definedText(),
      was: priceSet,
      became: priceSet,
    }),
  ),
  hours: actual.nullable().defined(),
  standsIn: list(
    obj({ id: id().required(), code: definedText(), name: definedText(), quantity: definedText() }),
  ),
  alike: list(
    obj({
      id: id().required(),
      code: definedText(),
      name: definedText(),
      price: definedText(),
      last: date().nullable().defined(),
    }),
  ),
  sold: obj({
    lines: int().required(),
    quantity: definedText(),
    usual: definedText().nullable(),
    net: money().required(),
    last: date().nullable().defined(),
    where: list(
      obj({
        workOrderId: id().required(),
        number: definedText(),
        customer: definedText(),
        on: date().required(),
        quantity: definedText(),
        unitPrice: definedText(),
        net: money().required(),
      }),
    ),
  }),
})
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
  year: year.nullable().defined(),
  units: list(definedText()),
  categories: list(definedText()),
  suppliers: list(definedText()),
  labour: list(obj({ id: id().required(), name: definedText(), price: definedText() })),
  taxClasses: list(obj({ id: definedText(), name: definedText() })),
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
const preview = obj({
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
const batch = obj({
  id: id().required(),
  title: definedText(),
  holdsFrom: date().required(),
  state: definedText(),
  madeBy: definedText(),
  madeAt: instant().required(),
  entries: int().required(),
})
/** A price list: rows as they came from the file, what its columns mean, and what is done with what is not plain. */
const cell = text(4000).defined()
const columns = list(oneOf(BOOK_FIELDS).nullable().defined()).max(60)
const listOptions = {
  category: text(120).default(''),
  taxClass: requiredText('Choose how new entries are taxed.', 20),
  fixed: oneOf(['keep', 'by_rule'] as const).default('keep'),
  vanished: oneOf(['keep', 'retire'] as const).default('keep'),
}
const listCounts = obj({
  new: int().required(),
  changed: int().required(),
  same: int().required(),
  wrong: int().required(),
  vanished: int().required(),
})
const priceList = obj({
  id: id().required(),
  fileName: definedText(),
  supplier: definedText(),
  state: definedText(),
  counts: listCounts,
  madeBy: definedText(),
  madeAt: instant().required(),
})
const listRow = obj({
  row: int().required(),
  state: definedText(),
  code: definedText(),
  name: definedText(),
  what: definedText(500),
})
const source = { supplier: text(80).default(''), head: list(text(200).defined()).max(60) }
const product = obj({
  supplierId: definedText(),
  supplier: definedText(),
  partNumber: definedText(),
  name: definedText(),
  category: definedText(),
  unit: definedText(),
  stock: int().required(),
  deliveryDays: int().required(),
  makerNumber: definedText(),
  cost: definedText().nullable(),
  price: definedText(),
  entry: obj({ id: id().required(), code: definedText(), cost: definedText().nullable() })
    .nullable()
    .default(undefined),
})
const basket = list(
  obj({
    id: id().required(),
    supplierId: requiredText('Say which supplier.', 40),
    partNumber: requiredText('Say which part.', 60),
    quantity: quantity(6).required('Write how many.'),
  }),
)
  .min(1, 'Choose something first.')
  .max(50)
export const pricebookRoutes = {
  priceBook: route({
    method: 'GET',
    path: '/price-book',
    may: 'pricebook.search',
    summary: 'Entries of the price book',
    query: obj({
      ...listQuery,
      kind: oneOf(ENTRY_KINDS),
      category: text(120),
      pinned: oneOf(['yes'] as const),
      retired: oneOf(['yes'] as const),
    }),
    answer: page(entry),
  }),
  searchPriceBook: route({
    method: 'GET',
    path: '/price-book/search',
    may: 'pricebook.search',
    summary: 'The best entries for some words, forgiving a typo',
    query: obj({ q: text(100), kind: oneOf(ENTRY_KINDS) }),
    answer: obj({ items: list(entry) }),
  }),
  wholeBook: route({
    method: 'GET',
    path: '/price-book/whole',
    may: 'pricebook.search',
    summary:
      'The whole book, for the search in the browser; nothing of it where the browser has it already',
    query: obj({ stamp: text(200) }),
    answer: obj({
      stamp: definedText(),
      same: flag().required(),
      mine: list(id().required()),
      items: list(found),
    }),
  }),
  pinEntry: route({
    method: 'POST',
    path: '/price-book/entries/{id}/pin',
    may: 'pricebook.search',
    summary: 'Keep an entry at hand for oneself, or no more',
    body: obj({ on: flag().required('Say whether it is to be at hand.') }),
    answer: ok,
  }),
  pricePicture: route({
    method: 'GET',
    path: '/price-pictures/{id}',
    may: 'pricebook.search',
    summary: 'The picture of an entry',
    mime: 'image/*',
  }),
  keepPricePicture: route({
    method: 'POST',
    path: '/price-book/entries/{id}/picture',
    may: 'pricebook.change',
    summary: 'Gives an entry a picture (JPEG, PNG or WebP, 5 MB at most), or takes it away',
    maxBytes: 7_000_000,
    body: obj({ version: version(), data: text(6_900_000).default('') }),
    answer: entryPaper,
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
  priceEntry: route({
    method: 'GET',
    path: '/price-book/entries/{id}',
    may: 'pricebook.see',
    summary: 'One entry: what its price is made of, its history, where it was sold',
    answer: entryPaper,
  }),
  keepPriceEntry: route({
    method: 'POST',
    path: '/price-book/entries/{id}',
    may: 'pricebook.change',
    summary: 'Makes an entry (version 0) or changes one; what follows from its price follows',
    maxBytes: 200_000,
    body: entryBody,
    answer: entryPaper,
  }),
  tryPrice: route({
    method: 'POST',
    path: '/price-book/try',
    may: 'pricebook.change',
    summary: 'What an entry would cost, and why, before it is kept; entries that are named alike',
    body: obj({
      id: id().required(),
      kind: oneOf(ENTRY_KINDS).required(),
      name: text(160).default(''),
      category: text(120).default(''),
      supplier: text(80).default(''),
      ...wanted,
      seconds: int(0, 360_000).default(0),
      furtherSeconds: int(0, 360_000).default(0),
      labourId: id().nullable().default(null),
      sundriesRate: decimal().nullable().default(null),
      parts: inside,
    }),
    answer: obj({
      why,
      whyFurther: why.nullable().defined(),
      costs: costs.nullable().defined(),
      margin: definedText().nullable(),
      /** what the rule would make of it, where its price is fixed otherwise */ byRule:
        definedText().nullable(),
      marginByRule: definedText().nullable(),
      alike: list(
        obj({
          id: id().required(),
          code: definedText(),
          name: definedText(),
          price: definedText(),
        }),
      ),
    }),
  }),
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
    body: obj({ id: id().required(), ...rules, year: year.nullable().default(null) }),
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
  suppliers: route({
    method: 'GET',
    path: '/suppliers',
    may: 'pricebook.search',
    summary: 'Wholesalers that are connected',
    answer: obj({
      items: list(obj({ id: definedText(), name: definedText(), categories: list(definedText()) })),
    }),
  }),
  supplierProducts: route({
    method: 'GET',
    path: '/suppliers/{key}/products',
    may: 'pricebook.search',
    summary: 'A wholesaler’s catalogue, with what we would sell it for',
    query: obj({ q: text(100), category: text(80), limit: int(1, 100), after: text(40) }),
    answer: page(product),
  }),
  compareSuppliers: route({
    method: 'GET',
    path: '/suppliers/compare/{key}',
    may: 'pricebook.search',
    summary: 'The same thing at every wholesaler, the cheapest that has it first',
    answer: obj({ items: list(product) }),
  }),
  addBasket: route({
    method: 'POST',
    path: '/work-orders/{id}/basket',
    may: 'pricebook.buy',
    summary: 'A wholesaler’s basket as lines of a work order, at cost times our markup',
    body: obj({ visitId: id().nullable().default(null), items: basket }),
    answer: workOrder,
  }),
  addQuoteBasket: route({
    method: 'POST',
    path: '/quotes/{id}/basket',
    may: 'pricebook.buy',
    summary: 'A wholesaler’s basket as lines of a draft quote',
    body: obj({ version: version(), items: basket }),
    answer: quoteDetail,
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
  retireEntries: route({
    method: 'POST',
    path: '/price-book/retire',
    may: 'pricebook.change',
    summary: 'Retires entries, or brings them back',
    body: obj({ ids: list(id().required()).min(1).max(5000), retired: flag().required() }),
    answer: obj({ count: int().required() }),
  }),
  takeHours: route({
    method: 'POST',
    path: '/price-book/hours',
    may: 'pricebook.change',
    summary:
      'Takes the hours that were worked for the hours of the book, with the prices that follow',
    body: obj({
      id: id().required(),
      entries: list(obj({ id: id().required(), seconds: int(60, 360_000).required() }))
        .min(1)
        .max(500),
    }),
    answer: batch,
  }),
  bookPdf: route({
    method: 'GET',
    path: '/price-book.pdf',
    may: 'pricebook.search',
    summary: 'The book as a paper to show',
    query: obj({
      category: text(120),
      kind: text(60),
      levels: text(120),
      ours: oneOf(['no'] as const),
      pictures: oneOf(['yes'] as const),
    }),
    mime: 'application/pdf',
  }),
  columnMeaning: route({
    method: 'POST',
    path: '/price-imports/columns',
    may: 'pricebook.change',
    summary: 'What the columns of such a list meant the last time',
    body: obj(source),
    answer: obj({ known: flag().required(), columns: list(definedText().nullable()) }),
  }),
  stagePrices: route({
    method: 'POST',
    path: '/price-imports/{id}/rows',
    may: 'pricebook.change',
    summary: 'Rows of a price list, a piece at a time; nothing is changed by them',
    maxBytes: 8_000_000,
    body: obj({
      ...source,
      fileName: requiredText('Say what the file is called.', 160),
      columns,
      rows: list(obj({ row: int(1).required(), cells: list(cell).max(60) }))
        .min(1)
        .max(2000),
    }),
    answer: ok,
  }),
  lookAtPrices: route({
    method: 'POST',
    path: '/price-imports/{id}/look',
    may: 'pricebook.change',
    summary: 'What taking a list in would do, row by row; nothing is changed',
    body: obj(listOptions),
    answer: obj({
      stamp: definedText(),
      counts: listCounts,
      wrong: list(listRow),
      new: list(listRow),
      changed: list(listRow),
      vanished: list(obj({ id: id().required(), code: definedText(), name: definedText() })),
      prices: preview.omit(['stamp', 'count']),
    }),
  }),
  takePrices: route({
    method: 'POST',
    path: '/price-imports/{id}/take',
    may: 'pricebook.change',
    summary: 'Takes in every row that is right, in one act',
    body: obj({ stamp: requiredText('Look at it first.', 80), ...listOptions }),
    answer: priceList,
  }),
  importProgress: route({
    method: 'GET',
    path: '/price-imports/{id}/progress',
    may: 'pricebook.change',
    summary: 'How far a list is that is being looked at or taken in',
    answer: obj({ what: definedText(), done: int().required(), of: int().required() }),
  }),
  priceImports: route({
    method: 'GET',
    path: '/price-imports',
    may: 'pricebook.change',
    summary: 'Lists that were taken in, the newest first',
    answer: obj({ items: list(priceList) }),
  }),
  undoPriceImport: route({
    method: 'POST',
    path: '/price-imports/{id}/undo',
    may: 'pricebook.change',
    summary: 'Takes a list back in one act; what was changed again since stays',
    answer: obj({ list: priceList, left: int().required() }),
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
}
