// Who the firm is: what stands on every paper that is made from now on.
import { conflict } from '../../core/errors/LedgerError'
import { formatPhone } from '../../core/text/phone'
import type { Answer, Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { settingFacts } from './facts'
import { firmRow, putFirm, type FirmRow } from './firm.queries'

const PARTS = [
  ...['name', 'line1', 'town', 'postcode', 'phone', 'email', 'taxNumber', 'terms'],
  ...['payTo', 'conditions'],
] as const satisfies readonly string[]

/** What stands on papers of the firm, as it is now. */
export const firm = async (ctx: Ctx): Promise<Answer<'firm'>> => (await firmRow(ctx.tx))!
/** Changes what stands on papers from now on; what was made before stays as it was. */
export async function changeFirm(ctx: Ctx, body: Body<'changeFirm'>): Promise<Answer<'firm'>> {
  const old = (await firmRow(ctx.tx, true))!
  if (old.version !== body.version)
    throw conflict('stale', 'Someone changed this in the meantime.', { current: old })
  const { version: _, ...typed } = body
  const given = Object.fromEntries(Object.entries(typed).filter(([, value]) => value !== undefined))
  const now = { ...old, ...given } as FirmRow
  now.phone = formatPhone(now.phone, ctx.company.country)
  const changed = PARTS.filter(
    (part) => JSON.stringify(old[part as never]) !== JSON.stringify(now[part as never]),
  )
  if (!changed.length) return old
  await putFirm(ctx.tx, now)
  const changes = changed.map((part) => [
    part,
    { from: old[part as never], to: now[part as never] },
  ])
  await record(ctx, {
    ...{ subject: 'settings', id: ctx.id() },
    fact: settingFacts.firmChanged({ parts: changed, changes: Object.fromEntries(changes) }),
  })
  return (await firmRow(ctx.tx))!
}
