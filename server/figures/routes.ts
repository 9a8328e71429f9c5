// The run, the one search, and exports.
import { notFound } from '../../core/errors/LedgerError'
import { toMoney } from '../../core/money/formatMinor'
import { dayBounds } from '../../core/time/zone'
import type { Answer } from '../../shared/api'
import type { figureRoutes } from '../../shared/figures'
import { contactCards, customerCsv, siteCsv } from '../customers/exports'
import { findMatches } from '../customers/callers'
import { schedule } from '../dispatch/board'
import { outside, Raw, type Handler } from '../http/route'
import { bookCsv } from '../pricebook/bookCsv'
import { exported, type Ctx } from '../http/context'
import { journal, table } from './exports'
import { exportsByName, findings } from '../subjects'
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
  journal: outside(
    async (call) => new Raw('text/plain; charset=utf-8', exported(call, journal), 'journal.ledger'),
  ),
  exportContacts: outside(
    async (call) =>
      new Raw('text/vcard; charset=utf-8', exported(call, contactCards), 'contacts.vcf'),
  ),
  exportCsv: outside(async (call, { params }) => {
    const what = params.what!
    if (what === 'price-book') return call.inContext(bookCsv)
    const written = writerOf(what)
    if (!written) throw notFound('export')
    return new Raw('text/csv; charset=utf-8', exported(call, written), `${what}.csv`)
  }),
}
function writerOf(what: string): ((ctx: Ctx) => AsyncGenerator<string>) | null {
  if (what === 'customers') return customerCsv
  if (what === 'sites') return siteCsv
  return exportsByName.has(what) ? (ctx) => table(ctx, what) : null
}
