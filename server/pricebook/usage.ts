// How the book is used: what sells and for how much, how long tasks take in truth, what nobody sells, what is easily mistaken.
import { priceFacts } from './facts'
import { conflict, invalid } from '../../core/errors/LedgerError'
import { Decimal } from '../../core/money/decimal'
import { minorToDecimal, toMoney } from '../../core/money/formatMinor'
import { roundToMinor } from '../../core/money/roundToMinor'
import { quotedAgainstActual } from '../../core/costing/quotedAgainstActual'
import { lookAlikes } from '../../core/pricebook/lookAlikes'
import { plusMonths } from '../../core/time/zone'
import type { Answer, Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { changeBook, shapeBatch } from './changes'
import { allPartsInside, entriesById, lockBook, namesOf } from './queries'
import { batchById } from './pricing.queries'
import { setHours, setRetired, soldSince, usualPrices, workedByTask } from './usage.queries'

const SHOWN = 200
export async function bookUsage(ctx: Ctx): Promise<Answer<'bookUsage'>> {
  const { currency } = ctx.company
  const since = plusMonths(ctx.today, -12)
  const say = (price: string) => minorToDecimal(roundToMinor(price, currency), currency)
  const names = await namesOf(ctx.tx)
  const byId = new Map(names.map((e) => [e.id, e]))
  const sold = await soldSince(ctx.tx, since)
  const usual = await usualPrices(ctx.tx, since)
  const worked = new Map<string, number[]>()
  for (const w of await workedByTask(ctx.tx, since))
    worked.set(w.entryId, [...(worked.get(w.entryId) ?? []), w.seconds])
  const tasks = new Map((await entriesById(ctx.tx, [...worked.keys()])).map((e) => [e.id, e]))
  // A part is used where a task that has it inside is sold.
  const used = new Set(sold.map((s) => s.entryId))
  for (const p of await allPartsInside(ctx.tx)) if (used.has(p.entryId)) used.add(p.partId)
  const dormant = names.filter(
    (e) => !used.has(e.id) && (e.kind === 'task' || e.kind === 'part' || e.kind === 'assembly'),
  )
  return {
    sold: sold
      .filter((s) => byId.has(s.entryId))
      .sort((a, b) => b.net - a.net)
      .slice(0, SHOWN)
      .map((s) => {
        const e = byId.get(s.entryId)!
        return {
          id: e.id,
          code: e.code,
          name: e.name,
          kind: e.kind,
          lines: s.lines,
          quantity: new Decimal(s.quantity).toString(),
          net: toMoney(s.net, currency),
          book: say(e.price),
          usual: say(usual.get(e.id) ?? e.price),
          last: s.last,
        }
      }),
    hours: [...worked]
      .flatMap(([id, seconds]) => {
        const e = tasks.get(id)
        const actual = e && byId.has(id) ? quotedAgainstActual(seconds, e.seconds) : null
        return actual ? [{ id, code: e!.code, name: e!.name, actual }] : []
      })
      .sort(
        (a, b) =>
          Number(b.actual.proposedSeconds !== null) - Number(a.actual.proposedSeconds !== null) ||
          b.actual.of - a.actual.of,
      )
      .slice(0, SHOWN),
    dormant: dormant.slice(0, SHOWN).map((e) => ({
      id: e.id,
      code: e.code,
      name: e.name,
      category: e.category,
      price: say(e.price),
    })),
    dormantCount: dormant.length,
    alike: lookAlikes(names)
      .slice(0, SHOWN)
      .map((g) => ({
        entries: g
          .map((id) => byId.get(id)!)
          .map((e) => ({
            id: e.id,
            code: e.code,
            name: e.name,
            price: say(e.price),
            last: e.last,
          })),
      })),
  }
}
export async function retireEntries(
  ctx: Ctx,
  body: Body<'retireEntries'>,
): Promise<Answer<'retireEntries'>> {
  await lockBook(ctx.tx)
  const count = await setRetired(ctx.tx, body.ids, body.retired)
  if (count)
    await record(ctx, {
      subject: 'prices',
      id: body.ids[0]!,
      fact: (body.retired ? priceFacts.severalRetired : priceFacts.severalBroughtBack)({
        ids: body.ids.slice(0, 200),
        count,
      }),
    })
  return { count }
}
/** Hours as they were worked become those of the book; a further one keeps its share of them. Prices that follow the rule follow, in one act. */
export async function takeHours(ctx: Ctx, body: Body<'takeHours'>): Promise<Answer<'takeHours'>> {
  await lockBook(ctx.tx)
  const done = await batchById(ctx.tx, body.id)
  if (done) return shapeBatch(done)
  const known = new Map(
    (
      await entriesById(
        ctx.tx,
        body.entries.map((e) => e.id),
      )
    ).map((e) => [e.id, e]),
  )
  const rows = body.entries.map((b, i) => {
    const e = known.get(b.id)
    if (e?.kind !== 'task') throw invalid(`entries[${i}].id`, 'Only tasks have hours.')
    return {
      id: b.id,
      seconds: b.seconds,
      furtherSeconds: e.seconds
        ? Math.round((b.seconds * e.furtherSeconds) / e.seconds)
        : b.seconds,
    }
  })
  await setHours(ctx.tx, rows)
  await record(ctx, {
    subject: 'prices',
    id: body.id,
    fact: priceFacts.hoursTaken({
      hours: rows.map((r) => ({ id: r.id, from: known.get(r.id)!.seconds, to: r.seconds })),
    }),
  })
  await changeBook(ctx, {
    id: body.id,
    title: 'Hours as they were worked',
    holdsFrom: ctx.today,
    changes: new Map(),
    even: true,
  })
  const batch = await batchById(ctx.tx, body.id)
  if (!batch) throw conflict('nothing', 'This changes no hours.')
  return shapeBatch(batch)
}
