// Everything but the sign-in page and the customer's pages needs somebody; technicians live in the field pages.
import { isForCustomers } from '~/lib/forCustomers'
import { useSession } from '~/stores/session'

export default defineNuxtRouteMiddleware(async (to) => {
  if (isForCustomers(to.path)) return
  const me = await useSession().load()
  if (to.path === '/sign-in') return me ? navigateTo('/') : undefined
  if (!me)
    return navigateTo({ path: '/sign-in', query: to.path === '/' ? {} : { to: to.fullPath } })
  const home = {
    technician: '/field',
    books: '/unpaid',
    office: '/calls',
    dispatch: '/schedule',
    owner: '/schedule',
  }[me.person.role]
  if (to.path === '/') return navigateTo(home)
  if (me.person.role === 'technician' && to.path !== '/me' && !to.path.startsWith('/field'))
    return navigateTo('/field')
})
