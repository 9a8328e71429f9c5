// The append-only trail: who did what, when, from where. Each entry is also the event that tells other screens.
import { HISTORY_PAGE } from '../../shared/schema'
import { saidChanges, type SaidChange } from '../../core/text/saidChanges'
import { sayMoney } from '../../core/money/sayMoney'
import { sayDay } from '../../core/time/sayDay'
import { localDate, localTime } from '../../core/time/zone'
import { placeholders, sqlInstant } from '../db/pool'
import { emit } from '../events/events'
import { may, type Ctx } from './context'
import { sentenceOf, type Fact, type Words } from './facts'

interface Entry {
  subject: string
  id: string
  workOrderId?: string | null
  customerId?: string | null
  fact: Fact
}
const whoOf = (ctx: Ctx, entry: Entry) =>
  ctx.actor?.name ?? (entry.subject === 'message' || !ctx.ip ? 'Open Ledger' : 'Customer')

export async function record(ctx: Ctx, entry: Entry): Promise<void> {
  const { workOrderId = null, customerId = null } = entry
  await ctx.tx.run(
    `INSERT INTO trail (at, person_id, who, ip, subject, subject_id, code, work_order_id,
      customer_id, text, data)
    VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, '', ?)`,
    [
      sqlInstant(ctx.now),
      ctx.actor?.id ?? null,
      whoOf(ctx, entry),
      ctx.ip,
      entry.subject,
      entry.id,
      entry.fact.code,
      workOrderId,
      customerId,
      JSON.stringify(entry.fact.data),
    ],
  )
  emit(ctx.tx, { topic: 'change', subject: entry.subject, subjectId: entry.id, workOrderId })
}
export interface HistoryRow {
  id: number
  at: string
  who: string
  text: string
  changes: SaidChange[]
}
type Stored = Omit<HistoryRow, 'changes'> & { code: string | null; data: object | null }
const STORED = 'SELECT id, at, who, text, code, IF(code IS NULL, NULL, data) AS data FROM trail'
const LONGEST_SENTENCE = 300
const MOST_CHANGES = 40
function said(ctx: Ctx, words: Words, { id, at, who, ...entry }: Stored): HistoryRow {
  // Who is in the van is told what was done, not what it was before: that may be a cost, or a note of the office.
  const changes = entry.data && may(ctx, 'visits.list') ? saidChanges(entry.data, words) : []
  return {
    ...{ id, at, who },
    text: sentenceOf(entry, words).slice(0, LONGEST_SENTENCE),
    changes: changes.slice(0, MOST_CHANGES).map(({ what, from, to }) => ({
      what,
      from: from.slice(0, LONGEST_SENTENCE),
      to: to.slice(0, LONGEST_SENTENCE),
    })),
  }
}

/** How days, times and sums are said to the people of a company. */
export const wordsOf = ({ company: { locale, timeZone } }: Pick<Ctx, 'company'>): Words => ({
  day: (date) => sayDay(date, locale, 'withYear'),
  at(instant) {
    const ms = Date.parse(instant)
    return `${sayDay(localDate(ms, timeZone), locale, 'withYear')} ${localTime(ms, timeZone)}`
  },
  money: (amount, currency) => sayMoney({ amount, currency }, locale),
})

/** What happened to a work order, a customer (with the ones merged into it), or anything else, the last first; `before` an entry, what was before it. */
export const historyOf = (
  ctx: Ctx,
  column: 'work_order_id' | 'customer_id' | 'subject_id',
  ids: string[],
  before?: number,
): Promise<HistoryRow[]> => historyWhere(ctx, `${column} IN (${placeholders(ids)})`, ids, before)
/** What happened of some kinds of facts, by how their codes begin, to whatever it happened. */
export const historyOfFacts = (
  ctx: Ctx,
  kinds: readonly string[],
  before?: number,
): Promise<HistoryRow[]> =>
  historyWhere(
    ctx,
    `(${kinds.map(() => 'code LIKE ?').join(' OR ')})`,
    kinds.map((kind) => `${kind}%`),
    before,
  )
async function historyWhere(
  ctx: Ctx,
  where: string,
  values: string[],
  before = Number.MAX_SAFE_INTEGER,
): Promise<HistoryRow[]> {
  const rows = await ctx.tx.rows<Stored>(
    `${STORED} WHERE ${where} AND id < ? ORDER BY id DESC LIMIT ${HISTORY_PAGE}`,
    [...values, before],
  )
  const words = wordsOf(ctx)
  return rows.map((row) => said(ctx, words, row))
}
