// What a route's function is handed and what it may answer with. The register of all of them is handlers.ts.
import type { Answer, Body, Query, RouteName } from '../../shared/api'
import type { Actor, Ctx } from './context'

type Data = Buffer | string
/**
 * An answer that is not JSON. What takes long to draw is given as a function: it is drawn after the
 * transaction. What may be of any length comes in pieces.
 */
export class Raw {
  constructor(
    readonly mime: string,
    readonly data: Data | (() => Promise<Data>) | AsyncGenerator<Data>,
    readonly filename = '',
    /** what is at this address never changes: whoever asked for it keeps it */
    readonly stays = false,
  ) {}
}
export interface Input<N extends RouteName> {
  params: Record<string, string>
  query: Query<N>
  body: Body<N>
  raw: {
    headers: Record<string, string | undefined>
    bytes: Buffer
    /** keeps what is sent in a file, for a route that takes one of any length, and says where; it goes with the request */
    toFile(): Promise<string>
  }
}
/** A function that runs in the one transaction of its request. */
export type Inside<N extends RouteName> = (ctx: Ctx, input: Input<N>) => Promise<Answer<N> | Raw>

/** What a function is handed that opens its own transactions. */
export interface Call {
  actor: Actor | null
  ip: string
  /** the hash of the session or token that asks; empty where nobody is signed in */
  session: string
  /** one transaction */
  inContext<T>(work: (ctx: Ctx) => Promise<T>): Promise<T>
  /** one transaction, once only for the request's key: for what changes something */
  once<T>(work: (ctx: Ctx) => Promise<T>): Promise<T>
}
/** A function that speaks to the outside, or computes for long: never within a transaction. */
export interface Outside<N extends RouteName> {
  outside(call: Call, input: Input<N>): Promise<Answer<N> | Raw>
}
export type Handler<N extends RouteName> = Inside<N> | Outside<N>
/** Routes that speak HTTP themselves: they hold a stream, or need no company. */
export type Special = 'live' | 'openapi' | 'health'
export type Handlers<T> = { [N in Extract<keyof T, Exclude<RouteName, Special>>]: Handler<N> }
/** The type of a catalogue's functions is kept by naming them through this. */
export const outside = <N extends RouteName>(work: Outside<N>['outside']): Outside<N> => ({
  outside: work,
})
