// A technician's day comes drawn: a phone in a van shows it before it has read the app. Wherever that cannot be, the
// page is drawn by the app, as all others of whoever is signed in.
import type { H3Event } from 'h3'
import type { Answer } from '../../shared/api'
import type { Drawn } from '../../shared/drawn'

/** The same answer that the app would get, asked for by the same person. */
async function ask<T>(event: H3Event, path: string): Promise<{ said: T; lastEvent: number }> {
  const answer = await event.fetch(`/api/v1${path}`)
  if (!answer.ok) throw new Error(`${path}: ${answer.status}`)
  const said = (await answer.json()) as T
  return { said, lastEvent: Number(answer.headers.get('Last-Event-ID')) }
}
async function drawnFor(event: H3Event): Promise<Drawn | null> {
  if (!['GET', 'HEAD'].includes(event.method)) return null
  try {
    const [session, day] = await Promise.all([
      ask<Answer<'session'>>(event, '/session'),
      ask<Answer<'fieldDay'>>(event, '/field/day'),
    ])
    // Who is sent elsewhere first is sent there by the app.
    if (session.said.person.lacksSecondStep) return null
    const lastEvent = Math.min(session.lastEvent, day.lastEvent)
    return { session: session.said, fieldDay: day.said, lastEvent }
  } catch {
    // Nobody is signed in, or there is no answer now: the app asks, and says so.
    return null
  }
}
export default defineEventHandler(async (event) => {
  if (!/^\/field\/?(\?|$)/.test(event.path)) return
  const drawn = await drawnFor(event)
  if (drawn) event.context.drawn = drawn
  else event.context.nuxt = { noSSR: true }
})
