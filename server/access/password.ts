// Passwords are kept as scrypt hashes (RFC 7914) with their own salt and parameters.
import { randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto'

const derive = (password: string, salt: Buffer, options: ScryptOptions) => new Promise<Buffer>((done, fail) => scrypt(password, salt, 32, options, (e, key) => (e ? fail(e) : done(key))))
export async function hashPassword(password: string, salt = randomBytes(16), cost = 16_384): Promise<string> {
  return `scrypt$${cost}$${salt.toString('base64')}$${(await derive(password, salt, { N: cost, r: 8, p: 1 })).toString('base64')}`
}
export async function checkPassword(password: string, kept: string): Promise<boolean> {
  const [, cost, salt, hash] = kept.split('$')
  const made = await derive(password, Buffer.from(salt!, 'base64'), { N: Number(cost), r: 8, p: 1 })
  return timingSafeEqual(made, Buffer.from(hash!, 'base64'))
}
