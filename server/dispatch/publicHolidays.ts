// Public holidays of the firm's country, to choose from: what the law of it has, not what the firm keeps.
import { invalid } from '../../core/errors/LedgerError'
import { plusDays } from '../../core/time/zone'
import type { Answer, Query } from '../../shared/api'
import type { Ctx } from '../http/context'
import { holidaysBetween } from './queries'

const DAYS_AHEAD = 400
/** Those of the next year and a month that the firm does not have yet, called as in its language, else in English. */
export async function publicHolidays(
  ctx: Ctx,
  { state }: Query<'publicHolidays'>,
): Promise<Answer<'publicHolidays'>> {
  const { today, company } = ctx
  const until = plusDays(today, DAYS_AHEAD)
  const kept = new Set((await holidaysBetween(ctx.tx, today, until)).map(({ date }) => date))
  // Some megabytes of law that few ask for.
  const { default: Holidays } = await import('date-holidays')
  const language = company.locale.split('-')[0]!
  const said = { types: ['public' as const], languages: [language, 'en'] }
  const ofAll = new Holidays(company.country, said)
  const states = Object.entries(ofAll.getStates(company.country, language) ?? {})
    .map(([code, name]) => ({ code, name }))
    .sort((a, b) => a.name.localeCompare(b.name, language))
  if (state && !states.some(({ code }) => code === state))
    throw invalid('state', 'This state is not known in our country.')
  const known = state ? new Holidays(company.country, state, said) : ofAll
  const years = [...new Set([today, until].map((day) => Number(day.slice(0, 4))))]
  const items = years
    .flatMap((year) => known.getHolidays(year))
    .map(({ date, name }) => ({ date: date.slice(0, 10), name }))
    .filter(({ date }) => date >= today && date <= until && !kept.has(date))
    // A day is kept under one name, however many the law has for it.
    .filter(({ date }, i, all) => all.findIndex((one) => one.date === date) === i)
  return { items, states }
}
