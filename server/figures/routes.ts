// The run, the one search, and exports.
import { notFound } from '../../core/errors/LedgerError'
import { writeCsv } from '../../core/formats/csv'
import { writeJournal, type JournalEntry } from '../../core/formats/journal'
import { ACCOUNTS } from '../../core/ledger/accounts'
import { minorToDecimal, toMoney } from '../../core/money/formatMinor'
import { dayBounds } from '../../core/time/zone'
import type { Answer } from '../../shared/api'
import type { figureRoutes } from '../../shared/figures'
import { contactCards, customerCsv } from '../customers/exports'
import { findMatches } from '../customers/service'
import { schedule } from '../dispatch/board'
import { Raw, type Handler } from '../http/route'
import { bookCsv } from '../pricebook/imports'
import type { Ctx } from '../http/context'
import { accountName, journalRows } from '../ledger/queries'
import { json } from '../db/json'
import { customFields } from '../settings/queries'
import { exportRows, FIELDS_OF, findPapers, MONEY_COLUMNS, runRow } from './queries'

async function run(ctx: Ctx): Promise<Answer<'run'>> {
  const { from, to } = dayBounds(ctx.today, ctx.company.timeZone)
  const r = (await runRow(ctx.tx, ctx.today, from, to))!
  const m = (minor: number) => toMoney(minor, ctx.company.currency)
  return {
    calls: { count: r.calls, late: r.lateCalls }, schedule: { count: r.visits, atRisk: (await schedule(ctx)).atRisk, noSlot: r.noSlot }, onSite: { count: r.onSite },
    toBill: { count: r.toBill, sum: m(r.toBillSum) }, unpaid: { count: r.unpaid, sum: m(r.unpaidSum), late: r.late }, quotes: { count: r.quotes, sum: m(r.quotesSum) },
  }
}
async function find(ctx: Ctx, q: string): Promise<Answer<'find'>> {
  const papers = (await findPapers(ctx.tx, q)).map(p => ({ ...p, to: { work: `/work/${p.id}`, invoice: `/invoices/${p.id}`, call: `/calls/${p.id}`, quote: `/quotes/${p.id}` }[p.kind] ?? `/customers/${p.id}` }))
  const customers = (await findMatches(ctx, q)).items.map(c => ({ kind: c.prospect ? 'prospect' : 'customer', id: c.customerId, title: c.name, detail: [c.phone, c.place, c.why.every(w => w === 'name') ? '' : `by ${c.why.join(', ')}`].filter(Boolean).join(' · '), to: `/customers/${c.customerId}` }))
  const exact = papers.filter(p => p.title.toLowerCase().startsWith(q.toLowerCase()))
  return { items: [...exact, ...customers, ...papers.filter(p => !exact.includes(p))].slice(0, 14) }
}
export async function journalText(ctx: Ctx): Promise<string> {
  const entries = new Map<number, JournalEntry>()
  for (const r of await journalRows(ctx.tx)) {
    const e = entries.get(r.id) ?? { on: r.on, code: r.kind, memo: r.memo, postings: [] }
    e.postings.push({ account: accountName(r.account), amountMinor: r.amount })
    entries.set(r.id, e)
  }
  return writeJournal([...entries.values()], Object.values(ACCOUNTS).map(a => a.name), ctx.company.currency)
}
export const figureHandlers: { [N in Exclude<keyof typeof figureRoutes, 'health' | 'openapi'>]: Handler<N> } = {
  run,
  find: (ctx, { query }) => find(ctx, query.q),
  journal: async ctx => new Raw('text/plain; charset=utf-8', await journalText(ctx), 'journal.ledger'),
  exportContacts: ctx => contactCards(ctx),
  async exportCsv(ctx, { params }) {
    if (params.what === 'customers' || params.what === 'sites') return customerCsv(ctx, params.what)
    if (params.what === 'price-book') return bookCsv(ctx)
    const sql = Object.hasOwn(exportRows, params.what!) ? exportRows[params.what!] : undefined
    if (!sql) throw notFound('export')
    const rows = await ctx.tx.rows<Record<string, string | number | null>>(sql)
    const head = Object.keys(rows[0] ?? {}).filter(h => h !== 'custom')
    const fields = (await customFields(ctx.tx)).filter(f => f.subject === FIELDS_OF[params.what!])
    return new Raw('text/csv; charset=utf-8', writeCsv([[...head, ...fields.map(f => f.name)], ...rows.map((r) => {
      const own = json<Record<string, string>>(r.custom ?? '{}')
      return [...head.map(h => (MONEY_COLUMNS.has(h) ? minorToDecimal(Number(r[h]), ctx.company.currency) : r[h] ?? null)), ...fields.map(f => own[f.id] ?? '')]
    })]), `${params.what}.csv`)
  },
}
