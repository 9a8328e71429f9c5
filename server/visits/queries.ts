// SQL of work orders, visits, clock, lines, signatures and photos.
import type { CopiedDetails } from '../../core/customers/changedDetails'
import type { StoredInvoiceState } from '../../core/invoices/invoiceLifecycle'
import type { PriceSource } from '../../core/pricebook/priceOrder'
import { placeholders, sqlInstant, type Tx, type Value } from '../db/pool'
import { listOf, listRows, type ListIn } from '../db/queries'
import type { Finder } from '../db/search.queries'
import type { VisitState } from '../../core/visits/visitLifecycle'
import type { WorkOrderState } from '../../core/visits/workOrderState'
import type { ClockInterval } from '../../core/hours/workedSeconds'

export interface WorkOrderRow {
  id: string
  number: string
  customerId: string
  siteId: string
  title: string
  problem: string
  kind: string
  contact: { name: string; phone: string }
  orderNumber: string
  priceLevelId: string | null
  details: CopiedDetails
  ownPrices: Record<string, string>
  answers: { questionId: string; question: string; answer: string }[]
  custom: Record<string, string>
  printedNote: string
  equipmentId: string | null
  assignedTo: string | null
  source: string
  callbackOf: string | null
  followUp: string
  followUpOn: string | null
  currency: string
  state: WorkOrderState
  cancelled: boolean
  closed: boolean
  toBill: number
  explainedSeconds: number
  createdAt: string
  doneAt: string | null
  version: number
}
export const WORK = `w.id, w.number, w.customer_id, w.site_id, w.title, w.problem, w.kind,
    w.contact, w.order_number, w.price_level_id, w.details, w.own_prices, w.answers, w.custom,
    w.printed_note, w.equipment_id, w.assigned_to, w.source, w.callback_of, w.follow_up,
    w.follow_up_on, w.currency, w.state, w.cancelled, w.closed, w.to_bill_minor AS toBill,
    w.explained_seconds, w.created_at, w.done_at, w.version`
export async function workOrderById(
  tx: Tx,
  id: string,
  lock = false,
): Promise<WorkOrderRow | null> {
  return await tx.row<WorkOrderRow>(
    `SELECT ${WORK} FROM work_orders w WHERE w.id = ?${lock ? ' FOR UPDATE' : ''}`,
    [id],
  )
}
export const insertWorkOrder = (
  tx: Tx,
  w: {
    id: string
    number: string
    customerId: string
    siteId: string
    title: string
    problem: string
    kind: string
    contact: object
    orderNumber: string
    priceLevelId: string | null
    currency: string
    details: CopiedDetails
    answers: object[]
    printedNote: string
    equipmentId: string | null
    assignedTo: string | null
    source: string
    callbackOf?: string
    now: number
  },
) =>
  tx.run(
    `INSERT INTO work_orders (id, number, customer_id, site_id, title, problem, kind, contact,
      order_number, price_level_id, currency, details, answers, printed_note, equipment_id,
      assigned_to, source, callback_of, state, created_at)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, "needs_slot", ?)`,
    [
      w.id,
      w.number,
      w.customerId,
      w.siteId,
      w.title,
      w.problem,
      w.kind,
      JSON.stringify(w.contact),
      w.orderNumber,
      w.priceLevelId,
      w.currency,
      JSON.stringify(w.details),
      JSON.stringify(w.answers),
      w.printedNote,
      w.equipmentId,
      w.assignedTo,
      w.source,
      w.callbackOf ?? null,
      sqlInstant(w.now),
    ],
  )
