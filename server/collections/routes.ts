// The routes of what is unpaid, bound to their service.
import type { collectionRoutes } from '../../shared/collections'
import type { Handlers } from '../http/route'
import { noteCollection, remind } from './commands'
import { owing, unpaid } from './views'

export const collectionHandlers: Handlers<typeof collectionRoutes> = {
  unpaid: (ctx, { query }) => unpaid(ctx, query.on),
  owing: (ctx, { params, query }) => owing(ctx, params.id!, query.on),
  remind: (ctx, { params, body }) => remind(ctx, params.id!, body),
  collectionNote: (ctx, { params, body }) => noteCollection(ctx, params.id!, body),
}
