// The routes of what is unpaid, bound to their service.
import type { collectionRoutes } from '../../shared/collections'
import { letterPdf } from '../documents/letterPdf'
import { Raw, type Handlers } from '../http/route'
import { letterOf } from '../messages/service'
import { noteCollection, remind } from './commands'
import { owing, unpaid } from './views'

export const collectionHandlers: Handlers<typeof collectionRoutes> = {
  unpaid: (ctx, { query }) => unpaid(ctx, query.on),
  owing: (ctx, { params, query }) => owing(ctx, params.id!, query.on),
  async letter(ctx, { params }) {
    const letter = await letterOf(ctx, params.id!)
    return new Raw('application/pdf', () => letterPdf(letter), 'letter.pdf')
  },
  remind: (ctx, { params, body }) => remind(ctx, params.id!, body),
  collectionNote: (ctx, { params, body }) => noteCollection(ctx, params.id!, body),
}
