// The routes of what is asked, bound to their service.
import type { askRoutes } from '../../shared/asks'
import type { Handlers } from '../http/route'
import { answerAsk, ask } from './commands'

export const askHandlers: Handlers<typeof askRoutes> = {
  askForYes: (ctx, { body }) => ask(ctx, body),
  answerAsk: (ctx, { params, body }) => answerAsk(ctx, params.id!, body),
}
