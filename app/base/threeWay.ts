import { keepEqual } from '~/lib/keepEqual'

type Plain = Record<string, unknown>
const isPlain = (value: unknown): value is Plain =>
  typeof value === 'object' && value !== null && !Array.isArray(value)
/** Whether two say the same, in whatever order their parts are named. */
export const alike = (a: unknown, b: unknown): boolean => keepEqual(a, b) === a

export interface Merged<Values> {
  values: Values
  /** what somebody else made of what was typed over here, by its path */
  theirs: Map<string, unknown>
}
/**
 * What a form shows after the thing it is about changed elsewhere: what nobody typed over follows, what was typed stays. Where
 * both changed the same to something else, what was typed stays, and what the other made of it is told.
 * @example threeWay({ a: 1, b: 1 }, { a: 2, b: 1 }, { a: 3, b: 3 }) // values { a: 2, b: 3 }, theirs { a → 3 }
 */
export function threeWay<Values extends object>(
  before: Partial<Values>,
  typed: Values,
  now: Partial<Values>,
): Merged<Values> {
  const theirs = new Map<string, unknown>()
  const merge = (was: Plain, mine: Plain, next: Plain, path: string): Plain => {
    const merged = { ...mine }
    for (const key of Object.keys(next)) {
      const [a, b, c] = [was[key], mine[key], next[key]]
      const at = path + key
      if (isPlain(b) && isPlain(c)) merged[key] = merge(isPlain(a) ? a : {}, b, c, `${at}.`)
      else if (alike(a, b)) merged[key] = c
      else if (!alike(a, c) && !alike(b, c)) theirs.set(at, c)
    }
    return merged
  }
  return { values: merge(before as Plain, typed as Plain, now as Plain, '') as Values, theirs }
}

/** What of some values is no longer as it was, part by part. */
export const changesIn = <Values extends object>(
  before: Partial<Values>,
  now: Values,
): Partial<Values> =>
  Object.fromEntries(
    Object.entries(now).filter(([key, value]) => !alike(value, before[key as keyof Values])),
  ) as Partial<Values>

/** The value at a path of names with dots between. */
export const valueAt = (values: object, path: string): unknown =>
  path.split('.').reduce<unknown>((at, name) => (isPlain(at) ? at[name] : undefined), values)

/** Sets the value at a path, where its way is there. */
export function setAt(values: object, path: string, value: unknown): void {
  const names = path.split('.')
  const last = names.pop()!
  const around = names.length ? valueAt(values, names.join('.')) : values
  if (isPlain(around)) around[last] = value
}
