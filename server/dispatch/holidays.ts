// Days on which nobody works: kept, called otherwise, taken back.
import type { Body } from '../../shared/api'
import type { Ctx } from '../http/context'
import { record } from '../http/queries'
import { lockFirm, refuseChanged, refuseOther, undoes } from '../settings/index'
import { scheduleFacts } from './facts'
import { holidaysBetween } from './queries'
import { putHoliday } from './setUp.queries'
import { scheduleSetUp, type SetUp } from './setUpView'

/** What that day is called; nothing where it is none. */
async function holidayNow(ctx: Ctx, date: string): Promise<string> {
  await lockFirm(ctx.tx)
  return (await holidaysBetween(ctx.tx, date, date))[0]?.name ?? ''
}
export async function keepHoliday(
  ctx: Ctx,
  { date: on, name, shown }: Body<'keepHoliday'>,
): Promise<SetUp> {
  const from = await holidayNow(ctx, on)
  refuseOther('this holiday', { now: from, shown })
  if (name !== from) {
    await putHoliday(ctx.tx, on, name)
    const changes = { holiday: { from, to: name } }
    const fact = name
      ? scheduleFacts.holidayKept({ on, name, changes })
      : scheduleFacts.holidayTakenBack({ on, changes })
    await record(ctx, { subject: 'settings', id: ctx.id(), fact })
  }
  return scheduleSetUp(ctx)
}

const back = {
  may: 'dispatch.setUp' as const,
  fits: ({ changes }: { changes?: Readonly<Record<string, unknown>> }) => Boolean(changes?.holiday),
  async back(
    ctx: Ctx,
    { on, changes }: { on: string; changes: { holiday: { from: string; to: string } } },
  ) {
    const shown = await holidayNow(ctx, on)
    const { from, to } = changes.holiday
    refuseChanged(shown, to)
    await keepHoliday(ctx, { date: on, name: from, shown })
  },
}
undoes({ 'schedule.holidayKept': back, 'schedule.holidayTakenBack': back })
