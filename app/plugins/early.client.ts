// What every page of the firm needs is asked for first, before the router has the page's code.
import { askEarly } from '~/stores/session'
import { isForCustomers } from '~/lib/forCustomers'

export default defineNuxtPlugin({
  name: 'early',
  // Before the router's own.
  order: -49,
  setup: () => void (isForCustomers(location.pathname) || askEarly()),
})
