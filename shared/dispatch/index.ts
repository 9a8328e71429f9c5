// Dispatching: the schedule, its set-up, openings and plans, the map, what customers are told.
import { scheduleRoutes } from './schedule'
import { filterRoutes } from './filters'
import { setUpRoutes } from './setUp'
import { holidayRoutes } from './holidays'
import { planningRoutes } from './planning'
import { mapRoutes } from './map'
import { visitMessageRoutes } from './messages'

export { scheduleVisit } from './visit'
export { schedule } from './schedule'
export { scheduleFilter } from './filters'
export { VISIT_MESSAGES, scheduleSetUp } from './setUp'
export { PARTS, ORDERS, opening, dayPlan } from './planning'

export const dispatchRoutes = {
  ...scheduleRoutes,
  ...filterRoutes,
  ...setUpRoutes,
  ...holidayRoutes,
  ...planningRoutes,
  ...mapRoutes,
  ...visitMessageRoutes,
}
