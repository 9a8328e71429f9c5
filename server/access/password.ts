// Passwords are kept as scrypt hashes (RFC 7914) with their own salt and parameters. A hash costs a
// core for a twentieth of a second, so that one is worked out at a time, and the queue of them has an end.
import { randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto'
import { LedgerError } from '../../core/errors/LedgerError'

const AT_ONCE = 1
const MOST_WAITING = 60
const KEY_BYTES = 32
const COST = 16_384
let working = 0
const queue: (() => void)[] = []

async function inTurn<T>(work: () => Promise<T>): Promise<T> {
  if (working >= AT_ONCE) {
    if (queue.length >= MOST_WAITING)
      throw new LedgerError(
        'busy',
        'Too many are signing in at this moment. Try again in a few seconds.',
        { extra: { retryAfter: 5 } },
      )
    await new Promise<void>((done) => queue.push(done))
  } else working++
  try {
    return await work()
  } finally {
    // The place goes to the next in the queue, or becomes free.
    const next = queue.shift()
    if (next) next()
    else working--
  }
}
const derive = (password: string, salt: Buffer, options: ScryptOptions) =>
  inTurn(
    () =>
      new Promise<Buffer>((done, fail) => {
        scrypt(password, salt, KEY_BYTES, options, (error, key) =>
          error ? fail(error) : done(key),
        )
      }),
  )

export async function hashPassword(
  password: string,
  salt = randomBytes(16),
  cost = COST,
): Promise<string> {
  const key = await derive(password, salt, { N: cost, r: 8, p: 1 })
  return `scrypt$${cost}$${salt.toString('base64')}$${key.toString('base64')}`
}
export async function checkPassword(password: string, kept: string): Promise<boolean> {
  const [, cost, salt, hash] = kept.split('$')
  const made = await derive(password, Buffer.from(salt!, 'base64'), { N: Number(cost), r: 8, p: 1 })
  return timingSafeEqual(made, Buffer.from(hash!, 'base64'))
}
