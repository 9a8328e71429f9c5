// The routes of the price book, bound to their service.
import type { pricebookRoutes } from '../../shared/pricebook'
import { outside, type Handlers } from '../http/route'
import { changePrices, previewPrices, priceChanges, undoPrices } from './changes'
import { keepPriceEntry, keepPricePicture, pricePicture, tryPrice } from './entry'
import { priceEntry } from './entryView'
import {
  columnMeaning,
  importProgress,
  listPriceImports,
  lookAtPrices,
  stagePrices,
  takePrices,
  undoPriceImport,
} from './imports'
import { addQuoteBasket } from '../quotes/commands'
import { addBasket, tryLines } from '../visits/lines'
import { bookPdf } from './bookPdf'
import { bookUsage, retireEntries, takeHours } from './usage'
import { compareSuppliers, supplierNames, supplierProducts } from './suppliers'
import { keepPriceLevel, priceLevels } from './levels'
import { keepPricing, pricing } from './pricing'
import { startPriceBook } from './starter'
import { listBook, pinEntry, searchBook, sendBook } from './service'

export const pricebookHandlers: Handlers<typeof pricebookRoutes> = {
  priceBook: (ctx, { query }) => listBook(ctx, query),
  searchPriceBook: (ctx, { query }) => searchBook(ctx, query),
  wholeBook: (ctx, { query }) => sendBook(ctx, query),
  pinEntry: (ctx, { params, body }) => pinEntry(ctx, params.id!, body.on),
  pricePicture: (ctx, { params }) => pricePicture(ctx, params.id!),
  keepPricePicture: outside((call, { params, body }) => keepPricePicture(call, params.id!, body)),
  tryLines: (ctx, { body }) => tryLines(ctx, body),
  priceEntry: (ctx, { params }) => priceEntry(ctx, params.id!),
  keepPriceEntry: (ctx, { params, body }) => keepPriceEntry(ctx, params.id!, body),
  startPriceBook: (ctx, { body }) => startPriceBook(ctx, body),
  tryPrice: (ctx, { body }) => tryPrice(ctx, body),
  priceLevels: (ctx) => priceLevels(ctx),
  keepPriceLevel: (ctx, { body }) => keepPriceLevel(ctx, body),
  pricing: (ctx) => pricing(ctx),
  keepPricing: (ctx, { body }) => keepPricing(ctx, body),
  previewPrices: (ctx, { body }) => previewPrices(ctx, body),
  changePrices: (ctx, { body }) => changePrices(ctx, body),
  priceChanges: (ctx) => priceChanges(ctx),
  undoPrices: (ctx, { params }) => undoPrices(ctx, params.id!),
  columnMeaning: (ctx, { body }) => columnMeaning(ctx, body),
  stagePrices: (ctx, { params, body }) => stagePrices(ctx, params.id!, body),
  lookAtPrices: (ctx, { params, body }) => lookAtPrices(ctx, params.id!, body),
  takePrices: (ctx, { params, body }) => takePrices(ctx, params.id!, body),
  importProgress: (ctx, { params }) => importProgress(ctx, params.id!),
  priceImports: (ctx) => listPriceImports(ctx),
  undoPriceImport: (ctx, { params }) => undoPriceImport(ctx, params.id!),
  suppliers: outside(() => supplierNames()),
  supplierProducts: outside((call, { params, query }) =>
    supplierProducts(call, params.key!, query),
  ),
  compareSuppliers: outside((call, { params }) => compareSuppliers(call, params.key!)),
  addBasket: outside((call, { params, body }) => addBasket(call, params.id!, body)),
  addQuoteBasket: outside((call, { params, body }) => addQuoteBasket(call, params.id!, body)),
  bookUsage: (ctx) => bookUsage(ctx),
  retireEntries: (ctx, { body }) => retireEntries(ctx, body),
  takeHours: (ctx, { body }) => takeHours(ctx, body),
  bookPdf: (ctx, { query }) => bookPdf(ctx, query),
}
