// The routes of what is taken over from the books before, bound to their services.
import type { broughtRoutes } from '../../shared/broughtForward'
import type { Handlers } from '../http/route'
import { broughtForward, keepOpening } from './balances'
import { bringOpenItems } from './openItems'
import { undoOpenItems } from './takeOver'

export const broughtHandlers: Handlers<typeof broughtRoutes> = {
  broughtForward: (ctx) => broughtForward(ctx),
  bringOpenItems: (ctx, { params, body }) => bringOpenItems(ctx, params.id!, body),
  undoOpenItems: (ctx, { params }) => undoOpenItems(ctx, params.id!),
  keepOpening: (ctx, { body }) => keepOpening(ctx, body),
}
