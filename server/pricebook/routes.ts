// The routes of the price book, bound to their service.
import type { pricebookRoutes } from '../../shared/pricebook'
import type { Handlers } from '../http/handlers'
import { changePrices, previewPrices, priceChanges, undoPrices } from './changes'
import { keepPriceEntry, priceEntry, tryPrice } from './entry'
import { keepPricing, pricing } from './rules'
import { listBook, searchBook } from './service'

export const pricebookHandlers: Handlers<typeof pricebookRoutes> = {
  priceBook: (ctx, { query }) => listBook(ctx, query),
  searchPriceBook: (ctx, { query }) => searchBook(ctx, query),
  priceEntry: (ctx, { params }) => priceEntry(ctx, params.id!),
  keepPriceEntry: (ctx, { params, body }) => keepPriceEntry(ctx, params.id!, body),
  tryPrice: (ctx, { body }) => tryPrice(ctx, body),
  pricing: ctx => pricing(ctx),
  keepPricing: (ctx, { body }) => keepPricing(ctx, body),
  previewPrices: (ctx, { body }) => previewPrices(ctx, body),
  changePrices: (ctx, { body }) => changePrices(ctx, body),
  priceChanges: ctx => priceChanges(ctx),
  undoPrices: (ctx, { params }) => undoPrices(ctx, params.id!),
}
