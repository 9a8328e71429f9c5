// The routes of what waits, bound to their service.
import type { waitingRoutes } from '../../shared/waiting'
import type { Handlers } from '../http/route'
import { toActOn } from './views'

export const waitingHandlers: Handlers<typeof waitingRoutes> = { toActOn }
