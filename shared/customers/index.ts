// Customers, their sites, contacts and equipment.
import { callerRoutes } from './callers'
import { customerRecordRoutes } from './customers'
import { placeRoutes } from './places'
import { mergeRoutes } from './merging'

export { CONSENT, TERMS, customValues, siteShape } from './shapes'
export { match, caller } from './callers'
export { newCustomerSchema, customerDetail } from './customers'

export const customerRoutes = {
  ...callerRoutes,
  ...customerRecordRoutes,
  ...placeRoutes,
  ...mergeRoutes,
}
