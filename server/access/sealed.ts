// What must be read again but by nobody who reads the database: sealed with a key of the app's secret.
import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto'
import { secret } from './session'

const [KEY_BYTES, IV_BYTES, TAG_BYTES] = [32, 12, 16]
const keyFor = (purpose: string): Buffer =>
  Buffer.from(hkdfSync('sha256', secret(), '', purpose, KEY_BYTES))

/** AES-256 in Galois counter mode (NIST SP 800-38D): what was sealed for one purpose, or changed since, is not opened. */
export function seal(plain: string, purpose: string): string {
  const iv = randomBytes(IV_BYTES)
  const cipher = createCipheriv('aes-256-gcm', keyFor(purpose), iv)
  const sealed = Buffer.concat([cipher.update(plain, 'utf8'), cipher.final()])
  return Buffer.concat([iv, cipher.getAuthTag(), sealed]).toString('base64')
}
/** @throws Error where it was sealed for another purpose or with another secret, or was changed */
export function unseal(text: string, purpose: string): string {
  const bytes = Buffer.from(text, 'base64')
  const [iv, tag] = [bytes.subarray(0, IV_BYTES), bytes.subarray(IV_BYTES, IV_BYTES + TAG_BYTES)]
  const decipher = createDecipheriv('aes-256-gcm', keyFor(purpose), iv)
  decipher.setAuthTag(tag)
  const sealed = bytes.subarray(IV_BYTES + TAG_BYTES)
  return Buffer.concat([decipher.update(sealed), decipher.final()]).toString('utf8')
}
