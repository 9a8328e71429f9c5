// Whoever changes what is set up says what they saw: where somebody changed it meanwhile, they are told, and nothing is lost.
import { isDeepStrictEqual } from 'node:util'
import { conflict } from '../../core/errors/LedgerError'

/** As it is kept and sent, where what is left out and what is not there are the same. */
const plain = (value: unknown): unknown => JSON.parse(JSON.stringify(value ?? null))
export const alike = (one: unknown, other: unknown): boolean =>
  isDeepStrictEqual(plain(one), plain(other))
/** Refuses what was meant for something else than stands there; `current` is what the answer says of it. */
export function refuseOther(
  what: string,
  { now, shown, current = now }: { now: unknown; shown: unknown; current?: unknown },
): void {
  if (!alike(now, shown))
    throw conflict('stale', `Someone changed ${what} in the meantime.`, { current })
}
/** The same parts of it. */
export const partsOf = <T extends object, K extends keyof T>(of: T, keys: readonly K[]) =>
  Object.fromEntries(keys.map((key) => [key, of[key]])) as Pick<T, K>
