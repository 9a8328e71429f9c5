// The page of everything in and out: when what was last, and what goes out by itself.
import { conflict, invalid, notFound } from '../../core/errors/LedgerError'
import { EXPORTED, TAKEN_IN } from '../../shared/archive'
import type { Answer, Body } from '../../shared/api'
import { config } from '../config'
import { may, signedIn, type Ctx } from '../http/context'
import { historyOfFacts, record } from '../http/queries'
import { hurry } from '../jobs/jobs'
import { archiveFacts } from './facts'
import { mayTake } from './exported'
import {
  deleteSchedule,
  exportSchedules,
  insertSchedule,
  lastExports,
  lastImports,
  scheduleById,
  type ScheduleRow,
} from './inAndOut.queries'

const scheduleView = ({ begunOn: _, ...schedule }: ScheduleRow) => schedule
export async function inAndOut(ctx: Ctx): Promise<Answer<'inAndOut'>> {
  const exports = new Map((await lastExports(ctx.tx)).map((run) => [run.what, run]))
  const imports = new Map((await lastImports(ctx.tx)).map((run) => [run.what, run]))
  const maySchedule = may(ctx, 'archive.take')
  return {
    imports: TAKEN_IN.map((what) => imports.get(what) ?? { what, at: null, by: '', file: '' }),
    exports: EXPORTED.filter((what) => mayTake(ctx, what)).map(
      (what) => exports.get(what) ?? { what, at: null, by: '' },
    ),
    schedules: maySchedule ? (await exportSchedules(ctx.tx)).map(scheduleView) : [],
    history: maySchedule ? await historyOfFacts(ctx, ['archive.']) : [],
    folder: maySchedule ? config.exportFolder : '',
    maySchedule,
  }
}
const whereTo = ({ way, email }: Pick<ScheduleRow, 'way' | 'email'>): string =>
  way === 'mail' ? `by mail to ${email}` : 'into the folder'
type Kept = Body<'keepExportSchedule'>
function checkWay({ what, way, email }: Kept): void {
  if (way === 'mail' && !email) throw invalid('email', 'Write whom it is mailed to.')
  if (way === 'mail' && what === 'archive')
    throw invalid('way', 'An archive is too large for a mail: let it go into a folder.')
  if (way === 'folder' && !config.exportFolder)
    throw invalid(
      'way',
      'No folder is set up. Whoever runs Open Ledger names one in OPEN_LEDGER_EXPORTS.',
    )
}
/** The first goes out at once, so that somebody sees whether it arrives. */
export async function keepSchedule(ctx: Ctx, body: Kept): Promise<Answer<'inAndOut'>> {
  checkWay(body)
  const { id, what, every, way } = body
  const email = way === 'mail' ? body.email : ''
  if (await scheduleById(ctx.tx, id)) return inAndOut(ctx)
  const madeBy = signedIn(ctx).id
  await insertSchedule(ctx.tx, { id, what, every, way, email, begunOn: ctx.today, madeBy })
  await hurry(ctx.tx, 'exports')
  const fact = archiveFacts.scheduled({ what, every, to: whereTo({ way, email }) })
  await record(ctx, { subject: 'settings', id, fact })
  return inAndOut(ctx)
}
export async function endSchedule(
  ctx: Ctx,
  id: string,
  { version }: Body<'endExportSchedule'>,
): Promise<Answer<'inAndOut'>> {
  const schedule = await scheduleById(ctx.tx, id, true)
  if (!schedule) throw notFound('export that goes out by itself')
  if (schedule.version !== version)
    throw conflict('stale', 'Somebody changed it meanwhile. Load the page again.')
  await deleteSchedule(ctx.tx, id)
  const { what } = schedule
  await record(ctx, { subject: 'settings', id, fact: archiveFacts.ended({ what }) })
  return inAndOut(ctx)
}
