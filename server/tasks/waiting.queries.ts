// SQL of where what somebody is to do waits.
import { taskPage, type TaskSubject } from '../../core/waiting/taskSubjects'
import { whereTaskStands, type TaskFacts } from '../../core/waiting/whereItStands'
import { waits, type Waiting, type Waits } from '../subject'
import { LABEL, SUBJECT } from './queries'

export const WAITS: readonly Waits[] = [
  waits<Waiting & TaskFacts & { about: TaskSubject; subjectId: string }>({
    kind: 'task',
    from: 'tasks t',
    joins: 'JOIN people o ON o.id = t.owner_id JOIN customers c ON c.id = t.customer_id',
    id: 't.id',
    columns: `CONCAT(t.what, ', ', ${LABEL}) AS label, c.name AS whose, NULL AS sum, t.done_at IS NOT NULL AS done,
      t.due_on AS \`on\`, o.name AS owner, t.about, ${SUBJECT} AS subjectId, TRUE AS carried`,
    booleans: ['done'],
    places: () => ({ tasks: ['t.done_at IS NULL'] }),
    stands: (task, at) => whereTaskStands(task, at),
    to: ({ about, subjectId }) => taskPage(about, subjectId),
  }),
]
