// Everything but the sign-in page and the customer's pages needs somebody; technicians live in the field pages.
import { homeOf } from '~/lib/homeOf'
import { isDoor, isForCustomers } from '~/lib/forCustomers'
import { useSession } from '~/stores/session'

export default defineNuxtRouteMiddleware(async (to) => {
  if (isForCustomers(to.path) || isDoor(to.path)) return
  const me = await useSession().load()
  if (to.path === '/sign-in') return me ? navigateTo('/') : undefined
  if (!me)
    return navigateTo({ path: '/sign-in', query: to.path === '/' ? {} : { to: to.fullPath } })
  if (to.path === '/') return navigateTo(homeOf(me.person.role))
  if (me.person.role === 'technician' && to.path !== '/me' && !to.path.startsWith('/field'))
    return navigateTo('/field')
})
