// The routes of access, bound to their service.
import type { accessRoutes } from '../../shared/access'
import { signedIn } from '../http/context'
import { outside, type Handlers } from '../http/route'
import { comeIn, door, forgotPassword } from './doors'
import { comeBack, invitePerson, keepPerson, leave, staff } from './people'
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
  staff: (ctx) => staff(ctx),
  keepPerson: (ctx, { body }) => keepPerson(ctx, body),
  invitePerson: (ctx, { params }) => invitePerson(ctx, params.id!),
  leave: (ctx, { params }) => leave(ctx, params.id!),
  comeBack: (ctx, { params }) => comeBack(ctx, params.id!),
  forgotPassword: (ctx, { body }) => forgotPassword(ctx, body),
  door: (ctx, { params }) => door(ctx, params.token!),
  comeIn: outside((call, { params, body }) => comeIn(call, params.token!, body)),
}
