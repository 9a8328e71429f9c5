// The run, the one search, and exports.
import { notFound } from '../../core/errors/LedgerError'
import { toMoney } from '../../core/money/formatMinor'
import { dayBounds } from '../../core/time/zone'
import type { Answer } from '../../shared/api'
import type { figureRoutes } from '../../shared/figures'
import { isExported, takenAlong } from '../archive/exported'
import { findMatches } from '../customers/callers'
import { schedule } from '../dispatch/board'
import { outside, type Handler } from '../http/route'
import type { Ctx } from '../http/context'
import { csvExports } from './exports'
import { findings } from '../subjects'
import { countsAt } from '../waiting/views'
import type { Counted } from '../waiting/queries'
import { findPapers, runRow } from './queries'

/** What of the places stands in the run. */
const STOPS = ['calls', 'tray', 'on_site', 'to_bill', 'unpaid', 'quotes'] as const
async function run(ctx: Ctx): Promise<Answer<'run'>> {
  const { from, to } = dayBounds(ctx.today, ctx.company.timeZone)
  const r = (await runRow(ctx.tx, ctx.today, from, to))!
  const waits = await countsAt(ctx, STOPS)
  const summed = ({ count, sum }: Counted) => ({ count, sum: toMoney(sum, ctx.company.currency) })
  return {
    calls: { count: waits.calls.count, late: r.lateCalls },
    schedule: {
      count: r.visits,
      atRisk: (await schedule(ctx)).atRisk,
      noSlot: waits.tray.count,
    },
    onSite: { count: waits.on_site.count },
    toBill: summed(waits.to_bill),
    unpaid: { ...summed(waits.unpaid), late: r.late },
    quotes: summed(waits.quotes),
  }
}
async function find(ctx: Ctx, q: string): Promise<Answer<'find'>> {
  const papers = (await findPapers(ctx.tx, q)).map((p) => ({
    ...p,
    to: findings.find((finding) => finding.kind === p.kind)!.to(p.id),
  }))
  const customers = (await findMatches(ctx, q)).items.map((c) => ({
    kind: c.prospect ? 'prospect' : 'customer',
    id: c.customerId,
    title: c.name,
    detail: [c.phone, c.place, c.why.every((w) => w === 'name') ? '' : `by ${c.why.join(', ')}`]
      .filter(Boolean)
      .join(' · '),
    to: `/customers/${c.customerId}`,
  }))
  const exact = papers.filter((p) => p.title.toLowerCase().startsWith(q.toLowerCase()))
  return {
    items: [...exact, ...customers, ...papers.filter((p) => !exact.includes(p))].slice(0, 14),
  }
}
export const figureHandlers: {
  [N in Exclude<keyof typeof figureRoutes, 'health' | 'openapi'>]: Handler<N>
} = {
  run,
  find: (ctx, { query }) => find(ctx, query.q),
  journal: outside((call) => takenAlong(call, 'journal', 'journal.ledger')),
  exportContacts: outside((call) => takenAlong(call, 'contacts', 'contacts.vcf')),
  exportCsv: outside((call, { params }) => {
    const what = params.what!
    if (!isExported(what) || !csvExports.has(what)) throw notFound('export')
    return takenAlong(call, what, `${what}.csv`)
  }),
}
