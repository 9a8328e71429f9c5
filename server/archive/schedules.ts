// What goes out by itself: into a folder, or by mail, each day, week or month.
import { createWriteStream } from 'node:fs'
import { mkdir, readdir, rename, rm } from 'node:fs/promises'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { HOUR, MINUTE } from '../../core/time/units'
import { nextDue } from '../../core/time/nextDue'
import { config } from '../config'
import { inBackgroundContext, type Ctx } from '../http/context'
import { record } from '../http/queries'
import { Hopeless, type JobKind } from '../jobs/jobs'
import { queueMail } from '../messages/service'
import type { MessageRow } from '../messages/queries'
import type { Enclosure } from '../subject'
import { writingOf } from './exported'
import { archiveFacts } from './facts'
import { dueSchedules, scheduleById, wentOut, type ScheduleRow } from './inAndOut.queries'

const NOBODY = { actor: null, ip: '' }
const fileName = ({ what }: Pick<ScheduleRow, 'what'>, today: string): string =>
  `${what}-${today}.${writingOf(what).ending}`
const KEPT_FILES = 30
/** The oldest go: what writes without end fills a disk. */
async function sweepFolder(folder: string, what: string): Promise<void> {
  const OURS = new RegExp(`^${what}-\\d{4}-\\d{2}-\\d{2}\\.\\w+$`)
  const files = (await readdir(folder)).filter((name) => OURS.test(name)).sort()
  for (const name of files.slice(0, -KEPT_FILES)) await rm(join(folder, name))
}
/** Under its name only once it is whole. */
async function writeFileOf(
  schedule: ScheduleRow,
  today: string,
  signal: AbortSignal,
): Promise<void> {
  const folder = config.exportFolder
  if (!folder) throw new Error('No folder is set up (OPEN_LEDGER_EXPORTS).')
  await mkdir(folder, { recursive: true, mode: 0o700 })
  const file = join(folder, fileName(schedule, today))
  const part = `${file}.part`
  try {
    await pipeline(
      writingOf(schedule.what).pieces(NOBODY),
      createWriteStream(part, { mode: 0o600 }),
      { signal },
    )
    await rename(part, file)
  } catch (error) {
    await rm(part, { force: true })
    throw error
  }
  await sweepFolder(folder, schedule.what)
}
async function mailIt(ctx: Ctx, { id, what, email }: ScheduleRow): Promise<void> {
  await queueMail(ctx, {
    ...{ kind: 'export', customerId: null, invoiceId: null, to: [email] },
    ...{ attach: 'export', attachId: id },
    subject: `${ctx.company.name}: ${fileName({ what }, ctx.today)}`,
    body: `Here is ${fileName({ what }, ctx.today)}, as it stands now.\n\nIt goes out by itself; an owner ends that under “Everything in and out”.\n`,
  })
}
const LARGEST_MAIL = 15_000_000
/** What a mail carries is written when it leaves, and never too large to arrive. */
async function forMail(schedule: ScheduleRow): Promise<Buffer> {
  const pieces: Buffer[] = []
  let size = 0
  for await (const piece of writingOf(schedule.what).pieces(NOBODY)) {
    const bytes = Buffer.from(piece)
    size += bytes.length
    if (size > LARGEST_MAIL)
      throw new Hopeless('It is too large for a mail: let it go into a folder.')
    pieces.push(bytes)
  }
  return Buffer.concat(pieces)
}
export async function encloseExport(ctx: Ctx, message: MessageRow): Promise<Enclosure> {
  const schedule = message.attachId ? await scheduleById(ctx.tx, message.attachId) : null
  // A mail that says “here is” does not leave without it.
  if (!schedule) throw new Hopeless('It goes out by itself no more.')
  return { paper: { filename: fileName(schedule, ctx.today), draw: () => forMail(schedule) } }
}

interface Gone {
  schedule: ScheduleRow
  problem: string
}
async function goesOut(schedule: ScheduleRow, today: string, signal: AbortSignal): Promise<Gone> {
  if (schedule.way === 'mail') return { schedule, problem: '' }
  return writeFileOf(schedule, today, signal).then(
    () => ({ schedule, problem: '' }),
    (error: Error) => ({ schedule, problem: error.message }),
  )
}
async function note(ctx: Ctx, { schedule, problem }: Gone): Promise<void> {
  const now = await scheduleById(ctx.tx, schedule.id, true)
  // It was ended meanwhile, or another process was at it.
  if (now?.dueOn !== schedule.dueOn) return
  const { id, what } = schedule
  if (problem) await wentOut(ctx.tx, id, { problem })
  else {
    if (schedule.way === 'mail') await mailIt(ctx, schedule)
    await wentOut(ctx.tx, id, { dueOn: nextDue(now.begunOn, now.every, ctx.today), at: ctx.now })
  }
  // It is tried again every quarter of an hour: the same trouble is said once.
  if (problem && now.problem && problem.startsWith(now.problem)) return
  const fact = problem ? archiveFacts.stayed({ what, why: problem }) : archiveFacts.taken({ what })
  await record(ctx, { subject: 'settings', id, fact })
}
const LONGEST = HOUR
export const exportsJob: JobKind = {
  kind: 'exports',
  atOnce: 1,
  limitMs: LONGEST,
  tries: 1,
  waitMs: () => 15 * MINUTE,
  everyMs: 15 * MINUTE,
  async run(_job, { signal }) {
    const { due, today } = await inBackgroundContext(async (ctx) => ({
      due: await dueSchedules(ctx.tx, ctx.today),
      today: ctx.today,
    }))
    const gone: Gone[] = []
    for (const schedule of due) gone.push(await goesOut(schedule, today, signal))
    return async (ctx) => {
      for (const one of gone) await note(ctx, one)
    }
  },
}
