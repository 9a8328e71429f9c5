// Tasks as screens show them.
import type { Answer } from '../../shared/api'
import type { Ctx } from '../http/context'
import type { TaskRow } from './queries'

export function taskView({ today }: Ctx, task: TaskRow): Answer<'newTask'> {
  const { customerId: _customer, label, ...shown } = task
  const late = task.doneAt === null && task.on !== null && task.on < today
  return { ...shown, label: label ?? '', late }
}
