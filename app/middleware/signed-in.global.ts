// Everything but the sign-in page and the customer's pages needs somebody; technicians live in the field pages.
import { homeOf } from '~/lib/homeOf'
import { isDoor, isForCustomers } from '~/lib/forCustomers'
import type { Answer } from '~~/shared/api'
import { useSession } from '~/stores/session'

type Person = Answer<'session'>['person']
export default defineNuxtRouteMiddleware(async (to) => {
  if (isForCustomers(to.path) || isDoor(to.path)) return
  const me = await useSession().load()
  if (to.path === '/sign-in') return me ? navigateTo('/') : undefined
  if (!me)
    return navigateTo({ path: '/sign-in', query: to.path === '/' ? {} : { to: to.fullPath } })
  const place = placeOf(me.person, to.path)
  return place === to.path ? undefined : navigateTo(place)
})
/** Where somebody may be who wants to go somewhere. */
function placeOf({ role, lacksSecondStep }: Person, path: string): string {
  if (path === '/me') return path
  // What the owner asks of the role comes before anything else.
  if (lacksSecondStep) return '/me'
  if (path === '/') return homeOf(role)
  return role === 'technician' && !path.startsWith('/field') ? '/field' : path
}
