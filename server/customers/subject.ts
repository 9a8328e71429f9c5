// What customers tell the rest of the server about themselves.
import type { Subject } from '../subject'
import { ERASURES } from './subject.queries'

export const customers: Subject = {
  name: 'customers',
  moves: {
    sites: { one: 'site', several: 'sites' },
    contacts: { one: 'contact', several: 'contacts' },
    attachments: { one: 'file', several: 'files' },
  },
  erases: ERASURES,
}
