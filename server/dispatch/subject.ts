// What dispatch tell the rest of the server about themselves.
import type { Subject } from '../subject'
import { writeInvitation } from './calendar'
import { ERASURES } from './subject.queries'

export const dispatch: Subject = {
  name: 'dispatch',
  erases: ERASURES,
  encloses: {
    invitation: async (ctx, { visitId, recipients }) =>
      visitId ? { event: await writeInvitation(ctx, visitId, recipients) } : null,
  },
}
