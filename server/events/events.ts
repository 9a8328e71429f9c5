// One fact, one event: written with what it tells of, read by every process. Live changes, and what
// a cache forgets, follow from it.
import { EventEmitter } from 'node:events'
import { inBackground, type Tx } from '../db/pool'
import { log } from '../http/log'
import { eventsFrom, insertEvents, lastEvent, type AppEvent, type NewEvent } from './queries'

export type { AppEvent } from './queries'
export const bus = new EventEmitter().setMaxListeners(0)

const waiting = new WeakMap<Tx, NewEvent[]>()
const keyOf = (e: NewEvent) => `${e.topic} ${e.subject} ${e.subjectId} ${e.workOrderId}`

/** Tells of something that this transaction changes. It is written as its last act, and told when it is committed. */
export function emit(tx: Tx, event: NewEvent): void {
  const known = waiting.get(tx)
  if (known) {
    known.push(event)
    return
  }
  const events = [event]
  waiting.set(tx, events)
  tx.beforeCommit(async () => {
    const once = [...new Map(events.map((e) => [keyOf(e), e])).values()]
    const written = await insertEvents(tx, once, Date.now())
    tx.afterCommit(() => written.forEach(deliver))
  })
}
export const hasEvents = (tx: Tx): boolean => waiting.has(tx)

/**
 * Identifiers are given before the commit, so a smaller one can become visible after a larger one:
 * the last few are read again, and those that were told already are left out.
 */
const LOOK_BACK = 100
const REMEMBERED = 4 * LOOK_BACK
const told = new Set<number>()
let last = 0

function deliver(event: AppEvent): void {
  if (told.has(event.id)) return
  told.add(event.id)
  last = Math.max(last, event.id)
  if (told.size > REMEMBERED) {
    for (const id of [...told].sort((a, b) => a - b).slice(0, REMEMBERED / 2)) told.delete(id)
  }
  bus.emit(event.topic, event)
  bus.emit('any', event)
}
const READ_AT_ONCE = 1000
async function read(tx: Tx): Promise<void> {
  for (;;) {
    const events = await eventsFrom(tx, Math.max(0, last - LOOK_BACK), READ_AT_ONCE)
    const before = last
    events.forEach(deliver)
    if (events.length < READ_AT_ONCE || last === before) return
  }
}
/** What other processes told of since the last look, before something is answered from memory. */
export const catchUp = (tx: Tx): Promise<void> => read(tx)

const EVERY_MS = 120
const AFTER_TROUBLE_MS = 1000
/** Reads what other processes tell of, until it is stopped. */
export function followEvents(): () => void {
  let timer: NodeJS.Timeout
  let stopped = false
  const begin = async () => {
    try {
      await inBackground(async (tx) => {
        last = await lastEvent(tx)
      })
      void next()
    } catch {
      if (!stopped) timer = setTimeout(begin, AFTER_TROUBLE_MS)
    }
  }
  const next = async () => {
    let wait = EVERY_MS
    try {
      await inBackground(read)
    } catch (error) {
      wait = AFTER_TROUBLE_MS
      log.warn({ err: (error as Error).message }, 'events')
    }
    if (!stopped) timer = setTimeout(next, wait)
  }
  void begin()
  return () => {
    stopped = true
    clearTimeout(timer)
  }
}
