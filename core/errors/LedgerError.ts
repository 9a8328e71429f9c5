import { ERRORS, type CodeOf, type ErrorCode } from './errors'

/** Which field must change, and why. */
export interface Fault {
  path: string
  message: string
}
interface More {
  errors?: readonly Fault[]
  /** what else the asker should know: both values of a clash, seconds until it may be tried again */
  extra?: Record<string, unknown>
}
/** The one error type: a code of the catalogue with its HTTP status, a sentence for people, the fields it belongs to. */
export class LedgerError extends Error {
  readonly status: number
  readonly errors: readonly Fault[]
  readonly extra: Record<string, unknown>
  constructor(
    readonly code: ErrorCode,
    message: string,
    { errors = [], extra = {} }: More = {},
  ) {
    super(message)
    this.name = 'LedgerError'
    this.status = ERRORS[code][0]
    this.errors = errors
    this.extra = extra
  }
}

/** 422: what was sent is well formed, but it cannot be accepted; `path` names the field that must change. */
export const invalid = (path: string, message: string, code: CodeOf<422> = 'invalid') =>
  new LedgerError(code, message, { errors: [{ path, message }] })
/** 409: it clashes with what is true now. */
export const conflict = (code: CodeOf<409>, message: string, extra: Record<string, unknown> = {}) =>
  new LedgerError(code, message, { extra })
/** 404, also for things that the asker may not know about. */
export const notFound = (what: string) =>
  new LedgerError('not_found', `There is no such ${what}, or it is not yours to see.`)
/** 403. */
export const forbidden = (message: string) => new LedgerError('forbidden', message)
