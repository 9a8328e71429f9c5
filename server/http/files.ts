// What a file is, its first bytes say, not its name.
import { LedgerError } from '../../core/errors/LedgerError'

const PNG = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])
const SIGNS: Record<string, (b: Buffer) => boolean> = {
  'image/png': (b) => b.subarray(0, 8).equals(PNG),
  'image/jpeg': (b) => b[0] === 0xff && b[1] === 0xd8 && b[2] === 0xff,
  'image/webp': (b) =>
    b.subarray(0, 4).toString('latin1') === 'RIFF' &&
    b.subarray(8, 12).toString('latin1') === 'WEBP',
  'application/pdf': (b) => b.subarray(0, 5).toString('latin1') === '%PDF-',
}
export const PICTURES = ['image/png', 'image/jpeg', 'image/webp']
const NAMES: Record<string, string> = {
  'image/png': 'PNG',
  'image/jpeg': 'JPEG',
  'image/webp': 'WebP',
  'application/pdf': 'PDF',
}
export const LARGEST = 5_000_000

/** A file as it came in JSON (base64, with or without a data: head), checked for its kind and size. */
export const fromBase64 = (data: string): Buffer =>
  Buffer.from(data.replace(/^data:[\w/+.-]+;base64,/, ''), 'base64')
export const isKind = (bytes: Buffer, kind: string): boolean => SIGNS[kind]!(bytes)
export function kindOf(bytes: Buffer, allowed: readonly string[]): string {
  if (bytes.length > LARGEST) throw new LedgerError('too_large', 'A file may have 5 MB.')
  const mime = allowed.find((kind) => SIGNS[kind]!(bytes))
  if (mime) return mime
  const names = allowed.map((kind) => NAMES[kind]!)
  const kind = allowed.length === PICTURES.length ? 'picture' : 'file'
  const message = `This is not a ${names.slice(0, -1).join(', ')} or ${names.at(-1)} ${kind}.`
  throw new LedgerError('not_a_picture', message, { errors: [{ path: 'data', message }] })
}
