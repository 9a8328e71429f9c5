// Who is signed in, and what the browser needs to know of the company.
import * as yup from 'yup'
import { PERMISSIONS, ROLES, type Permission } from '../core/access/permissions'
import { phraseList } from './phrases'
import { ownRole } from './roles'
import { workKind } from './workKinds'
import { secondStepRoutes } from './secondStep'
import {
  amount,
  date,
  dayOrNone,
  flag,
  id,
  instant,
  int,
  list,
  mail,
  earlier,
  requiredText,
  obj,
  oneOf,
  ok,
  route,
  definedText,
  text,
} from './schema'

export const signInSchema = obj({
  email: mail().required('Write your mail address.'),
  password: requiredText('Write your password.', 200),
  /** the second step, of whoever has one */
  code: text(20).default(''),
})
export const passwordSchema = obj({
  current: requiredText('Write your password of now.', 200),
  next: requiredText('Write a new password.', 200),
})
export const me = obj({
  person: obj({
    id: id().required(),
    name: definedText(),
    email: definedText(),
    /** of the firm's own, the one that it begins as */
    role: oneOf(ROLES).required(),
    roleName: definedText(),
    bookable: flag().required(),
    seesCost: flag().required(),
    /** a second step is asked of the role, and comes before anything else */
    lacksSecondStep: flag().required(),
    /** what this person may do */
    may: list(oneOf(Object.keys(PERMISSIONS) as Permission[]).required()),
  }),
  company: obj({
    name: definedText(),
    currency: definedText(),
    locale: definedText(),
    timeZone: definedText(),
    demo: flag().required(),
    workKinds: list(workKind),
    phrases: list(phraseList),
    ownRoles: list(ownRole),
    stateLabels: yup.object().default(undefined).meta({ free: true }),
  }),
  now: instant().required(),
  today: date().required(),
  clockFixed: flag().required(),
  /** a demo's own clock, that is not the wall's */ demoClock: flag().required(),
})
const staff = obj({
  items: list(
    obj({
      id: id().required(),
      version: int().required(),
      name: definedText(),
      email: definedText(),
      phone: definedText(),
      payrollNumber: definedText(),
      role: oneOf(ROLES).required(),
      /** the code of a role of the firm's own, and what theirs is called */
      ownRole: definedText(),
      roleName: definedText(),
      bookable: flag().required(),
      seesCost: flag().required(),
      active: flag().required(),
      leftOn: date().nullable().default(null),
      /** has a password; who was invited has none yet */
      comesIn: flag().required(),
      invitedUntil: instant().nullable().default(null),
      /** signs in with a second step */
      secondStep: flag().required(),
      /** what an hour costs us today, and since when or from when on; null for whoever does not see costs */
      costRate: definedText().nullable(),
      costRates: list(obj({ from: dayOrNone(), rate: definedText() })).nullable(),
    }),
  ),
})
export const accessRoutes = {
  signIn: route({
    method: 'POST',
    path: '/session',
    who: 'public',
    summary: 'Sign in',
    session: 'opens',
    body: signInSchema,
    answer: me,
  }),
  session: route({
    method: 'GET',
    path: '/session',
    may: 'access.own',
    summary: 'Who is signed in',
    answer: me,
  }),
  signOut: route({
    method: 'DELETE',
    path: '/session',
    may: 'access.own',
    summary: 'Sign out',
    session: 'ends',
    answer: ok,
  }),
  newToken: route({
    method: 'POST',
    path: '/tokens',
    may: 'access.own',
    secret: true,
    summary: 'A personal token for machine access; shown once',
    body: obj({
      label: requiredText('Say what it is for.', 80),
      /** until it ends by itself */
      days: int(1, 365).default(365),
      /** changes nothing */
      readsOnly: flag().default(false),
    }),
    answer: obj({ token: definedText(200), expiresAt: instant().required() }),
  }),
  mySessions: route({
    method: 'GET',
    path: '/sessions',
    may: 'access.own',
    summary: 'Where one is signed in, and one’s personal tokens',
    answer: obj({
      items: list(
        obj({
          id: definedText(64),
          kind: oneOf(['cookie', 'token'] as const).required(),
          label: definedText(80),
          from: definedText(45),
          createdAt: instant().required(),
          lastSeenAt: instant().required(),
          expiresAt: instant().required(),
          readsOnly: flag().required(),
          current: flag().required(),
        }),
      ),
    }),
  }),
  endMySession: route({
    method: 'DELETE',
    path: '/sessions/{session}',
    may: 'access.own',
    summary: 'End a session or token of one’s own',
    answer: ok,
  }),
  endOtherSessions: route({
    method: 'POST',
    path: '/sessions/end-others',
    may: 'access.own',
    summary: 'Sign out all other browsers of one’s own; tokens stay',
    answer: obj({ ended: int().required() }),
  }),
  changePassword: route({
    method: 'POST',
    path: '/password',
    may: 'access.own',
    secret: true,
    summary: 'Choose another password; ends all other sessions',
    body: passwordSchema,
    answer: obj({ ended: int().required() }),
  }),
  accessTrail: route({
    method: 'GET',
    path: '/staff/trail',
    may: 'access.change',
    summary: 'Who came in and from where, who did not, and what was changed of it',
    ...earlier,
  }),
  ...secondStepRoutes,
  endSecondStepOf: route({
    method: 'POST',
    path: '/staff/{id}/second-step/end',
    may: 'access.change',
    summary: 'End the second step of somebody who lost phone and codes; they are signed out',
    answer: staff,
  }),
  people: route({
    method: 'GET',
    path: '/people',
    may: 'access.people',
    summary: 'The people of the company',
    answer: obj({
      items: list(
        obj({
          id: id().required(),
          name: definedText(),
          role: definedText(),
          bookable: flag().required(),
          skills: list(definedText()),
        }),
      ),
    }),
  }),
  staff: route({
    method: 'GET',
    path: '/staff',
    may: 'settings.see',
    summary: 'The people of the firm: who is there, who was invited, who left',
    answer: staff,
  }),
  keepPerson: route({
    method: 'POST',
    path: '/staff',
    may: 'access.change',
    summary: 'Add somebody, who is invited by mail; or change what is known of them',
    body: obj({
      id: id().required(),
      /** of somebody who is there already */
      version: int(1).default(undefined),
      name: requiredText('Write the name.', 120),
      /** who has none does not sign in */
      email: mail().default(''),
      phone: text(32).default(''),
      payrollNumber: text(32).default(''),
      role: oneOf(ROLES).required('Choose what they do here.'),
      /** the code of a role of the firm's own that begins as that one */
      ownRole: text(40).default(''),
      bookable: flag().required(),
      seesCost: flag().default(false),
      /** what an hour of theirs costs, by whoever sees costs; without it nothing is changed of that */
      costRate: amount().default(''),
      /** from which day on; of a first one always, else from today */
      costRateFrom: dayOrNone(),
    }),
    answer: staff,
  }),
  dropCostRate: route({
    method: 'POST',
    path: '/staff/{id}/cost-rates/drop',
    may: 'access.change',
    summary: 'What an hour of somebody was said to cost from a day on, and does not',
    body: obj({
      /** the day from which it was to hold; what always held stays, or what was clocked then would cost nothing */
      from: date().required('Say from which day it was.'),
      /** as it was read */
      rate: amount().required('Say which rate it was.'),
    }),
    answer: staff,
  }),
  invitePerson: route({
    method: 'POST',
    path: '/staff/{id}/invite',
    may: 'access.change',
    summary: 'Another invitation, where the one before was lost or ended',
    answer: staff,
  }),
  leave: route({
    method: 'POST',
    path: '/staff/{id}/leave',
    may: 'access.change',
    summary: 'Somebody leaves: comes in nowhere any more, and stays in the history',
    answer: staff,
  }),
  comeBack: route({
    method: 'POST',
    path: '/staff/{id}/come-back',
    may: 'access.change',
    summary: 'Somebody who left comes back',
    answer: staff,
  }),
  forgotPassword: route({
    method: 'POST',
    path: '/password/forgotten',
    who: 'public',
    summary: 'A link to another password, by mail to whoever has this address',
    body: obj({ email: mail().required('Write your mail address.') }),
    answer: ok,
  }),
  door: route({
    method: 'GET',
    path: '/doors/{token}',
    who: 'public',
    summary: 'Whose invitation, or way to another password, a link is',
    answer: obj({
      firm: definedText(),
      name: definedText(),
      email: definedText(),
      isNew: flag().required(),
    }),
  }),
  comeIn: route({
    method: 'POST',
    path: '/doors/{token}',
    who: 'public',
    session: 'opens',
    secret: true,
    summary: 'Choose a password by a link, and come in',
    body: obj({
      password: requiredText('Choose a password.', 200),
      code: text(20).default(''),
    }),
    answer: me,
  }),
}
