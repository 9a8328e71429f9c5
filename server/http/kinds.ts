// The kind of every value that is sent, checked in one place before any schema reads it: nothing is
// made into a text that is none, and no text holds signs that no text has.
import type { AnySchema } from 'yup'
import { LedgerError, type Fault } from '../../core/errors/LedgerError'
import { isOneLine, type TextMeta } from '../../shared/schema'

const KIND = 'This is not of the right kind.'
const MOST_DEEP = 40

const malformed = (message: string) => new LedgerError('malformed', message)
const isPlain = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/** Names that every object has by birth (`constructor`, `__proto__`) are no names of fields, at any depth. */
function checkNames(value: unknown, depth: number): void {
  if (depth > MOST_DEEP) throw malformed('This is nested too deeply.')
  if (Array.isArray(value)) {
    for (const one of value) checkNames(one, depth + 1)
    return
  }
  if (!isPlain(value)) return
  for (const [key, one] of Object.entries(value)) {
    if (key in Object.prototype) throw malformed('A field has a name that is not taken here.')
    if (!key.isWellFormed()) throw malformed('The name of a field is no text.')
    checkNames(one, depth + 1)
  }
}

type Described = AnySchema & { fields?: Record<string, AnySchema>; innerType?: AnySchema }
const WANTED: Record<string, (value: unknown) => boolean> = {
  string: (value) => typeof value === 'string',
  number: (value) => typeof value === 'number' && Number.isFinite(value),
  boolean: (value) => typeof value === 'boolean',
  array: Array.isArray,
  object: isPlain,
}
function faultOfText(value: string, meta: TextMeta | undefined): string {
  if (!value.isWellFormed()) return 'This holds signs that are no text.'
  return isOneLine(value, meta)
    ? ''
    : 'This holds signs that cannot be kept, such as line breaks or marks that turn the direction of reading.'
}
/** What is wrong with a value that is of its schema's kind: with itself, or with what it holds. */
const FAULTS_IN: Partial<
  Record<string, (schema: Described, value: never, path: string) => Fault[]>
> = {
  string: (schema, value: string, path) => {
    const message = faultOfText(value, schema.spec.meta as TextMeta | undefined)
    return message ? [{ path, message }] : []
  },
  array: ({ innerType }, value: unknown[], path) =>
    innerType ? value.flatMap((one, i) => faultsOf(innerType, one, `${path}[${i}]`)) : [],
  object: ({ fields = {} }, value: Record<string, unknown>, path) =>
    Object.entries(value).flatMap(([key, one]) =>
      Object.hasOwn(fields, key) ? faultsOf(fields[key]!, one, path ? `${path}.${key}` : key) : [],
    ),
}
const kindOf = (value: unknown) => (Array.isArray(value) ? 'array' : typeof value)
function faultsOf(schema: Described, value: unknown, path: string): Fault[] {
  if (value === undefined || value === null) return []
  if (WANTED[schema.type]?.(value) === false) return [{ path, message: KIND }]
  return FAULTS_IN[kindOf(value)]?.(schema, value as never, path) ?? []
}
function refuse(faults: Fault[]): void {
  if (faults.length) throw new LedgerError('invalid', faults[0]!.message, { errors: faults })
}

/** Refuses a body whose values are not of the kinds that its schema names. */
export function checkBody(schema: AnySchema, body: unknown): void {
  checkNames(body, 0)
  refuse(faultsOf(schema, body, ''))
}
/** Everything in a query is a text, and stands there once. */
export function checkQuery(query: Record<string, unknown>): void {
  const faults: Fault[] = []
  for (const [path, value] of Object.entries(query)) {
    if (typeof value !== 'string')
      throw malformed(`“${path.slice(0, 40)}” stands twice in the address.`)
    if (path in Object.prototype) throw malformed('A parameter has a name that is not taken here.')
    const message = faultOfText(value, undefined)
    if (message) faults.push({ path, message })
  }
  refuse(faults)
}
