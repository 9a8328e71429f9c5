// The routes of everything in and out, bound to what they do.
import type { archiveRoutes } from '../../shared/archive'
import { outside, type Handlers } from '../http/route'
import { beginAsOwner, takeInArchive } from './begin'
import { archiveName, takenAlong } from './exported'
import { endSchedule, inAndOut, keepSchedule } from './inAndOut'

export const archiveHandlers: Handlers<typeof archiveRoutes> = {
  inAndOut: (ctx) => inAndOut(ctx),
  archive: outside(async (call) =>
    takenAlong(call, 'archive', await call.inContext(async (ctx) => archiveName(ctx))),
  ),
  keepExportSchedule: (ctx, { body }) => keepSchedule(ctx, body),
  endExportSchedule: (ctx, { params, body }) => endSchedule(ctx, params.id!, body),
  takeInArchive: outside((call, { raw }) => takeInArchive(call, { raw })),
  beginAsOwner: outside((call, { body }) => beginAsOwner(call, body)),
}
