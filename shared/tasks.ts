// What somebody is to do about a work order, a quote or a customer.
import { TASK_SUBJECTS } from '../core/waiting/taskSubjects'
import {
  date,
  definedText,
  flag,
  id,
  instant,
  int,
  list,
  obj,
  oneOf,
  requiredText,
  route,
  text,
  version,
} from './schema'

const task = obj({
  id: id().required(),
  version: int().required(),
  what: definedText(300),
  on: date().nullable().defined(),
  ownerId: id().required(),
  owner: definedText(),
  doneAt: instant().nullable().defined(),
  doneBy: definedText(),
  about: oneOf(TASK_SUBJECTS).required(),
  subjectId: id().required(),
  /** what it is about, as its page is called */
  label: definedText(400),
  late: flag().required(),
})
const WHAT = 'Write what is to be done.'
export const taskRoutes = {
  tasks: route({
    method: 'GET',
    path: '/tasks',
    may: 'tasks.give',
    summary: 'What is to be done about something, and the last that was',
    query: obj({ about: oneOf(TASK_SUBJECTS).required(), subjectId: id().required() }),
    answer: obj({ items: list(task) }),
  }),
  myTasks: route({
    method: 'GET',
    path: '/tasks/mine',
    may: 'tasks.own',
    summary: 'What I am to do, the first due first',
    answer: obj({ items: list(task) }),
  }),
  newTask: route({
    method: 'POST',
    path: '/tasks',
    may: 'tasks.give',
    summary: 'Give somebody, or oneself, something to do by a day',
    body: obj({
      id: id().required(),
      about: oneOf(TASK_SUBJECTS).required(),
      subjectId: id().required(),
      what: requiredText(WHAT, 300),
      ownerId: id().required('Choose who does it.'),
      on: date().nullable().default(null),
    }),
    answer: task,
  }),
  changeTask: route({
    method: 'PATCH',
    path: '/tasks/{id}',
    may: 'tasks.own',
    summary: 'Tick off a task, or take that back; give it on, put it off, write it anew',
    body: obj({
      version: version(),
      done: flag(),
      what: text(300).min(1, WHAT),
      ownerId: id(),
      on: date().nullable(),
    }),
    answer: task,
  }),
}
