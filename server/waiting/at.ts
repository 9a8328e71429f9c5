// What time it is to what waits: as core's rule asks, and as SQL does.
import { missedBefore } from '../../core/waiting/missedBefore'
import type { At } from '../../core/waiting/whereItStands'
import { sayDay } from '../../core/time/sayDay'
import { localDate } from '../../core/time/zone'
import { sqlInstant } from '../db/pool'
import type { Ctx } from '../http/context'
import type { WaitsAt } from '../subject'

export function waitsAt({ today, now, company }: Pick<Ctx, 'today' | 'now' | 'company'>): {
  at: At
  sql: WaitsAt
} {
  const { closesAt, timeZone, locale } = company
  const missed = missedBefore({ today, closesAt, timeZone }, now)
  return {
    at: {
      ...{ today, now, missedBefore: missed },
      dateOf: (instant) => localDate(instant, timeZone),
      day: (date) => sayDay(date, locale),
    },
    sql: { today, missedBefore: sqlInstant(missed) },
  }
}
