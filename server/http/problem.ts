// Whatever goes wrong, as problem+json (RFC 9457): a stable code, a status, a sentence for people.
import { ValidationError } from 'yup'
import { ERRORS, type ErrorCode } from '../../core/errors/errors'
import { InvalidValue } from '../../core/errors/InvalidValue'
import { LedgerError } from '../../core/errors/LedgerError'
import { log } from './log'

export interface Problem {
  type: string
  code: ErrorCode
  title: string
  detail: string
  status: number
  errors?: { path: string; message: string }[]
  /** seconds after which it may be tried again */
  retryAfter?: number
  [extra: string]: unknown
}
const TITLES: Record<(typeof ERRORS)[ErrorCode][0], string> = {
  400: 'Malformed',
  401: 'Not signed in',
  403: 'Not allowed',
  404: 'Not found',
  405: 'Method not allowed',
  409: 'In conflict',
  413: 'Too large',
  415: 'Wrong kind of content',
  422: 'Not acceptable as it is',
  429: 'Too often',
  500: 'Our mistake',
  503: 'Not available',
}
function make(code: ErrorCode, detail: string, extra: Record<string, unknown> = {}): Problem {
  const [status] = ERRORS[code]
  return { type: 'about:blank', code, title: TITLES[status], detail, status, ...extra }
}

interface DatabaseError {
  code?: string
  errno?: number
  message: string
  sqlMessage?: string
}
/** MariaDB's own numbers: the driver names some of them after other servers' errors. */
const NUMBERS = { constraint: 4025, check: 3819, badText: 1366 }
const AWAY = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'ENOTFOUND',
  'EPIPE',
  'ER_CON_COUNT_ERROR',
  'ER_LOCK_DEADLOCK',
  'ER_LOCK_WAIT_TIMEOUT',
  'ER_SERVER_SHUTDOWN',
  'ETIMEDOUT',
  'PROTOCOL_CONNECTION_LOST',
])
const AWAY_TEXT = /closed state|connection is in|Connection lost|server has gone away/i
const TOO_LONG = new Set([
  'ER_DATA_TOO_LONG',
  'ER_WARN_DATA_OUT_OF_RANGE',
  'ER_CONSTRAINT_FAILED',
  'ER_TRUNCATED_WRONG_VALUE_FOR_FIELD',
  'ER_TRUNCATED_WRONG_VALUE',
])

/** What a duplicate means, by the key that it breaks; a key of a table's own identifier means that it was saved before. */
function duplicate(error: DatabaseError): Problem {
  const key = /for key '(?:\w+\.)?(\w+)'/.exec(error.sqlMessage ?? error.message)?.[1] ?? ''
  if (key === 'PRIMARY') return make('exists', 'This has already been saved.')
  if (key === 'code')
    return make('code_taken', 'Something else has this code already. Choose another.', {
      errors: [{ path: 'code', message: 'Something else has this code already.' }],
    })
  if (key === 'name' || key === 'subject' || key === 'person_id' || key === 'scope')
    return make('name_taken', 'Something else has this name already. Choose another.', {
      errors: [{ path: 'name', message: 'Something else has this name already.' }],
    })
  if (key === 'email')
    return make('mail_taken', 'Somebody else has this mail address already.', {
      errors: [{ path: 'email', message: 'Somebody else has this mail address already.' }],
    })
  if (key === 'running_for')
    return make('clock_running', 'A clock of this person runs already. Look at the visit again.')
  return make('twice', 'Somebody did the same at this moment. Look at it again.')
}
function problemOfDatabase(error: DatabaseError): Problem | null {
  const code = error.code ?? ''
  if (code === 'ER_DUP_ENTRY') return duplicate(error)
  if (code === 'ER_NO_REFERENCED_ROW_2')
    return make('unknown_reference', 'It refers to something that does not exist.')
  if (TOO_LONG.has(code) || Object.values(NUMBERS).includes(error.errno ?? 0))
    return make('invalid', 'A value is outside what can be kept.')
  if (AWAY.has(code) || AWAY_TEXT.test(error.message))
    return make(
      'database_away',
      'The database does not answer. Nothing was saved; try again in a moment.',
      { retryAfter: 2 },
    )
  return null
}

export function problemOf(error: unknown, requestId: string): Problem {
  if (error instanceof LedgerError)
    return make(error.code, error.message, {
      ...(error.errors.length ? { errors: error.errors } : {}),
      ...error.extra,
    })
  if (error instanceof ValidationError) {
    const errors = (error.inner.length ? error.inner : [error]).map((e) => ({
      path: e.path ?? '',
      message: e.message,
    }))
    return make('invalid', errors[0]?.message ?? 'Something is missing.', { errors })
  }
  if (error instanceof InvalidValue) return make('invalid', error.message)
  const known = problemOfDatabase(error as DatabaseError)
  if (known) return known
  const { code, errno, message, stack } = error as DatabaseError & { stack?: string }
  log.error({ requestId, err: { code, errno, message, stack } }, 'unexpected')
  return make(
    'unexpected',
    `Something went wrong on our side (reference ${requestId}). Nothing was saved.`,
  )
}
