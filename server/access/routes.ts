// The routes of access, bound to their service.
import type { accessRoutes } from '../../shared/access'
import { signedIn } from '../http/context'
import type { Handlers } from '../http/handlers'
import { allPeople } from './queries'
import { newToken, signIn, whoAmI } from './service'

export const accessHandlers: Handlers<typeof accessRoutes> = {
  signIn: (ctx, { body }) => signIn(ctx, body),
  session: async ctx => whoAmI(ctx, signedIn(ctx)),
  signOut: async () => ({ ok: true }),
  newToken: (ctx, { body }) => newToken(ctx, body.label),
  people: async ctx => ({ items: await allPeople(ctx.tx) }),
}
