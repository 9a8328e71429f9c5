// The routes of tasks, bound to their service.
import type { taskRoutes } from '../../shared/tasks'
import { signedIn } from '../http/context'
import type { Handlers } from '../http/route'
import { changeTask, giveTask } from './commands'
import { tasksAbout, tasksOf } from './queries'
import { taskView } from './views'

export const taskHandlers: Handlers<typeof taskRoutes> = {
  async tasks(ctx, { query: { about, subjectId } }) {
    const rows = await tasksAbout(ctx.tx, about, subjectId)
    return { items: rows.map((row) => taskView(ctx, row)) }
  },
  async myTasks(ctx) {
    const rows = await tasksOf(ctx.tx, signedIn(ctx).id)
    return { items: rows.map((row) => taskView(ctx, row)) }
  },
  newTask: (ctx, { body }) => giveTask(ctx, body),
  changeTask: (ctx, { params, body }) => changeTask(ctx, params.id!, body),
}
