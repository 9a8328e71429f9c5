// The price book as it is searched and added from.
import { ALL, flag, id, int, list, listQuery, money, obj, oneOf, page, route, text, words } from './schema'

export const ENTRY_KINDS = ['task', 'part', 'labour', 'charge'] as const
export const entry = obj({
  id: id().required(), code: words(), kind: oneOf(ENTRY_KINDS).required(), category: words(), name: words(), synonyms: words(255), parts: words(2000), unit: words(), price: words(), furtherPrice: words().nullable(),
  cost: words().nullable(), taxClass: words(), seconds: int().required(), furtherSeconds: int().required(), skills: list(words()), pinned: flag().required(), agreementSaving: money().required(),
})
export const pricebookRoutes = {
  priceBook: route({ method: 'GET', path: '/price-book', who: ALL, summary: 'Entries of the price book', query: obj({ ...listQuery, kind: oneOf(ENTRY_KINDS), pinned: oneOf(['yes'] as const) }), answer: page(entry) }),
  searchPriceBook: route({ method: 'GET', path: '/price-book/search', who: ALL, summary: 'The best entries for some words, forgiving a typo', query: obj({ q: text(100), kind: oneOf(ENTRY_KINDS) }), answer: obj({ items: list(entry) }) }),
}
