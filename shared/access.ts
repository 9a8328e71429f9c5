// Who is signed in, and what the browser needs to know of the company.
import * as yup from 'yup'
import { ALL, date, flag, id, instant, int, list, mail, need, obj, oneOf, ok, ROLES, route, words } from './schema'

export const signInSchema = obj({ email: mail().required('Write your mail address.'), password: need('Write your password.', 200) })
export const me = obj({
  person: obj({ id: id().required(), name: words(), email: words(), role: oneOf(ROLES).required(), bookable: flag().required(), seesCost: flag().required(), takesMoney: flag().required() }),
  company: obj({ name: words(), currency: words(), locale: words(), timeZone: words(), demo: flag().required(), stateLabels: yup.object().default(undefined).meta({ free: true }), yardLat: int().nullable().optional(), yardLon: int().nullable().optional() }),
  now: instant().required(), today: date().required(), clockFixed: flag().required(),
})
export const accessRoutes = {
  signIn: route({ method: 'POST', path: '/session', who: 'public', summary: 'Sign in', body: signInSchema, answer: me }),
  session: route({ method: 'GET', path: '/session', who: ALL, summary: 'Who is signed in', answer: me }),
  signOut: route({ method: 'DELETE', path: '/session', who: ALL, summary: 'Sign out', answer: ok }),
  newToken: route({ method: 'POST', path: '/tokens', who: ALL, summary: 'A personal token for machine access; shown once', body: obj({ label: need('Say what it is for.', 80) }), answer: obj({ token: words(200), expiresAt: instant().required() }) }),
  people: route({ method: 'GET', path: '/people', who: ['owner', 'office', 'dispatch', 'books'], summary: 'The people of the company', answer: obj({ items: list(obj({ id: id().required(), name: words(), role: words(), bookable: flag().required(), skills: list(words()) })) }) }),
}
