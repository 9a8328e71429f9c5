// What an office and its technicians do, each with whatever is there when its turn comes.
import { v7 } from 'uuid'
import { isUnderWay, type VisitState } from '../../../core/visits/visitLifecycle'
import { DAY, HOUR, MINUTE } from '../../../core/time/units'
import {
  at,
  read,
  post,
  patch,
  workOf,
  now,
  onPart,
  onWork,
  isNothing,
  owing,
  LEAST_SECONDS,
  isOpen,
  onVisit,
  clocked,
  type Act,
  type Work,
  type World,
} from './world'

const PICTURE =
  'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=='
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
  move: onVisit(
    async (w, { id, version }, m) =>
      post(w, w.office, `/visits/${id}/place`, {
        ...(m % 4 ? await place(w, m) : { technicianId: null, startAt: null }),
        ...{ version, durationSeconds: 3600, override: true },
        ...(m % 3 ? {} : { promise: null, known: m % 2 === 0 }),
      }),
    'planned',
  ),
  cancelVisit: onVisit(
    (w, { id, version, state }, m) =>
      post(w, w.office, `/visits/${id}/cancel`, {
        ...{ version, cancelled: state !== 'cancelled', reason: 'random', override: true },
        known: m % 2 === 0,
      }),
    ...['planned', 'cancelled'],
  ),
  tell: onVisit(
    (w, { id, version }) =>
      post(w, w.office, `/visits/${id}/tell`, { version, spoken: 'they know' }),
    ...['planned', 'cancelled'],
  ),
  closedDoor: clocked(['planned'], 'set_off', 'no_access'),
  proposed: onVisit(
    (w, { id }, m) =>
      post(w, w.office, `/visits/${id}/next-step`, {
        step: ['come_again', 'ring', 'give_up'][m % 3],
      }),
    'no_access',
  ),
  setOff: clocked(['planned'], 'set_off'),
  work: clocked(['planned', 'driving'], 'arrive'),
  pause: clocked(['on_site'], 'pause'),
  finish: clocked(['on_site', 'paused'], 'finish'),
  wholeVisit: clocked(['planned'], 'set_off', 'arrive', 'finish'),
  goOn: clocked(['paused', 'finished'], 'resume'),
  further: onVisit((w, { id, version }) =>
    post(w, w.office, `/visits/${id}/further`, {
      id: v7(),
      version,
      durationSeconds: 3600,
      note: 'again',
    }),
  ),
  add: onWork(
    (w, { id, visits }, m) =>
      post(w, w.office, `/work-orders/${id}/lines`, {
        visitId: at(visits, m)?.id ?? null,
        lines: [
          {
            ...{ id: v7(), name: 'Part', kind: 'other', quantity: String(1 + (m % 3)) },
            ...{ unitPrice: `${10 + m}.50`, done: m % 2 === 0 },
          },
        ],
      }),
    isOpen,
  ),
  changeLine: onPart(
    ({ lines }) => lines.filter((line) => isNothing(line.billed)),
    (w, line, m) => {
      const change = [
        { done: !line.done },
        { removed: true },
        { quantity: '2' },
        { unitPrice: '99.00' },
        { discount: '10 %', discountWords: 'random' },
      ]
      return patch(w, `/work-lines/${line.id}`, { version: line.version, ...at(change, m)! })
    },
  ),
  putBack: onPart(
    ({ takenOut }) => takenOut,
    (w, { id, version }) => patch(w, `/work-lines/${id}`, { version, removed: false }),
  ),
  takeOff: onWork(
    (w, { id }, m) =>
      post(w, w.office, `/work-orders/${id}/discount`, {
        discount: `${m % 30} %`,
        words: 'random',
      }),
    (work) => isOpen(work) && work.lines.some(({ billed, net }) => isNothing(billed) && !isNothing(net)), // prettier-ignore
  ),
  sign: onWork(
    (w, { id, price }, m) =>
      post(w, w.office, `/work-orders/${id}/signatures`, {
        ...{ id: v7(), name: 'Somebody', image: PICTURE, shownTotal: price.total.amount },
        purpose: m % 2 ? 'before' : 'after',
      }),
    (work) => isOpen(work) && work.lines.length > 0,
  ),
  bill: onWork(
    (w, { id, time }, m) =>
      post(w, w.office, `/work-orders/${id}/invoice`, {
        ...{ id: v7(), to: m % 2 ? ['random@example.com'] : [], beyond: 'random' },
        leftOut:
          m % 3 && time.uncoveredSeconds >= 60
            ? { seconds: time.uncoveredSeconds, reason: 'random' }
            : null,
      }),
    ({ totals }) => !isNothing(totals.toBill),
  ),
  pay: onPart(owing, async (w, invoice, m, work) => {
    const customerId = work.customer.id
    const open = Number(invoice.open.amount)
    const amount = [open, Math.max(0.01, open / 2), open + 10][m % 3]!.toFixed(2)
    const id = v7()
    const reply = await post(w, w.books, '/payments', {
      ...{ id, customerId, invoiceIds: [invoice.id], amount, mayLeaveCredit: true },
      ...(m % 2 ? { method: 'cash' } : { method: 'cheque', reference: String(m) }),
    })
    if (reply.status === 200) w.payments.push(id)
  }),
  takeBack: async (w, n) => {
    const id = at(w.payments, n)
    if (!id) return
    await post(w, w.books, `/payments/${id}/take-back`, { why: 'mistyped', reason: 'random' })
    w.payments = w.payments.filter((one) => one !== id)
  },
  cancelWork: onWork(
    (w, { id }, m) =>
      post(w, w.office, `/work-orders/${id}/cancel`, { reason: 'random', known: m % 2 === 0 }),
    (work) =>
      isOpen(work) &&
      isNothing(work.totals.billed) &&
      work.visits.every(({ state }) => ['planned', 'cancelled', 'no_access'].includes(state)),
  ),
  close: onWork(
    (w, { id }) => post(w, w.office, `/work-orders/${id}/close`, { reason: 'random' }),
    ({ state, totals }) => state === 'to_bill' && isNothing(totals.toBill),
  ),
  reopen: onWork(
    (w, { id }) => post(w, w.office, `/work-orders/${id}/reopen`, { reason: 'random' }),
    ({ ended }) => ended,
  ),
  park: onWork(
    async (w, { id, version }, m) =>
      post(w, w.office, `/work-orders/${id}/follow-up`, {
        ...{ version, list: m % 2 ? 'Random' : '' },
        on: m % 2 ? new Date((await now(w)) + (m % 4) * DAY).toISOString().slice(0, 10) : null,
      }),
    isOpen,
  ),
  charge: onWork(
    (w, { id }) => post(w, w.office, `/work-orders/${id}/time-charges`, { lineId: v7() }),
    ({ time }) => time.uncoveredSeconds >= LEAST_SECONDS,
  ),
  explain: onWork(
    (w, { id, time }) =>
      post(w, w.office, `/work-orders/${id}/explanations`, {
        seconds: time.uncoveredSeconds,
        reason: 'random',
      }),
    ({ time }) => time.uncoveredSeconds >= LEAST_SECONDS,
  ),
  rewrite: onWork((w, { id, version }, m) =>
    patch(w, `/work-orders/${id}`, {
      ...{ version, title: `Random ${m}`, officeNote: 'random' },
      otherContacts: [{ name: 'Somebody', phone: '607 555 0100', role: 'random' }],
    }),
  ),
  /** Something to do, ticked off at once or left to be done. */
  give: onWork(async (w, { id: subjectId }, m) => {
    const { id: ownerId } = at(w.phones, m)!
    const task = { id: v7(), about: 'work', subjectId, what: 'Random', ownerId, on: null }
    const reply = await post(w, w.office, '/tasks', task)
    const { version } = reply.body as { version?: number }
    if (version && m % 2) await patch(w, `/tasks/${task.id}`, { version, done: true })
  }),
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
  }, isOpen),
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
    const id = v7()
    const path = `/customers/${keep.customerId}/merge`
    const reply = await post(w, w.office, path, { id, otherId: gone.customerId })
    if (reply.status !== 200) return
    w.customers = [keep]
    w.merged = { id, gone }
  },
  async undoMerge(w) {
    if (!w.merged) return
    const { id, gone } = w.merged
    const reply = await post(w, w.office, `/merges/${id}/undo`, {})
    if (reply.status === 200) w.customers.push(gone)
    w.merged = null
  },
}
/** Whoever is still somewhere leaves, so that the next sequence finds them free. */
export async function leaveAll(w: World): Promise<void> {
  const arrive = clocked(['driving'], 'arrive')
  for (let n = 0; n < w.works.length; n++)
    if ((await workOf(w, n))?.visits.some(({ state }) => isUnderWay(state as VisitState))) {
      await arrive(w, n, 0)
      await ACTS.finish!(w, n, 0)
    }
}
