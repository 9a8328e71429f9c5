// Who is signed in, and what the browser needs to know of the company.
import * as yup from 'yup'
import { PERMISSIONS, ROLES, type Permission } from '../core/access/permissions'
import {
  date,
  flag,
  id,
  instant,
  int,
  list,
  mail,
  requiredText,
  obj,
  oneOf,
  ok,
  route,
  definedText,
} from './schema'

export const signInSchema = obj({
  email: mail().required('Write your mail address.'),
  password: requiredText('Write your password.', 200),
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
    role: oneOf(ROLES).required(),
    bookable: flag().required(),
    seesCost: flag().required(),
    /** what this person may do */
    may: list(oneOf(Object.keys(PERMISSIONS) as Permission[]).required()),
  }),
  company: obj({
    name: definedText(),
    currency: definedText(),
    locale: definedText(),
    timeZone: definedText(),
    demo: flag().required(),
    stateLabels: yup.object().default(undefined).meta({ free: true }),
    yardLat: int().nullable().optional(),
    yardLon: int().nullable().optional(),
  }),
  now: instant().required(),
  today: date().required(),
  clockFixed: flag().required(),
  /** a demo's own clock, that is not the wall's */ demoClock: flag().required(),
})
export const accessRoutes = {
  signIn: route({
    method: 'POST',
    path: '/session',
    who: 'public',
    summary: 'Sign in',
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
    answer: ok,
  }),
  newToken: route({
    method: 'POST',
    path: '/tokens',
    may: 'access.own',
    secret: true,
    summary: 'A personal token for machine access; shown once',
    body: obj({ label: requiredText('Say what it is for.', 80) }),
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
}
