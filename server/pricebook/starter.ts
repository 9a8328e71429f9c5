// An empty price book begins with a short list, priced from one figure: what an hour costs the customer.
import { conflict, invalid } from '../../core/errors/LedgerError'
import { Decimal } from '../../core/money/decimal'
import { STARTER_LIST, type StarterEntry } from '../../core/pricebook/starterList'
import { taxedAs, usualTaxClass } from '../../core/pricebook/usualTaxClass'
import { HOUR, SECOND } from '../../core/time/units'
import type { Answer, Body } from '../../shared/api'
import { pricebookRoutes } from '../../shared/pricebook'
import type { Ctx } from '../http/context'
import { usualTaxClasses } from '../settings/queries'
import { keepPriceEntry } from './entry'
import { hasEntries, lockBook } from './queries'

const PLACES = 2
const FIRST = STARTER_LIST[0]!
/** An entry of the list as it is kept; nobody's cost is known but that of the hour. */
function bodyOf(
  e: StarterEntry,
  given: Body<'startPriceBook'>,
  taxClass: string,
  labourId: string,
) {
  const hour = new Decimal(given.hour)
  const seconds = Math.round((e.hours * HOUR) / SECOND)
  const own =
    e.kind === 'task'
      ? { pricing: 'rule', labourId }
      : { pricing: 'fixed', price: hour.times(e.share).toFixed(PLACES) }
  const { code, kind, category, name, synonyms } = e
  return pricebookRoutes.keepPriceEntry.body.cast({
    ...{ version: 0, code, kind, category, name, synonyms, taxClass, seconds, ...own },
    ...(kind === 'labour' && { unit: 'hour', pinned: true }),
    ...(e === FIRST && { cost: given.cost || '0' }),
  }) as Body<'keepPriceEntry'>
}
/** Makes the short list; the book must be empty. */
export async function startPriceBook(
  ctx: Ctx,
  given: Body<'startPriceBook'>,
): Promise<Answer<'startPriceBook'>> {
  if (new Decimal(given.hour).isZero()) throw invalid('hour', 'An hour costs more than nothing.')
  await lockBook(ctx.tx)
  if (await hasEntries(ctx.tx))
    throw conflict('exists', 'The price book is not empty. Add to it what is missing there.')
  const classes = await usualTaxClasses(ctx.tx)
  const labourId = ctx.id()
  for (const e of STARTER_LIST) {
    const taxClass = usualTaxClass(classes, e.kind === 'task' ? 'work' : taxedAs(e.kind))
    if (!taxClass) throw conflict('not_done_yet', 'Set the taxes first.')
    await keepPriceEntry(
      ctx,
      e === FIRST ? labourId : ctx.id(),
      bodyOf(e, given, taxClass, labourId),
    )
  }
  return { ok: true }
}
