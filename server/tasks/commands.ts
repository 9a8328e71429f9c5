// Acts on tasks: given, ticked off, given on, put off.
import { conflict, forbidden, invalid, notFound } from '../../core/errors/LedgerError'
import type { Answer, Body } from '../../shared/api'
import { allPeople } from '../access/queries'
import { may, signedIn, type Ctx } from '../http/context'
import type { Fact } from '../http/facts'
import { record } from '../http/queries'
import { taskFacts } from './facts'
import { customerOf, insertTask, lockTask, setTask, taskById, type TaskRow } from './queries'
import { taskView } from './views'

/** Who is to do it: somebody of the firm. */
async function mayOwn(ctx: Ctx, ownerId: string): Promise<void> {
  if (!(await allPeople(ctx.tx)).some(({ id }) => id === ownerId))
    throw invalid('ownerId', 'Choose who does it.')
}
/** A day that has passed is nobody's plan. */
function mayBeDue(ctx: Ctx, on: string | null): void {
  if (on && on < ctx.today) throw invalid('on', 'That day has passed.')
}
const note = (ctx: Ctx, task: TaskRow, fact: Fact) =>
  record(ctx, {
    subject: 'task',
    id: task.id,
    workOrderId: task.about === 'work' ? task.subjectId : null,
    customerId: task.customerId,
    fact,
  })
export async function giveTask(ctx: Ctx, body: Body<'newTask'>): Promise<Answer<'newTask'>> {
  const { id, about, subjectId, what, ownerId, on } = body
  const known = await taskById(ctx.tx, id)
  if (known) return taskView(ctx, known)
  const customerId = await customerOf(ctx.tx, about, subjectId)
  if (!customerId) throw notFound(about === 'work' ? 'work order' : about)
  await mayOwn(ctx, ownerId)
  mayBeDue(ctx, on)
  const by = signedIn(ctx).id
  await insertTask(ctx.tx, { id, about, subjectId, what, ownerId, on, customerId, by, at: ctx.now })
  const task = (await taskById(ctx.tx, id))!
  await note(ctx, task, taskFacts.given(task))
  return taskView(ctx, task)
}
/** The changes of a task in words: what, by whom, by when. */
function changesOf(was: TaskRow, now: TaskRow) {
  const parts = (['what', 'owner', 'on'] as const).filter((part) => was[part] !== now[part])
  return Object.fromEntries(parts.map((part) => [part, { from: was[part], to: now[part] }]))
}
export async function changeTask(
  ctx: Ctx,
  id: string,
  body: Body<'changeTask'>,
): Promise<Answer<'changeTask'>> {
  await lockTask(ctx.tx, id)
  const task = await taskById(ctx.tx, id)
  // Whoever does not work in the office knows their own alone.
  if (!task || (!may(ctx, 'tasks.give') && task.ownerId !== signedIn(ctx).id))
    throw notFound('task')
  const { version, done = task.doneAt !== null, ...anew } = body
  if (task.version !== version)
    throw conflict('stale', 'Someone changed this task in the meantime.', {
      current: taskView(ctx, task),
      yours: body,
    })
  if (!may(ctx, 'tasks.give') && Object.keys(anew).length) throw forbidden('You may not do this.')
  const { what = task.what, ownerId = task.ownerId, on = task.on } = anew
  if (ownerId !== task.ownerId) await mayOwn(ctx, ownerId)
  if (on !== task.on) mayBeDue(ctx, on)
  await setTask(ctx.tx, { id, what, ownerId, on, ...doneBy(ctx, task, done) })
  const now = (await taskById(ctx.tx, id))!
  const changes = changesOf(task, now)
  if (Object.keys(changes).length) await note(ctx, now, taskFacts.changed({ ...now, changes }))
  if (done !== (task.doneAt !== null))
    await note(ctx, now, taskFacts[done ? 'done' : 'undone'](now))
  return taskView(ctx, now)
}
/** Who did it, when: whoever ticked it off first. */
function doneBy(
  ctx: Ctx,
  task: TaskRow,
  done: boolean,
): { doneAt: number | null; by: string | null } {
  if (!done) return { doneAt: null, by: null }
  return { doneAt: task.doneAt === null ? ctx.now : Date.parse(task.doneAt), by: signedIn(ctx).id }
}
