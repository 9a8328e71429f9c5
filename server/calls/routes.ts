// The routes of calls, bound to their service.
import type { callRoutes } from '../../shared/calls'
import type { Handlers } from '../http/handlers'
import { bookCall, endCall, listCalls, oneCall, saveCall } from './service'

export const callHandlers: Handlers<typeof callRoutes> = {
  calls: listCalls,
  call: (ctx, { params }) => oneCall(ctx, params.id!),
  saveCall: (ctx, { params, body }) => saveCall(ctx, params.id!, body),
  bookCall: (ctx, { params, body }) => bookCall(ctx, params.id!, body),
  endCall: (ctx, { params, body }) => endCall(ctx, params.id!, body),
}
