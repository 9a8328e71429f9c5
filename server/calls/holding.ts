// A chosen time is held for a call, so that two callers are not promised the same one.
import { localToInstant } from '../../core/time/zone'
import { MINUTE } from '../../core/time/units'
import type { Body } from '../../shared/api'
import { lockPeople } from '../dispatch/index'
import { heldByOthers } from '../dispatch/placing'
import type { Ctx } from '../http/context'

/** How long a chosen time is held after the last word (our own rule). */
const HOLD_MINUTES = 10
/** The time that a call holds from now on, or who holds it already. */
export async function heldFor(ctx: Ctx, callId: string, draft: Body<'saveCall'>['draft']) {
  const { technicianId, date, start } = draft
  // A chosen time is held against a second caller for some minutes from the last word; who was first keeps it.
  const startAt =
    technicianId && date && start ? localToInstant(date, start, ctx.company.timeZone) : null
  if (technicianId && startAt !== null) await lockPeople(ctx.tx, [technicianId])
  const heldBy =
    technicianId && startAt !== null
      ? await heldByOthers(ctx, {
          callId,
          technicianId,
          startAt,
          durationSeconds: draft.durationSeconds,
        })
      : ''
  const heldUntil = startAt !== null && !heldBy ? ctx.now + HOLD_MINUTES * MINUTE : null
  return { heldBy, heldUntil }
}
