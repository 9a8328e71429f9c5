// The one list of subjects, in the order in which what goes through all of them takes them.
import { access } from './access/subject'
import { agreements } from './agreements/subject'
import { asks } from './asks/subject'
import { calls } from './calls/subject'
import { collections } from './collections/subject'
import { customers } from './customers/subject'
import { dispatch } from './dispatch/subject'
import { trail } from './http/subject'
import { invoices } from './invoices/subject'
import { messages } from './messages/subject'
import { payments } from './payments/subject'
import { pricebook } from './pricebook/subject'
import { quotes } from './quotes/subject'
import { tasks } from './tasks/subject'
import { visits } from './visits/subject'
import type { Encloses, Export, Finding, Moved, Subject, Waits } from './subject'

export const subjects: readonly Subject[] = [
  customers,
  agreements,
  visits,
  invoices,
  quotes,
  payments,
  pricebook,
  calls,
  asks,
  tasks,
  dispatch,
  messages,
  collections,
  access,
  trail,
]

/** Everything that belongs to a customer and moves with a merge, by table. Contacts, equipment and visits hang on these. */
export const moved: ReadonlyMap<string, Moved> = new Map(
  subjects.flatMap((subject) => Object.entries(subject.moves ?? {})),
)
export const erasures = subjects.flatMap((subject) => subject.erases ?? [])
export const findings: readonly Finding[] = subjects.flatMap((subject) => subject.finds ?? [])
export const exportsByName: ReadonlyMap<string, Export> = new Map(
  subjects.flatMap((subject) => Object.entries(subject.exports ?? {})),
)
export const enclosures: ReadonlyMap<string, Encloses> = new Map(
  subjects.flatMap((subject) => Object.entries(subject.encloses ?? {})),
)
export const waiting: readonly Waits[] = subjects.flatMap((subject) => subject.waits ?? [])
export const linksFor = subjects.flatMap((subject) => subject.linkFor ?? [])
