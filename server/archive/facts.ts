// What happens to everything of a firm at once, and how the history says it.
import { facts } from '../http/facts'

export const archiveFacts = facts('archive', {
  takenIn: (f: { firm: string }) => `${f.firm} goes on here, taken in from its archive`,
  taken: (f: { what: string }) => `Taken along: ${f.what}`,
  stayed: (f: { what: string; why: string }) => `Did not go out by itself: ${f.what}. ${f.why}`,
  scheduled: (f: { what: string; every: string; to: string }) =>
    `Goes out by itself each ${f.every}: ${f.what} ${f.to}`,
  ended: (f: { what: string }) => `Goes out by itself no more: ${f.what}`,
})
