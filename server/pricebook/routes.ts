// The routes of the price book, bound to their service.
import type { pricebookRoutes } from '../../shared/pricebook'
import type { Handlers } from '../http/handlers'
import { listBook, searchBook } from './service'

export const pricebookHandlers: Handlers<typeof pricebookRoutes> = {
  priceBook: (ctx, { query }) => listBook(ctx, query),
  searchPriceBook: (ctx, { query }) => searchBook(ctx, query),
}
