// The routes of outside services, bound to what they do.
import type { connectionRoutes } from '../../shared/connections'
import { outside, type Handlers } from '../http/route'
import { connections, keepConnection, tryConnection } from './connections'
import { readConnections } from './kept'

export const connectionHandlers: Handlers<typeof connectionRoutes> = {
  connections: (ctx) => connections(ctx),
  // Once it is committed, this process knows it; the others a moment later.
  keepConnection: outside(async (call, { body }) => {
    const now = await call.once((ctx) => keepConnection(ctx, body))
    await readConnections()
    return now
  }),
  tryConnection: outside((_call, { params }) => tryConnection(params.kind!)),
}
