// What every page of the firm needs is asked for first, before the router has the page's code; and the day, for a phone in a van.
import { askAhead } from '~/lib/ahead'
import { isDoor, isForCustomers } from '~/lib/forCustomers'
import { isKnownHere } from '~/stores/session'

export default defineNuxtPlugin({
  name: 'ahead',
  // Once it is known what the server drew, and before the router's own.
  order: -25,
  setup() {
    const { pathname } = location
    // It came with the page.
    if (useState('drawn').value) return
    if (isForCustomers(pathname) || isDoor(pathname) || !isKnownHere()) return
    askAhead('session')
    if (pathname === '/field') askAhead('fieldDay')
  },
})
