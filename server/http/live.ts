// Live changes as server-sent events. Events carry no content, only what changed: a screen asks again with its own rights.
import { createEventStream, getHeader, type H3Event } from 'h3'
import { inContext, type Actor } from './context'
import { bus, eventsAfter, type LiveEvent } from './queries'

export async function live(event: H3Event, actor: Actor): Promise<void> {
  const stream = createEventStream(event)
  // Technicians learn that something changed, not what: other people's customers are none of their business.
  const data = (e: LiveEvent) => JSON.stringify(actor.role === 'technician' ? { subject: 'something' } : { subject: e.subject, id: e.subjectId, workOrderId: e.workOrderId })
  const push = (e: LiveEvent) => void stream.push({ id: String(e.id), event: 'change', data: data(e) })
  const moved = () => void stream.push({ event: 'moved', data: '' })
  bus.on('change', push)
  // Where vans are is for those who dispatch them.
  if (actor.role !== 'technician') bus.on('moved', moved)
  const beat = setInterval(() => void stream.push({ event: 'beat', data: '' }), 20_000)
  stream.onClosed(() => {
    bus.off('change', push)
    bus.off('moved', moved)
    clearInterval(beat)
  })
  void stream.push({ event: 'hello', data: '' })
  const last = Number(getHeader(event, 'Last-Event-ID') ?? Number.NaN)
  // Numbers are given before the commit, so they can appear out of order: resuming goes a little back. Repeats do no harm.
  if (Number.isSafeInteger(last)) for (const e of await inContext({ actor, ip: '' }, ctx => eventsAfter(ctx.tx, Math.max(0, last - 20)))) push(e)
  return stream.send()
}
