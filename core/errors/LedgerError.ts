/** The one error type: a stable code, an HTTP status, a sentence for people, and the field it belongs to. */
export class LedgerError extends Error {
  constructor(
    readonly code: string,
    readonly status: number,
    message: string,
    readonly errors: { path: string; message: string }[] = [],
    readonly extra: Record<string, unknown> = {},
  ) {
    super(message)
    this.name = 'LedgerError'
  }
}

/** 422: what was sent is well formed, but it cannot be accepted; `path` names the field that must change. */
export const invalid = (path: string, message: string, code = 'invalid') =>
  new LedgerError(code, 422, message, [{ path, message }])
/** 409: it clashes with what is true now. */
export const conflict = (code: string, message: string, extra: Record<string, unknown> = {}) =>
  new LedgerError(code, 409, message, [], extra)
/** 404, also for things that the asker may not know about. */
export const notFound = (what: string) =>
  new LedgerError('not_found', 404, `There is no such ${what}, or it is not yours to see.`)
/** 403. */
export const forbidden = (message: string) => new LedgerError('forbidden', 403, message)