export interface CallBackRow {
  id: string
  number: string
  kind: string
  state: WorkOrderState
  siteSeconds: number
  material: string
  labour: string
}
/** Call-backs of a work order, with what they cost: the material of their lines, and the hours of whoever was there at their rates. */
export const callBacksIn = (workOrderId: string, now: number): ListIn => ({
  columns: `w.id, w.number, w.kind, w.state,
      (SELECT CAST(COALESCE(SUM(TIMESTAMPDIFF(SECOND, k.started_at, COALESCE(k.ended_at, ?))), 0) AS
      SIGNED) FROM clock_intervals k JOIN visits v ON v.id = k.visit_id WHERE v.work_order_id = w.id
      AND k.kind = 'on_site') AS siteSeconds,
      (SELECT COALESCE(SUM(l.unit_cost * l.quantity), 0) FROM work_lines l WHERE l.work_order_id =
      w.id AND NOT l.removed AND l.done AND l.kind <> 'labour') AS material,
      (SELECT COALESCE(SUM(TIMESTAMPDIFF(SECOND, k.started_at, COALESCE(k.ended_at, ?)) *
      p.cost_rate / 3600), 0) FROM clock_intervals k JOIN visits v ON v.id = k.visit_id JOIN people
      p ON p.id = k.person_id WHERE v.work_order_id = w.id AND k.kind IN ('drive', 'on_site',
      'fetch')) AS labour`,
  from: 'work_orders w WHERE w.callback_of = ?',
  values: [sqlInstant(now), sqlInstant(now), workOrderId],
  order: 'w.created_at',
  limit: 50,
  decimals: ['material', 'labour'],
})
/** Parks a work order in a list, to come back to on a day; an empty list takes it off. */
export const setFollowUp = async (
  tx: Tx,
  { id, version, list, on }: { id: string; version: number; list: string; on: string | null },
) =>
  (
    await tx.run(
      `UPDATE work_orders
      SET follow_up = ?, follow_up_on = ?, version = version + 1
      WHERE id = ? AND version = ?`,
      [list, on, id, version],
    )
  ).affected
export const followUpLists = async (tx: Tx) =>
  (
    await tx.rows<{ name: string }>(
      `SELECT DISTINCT follow_up AS name FROM work_orders WHERE follow_up <> '' ORDER BY follow_up LIMIT 100`,
    )
  ).map((r) => r.name)
export const setOwnPrices = async (
  tx: Tx,
  id: string,
  version: number,
  prices: Record<string, string>,
) =>
  (
    await tx.run(
      'UPDATE work_orders SET own_prices = ?, version = version + 1 WHERE id = ? AND version = ?',
      [JSON.stringify(prices), id, version],
    )
  ).affected
export const setDetails = (tx: Tx, id: string, details: CopiedDetails) =>
  tx.run('UPDATE work_orders SET details = ?, version = version + 1 WHERE id = ?', [
    JSON.stringify(details),
    id,
  ])
export const setWords = (
  tx: Tx,
  id: string,
  w: { title: string; problem: string; orderNumber: string; printedNote: string },
) =>
  tx.run(
    `UPDATE work_orders
    SET title = ?, problem = ?, order_number = ?, printed_note = ?, version = version + 1
    WHERE id = ?`,
    [w.title, w.problem, w.orderNumber, w.printedNote, id],
  )
/** The firm's own fields, and their words for the search. */
export const setCustom = (
  tx: Tx,
  table: 'work_orders' | 'invoices',
  id: string,
  custom: Record<string, string>,
) =>
  tx.run(`UPDATE ${table} SET custom = ?, own_words = ? WHERE id = ?`, [
    JSON.stringify(custom),
    Object.values(custom).join(' '),
    id,
  ])
export const setWorkOrderFacts = (
  tx: Tx,
  id: string,
  { state, toBill, doneAt }: { state: WorkOrderState; toBill: number; doneAt: number | null },
) =>
  tx.run(
    `UPDATE work_orders
    SET state = ?, to_bill_minor = ?, done_at = COALESCE(done_at, ?), version = version + 1
    WHERE id = ?`,
    [state, toBill, doneAt === null ? null : sqlInstant(doneAt), id],
  )
export const addExplained = (tx: Tx, id: string, seconds: number) =>
  tx.run('UPDATE work_orders SET explained_seconds = explained_seconds + ? WHERE id = ?', [
    seconds,
    id,
  ])
export const closeWork = (tx: Tx, id: string) =>
  tx.run('UPDATE work_orders SET closed = TRUE WHERE id = ?', [id])

export interface VisitRow {
  id: string
  workOrderId: string
  technicianId: string | null
  technician: string | null
  startAt: string | null
  durationSeconds: number
  promiseDate: string | null
  promiseFrom: string | null
  promiseTo: string | null
  state: VisitState
  startedAt: string | null
  finishedAt: string | null
  findings: string
  locked: boolean
  note: string
  version: number
}
const VISIT = `v.id, v.work_order_id, v.technician_id, p.name AS technician, v.start_at,
    v.duration_seconds, v.promise_date, LEFT(v.promise_from, 5) AS promiseFrom,
    LEFT(v.promise_to, 5) AS promiseTo, v.state, v.started_at, v.finished_at, v.findings, v.locked,
    v.note, v.version`
