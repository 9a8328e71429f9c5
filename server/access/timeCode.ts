// Codes that an app makes of a secret and the time, as RFC 6238 describes them: six figures, another one every thirty seconds.
import { Secret, TOTP } from 'otpauth'

const SECRET_BYTES = 20
const PERIOD_SECONDS = 30
/** A clock may be off by one period, either way. */
const WINDOW = 1

export const newSecret = (): string => new Secret({ size: SECRET_BYTES }).base32
const totpOf = (secret: string, of: { issuer: string; label: string } | null = null): TOTP =>
  new TOTP({
    ...(of ?? {}),
    ...{ secret: Secret.fromBase32(secret), algorithm: 'SHA1', digits: 6, period: PERIOD_SECONDS },
  })
/** What an app reads to make the codes of this firm and person. */
export const addressFor = (secret: string, issuer: string, label: string): string =>
  totpOf(secret, { issuer, label }).toString()
/**
 * Which period a code is of, counted from 1970; null where it is none of now.
 * @param at an instant, in milliseconds
 */
export function periodOf(secret: string, code: string, at: number): number | null {
  const delta = totpOf(secret).validate({ token: code, timestamp: at, window: WINDOW })
  return delta === null ? null : Math.floor(at / 1000 / PERIOD_SECONDS) + delta
}
/** The code of a moment; a person's app makes it, and tests. */
export const codeAt = (secret: string, at: number): string =>
  totpOf(secret).generate({ timestamp: at })
