// The price book: as it is searched and added from, as it is built, and how its prices change.
import { ALL, date, decimal, flag, id, INDOORS, instant, int, list, listQuery, money, need, obj, OFFICE, oneOf, page, route, text, words } from './schema'

export const ENTRY_KINDS = ['task', 'part', 'labour', 'charge'] as const
export const entry = obj({
  id: id().required(), code: words(), kind: oneOf(ENTRY_KINDS).required(), category: words(), name: words(), synonyms: words(255), parts: words(2000), unit: words(), price: words(), furtherPrice: words().nullable(),
  cost: words().nullable(), taxClass: words(), seconds: int().required(), furtherSeconds: int().required(), skills: list(words()), pinned: flag().required(), agreementSaving: money().required(),
})
const reason = obj({ code: words(), text: words(300), amount: words() })
const why = obj({ price: words(), reasons: list(reason), hour: words().nullable() })
const priceSet = obj({ cost: words().nullable(), price: words(), furtherPrice: words().nullable(), pricing: words() })
const facts = {
  code: need('Give it a code of its own.', 24), kind: oneOf(ENTRY_KINDS).required(), category: need('Say which category it stands in.', 60), name: need('Give it a name.', 160), description: text(2000).default(''), technicianNote: text(2000).default(''), synonyms: text(255).default(''), unit: text(16).default('each'),
  taxClass: need('Choose how it is taxed.', 20), seconds: int(0, 360_000).default(0), furtherSeconds: int(0, 360_000).default(0), skills: list(text(60).min(1).defined()).max(30).default([]), pinned: flag().default(false), labourId: id().nullable().default(null), sundriesRate: decimal().nullable().default(null),
  supplier: text(80).default(''), partNumber: text(60).default(''), incomeCode: text(24).default(''), activeFrom: date().nullable().default(null), activeTo: date().nullable().default(null), retired: flag().default(false),
}
const MONEY = 'Write the amount as a number, for example 100.00.'
const wanted = { pricing: oneOf(['rule', 'fixed'] as const).required(), cost: decimal(MONEY).default('0'), price: decimal(MONEY).default('0'), furtherPrice: decimal(MONEY).nullable().default(null) }
const inside = list(obj({ partId: id().required(), quantity: decimal('Write how many, for example 2 or 1.5.').required() })).max(100).default([])
const entryBody = obj({ version: int(0).required('Say which version you changed.'), ...facts, ...wanted, parts: inside })
const entryPaper = obj({
  id: id().required(), version: int().required(), code: words(), kind: oneOf(ENTRY_KINDS).required(), category: words(), name: words(), description: words(2000), technicianNote: words(2000), synonyms: words(255), unit: words(), taxClass: words(), seconds: int().required(), furtherSeconds: int().required(), skills: list(words()),
  pinned: flag().required(), labourId: id().nullable().defined(), sundriesRate: words().nullable(), supplier: words(), partNumber: words(), incomeCode: words(), activeFrom: date().nullable().defined(), activeTo: date().nullable().defined(), retired: flag().required(), pricing: words(), cost: words().nullable(), price: words(), furtherPrice: words().nullable(), pricedOn: date().nullable().defined(),
  parts: list(obj({ partId: id().required(), code: words(), name: words(), quantity: words(), price: words() })), why, whyFurther: why.nullable().defined(), margin: words().nullable(),
  history: list(obj({ title: words(), state: words(), holdsFrom: date().required(), madeAt: instant().required(), madeBy: words(), was: priceSet, became: priceSet })),
  sold: obj({ lines: int().required(), quantity: words(), net: money().required(), last: date().nullable().defined(), where: list(obj({ workOrderId: id().required(), number: words(), customer: words(), on: date().required(), quantity: words(), unitPrice: words(), net: money().required() })) }),
})
const tier = obj({ fromCost: decimal('Write from which cost on.').required(), multiplier: decimal('Write by how much, for example 1.5.').required() })
const rules = { markups: list(obj({ scope: oneOf(['all', 'category', 'supplier'] as const).required(), name: text(80).default(''), tiers: list(tier).min(1, 'A markup needs at least one step.').max(30) })).max(100), sundriesRate: decimal().required(), minimum: decimal(MONEY).required(), rounding: oneOf(['none', 'whole', 'ending'] as const).required(), ending: int(0, 99).default(0) }
const year = obj({ wages: decimal(MONEY).required(), burden: decimal(MONEY).required(), overhead: decimal(MONEY).required(), paidHours: decimal().required(), billedShare: decimal().required(), targetMargin: decimal().required() })
const pricingRules = obj({ ...rules, year: year.nullable().defined(), categories: list(words()), suppliers: list(words()), labour: list(obj({ id: id().required(), name: words(), price: words() })), taxClasses: list(obj({ id: words(), name: words() })) })
/** What is changed: entries that are named, or all that fit, by a rule; or each entry as it is written here. */
const change = {
  ids: list(id().required()).max(20_000).default([]), kind: oneOf(ENTRY_KINDS), category: text(60).default(''), supplier: text(80).default(''), rule: oneOf(['cost_percent', 'price_percent', 'set', 'by_rule', 'each'] as const).required('Say what is done to the prices.'),
  percent: text(12).matches(/^-?\d{1,3}(\.\d{1,4})?$/, { message: 'Write a percentage, for example 4 or -2.5.', excludeEmptyString: true }).default(''), price: text(16).matches(/^\d{1,9}(\.\d{1,4})?$/, { message: MONEY, excludeEmptyString: true }).default(''),
  each: list(obj({ id: id().required(), cost: decimal(MONEY), price: decimal(MONEY) })).max(20_000).default([]),
}
const changeRow = obj({ id: id().required(), code: words(), name: words(), kind: words(), follows: flag().required(), was: priceSet, becomes: priceSet, difference: words(), marginWas: words().nullable(), marginBecomes: words().nullable(), sold: words(), effect: words() })
const preview = obj({ stamp: words(), count: int().required(), changed: int().required(), follow: int().required(), effect: money().required(), soldLines: int().required(), margins: list(obj({ was: words(), becomes: words() })), rows: list(changeRow), questions: list(words(300)) })
const batch = obj({ id: id().required(), title: words(), holdsFrom: date().required(), state: words(), madeBy: words(), madeAt: instant().required(), entries: int().required() })
export const pricebookRoutes = {
  priceBook: route({ method: 'GET', path: '/price-book', who: ALL, summary: 'Entries of the price book', query: obj({ ...listQuery, kind: oneOf(ENTRY_KINDS), category: text(60), pinned: oneOf(['yes'] as const), retired: oneOf(['yes'] as const) }), answer: page(entry) }),
  searchPriceBook: route({ method: 'GET', path: '/price-book/search', who: ALL, summary: 'The best entries for some words, forgiving a typo', query: obj({ q: text(100), kind: oneOf(ENTRY_KINDS) }), answer: obj({ items: list(entry) }) }),
  priceEntry: route({ method: 'GET', path: '/price-book/entries/{id}', who: INDOORS, summary: 'One entry: what its price is made of, its history, where it was sold', answer: entryPaper }),
  keepPriceEntry: route({ method: 'POST', path: '/price-book/entries/{id}', who: OFFICE, summary: 'Makes an entry (version 0) or changes one; what follows from its price follows', maxBytes: 200_000, body: entryBody, answer: entryPaper }),
  tryPrice: route({ method: 'POST', path: '/price-book/try', who: OFFICE, summary: 'What an entry would cost, and why, before it is kept; entries that are named alike', body: obj({ id: id().required(), kind: oneOf(ENTRY_KINDS).required(), name: text(160).default(''), category: text(60).default(''), supplier: text(80).default(''), ...wanted, seconds: int(0, 360_000).default(0), furtherSeconds: int(0, 360_000).default(0), labourId: id().nullable().default(null), sundriesRate: decimal().nullable().default(null), parts: inside }), answer: obj({ why, whyFurther: why.nullable().defined(), margin: words().nullable(), alike: list(obj({ id: id().required(), code: words(), name: words(), price: words() })) }) }),
  pricing: route({ method: 'GET', path: '/pricing', who: INDOORS, summary: 'The rules that prices follow', answer: pricingRules }),
  keepPricing: route({ method: 'POST', path: '/pricing', who: OFFICE, summary: 'Changes the rules; prices that follow them change with them, in one act', body: obj({ id: id().required(), ...rules, year: year.nullable().default(null) }), answer: pricingRules }),
  previewPrices: route({ method: 'POST', path: '/price-changes/preview', who: OFFICE, summary: 'What a change of prices would do, entry by entry and to the sales of the last twelve months', maxBytes: 4_000_000, body: obj(change), answer: preview }),
  changePrices: route({ method: 'POST', path: '/price-changes', who: OFFICE, summary: 'Changes prices as they were previewed, from a day on', maxBytes: 4_000_000, body: obj({ id: id().required(), title: text(160).default(''), holdsFrom: date().nullable().default(null), stamp: need('Look at the preview first.', 80), ...change }), answer: batch }),
  priceChanges: route({ method: 'GET', path: '/price-changes', who: INDOORS, summary: 'Changes of prices, the newest first', answer: obj({ items: list(batch) }) }),
  undoPrices: route({ method: 'POST', path: '/price-changes/{id}/undo', who: OFFICE, summary: 'Takes a change of prices back in one act; what was changed again since stays', answer: obj({ batch, left: int().required() }) }),
}
