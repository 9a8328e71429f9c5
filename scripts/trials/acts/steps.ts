// What an office and its technicians do, each with whatever is there when its turn comes.
import { v7 } from 'uuid'
import type { Copy } from '../copy'
import type { Person, Reply } from '../tools'
import { DAY, HOUR, MINUTE } from '../../../core/time/units'

type Body = Record<string, unknown>
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
  /** acts that were done, not refused */
  taken: number
  /** the last request, to be sent once more */
  last: { person: Person; path: string; body: Body; key: string; status: number } | null
  copy: Copy
}
const PICTURE =
  'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=='
const at = <T>(list: readonly T[], n: number): T | undefined => list[n % list.length]
/** No answer goes unread: one that is our mistake ends the sequence, and what was done is counted. */
function read(w: World, path: string, reply: Reply): Reply {
  if (reply.status >= 500) throw new Error(`${path} was answered with ${reply.status}`)
  if (reply.status === 200) w.taken++
  return reply
}
async function post(w: World, person: Person, path: string, body: Body): Promise<Reply> {
  const key = v7()
  const reply = read(w, path, await person.act('POST', path, body, key))
  w.last = { person, path, body, key, status: reply.status }
  return reply
}
const patch = async (w: World, path: string, body: Body) =>
  read(w, path, await w.office.act('PATCH', path, body))
export const workOf = async (w: World, n: number): Promise<Work | null> => {
  const id = at(w.works, n)
  if (!id) return null
  const reply = await w.office.once('GET', `/api/v1/work-orders/${id}`)
  return reply.status === 200 ? (reply.body as unknown as Work) : null
}
const now = async (w: World) =>
  Date.parse(((await w.office.once('GET', '/api/v1/schedule')).body as { now: string }).now)
/** What is done with the n-th work order, and m says how. */
type Act = (w: World, n: number, m: number) => Promise<unknown>
/** Something done with a work order that is there. */
const onWork =
  (act: (w: World, work: Work, m: number) => Promise<unknown>): Act =>
  async (w, n, m) => {
    const work = await workOf(w, n)
    return work && act(w, work, m)
  }
const onVisit = (
  act: (w: World, visit: Work['visits'][number], m: number, work: Work) => Promise<unknown>,
) =>
  onWork(async (w, work, m) => {
    const visit = at(work.visits, m)
    return visit && act(w, visit, m, work)
  })
const clocked = (...acts: string[]) =>
  onVisit(async (w, visit) => {
    const phone = w.phones.find(({ id }) => id === visit.technicianId)?.person ?? w.office
    for (const act of acts)
      await post(w, phone, `/visits/${visit.id}/clock`, { act, otherDay: true })
  })
