// What is settled with the terminal outside a request: answers that got lost, and money that goes back.
import { doubling, type JobKind } from '../jobs/jobs'
import { noteRefunded, settle } from './card'
import { ask } from './terminal'
import { SECOND } from '../../core/time/units'

const LIMIT_MS = 15 * SECOND
/** About a day of looking, ever more seldom. */
const MOST_LOOKS = 30
const MOST_REFUNDS = 1_000

interface Said {
  state: 'asked' | 'approved' | 'declined' | 'refunded'
  reference: string
  reason: string
}
class NotYet extends Error {}

/** Asks what became of a charge, until the terminal knows. */
export const lookAtCharge: JobKind = {
  kind: 'card.look',
  atOnce: 2,
  limitMs: LIMIT_MS,
  tries: MOST_LOOKS,
  waitMs: doubling,
  async run(job) {
    const chargeId = String(job.payload.chargeId)
    const said = await ask<Said>('GET', `/charges/${chargeId}`)
    if (said?.state === 'approved' || said?.state === 'declined') {
      const { state, reference, reason } = said
      return (ctx) => settle(ctx, chargeId, { state, reference, reason })
    }
    throw new NotYet('nobody has paid on this page yet')
  },
}
/** Gives back what was approved a second time; the terminal gives it back once, however often it is asked. */
export const refundCharge: JobKind = {
  kind: 'card.refund',
  atOnce: 2,
  limitMs: LIMIT_MS,
  tries: MOST_REFUNDS,
  waitMs: doubling,
  async run(job) {
    const chargeId = String(job.payload.chargeId)
    // Only its word that the money went back is noted as such.
    if (!(await ask('POST', `/charges/${chargeId}/refund`)))
      throw new Error('the terminal knows no such charge')
    return (ctx) => noteRefunded(ctx, chargeId)
  },
}
