// A firm begins: whoever has the code that was printed when the server started becomes its first owner.
import { randomBytes } from 'node:crypto'
import { CODE_LENGTH, readCode, sayCode } from '../../core/access/beginCode'
import { conflict, invalid } from '../../core/errors/LedgerError'
import { DAY, MINUTE, SECOND } from '../../core/time/units'
import { countriesBy, ofCountry } from '../../core/settings/ofCountry'
import type { Answer, Body } from '../../shared/api'
import { doorBy } from '../access/doors.queries'
import { closeDoors, givePassword, insertPerson, putDoor } from '../access/index'
import { hashPassword } from '../access/password'
import { personByEmail } from '../access/queries'
import { checkNewPassword, openSession } from '../access/service'
import { hashToken } from '../access/session'
import type { Tx } from '../db/pool'
import type { Ctx } from '../http/context'
import { countTry, tooOften, type Limit } from '../http/limits'
import { record } from '../http/queries'
import type { Call } from '../http/route'
import { hasPeople, insertBlankFirm, putBegun, someoneSignsIn } from './begin.queries'
import { settingFacts } from './facts'
import { lockFirm } from './firm.queries'
import { getCompany } from './queries'
import { putTaxClass } from './taxes.queries'
import { isOddRate, rateOfPercent } from '../../core/tax/percentOfRate'
import { isLocale } from '../../core/time/isLocale'

/** Until the server is started again, which prints another code. */
const LASTS_MS = 365 * DAY
/**
 * An empty database becomes a firm that waits for its owner; answers the code that lets them in, for as long as nobody
 * can sign in. That is so, too, after a firm was taken in from an archive, which holds no passwords.
 */
export async function openForOwner(tx: Tx): Promise<string | null> {
  if (await someoneSignsIn(tx)) return null
  await insertBlankFirm(tx)
  const code = sayCode(randomBytes(CODE_LENGTH))
  const hash = hashToken(readCode(code))
  await putDoor(tx, { hash, kind: 'begin', personId: null, lastsMs: LASTS_MS })
  return code
}
/** Whether a firm waits for its owner, and what each country proposes to it. */
export async function beginning(ctx: Ctx): Promise<Answer<'beginning'>> {
  if (await someoneSignsIn(ctx.tx)) return { waits: false, takenIn: false, countries: [] }
  return {
    waits: true,
    takenIn: await hasPeople(ctx.tx),
    countries: countriesBy('en').map((country) => ({ ...country, ...ofCountry(country.code)! })),
  }
}
const TRIES: Limit = {
  ...{ free: 5, firstWaitMs: 2 * SECOND, longestWaitMs: 15 * MINUTE, forgetMs: 30 * MINUTE },
}
const wrongCode = () =>
  invalid('code', 'This is not the code that was printed when the server started.')
/** Whether this code is the one that was printed, and nobody is there yet who signs in; of two at once, the second waits. */
export async function mayBegin(ctx: Ctx, code: string): Promise<void> {
  await lockFirm(ctx.tx)
  if (await someoneSignsIn(ctx.tx)) throw conflict('begun', 'A firm is here already. Sign in.')
  const door = await doorBy(ctx.tx, hashToken(readCode(code)), true)
  if (door?.kind !== 'begin') throw wrongCode()
}
type Begun = Body<'begin'>
function checkFirm({ country, timeZone, locale, taxName, taxRate, sure }: Begun): void {
  const usual = ofCountry(country)
  if (!usual) throw invalid('country', 'No books are kept in the currency of this country yet.')
  if (!usual.timeZones.includes(timeZone))
    throw invalid('timeZone', 'Choose a zone of the country.')
  if (!isLocale(locale)) throw invalid('locale', 'This way of writing is not known.')
  if (taxRate && isOddRate(taxRate) && !sure)
    throw conflict('odd_rate', `${taxRate} per cent for ${taxName || 'tax'}: is this right?`)
}
/** What is handed over and what is done, at the one rate that was said; others are set up later. */
async function putFirstTaxes(tx: Tx, { taxName, taxRate }: Begun): Promise<void> {
  const name = taxName || 'Tax'
  const rates =
    taxRate && Number(taxRate) > 0 ? [{ code: 'tax', name, rate: rateOfPercent(taxRate) }] : []
  await putTaxClass(tx, { id: 'goods', name: 'Parts and materials', usualFor: 'goods', rates })
  await putTaxClass(tx, { id: 'work', name: 'Work', usualFor: 'work', rates })
  await putTaxClass(tx, { id: 'none', name: 'Not taxed', usualFor: null, rates: [] })
}
/** Refuses whoever does not have the code, and slows down who guesses. */
export async function checkCode(call: Call, code: string): Promise<void> {
  const refused = await call.inContext(async (ctx) => {
    const wait = await countTry(ctx.tx, `begin ${ctx.ip}`, TRIES, Date.now())
    if (wait > 0) return tooOften('Too many attempts. Wait a moment, then try again.', wait)
    // Counted although it is refused: what is thrown takes back what was written.
    return mayBegin(ctx, code).then(
      () => null,
      (error: Error) => error,
    )
  })
  if (refused) throw refused
}
/** The firm, its first owner, and what taxes there are; whoever said it is signed in. */
export async function begin(call: Call, body: Begun): Promise<Answer<'begin'>> {
  await checkCode(call, body.code)
  checkFirm(body)
  await checkNewPassword({ name: body.name, email: body.email }, body.password, 'password')
  const hash = await hashPassword(body.password)
  return call.inContext(async (ctx) => {
    await mayBegin(ctx, body.code)
    if (await hasPeople(ctx.tx))
      throw conflict('begun', 'A firm was taken in here meanwhile. Load the page again.')
    await closeDoors(ctx.tx, null)
    await putBegun(ctx.tx, {
      ...body,
      name: body.firm,
      currency: ofCountry(body.country)!.currency,
    })
    await putFirstTaxes(ctx.tx, body)
    const id = ctx.id()
    const email = body.email.toLowerCase()
    const owner = { id, name: body.name, email, phone: '', payrollNumber: '', seesCost: false }
    await insertPerson(ctx.tx, { ...owner, role: 'owner', ownRole: '', bookable: body.alsoGoes })
    await givePassword(ctx.tx, id, hash)
    const me = (await personByEmail(ctx.tx, email))!
    const company = (await getCompany(ctx.tx))!
    const now = { ...ctx, actor: me, company }
    await record(now, {
      ...{ subject: 'settings', id: ctx.id() },
      fact: settingFacts.begun({ firm: company.name }),
    })
    return openSession(now, me) as Promise<Answer<'begin'>>
  })
}
