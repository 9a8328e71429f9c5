/** What a task may be about. */
export const TASK_SUBJECTS = ['work', 'quote', 'customer'] as const
export type TaskSubject = (typeof TASK_SUBJECTS)[number]
const PAGES: Readonly<Record<TaskSubject, string>> = {
  work: '/work',
  quote: '/quotes',
  customer: '/customers',
}

/** The page of what a task is about. @example taskPage('quote', '7') // '/quotes/7' */
export const taskPage = (about: TaskSubject, id: string): string => `${PAGES[about]}/${id}`
