// Work orders and their visits, in the office and on site.
import { workRoutes } from './work'
import { lineRoutes } from './lines'
import { onSiteRoutes } from './onSite'

export { workOrder } from './workOrder'
export { fieldDay, fieldVisitDetail } from './onSite'

export const visitRoutes = {
  ...workRoutes,
  ...lineRoutes,
  ...onSiteRoutes,
}
