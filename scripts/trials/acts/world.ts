// What the random acts are done with: who acts, what a sequence has made so far, and how an act finds something to be done to.
import { v7 } from 'uuid'
import type { Copy } from '../copy'
import type { Person, Reply } from '../tools'

export type Body = Record<string, unknown>
export interface Money {
  amount: string
}
export interface Work {
  id: string
  version: number
  state: string
  visits: { id: string; version: number; state: string; technicianId: string | null }[]
  lines: { id: string; version: number; done: boolean; billed: Money; net: Money }[]
  takenOut: { id: string; version: number }[]
  ended: boolean
  customer: { id: string }
  invoices: { id: string; open: Money; state: string }[]
  totals: Record<'promised' | 'done' | 'billed' | 'paid' | 'toBill' | 'unpaid', Money>
  bill: { beyond: Money }
  price: { total: Money }
  time: { uncoveredSeconds: number }
}
/** What a sequence has made so far, and who acts. */
export interface World {
  office: Person
  books: Person
  phones: { id: string; person: Person }[]
  customers: { customerId: string; siteId: string }[]
  works: string[]
  payments: string[]
  /** the last merge, which may be undone */
  merged: { id: string; gone: World['customers'][number] } | null
  /** requests that were done, not refused */
  taken: number
  refused: number
  /** the last request, to be sent once more */
  last: { person: Person; path: string; body: Body; key: string; status: number } | null
  copy: Copy
}
export const at = <T>(list: readonly T[], n: number): T | undefined => list[n % list.length]
/** No answer goes unread: one that is our mistake ends the sequence, and what was done is counted. */
export function read(w: World, path: string, reply: Reply): Reply {
  if (reply.status >= 500) throw new Error(`${path} was answered with ${reply.status}`)
  if (reply.status === 200) w.taken++
  else w.refused++
  return reply
}
export async function post(w: World, person: Person, path: string, body: Body): Promise<Reply> {
  const key = v7()
  const reply = read(w, path, await person.act('POST', path, body, key))
  w.last = { person, path, body, key, status: reply.status }
  return reply
}
export const patch = async (w: World, path: string, body: Body) =>
  read(w, path, await w.office.act('PATCH', path, body))
export const workOf = async (w: World, n: number): Promise<Work | null> => {
  const id = at(w.works, n)
  if (!id) return null
  const reply = await w.office.once('GET', `/api/v1/work-orders/${id}`)
  return reply.status === 200 ? (reply.body as unknown as Work) : null
}
export const now = async (w: World) =>
  Date.parse(((await w.office.once('GET', '/api/v1/schedule')).body as { now: string }).now)
/** What is done with the n-th work order, and m says how. */
export type Act = (w: World, n: number, m: number) => Promise<unknown>
/** Something done with a work order in which there is something to do it to: the n-th, or the next that has it. */
export const onPart =
  <Part>(
    partsOf: (work: Work) => readonly Part[],
    act: (w: World, part: Part, m: number, work: Work) => Promise<unknown>,
  ): Act =>
  async (w, n, m) => {
    for (let i = 0; i < w.works.length; i++) {
      const work = await workOf(w, n + i)
      const part = work && at(partsOf(work), m)
      if (part !== undefined && part !== null) return act(w, part, m, work!)
    }
    return null
  }
export const onWork = (
  act: (w: World, work: Work, m: number) => Promise<unknown>,
  fits: (work: Work) => boolean = () => true,
) =>
  onPart(
    (work) => (fits(work) ? [work] : []),
    (w, work, m) => act(w, work, m),
  )
export const isNothing = ({ amount }: Money) => Number(amount) === 0
export const owing = ({ invoices }: Work) => invoices.filter((i) => Number(i.open.amount) > 0)
/** Less than a minute is neither charged nor explained. */
export const LEAST_SECONDS = 60
export const isOpen = ({ state }: Work) => !['closed', 'cancelled'].includes(state)
type Visit = Work['visits'][number]
export const onVisit = (
  act: (w: World, visit: Visit, m: number, work: Work) => Promise<unknown>,
  ...states: string[]
) =>
  onPart(
    (work) =>
      isOpen(work)
        ? work.visits.filter(({ state }) => !states.length || states.includes(state))
        : [],
    act,
  )
/** By whoever goes there. */
export const clocked = (states: string[], ...acts: string[]) =>
  onPart(
    (work) =>
      isOpen(work)
        ? work.visits.filter(({ state, technicianId }) => technicianId && states.includes(state))
        : [],
    async (w, visit) => {
      const phone = w.phones.find(({ id }) => id === visit.technicianId)?.person ?? w.office
      for (const act of acts)
        await post(w, phone, `/visits/${visit.id}/clock`, { act, otherDay: true })
    },
  )
