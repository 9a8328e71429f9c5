// Who the firm is: what stands on every paper that is made from now on, and how days and prices are said.
import { conflict, invalid } from '../../core/errors/LedgerError'
import { ofCountry } from '../../core/settings/ofCountry'
import { isLocale } from '../../core/time/isLocale'
import { formatPhone } from '../../core/text/phone'
import type { Answer, Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { settingFacts } from './facts'
import { firmRow, hasTold, putFirm, type FirmRow } from './firm.queries'

const PARTS = [
  ...['name', 'line1', 'town', 'postcode', 'phone', 'email', 'taxNumber', 'terms'],
  ...['payTo', 'conditions', 'locale', 'timeZone', 'taxMode'],
] as const satisfies readonly string[]

const zonesThere = ({ company }: Ctx, now: FirmRow): string[] => [
  ...new Set([now.timeZone, ...(ofCountry(company.country)?.timeZones ?? [])]),
]
/** What stands on papers of the firm, as it is now. */
export async function firm(ctx: Ctx): Promise<Answer<'firm'>> {
  const now = (await firmRow(ctx.tx))!
  return { ...now, timeZones: zonesThere(ctx, now) }
}
/** Ways of writing that are known, zones that are there, and prices that mean what they meant when they were told. */
async function checkWays(ctx: Ctx, old: FirmRow, now: FirmRow): Promise<void> {
  if (!isLocale(now.locale)) throw invalid('locale', 'This way of writing is not known.')
  if (!zonesThere(ctx, old).includes(now.timeZone))
    throw invalid('timeZone', 'Choose a zone of the country.')
  if (now.taxMode !== old.taxMode && (await hasTold(ctx.tx)))
    throw invalid(
      'taxMode',
      'Prices were told to customers already; whether the tax is inside them stays.',
    )
}
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
  if (!changed.length) return firm(ctx)
  await checkWays(ctx, old, now)
  await putFirm(ctx.tx, now)
  const changes = changed.map((part) => [
    part,
    { from: old[part as never], to: now[part as never] },
  ])
  await record(ctx, {
    ...{ subject: 'settings', id: ctx.id() },
    fact: settingFacts.firmChanged({ parts: changed, changes: Object.fromEntries(changes) }),
  })
  return firm(ctx)
}
