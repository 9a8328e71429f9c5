// Who the firm is: what stands on every paper that is made from now on, and how days and prices are said.
import { conflict, invalid } from '../../core/errors/LedgerError'
import { ofCountry } from '../../core/settings/ofCountry'
import { isLocale } from '../../core/time/isLocale'
import { isBic, isIban, readIban } from '../../core/payments/payTo'
import { formatPhone } from '../../core/text/phone'
import type { Answer, Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { fromBase64 } from '../http/files'
import { redraw } from '../http/pictures'
import { record } from '../http/queries'
import type { Call } from '../http/route'
import { settingFacts } from './facts'
import { firmRow, hasTold, insertLogo, putFirm, type FirmRow } from './firm.queries'

const PARTS = [
  ...['name', 'line1', 'town', 'postcode', 'phone', 'email', 'taxNumber', 'terms'],
  ...['legalName', 'registration', 'payee', 'bank', 'iban', 'bic', 'chequeName', 'logoId'],
  ...['payTo', 'conditions', 'quoteDays', 'locale', 'timeZone', 'taxMode'],
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
  if (now.iban && now.iban !== old.iban && !isIban(now.iban))
    throw invalid('iban', 'This is no IBAN: a sign of it is wrong, missing or too many.')
  if (now.bic && now.bic !== old.bic && !isBic(now.bic))
    throw invalid('bic', 'This is no BIC: it has eight or eleven signs, as DEUTDEFF.')
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
export const changeFirm = (ctx: Ctx, body: Body<'changeFirm'>): Promise<Answer<'firm'>> => {
  const { version, ...typed } = body
  return putChanges(ctx, version, typed)
}
/** Changes those parts, and says so in the history. */
export async function putChanges(
  ctx: Ctx,
  version: number,
  typed: { [Part in keyof FirmRow]?: FirmRow[Part] | undefined },
): Promise<Answer<'firm'>> {
  const old = (await firmRow(ctx.tx, true))!
  if (old.version !== version)
    throw conflict('stale', 'Someone changed this in the meantime.', { current: old })
  const given = Object.fromEntries(Object.entries(typed).filter(([, value]) => value !== undefined))
  const now = { ...old, ...given } as FirmRow
  now.phone = formatPhone(now.phone, ctx.company.country)
  now.iban = readIban(now.iban)
  now.bic = now.bic.replace(/\s/g, '').toUpperCase()
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
/** Longer than any letterhead is wide, at the fineness of print. */
const LONGEST_LOGO = 900
/** Gives papers a picture above the name from now on, or none; it is drawn anew, and what was made before keeps its own. */
export async function keepLogo(call: Call, body: Body<'keepLogo'>): Promise<Answer<'firm'>> {
  const { version, data } = body
  const logo = data ? await redraw(fromBase64(data), 'data', LONGEST_LOGO) : null
  return call.once(async (ctx) => {
    const logoId = logo ? ctx.id() : null
    if (logo) await insertLogo(ctx.tx, { id: logoId!, ...logo, at: ctx.now })
    return putChanges(ctx, version, { logoId })
  })
}