export const visitById = (tx: Tx, id: string, lock = false) =>
  tx.row<VisitRow>(
    `SELECT ${VISIT}
    FROM visits v
    LEFT JOIN people p ON p.id = v.technician_id
    WHERE v.id = ?${lock ? ' FOR UPDATE' : ''}`,
    [id],
  )
export const visitsIn = (workOrderId: string): ListIn => ({
  columns: VISIT,
  from: 'visits v LEFT JOIN people p ON p.id = v.technician_id WHERE v.work_order_id = ?',
  values: [workOrderId],
  order: `COALESCE(v.start_at, '9999-01-01'), v.id`,
  instants: ['startAt', 'startedAt', 'finishedAt'],
  booleans: ['locked'],
})
export const visitsOfWork = (tx: Tx, workOrderId: string) =>
  listOf<VisitRow>(tx, visitsIn(workOrderId))
export const insertVisit = (
  tx: Tx,
  v: {
    id: string
    workOrderId: string
    technicianId: string | null
    startAt: number | null
    durationSeconds: number
    promiseDate: string | null
    promiseFrom: string | null
    promiseTo: string | null
    note?: string
  },
) =>
  tx.run(
    `INSERT INTO visits (id, work_order_id, technician_id, start_at, duration_seconds, promise_date,
      promise_from, promise_to, note, findings)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, "")`,
    [
      v.id,
      v.workOrderId,
      v.technicianId,
      v.startAt === null ? null : sqlInstant(v.startAt),
      v.durationSeconds,
      v.promiseDate,
      v.promiseFrom,
      v.promiseTo,
      v.note ?? '',
    ],
  )
/** Who leads these visits, without a lock. */
export const technicianIdsOf = async (tx: Tx, visitIds: readonly string[]) =>
  (
    await tx.rows<{ id: string }>(
      `SELECT DISTINCT technician_id AS id
      FROM visits
      WHERE technician_id IS NOT NULL AND id IN (${placeholders(visitIds)})`,
      [...visitIds],
    )
  ).map((r) => r.id)
/** Where a visit stands on the schedule. */
export interface Slot {
  technicianId: string | null
  startAt: number | null
  durationSeconds: number
}
export const moveVisit = async (
  tx: Tx,
  id: string,
  version: number,
  { technicianId, startAt, durationSeconds }: Slot,
) =>
  (
    await tx.run(
      `UPDATE visits
      SET technician_id = ?, start_at = ?, duration_seconds = ?, version = version + 1
      WHERE id = ? AND version = ?`,
      [technicianId, startAt === null ? null : sqlInstant(startAt), durationSeconds, id, version],
    )
  ).affected
/** The state of a visit, and when it began and ended; a beginning that is known stays. */
export const setVisitState = (
  tx: Tx,
  id: string,
  state: VisitState,
  when: { startedAt?: number | null; finishedAt?: number | null } = {},
) => {
  const { startedAt = null, finishedAt = null } = when
  return tx.run(
    `UPDATE visits
    SET state = ?, started_at = COALESCE(started_at, ?), finished_at = ?, version = version + 1
    WHERE id = ?`,
    [state, startedAt && sqlInstant(startedAt), finishedAt && sqlInstant(finishedAt), id],
  )
}
export const setFindings = async (tx: Tx, id: string, version: number, findings: string) =>
  (
    await tx.run(
      'UPDATE visits SET findings = ?, version = version + 1 WHERE id = ? AND version = ?',
      [findings, id, version],
    )
  ).affected
/** A person goes there: whose visit it is, who goes along with it, and who always goes with that one. Takes the person's identifier three times. */
export const goesThere = `(v.technician_id = ? OR EXISTS (SELECT 1 FROM visit_crew vc WHERE
    vc.visit_id = v.id AND vc.person_id = ?) OR v.technician_id = (SELECT a.goes_with FROM people a
    WHERE a.id = ?))`
export const goesAlong = async (tx: Tx, personId: string, visitId: string) =>
  (await tx.row(`SELECT 1 AS yes FROM visits v WHERE v.id = ? AND ${goesThere}`, [
    visitId,
    personId,
    personId,
    personId,
  ])) !== null
