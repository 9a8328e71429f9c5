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
type Change = Omit<Body<'changeTask'>, 'version'>
/** Whoever does not work in the office knows their own alone, and ticks it off. */
function mayChange(ctx: Ctx, task: TaskRow | null, { done: _done, ...anew }: Change): TaskRow {
  const gives = may(ctx, 'tasks.give')
  if (!task || (!gives && task.ownerId !== signedIn(ctx).id)) throw notFound('task')
  if (!gives && Object.keys(anew).length) throw forbidden('You may not do this.')
  return task
}
/** The task as it would be: what is not said stays. */
async function changed(ctx: Ctx, task: TaskRow, change: Change) {
  const { what = task.what, ownerId = task.ownerId, on = task.on } = change
  if (ownerId !== task.ownerId) await mayOwn(ctx, ownerId)
  if (on !== task.on) mayBeDue(ctx, on)
  return { what, ownerId, on }
}
export async function changeTask(
  ctx: Ctx,
  id: string,
  { version, ...change }: Body<'changeTask'>,
): Promise<Answer<'changeTask'>> {
  await lockTask(ctx.tx, id)
  const task = mayChange(ctx, await taskById(ctx.tx, id), change)
  if (task.version !== version)
    throw conflict('stale', 'Someone changed this task in the meantime.', {
      current: taskView(ctx, task),
      yours: change,
    })
  const wasDone = task.doneAt !== null
  const { done = wasDone } = change
  await setTask(ctx.tx, { id, ...(await changed(ctx, task, change)), ...doneBy(ctx, task, done) })
  const now = (await taskById(ctx.tx, id))!
  const changes = changesOf(task, now)
  if (Object.keys(changes).length) await note(ctx, now, taskFacts.changed({ ...now, changes }))
  if (done !== wasDone) await note(ctx, now, taskFacts[done ? 'done' : 'undone'](now))
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
