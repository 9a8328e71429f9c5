// Live changes as server-sent events. Events carry no content, only what changed: a screen asks again with its own rights.
import {
  createEventStream,
  getHeader,
  getQuery,
  setHeader,
  type EventStreamMessage,
  type H3Event,
} from 'h3'
import { stillHolds, type Asker } from '../access/session'
import { reading } from '../db/pool'
import { bus, type AppEvent } from '../events/events'
import { edges, eventsFrom } from '../events/queries'
import { LedgerError } from '../../core/errors/LedgerError'
import { TOLD_TO_ALL } from '../../shared/live'
import { log } from './log'

const BEAT_MS = 20_000
/** Windows that one session may have open at once, in this process. */
const MOST_STREAMS = 12
/** Numbers are given before the commit, so they can appear out of order: resuming after a cut goes a little back. Repeats do no harm. */
const LOOK_BACK = 20
const MOST_AT_ONCE = 500
const open = new Map<string, number>()

function enter(session: string): () => void {
  const now = open.get(session) ?? 0
  if (now >= MOST_STREAMS)
    throw new LedgerError(
      'too_many_streams',
      `Open Ledger is open in ${MOST_STREAMS} windows already. Close one first.`,
      { extra: { retryAfter: 30 } },
    )
  open.set(session, now + 1)
  return () => {
    const left = (open.get(session) ?? 1) - 1
    if (left > 0) open.set(session, left)
    else open.delete(session)
  }
}

export async function live(event: H3Event, asker: Asker): Promise<void> {
  const leave = enter(asker.session)
  const technician = asker.actor!.role === 'technician'
  const stream = createEventStream(event)
  setHeader(event, 'X-Accel-Buffering', 'no')
  // Technicians learn that something changed, not what: other people's customers are none of their business.
  const data = (e: AppEvent) =>
    JSON.stringify(
      technician && !TOLD_TO_ALL.includes(e.subject)
        ? { subject: 'something' }
        : { subject: e.subject, id: e.subjectId, workOrderId: e.workOrderId },
    )
  /** Whoever left in this very moment is told nothing more. */
  const tell = (message: EventStreamMessage) => void stream.push(message).catch(() => {})
  const push = (e: AppEvent) => {
    // That somebody signed in is nothing to ask anew for in a van.
    if (technician && e.subject === 'access') return
    tell({ id: String(e.id), event: 'change', data: data(e) })
  }
  const moved = () => tell({ event: 'moved', data: '' })
  const ended = (e: AppEvent) => {
    if (e.subjectId === asker.session) void stream.close()
  }
  const beat = setInterval(() => {
    tell({ event: 'beat', data: '' })
    // A session that ended in any other way, by its time or by a person who left, ends here too.
    void stillHolds(asker.session, asker.byCookie ? 'cookie' : 'token')
      .then(async (holds) => {
        if (!holds) await stream.close()
      })
      .catch((error) => log.warn({ err: (error as Error).message }, 'live'))
  }, BEAT_MS)
  bus.on('change', push)
  bus.on('session', ended)
  // Where vans are is for those who dispatch them.
  if (!technician) bus.on('moved', moved)
  stream.onClosed(() => {
    bus.off('change', push)
    bus.off('session', ended)
    bus.off('moved', moved)
    clearInterval(beat)
    leave()
  })
  tell({ event: 'hello', data: '' })
  await resume(knownTo(event), push, () => tell({ event: 'reset', data: '' }))
  return stream.send()
}
interface Known {
  last: number
  /** how far before it the stream begins */
  back: number
}
/** The last event that the window knows of: what the stream brought last, or when its first answers were read. */
function knownTo(event: H3Event): Known {
  const last = getHeader(event, 'Last-Event-ID')
  return last === undefined
    ? { last: Number(getQuery(event).after ?? Number.NaN), back: 0 }
    : { last: Number(last), back: LOOK_BACK }
}
/** What was missed while the line was down; where that is not known any more, or too much, everything is old. */
async function resume(
  { last, back }: Known,
  push: (e: AppEvent) => void,
  reset: () => void,
): Promise<void> {
  if (!Number.isSafeInteger(last)) return
  const [{ first }, missed] = await reading(
    async (tx) =>
      [await edges(tx), await eventsFrom(tx, Math.max(0, last - back), MOST_AT_ONCE)] as const,
  )
  if (last < first - 1 || missed.length === MOST_AT_ONCE) reset()
  else for (const e of missed) if (e.topic === 'change') push(e)
}
