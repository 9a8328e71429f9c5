// Every subject's part, put together. The type makes sure that no route of the catalogue is left without its function.
import type { Answer, Body, Query, RouteName } from '../../shared/api'
import { accessHandlers } from '../access/routes'
import { agreementHandlers } from '../agreements/routes'
import { callHandlers } from '../calls/routes'
import { collectionHandlers } from '../collections/routes'
import { customerHandlers } from '../customers/routes'
import { dispatchHandlers } from '../dispatch/routes'
import { figureHandlers } from '../figures/routes'
import { invoiceHandlers } from '../invoices/routes'
import { paymentHandlers } from '../payments/routes'
import { pricebookHandlers } from '../pricebook/routes'
import { quoteHandlers } from '../quotes/routes'
import { settingHandlers } from '../settings/routes'
import { visitHandlers } from '../visits/routes'
import type { Ctx } from './context'

/** An answer that is not JSON. */
export class Raw {
  constructor(readonly mime: string, readonly data: Buffer | string, readonly filename = '') {}
}
export interface Input<N extends RouteName> { params: Record<string, string>, query: Query<N>, body: Body<N>, raw: { headers: Record<string, string | undefined>, bytes: Buffer } }
export type Handler<N extends RouteName> = (ctx: Ctx, input: Input<N>) => Promise<Answer<N> | Raw>
/** Routes that speak HTTP themselves, outside a transaction: they hold a stream or set the cookie. */
export type Special = 'live' | 'openapi' | 'health'
export type Handlers<T> = { [N in Extract<keyof T, Exclude<RouteName, Special>>]: Handler<N> }

export const handlers: { [N in Exclude<RouteName, Special>]: Handler<N> } = {
  ...accessHandlers, ...settingHandlers, ...customerHandlers, ...agreementHandlers, ...callHandlers, ...dispatchHandlers, ...pricebookHandlers, ...quoteHandlers, ...visitHandlers,
  ...invoiceHandlers, ...paymentHandlers, ...collectionHandlers, ...figureHandlers,
}
