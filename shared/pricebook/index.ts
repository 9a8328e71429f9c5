// The price book: entries, prices by rule and how they change, lists from suppliers.
import { entryRoutes } from './entries'
import { levelRoutes } from './levels'
import { pricingRoutes } from './pricing'
import { priceListRoutes } from './lists'
import { supplierRoutes } from './suppliers'

export { entry } from './shapes'

export const pricebookRoutes = {
  ...entryRoutes,
  ...pricingRoutes,
  ...levelRoutes,
  ...priceListRoutes,
  ...supplierRoutes,
}
