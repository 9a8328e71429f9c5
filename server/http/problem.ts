// RFC 9457 problem+json from any error. What is not ours becomes a 500 with a reference and no inner detail.
import { ValidationError } from 'yup'
import { LedgerError } from '../../core/errors/LedgerError'
import { log } from './log'

export interface Problem { type: string, code: string, title: string, detail: string, status: number, errors?: { path: string, message: string }[], [extra: string]: unknown }
const TITLES: Record<number, string> = { 400: 'Malformed', 401: 'Not signed in', 403: 'Not allowed', 404: 'Not found', 405: 'Method not allowed', 409: 'In conflict', 413: 'Too large', 415: 'Wrong kind of content', 422: 'Not acceptable as it is', 429: 'Too often', 500: 'Our mistake', 503: 'Not available' }

export function problemOf(error: unknown, requestId: string): Problem {
  const make = (status: number, code: string, detail: string, extra: Record<string, unknown> = {}): Problem => ({ type: 'about:blank', code, title: TITLES[status] ?? 'Error', detail, status, ...extra })
  if (error instanceof LedgerError) return make(error.status, error.code, error.message, { ...(error.errors.length ? { errors: error.errors } : {}), ...error.extra })
  if (error instanceof ValidationError) {
    const errors = (error.inner.length ? error.inner : [error]).map(e => ({ path: e.path ?? '', message: e.message }))
    return make(422, 'invalid', errors[0]?.message ?? 'Something is missing.', { errors })
  }
  if (error instanceof RangeError) return make(422, 'invalid', error.message)
  const code = (error as { code?: string }).code ?? ''
  if (code === 'ER_DUP_ENTRY') return make(409, 'exists', 'This has already been saved.')
  if (code === 'ER_NO_REFERENCED_ROW_2') return make(422, 'unknown_reference', 'It refers to something that does not exist.')
  if (code === 'ER_DATA_TOO_LONG' || code === 'ER_WARN_DATA_OUT_OF_RANGE' || code === 'ER_CONSTRAINT_FAILED') return make(422, 'invalid', 'A value is outside what can be kept.')
  if (/ECONNREFUSED|PROTOCOL_CONNECTION_LOST|ER_CON_COUNT_ERROR|ENOTFOUND|ECONNRESET/.test(code)) return make(503, 'database_away', 'The database does not answer. Nothing was saved; try again in a moment.')
  log.error({ requestId, err: { code, message: (error as Error).message, stack: (error as Error).stack } }, 'unexpected')
  return make(500, 'unexpected', `Something went wrong on our side (reference ${requestId}). Nothing was saved.`)
}
