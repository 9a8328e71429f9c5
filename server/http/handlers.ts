// Every subject's part, put together. The type makes sure that no route of the catalogue is left without its function.
import type { RouteName } from '../../shared/api'
import { accessHandlers } from '../access/routes'
import { agreementHandlers } from '../agreements/routes'
import { archiveHandlers } from '../archive/routes'
import { askHandlers } from '../asks/routes'
import { callHandlers } from '../calls/routes'
import { collectionHandlers } from '../collections/routes'
import { broughtHandlers } from '../broughtForward/routes'
import { connectionHandlers } from '../connections/routes'
import { customerHandlers } from '../customers/routes'
import { dispatchHandlers } from '../dispatch/routes'
import { figureHandlers } from '../figures/routes'
import { invoiceHandlers } from '../invoices/routes'
import { paymentHandlers } from '../payments/routes'
import { pricebookHandlers } from '../pricebook/routes'
import { quoteHandlers } from '../quotes/routes'
import { settingHandlers } from '../settings/routes'
import { taskHandlers } from '../tasks/routes'
import { visitHandlers } from '../visits/routes'
import { waitingHandlers } from '../waiting/routes'
import type { Handler, Special } from './route'

export const handlers: { [N in Exclude<RouteName, Special>]: Handler<N> } = {
  ...accessHandlers,
  ...settingHandlers,
  ...connectionHandlers,
  ...customerHandlers,
  ...broughtHandlers,
  ...agreementHandlers,
  ...callHandlers,
  ...dispatchHandlers,
  ...pricebookHandlers,
  ...quoteHandlers,
  ...visitHandlers,
  ...invoiceHandlers,
  ...paymentHandlers,
  ...collectionHandlers,
  ...waitingHandlers,
  ...askHandlers,
  ...taskHandlers,
  ...figureHandlers,
  ...archiveHandlers,
}
