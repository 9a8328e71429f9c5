// What every page of the firm needs is asked for first, before the router has the page's code; and the day, for a phone in a van.
import { askAhead } from '~/lib/ahead'
import { isForCustomers } from '~/lib/forCustomers'
import { isKnownHere } from '~/stores/session'

export default defineNuxtPlugin({
  name: 'ahead',
  // Before the router's own.
  order: -49,
  setup() {
    if (isForCustomers(location.pathname) || !isKnownHere()) return
    askAhead('session')
    if (location.pathname === '/field') askAhead('fieldDay')
  },
})
