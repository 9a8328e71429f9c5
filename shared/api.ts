// The catalogue of every route: the table of who may call what, the schemas that validate, and the source of the OpenAPI document.
import type { AnySchema, InferType } from 'yup'
import { accessRoutes } from './access'
import { agreementRoutes } from './agreements'
import { archiveRoutes } from './archive'
import { askRoutes } from './asks'
import { broughtRoutes } from './broughtForward'
import { callRoutes } from './calls'
import { collectionRoutes } from './collections'
import { connectionRoutes } from './connections'
import { customerRoutes } from './customers'
import { dispatchRoutes } from './dispatch'
import { figureRoutes } from './figures'
import { importRoutes } from './imports'
import { invoiceRoutes } from './invoices'
import { paymentRoutes } from './payments'
import { pricebookRoutes } from './pricebook'
import { quoteRoutes } from './quotes'
import type { Route } from './schema'
import { settingRoutes } from './settings'
import { taskRoutes } from './tasks'
import { visitRoutes } from './visits'
import { waitingRoutes } from './waiting'

export const routes = {
  ...figureRoutes,
  ...accessRoutes,
  ...settingRoutes,
  ...connectionRoutes,
  ...customerRoutes,
  ...agreementRoutes,
  ...importRoutes,
  ...broughtRoutes,
  ...callRoutes,
  ...dispatchRoutes,
  ...pricebookRoutes,
  ...quoteRoutes,
  ...visitRoutes,
  ...invoiceRoutes,
  ...paymentRoutes,
  ...collectionRoutes,
  ...waitingRoutes,
  ...askRoutes,
  ...taskRoutes,
  ...archiveRoutes,
}
export type RouteName = keyof typeof routes
type Of<N extends RouteName, K extends 'query' | 'body' | 'answer'> =
  (typeof routes)[N] extends Record<K, infer S extends AnySchema>
    ? InferType<S>
    : Record<string, never>
export type Query<N extends RouteName> = Of<N, 'query'>
export type Body<N extends RouteName> = Of<N, 'body'>
/** What the client sends: each required field; what has a default may be left out. */
export type Given<N extends RouteName> = (typeof routes)[N] extends { body: { given?: infer G } }
  ? G
  : Body<N>
type NamesIn<P extends string> = P extends `${string}{${infer Name}}${infer Rest}`
  ? Name | NamesIn<Rest>
  : never
/** The names in a route's path. */
export type Params<N extends RouteName> = NamesIn<(typeof routes)[N]['path']>
export type Answer<N extends RouteName> = Of<N, 'answer'>
export const routeOf = (name: RouteName): Route => routes[name]
