// The routes of access, bound to their service.
import type { accessRoutes } from '../../shared/access'
import { signedIn } from '../http/context'
import { historyOfFacts } from '../http/queries'
import { outside, type Handlers } from '../http/route'
import { comeIn, door, forgotPassword } from './doors'
import {
  comeBack,
  dropCostRate,
  endSecondStepOf,
  invitePerson,
  keepPerson,
  leave,
  staff,
} from './people'
import { allPeople } from './queries'
import {
  askedRoles,
  endMySecondStep,
  keepSecondStepRoles,
  mySecondStep,
  secondStepSecret,
  setSecondStep,
} from './secondStep'
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
  newToken: (ctx, { body }) => newToken(ctx, body),
  mySessions: outside((call) => mySessions(call)),
  endMySession: (ctx, { params }) => endMySession(ctx, params.session!),
  endOtherSessions: outside((call) => endOtherSessions(call)),
  changePassword: outside((call, { body }) => changePassword(call, body)),
  accessTrail: async (ctx, { query }) => ({
    items: await historyOfFacts(ctx, ['access.'], query.before),
  }),
  mySecondStep: (ctx) => mySecondStep(ctx),
  secondStepSecret: (ctx) => secondStepSecret(ctx),
  setSecondStep: (ctx, { body }) => setSecondStep(ctx, body),
  endMySecondStep: outside((call, { body }) => endMySecondStep(call, body)),
  secondStepRoles: (ctx) => askedRoles(ctx),
  keepSecondStepRoles: (ctx, { body }) => keepSecondStepRoles(ctx, body),
  endSecondStepOf: (ctx, { params }) => endSecondStepOf(ctx, params.id!),
  people: async (ctx) => ({ items: await allPeople(ctx.tx) }),
  staff: (ctx) => staff(ctx),
  keepPerson: (ctx, { body }) => keepPerson(ctx, body),
  dropCostRate: (ctx, { params, body }) => dropCostRate(ctx, params.id!, body),
  invitePerson: (ctx, { params }) => invitePerson(ctx, params.id!),
  leave: (ctx, { params }) => leave(ctx, params.id!),
  comeBack: (ctx, { params }) => comeBack(ctx, params.id!),
  forgotPassword: (ctx, { body }) => forgotPassword(ctx, body),
  door: (ctx, { params }) => door(ctx, params.token!),
  comeIn: outside((call, { params, body }) => comeIn(call, params.token!, body)),
}