export const mayTechnicianSee = async (tx: Tx, personId: string, workOrderId: string) =>
  (await tx.row(
    `SELECT 1 AS yes FROM visits v WHERE v.work_order_id = ? AND ${goesThere} LIMIT 1`,
    [workOrderId, personId, personId, personId],
  )) !== null

export type IntervalRow = ClockInterval & {
  id: string
  visitId: string | null
  personId: string
  person: string
  personKind: string
}
export const toInterval = (r: {
  id: string
  visitId: string | null
  personId: string
  person: string
  personKind: string
  kind: ClockInterval['kind']
  startedAt: string
  endedAt: string | null
}): IntervalRow => ({
  ...r,
  startedAt: Date.parse(r.startedAt),
  endedAt: r.endedAt ? Date.parse(r.endedAt) : null,
})
export type RawInterval = Parameters<typeof toInterval>[0]
export const clockIn = (where: string, values: Value[]): ListIn => ({
  columns:
    'k.id, k.visit_id, k.person_id, p.name AS person, p.kind AS personKind, k.kind, k.started_at, k.ended_at',
  from: `clock_intervals k JOIN people p ON p.id = k.person_id WHERE ${where}`,
  values,
  order: 'k.started_at',
  instants: ['startedAt', 'endedAt'],
})
export const intervalsOf = async (tx: Tx, visitIds: string[]) =>
  (
    await listOf<RawInterval>(tx, clockIn(`k.visit_id IN (${placeholders(visitIds)})`, visitIds))
  ).map(toInterval)
export const runningClock = async (tx: Tx, personId: string) => {
  const r = await tx.row<{ id: string; visitId: string | null; startedAt: string }>(
    'SELECT id, visit_id, started_at FROM clock_intervals WHERE running_for = ? FOR UPDATE',
    [personId],
  )
  return r && { ...r, startedAt: Date.parse(r.startedAt) }
}
/** When the last stretch of a person's time that is over ended; 0 where there is none. */
export const lastClocked = async (tx: Tx, personId: string): Promise<number> => {
  const r = await tx.row<{ last: string | null }>(
    'SELECT MAX(ended_at) AS last FROM clock_intervals WHERE person_id = ?',
    [personId],
  )
  return r?.last ? Date.parse(r.last) : 0
}
/** Clocks that run on a visit for others than the one whose visit it is. */
export const helpersRunning = (tx: Tx, visitId: string, leadId: string | null) =>
  tx.rows<{ id: string; personId: string }>(
    `SELECT id, person_id
    FROM clock_intervals
    WHERE visit_id = ? AND ended_at IS NULL AND NOT (person_id <=> ?) FOR UPDATE`,
    [visitId, leadId],
  )
export const startClock = (
  tx: Tx,
  {
    id,
    personId,
    visitId,
    kind,
    at,
  }: { id: string; personId: string; visitId: string; kind: string; at: number },
) =>
  tx.run(
    'INSERT INTO clock_intervals (id, person_id, visit_id, kind, started_at) VALUES (?, ?, ?, ?, ?)',
    [id, personId, visitId, kind, sqlInstant(at)],
  )
export const stopClock = (tx: Tx, id: string, at: number) =>
  tx.run('UPDATE clock_intervals SET ended_at = GREATEST(started_at, ?) WHERE id = ?', [
    sqlInstant(at),
    id,
  ])

export interface LineRow {
  id: string
  workOrderId: string
  visitId: string | null
  entryId: string | null
  kind: 'task' | 'part' | 'labour' | 'charge' | 'other'
  name: string
  unit: string
  quantity: string
  unitPrice: string
  bookPrice: string | null
  unitCost: string
  discountMinor: number
  taxClass: string
  coversSeconds: number
  netMinor: number
  savingMinor: number
  promisedMinor: number
  done: boolean
  supplier: string
  partNumber: string
  priceSource: PriceSource
  /** where the price came from, in words; nothing when it is the book's as it stands */
  priceFrom: string
  version: number
}
const LINE = `id, work_order_id, visit_id, entry_id, kind, name, unit, quantity, unit_price,
    book_price, unit_cost, discount_minor, tax_class, covers_seconds, net_minor, saving_minor,
    promised_minor, done, supplier, part_number, price_source, price_from,
    version`
