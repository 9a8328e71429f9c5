// The routes of access, bound to their service.
import type { accessRoutes } from '../../shared/access'
import { signedIn } from '../http/context'
import { outside, type Handlers } from '../http/route'
import { allPeople } from './queries'
import {
  changePassword,
  endMySession,
  endOtherSessions,
  mySessions,
  newToken,
  signIn,
  signOut,
  whoAmI,
} from './service'

export const accessHandlers: Handlers<typeof accessRoutes> = {
  signIn: outside((call, { body }) => signIn(call, body)),
  session: async (ctx) => whoAmI(ctx, signedIn(ctx)),
  signOut: outside((call) => signOut(call)),
  newToken: (ctx, { body }) => newToken(ctx, body.label),
  mySessions: outside((call) => mySessions(call)),
  endMySession: (ctx, { params }) => endMySession(ctx, params.session!),
  endOtherSessions: outside((call) => endOtherSessions(call)),
  changePassword: outside((call, { body }) => changePassword(call, body)),
  people: async (ctx) => ({ items: await allPeople(ctx.tx) }),
}