const place = async (w: World, m: number) => {
  const from = await now(w)
  const technicianId = at(w.phones, m)!.id
  return { technicianId, startAt: new Date(from + (m % 5) * DAY + (m % 9) * HOUR).toISOString() }
}
export const ACTS: Readonly<Record<string, Act>> = {
  async book(w, n, m) {
    const who = at(w.customers, n)!
    const [workOrderId, visitId] = [v7(), v7()]
    const { technicianId, startAt } = await place(w, m)
    const placed = m % 3 !== 0
    const reply = await post(w, w.office, `/calls/${v7()}/book`, {
      ...{ workOrderId, visitId, ...who, problem: 'Random', override: true },
      ...(placed ? { technicianId, date: startAt.slice(0, 10), start: startAt.slice(11, 16) } : {}),
      ...(placed && m % 2 ? { promiseFrom: '08:00', promiseTo: '12:00' } : {}),
      reason: 'random',
    })
    if (reply.status === 200) w.works.push(workOrderId)
  },
  move: onVisit(async (w, { id, version }, m) =>
    post(w, w.office, `/visits/${id}/place`, {
      ...(m % 4 ? await place(w, m) : { technicianId: null, startAt: null }),
      ...{ version, durationSeconds: 3600, override: true },
      ...(m % 3 ? {} : { promise: null, known: m % 2 === 0 }),
    }),
  ),
  cancelVisit: onVisit((w, { id, version, state }, m) =>
    post(w, w.office, `/visits/${id}/cancel`, {
      ...{ version, cancelled: state !== 'cancelled', reason: 'random', override: true },
      known: m % 2 === 0,
    }),
  ),
  tell: onVisit((w, { id, version }) =>
    post(w, w.office, `/visits/${id}/tell`, { version, spoken: 'they know' }),
  ),
  closedDoor: clocked('set_off', 'no_access'),
  proposed: onVisit((w, { id }, m) =>
    post(w, w.office, `/visits/${id}/next-step`, {
      step: ['come_again', 'ring', 'give_up'][m % 3],
    }),
  ),
  setOff: clocked('set_off'),
  work: clocked('arrive'),
  pause: clocked('pause'),
  finish: clocked('finish'),
  wholeVisit: clocked('set_off', 'arrive', 'finish'),
  goOn: clocked('resume'),
  further: onVisit((w, { id, version }) =>
    post(w, w.office, `/visits/${id}/further`, {
      id: v7(),
      version,
      durationSeconds: 3600,
      note: 'again',
    }),
  ),
  add: onWork((w, { id, visits }, m) =>
    post(w, w.office, `/work-orders/${id}/lines`, {
      visitId: at(visits, m)?.id ?? null,
      lines: [
        {
          ...{ id: v7(), name: 'Part', kind: 'other', quantity: String(1 + (m % 3)) },
          ...{ unitPrice: `${10 + m}.50`, done: m % 2 === 0 },
        },
      ],
    }),
  ),
  changeLine: onWork((w, { lines }, m) => {
    const line = at(lines, m)
    const change = [
      { done: !line?.done },
      { removed: true },
      { quantity: '2' },
      { unitPrice: '99.00' },
    ]
    return line
      ? patch(w, `/work-lines/${line.id}`, {
          version: line.version,
          ...at(change, m)!,
        })
      : Promise.resolve()
  }),
  putBack: onWork((w, { takenOut }, m) => {
    const line = at(takenOut, m)
    return line
      ? patch(w, `/work-lines/${line.id}`, { version: line.version, removed: false })
      : Promise.resolve()
  }),
  sign: onWork((w, { id, price }, m) =>
    post(w, w.office, `/work-orders/${id}/signatures`, {
      ...{ id: v7(), name: 'Somebody', image: PICTURE, shownTotal: price.total.amount },
      purpose: m % 2 ? 'before' : 'after',
    }),
  ),
  bill: onWork((w, { id, time }, m) =>
    post(w, w.office, `/work-orders/${id}/invoice`, {
      ...{ id: v7(), to: m % 2 ? ['random@example.com'] : [], beyond: 'random' },
      leftOut:
        m % 3 && time.uncoveredSeconds >= 60
          ? { seconds: time.uncoveredSeconds, reason: 'random' }
          : null,
    }),
  ),
  async pay(w, n, m) {
    const work = await workOf(w, n)
    const invoice =
      work &&
      at(
        work.invoices.filter((i) => Number(i.open.amount) > 0),
        m,
      )
    if (!invoice) return
    const customerId = await customerOf(w, work.id)
    const open = Number(invoice.open.amount)
    const amount = [open, Math.max(0.01, open / 2), open + 10][m % 3]!.toFixed(2)
    const id = v7()
    const reply = await post(w, w.books, '/payments', {
      ...{ id, customerId, invoiceIds: [invoice.id], amount, mayLeaveCredit: true },
      ...(m % 2 ? { method: 'cash' } : { method: 'cheque', reference: String(m) }),
    })
    if (reply.status === 200) w.payments.push(id)
  },
  takeBack: async (w, n) => {
    const id = at(w.payments, n)
    if (id)
      await post(w, w.books, `/payments/${id}/take-back`, { why: 'mistyped', reason: 'random' })
  },
  cancelWork: onWork((w, { id }, m) =>
    post(w, w.office, `/work-orders/${id}/cancel`, { reason: 'random', known: m % 2 === 0 }),
  ),
  close: onWork((w, { id }) => post(w, w.office, `/work-orders/${id}/close`, { reason: 'random' })),
  reopen: onWork((w, { id }) =>
    post(w, w.office, `/work-orders/${id}/reopen`, { reason: 'random' }),
  ),
  park: onWork(async (w, { id, version }, m) =>
    post(w, w.office, `/work-orders/${id}/follow-up`, {
      ...{ version, list: m % 2 ? 'Random' : '' },
      on: m % 2 ? new Date((await now(w)) + (m % 4) * DAY).toISOString().slice(0, 10) : null,
    }),
  ),
  charge: onWork((w, { id }) =>
    post(w, w.office, `/work-orders/${id}/time-charges`, { lineId: v7() }),
  ),
  explain: onWork((w, { id, time }) =>
    post(w, w.office, `/work-orders/${id}/explanations`, {
      seconds: time.uncoveredSeconds,
      reason: 'random',
    }),
  ),
  /** The same request once more, with its key: as a phone does whose line broke. */
  async repeat(w) {
    const { last } = w
    if (!last) return
    const again = await last.person.act('POST', last.path, last.body, last.key)
    if (again.status !== last.status)
      throw new Error(`${last.path} was answered ${last.status}, and ${again.status} when repeated`)
  },
  /** A request that is broken off on its way, and repeated. */
  brokenOff: onWork(async (w, { id }, m) => {
    const key = v7()
    const body = {
      lines: [{ id: v7(), name: 'Broken', kind: 'other', quantity: '1', unitPrice: '5.00' }],
    }
    const path = `/api/v1/work-orders/${id}/lines`
    await fetch(`${w.copy.base}${path}`, {
      method: 'POST',
      headers: {
        cookie: w.office.cookie,
        'Content-Type': 'application/json',
        'Idempotency-Key': key,
      },
      body: JSON.stringify(body),
      signal: AbortSignal.timeout(1 + (m % 20)),
    }).catch(() => null)
    const target = `/work-orders/${id}/lines`
    const reply = read(w, target, await w.office.act('POST', target, body, key))
    const lines = (reply.body as unknown as Partial<Work>).lines ?? []
    const made = lines.filter((line) => line.id === body.lines[0]!.id).length
    if (reply.status === 200 && made !== 1)
      throw new Error(`a repeated line is there ${made} times`)
  }),
  /** The demo's own clock goes on: minutes, or to another day. */
  async timePasses(w, _, m) {
    const db = await w.copy.connect()
    await db.query('UPDATE company SET clock_offset_ms = clock_offset_ms + ?', [
      m % 4 === 0 ? DAY : (20 + m) * MINUTE,
    ])
    await db.end()
  },
  async merge(w) {
    const [keep, gone] = w.customers
    if (!keep || !gone) return
    const reply = await post(w, w.office, `/customers/${keep.customerId}/merge`, {
      id: v7(),
      otherId: gone.customerId,
    })
    if (reply.status === 200) w.customers = [keep]
  },
}
const customerOf = async (w: World, workId: string) =>
  (
    (await w.office.once('GET', `/api/v1/work-orders/${workId}`)).body as {
      customer: { id: string }
    }
  ).customer.id