export const linesOf = async (tx: Tx, workOrderId: string) =>
  tx.rows<LineRow>(
    `SELECT ${LINE} FROM work_lines WHERE work_order_id = ? AND NOT removed ORDER BY position, id`,
    [workOrderId],
  )
export const lineById = async (tx: Tx, id: string) => {
  return await tx.row<LineRow>(`SELECT ${LINE} FROM work_lines WHERE id = ? AND NOT removed`, [id])
}
/** Appends a line; the work order's row is locked by the caller, so positions do not collide. */
export async function insertLine(tx: Tx, l: Omit<LineRow, 'version'>): Promise<void> {
  const { next } = (await tx.row<{ next: number }>(
    'SELECT COALESCE(MAX(position), 0) + 1 AS next FROM work_lines WHERE work_order_id = ?',
    [l.workOrderId],
  ))!
  await tx.run(
    `INSERT INTO work_lines (id, work_order_id, visit_id, entry_id, position, kind, name, unit,
      quantity, unit_price, book_price, unit_cost, discount_minor, tax_class, covers_seconds,
      net_minor, saving_minor, promised_minor, done, supplier, part_number, price_source,
      price_from)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [
      l.id,
      l.workOrderId,
      l.visitId,
      l.entryId,
      next,
      l.kind,
      l.name,
      l.unit,
      l.quantity,
      l.unitPrice,
      l.bookPrice,
      l.unitCost,
      l.discountMinor,
      l.taxClass,
      l.coversSeconds,
      l.netMinor,
      l.savingMinor,
      l.promisedMinor,
      l.done,
      l.supplier,
      l.partNumber,
      l.priceSource,
      l.priceFrom,
    ],
  )
}
export const updateLine = async (tx: Tx, l: LineRow, removed: boolean) =>
  (
    await tx.run(
      `UPDATE work_lines
      SET name = ?, quantity = ?, unit_price = ?, discount_minor = ?, covers_seconds = ?,
        net_minor = ?, saving_minor = ?, done = ?, removed = ?, price_source = ?,
        price_from = ?, version = version + 1
      WHERE id = ? AND version = ?`,
      [
        l.name,
        l.quantity,
        l.unitPrice,
        l.discountMinor,
        l.coversSeconds,
        l.netMinor,
        l.savingMinor,
        l.done,
        removed,
        l.priceSource,
        l.priceFrom,
        l.id,
        l.version,
      ],
    )
  ).affected
export const promiseLines = (tx: Tx, workOrderId: string) =>
  tx.run(
    'UPDATE work_lines SET promised_minor = net_minor WHERE work_order_id = ? AND NOT removed',
    [workOrderId],
  )
export interface BilledLine {
  lineId: string | null
  invoiceId: string
  netMinor: number
  payable: number
  paid: number
  state: string
}
export const billedIn = (workOrderId: string): ListIn => ({
  columns: `il.work_line_id AS lineId, i.id AS invoiceId, il.net_minor, i.payable_minor AS payable,
      i.paid_minor AS paid, i.state`,
  from: `invoice_lines il
    JOIN invoices i ON i.id = il.invoice_id
    WHERE i.work_order_id = ? AND i.state <> 'void'`,
  values: [workOrderId],
  order: 'i.id, il.position',
})
/** What of each work line is on invoices, with the invoice's state of payment. */
export const billedLines = (tx: Tx, workOrderId: string) =>
  listOf<BilledLine>(tx, billedIn(workOrderId))
export interface InvoiceOfWork {
  id: string
  number: string
  issueOn: string
  dueOn: string
  total: number
  open: number
  paid: number
  sent: boolean
  state: StoredInvoiceState
}
export const invoicesIn = (workOrderId: string): ListIn => ({
  columns:
    'id, number, issue_on, due_on, total_minor AS total, open_minor AS open, paid_minor AS paid, sent, state',
  from: 'invoices WHERE work_order_id = ?',
  values: [workOrderId],
  order: 'issue_on, id',
  booleans: ['sent'],
})
export const invoicesOfWork = (tx: Tx, workOrderId: string) =>
  listOf<InvoiceOfWork>(tx, invoicesIn(workOrderId))

export const insertSignature = (
  tx: Tx,
  s: {
    id: string
    workOrderId: string
    visitId: string | null
    name: string
    at: number
    by: string
    image: Buffer
    shown: unknown
    total: number
  },
) =>
  tx.run(
    `INSERT INTO signatures (id, work_order_id, visit_id, name, signed_at, taken_by, image, shown,
      total_minor)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    [
      s.id,
      s.workOrderId,
      s.visitId,
      s.name,
      sqlInstant(s.at),
      s.by,
      s.image,
      JSON.stringify(s.shown),
      s.total,
    ],
  )
export interface SignatureRow {
  id: string
  name: string
  signedAt: string
  takenBy: string
  total: number
}
export const signaturesIn = (workOrderId: string): ListIn => ({
  columns: 's.id, s.name, s.signed_at, p.name AS takenBy, s.total_minor AS total',
  from: 'signatures s JOIN people p ON p.id = s.taken_by WHERE s.work_order_id = ?',
  values: [workOrderId],
  order: 's.signed_at',
  instants: ['signedAt'],
})
export const signatureImage = (tx: Tx, id: string) =>
  tx.row<{ workOrderId: string; image: Buffer }>(
    'SELECT work_order_id, image FROM signatures WHERE id = ?',
    [id],
  )
export const insertPhoto = (
  tx: Tx,
  p: { id: string; workOrderId: string; mime: string; bytes: Buffer; by: string; at: number },
) =>
  tx.run('INSERT INTO photos VALUES (?, ?, ?, ?, ?, ?)', [
    p.id,
    p.workOrderId,
    p.mime,
    p.bytes,
    p.by,
    sqlInstant(p.at),
  ])
export interface PhotoRow {
  id: string
  takenAt: string
}
export const photosIn = (workOrderId: string): ListIn => ({
  columns: 'id, taken_at',
  from: 'photos WHERE work_order_id = ?',
  values: [workOrderId],
  order: 'taken_at',
  limit: 100,
  instants: ['takenAt'],
})
export const photosOf = (tx: Tx, workOrderId: string) => listOf<PhotoRow>(tx, photosIn(workOrderId))
export const photoById = (tx: Tx, id: string) =>
  tx.row<{ workOrderId: string; mime: string; bytes: Buffer }>(
    'SELECT work_order_id, mime, bytes FROM photos WHERE id = ?',
    [id],
  )

const WORDS: Finder[] = [
  { id: 'o.id', from: 'work_orders o', words: 'o.number, o.title, o.order_number, o.own_words' },
  { id: 'o.id', from: 'customers k JOIN work_orders o ON o.customer_id = k.id', words: 'k.search' },
  { id: 'o.id', from: 'sites k JOIN work_orders o ON o.site_id = k.id', words: 'k.search' },
]
const SORTS: Record<string, string> = { created: 'w.created_at', number: 'w.number' }
export async function workOrderPage(
  tx: Tx,
  f: {
    q: string
    states: string[]
    kind?: string | undefined
    followUp?: string | undefined
    sort: string
    descending: boolean
    limit: number
    after: [string, string] | null
  },
) {
  const where: string[] = []
  const values: Value[] = []
  if (f.states.length) {
    where.push(`w.state IN (${placeholders(f.states)})`)
    values.push(...f.states)
  }
  if (f.kind) {
    where.push('w.kind = ?')
    values.push(f.kind)
  }
  if (f.followUp) {
    where.push(f.followUp === '*' ? `w.follow_up <> ''` : 'w.follow_up = ?')
    if (f.followUp !== '*') values.push(f.followUp)
  }
  return listRows<{
    id: string
    number: string
    title: string
    customer: string
    town: string
    kind: string
    state: WorkOrderState
    createdAt: string
    doneAt: string | null
    toBill: number
    technician: string | null
    startedAt: string | null
    followUp: string
    followUpOn: string | null
  }>(tx, {
    select: `w.id, w.number, w.title, w.follow_up, w.follow_up_on, c.name AS customer, s.town,
        w.kind, w.state, w.created_at, w.done_at, w.to_bill_minor AS toBill,
        (SELECT p.name FROM visits v JOIN people p ON p.id = v.technician_id WHERE v.work_order_id =
        w.id ORDER BY v.start_at DESC LIMIT 1) AS technician,
        (SELECT v.started_at FROM visits v WHERE v.work_order_id = w.id ORDER BY v.start_at DESC
        LIMIT 1) AS startedAt`,
    from: 'work_orders w STRAIGHT_JOIN customers c ON c.id = w.customer_id JOIN sites s ON s.id = w.site_id',
    where,
    values,
    search: {
      q: f.q,
      finders: WORDS,
      text: ['w.number', 'w.title', 'w.order_number', 'w.own_words', 'c.search', 's.search'],
    },
    by: SORTS[f.sort] ?? 'w.created_at',
    id: 'w.id',
    descending: f.descending,
    limit: f.limit,
    after: f.after,
  })
}
export interface WorkOfCustomer {
  id: string
  number: string
  title: string
  state: string
  on: string
  toBill: number
}
export const workOfCustomerIn = (customerId: string): ListIn => ({
  columns: 'id, number, title, state, DATE(created_at) AS `on`, to_bill_minor AS toBill',
  from: 'work_orders WHERE customer_id = ?',
  values: [customerId],
  order: 'created_at DESC',
  limit: 100,
})
export const workSumsIn = (customerId: string): ListIn => ({
  columns: 's.promised, s.done',
  from: `(SELECT CAST(COALESCE(SUM(l.promised_minor), 0) AS SIGNED) AS promised,
      CAST(COALESCE(SUM(IF(l.done, l.net_minor, 0)), 0) AS SIGNED) AS done FROM work_lines l JOIN
      work_orders w ON w.id = l.work_order_id WHERE w.customer_id = ? AND NOT l.removed) s`,
  values: [customerId],
  order: 's.done',
})
export interface BilledSum {
  netMinor: number
  payableMinor: number
  paidMinor: number
}
export const billedSumsIn = (customerId: string): ListIn => ({
  columns: 'net_minor, payable_minor, paid_minor',
  from: 'invoices WHERE customer_id = ? AND state <> "void"',
  values: [customerId],
  order: 'id',
})
/** A visit with all that a phone shows of it, in one question. */
export interface FieldRow extends VisitRow {
  number: string
  title: string
  currency: string
  contact: { name?: string; phone?: string }
  customer: string
  customerPhone: string
  officeNote: string
  site: string
  line1: string
  town: string
  accessNote: string
  lat: number | null
  lon: number | null
  net: number
}
const FIELD = `SELECT ${VISIT}, w.number, w.title, w.currency, w.contact, c.name AS customer,
    c.phone AS customerPhone, c.office_note, s.name AS site, s.line1, s.town, s.access_note, s.lat,
    s.lon, (SELECT CAST(COALESCE(SUM(l.net_minor), 0) AS SIGNED) FROM work_lines l WHERE
    l.work_order_id = w.id AND NOT l.removed) AS net
  FROM visits v
  STRAIGHT_JOIN work_orders w ON w.id = v.work_order_id
  STRAIGHT_JOIN customers c ON c.id = w.customer_id
  JOIN sites s ON s.id = w.site_id
  LEFT JOIN people p ON p.id = v.technician_id`
/** Visits of some hours, and those that somebody is at, on whatever day they were planned. Takes the two ends. */
const OF_A_DAY = `v.id IN (SELECT d.id FROM (SELECT id FROM visits WHERE start_at >= ? AND start_at
    < ? UNION SELECT id FROM visits WHERE state IN ('driving', 'on_site', 'paused')) d)`
export const fieldRow = (tx: Tx, id: string) => tx.row<FieldRow>(`${FIELD} WHERE v.id = ?`, [id])
/** A technician's day: visits of their own, and those that they go along to. */
export const fieldRows = (tx: Tx, personId: string, from: number, to: number) =>
  tx.rows<FieldRow>(
    `${FIELD} WHERE ${OF_A_DAY} AND ${goesThere} AND v.state <> 'cancelled' ORDER BY v.start_at`,
    [sqlInstant(from), sqlInstant(to), personId, personId, personId],
  )
/** The visits of a day that are a person's own or, with `along`, also those that they go along to. */
export const visitsOfTechnician = (
  tx: Tx,
  personId: string,
  from: number,
  to: number,
  along = false,
) =>
  tx.rows<VisitRow>(
    `SELECT ${VISIT}
    FROM visits v
    LEFT JOIN people p ON p.id = v.technician_id
    WHERE ${OF_A_DAY} AND ${along ? goesThere : 'v.technician_id = ?'}
      AND v.state <> 'cancelled'
    ORDER BY v.start_at`,
    [sqlInstant(from), sqlInstant(to), ...(along ? [personId, personId, personId] : [personId])],
  )
