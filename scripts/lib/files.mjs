// Files that a power cut or a full disk must not leave half-written.
import {
  chmodSync,
  closeSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readFileSync,
  renameSync,
  writeSync,
} from 'node:fs'
import { dirname } from 'node:path'

/** Writes it whole or not at all: under another name first, then renamed. */
export function writeWhole(file, text, mode = 0o600) {
  mkdirSync(dirname(file), { recursive: true })
  const part = `${file}.${process.pid}.part`
  const handle = openSync(part, 'w', mode)
  writeSync(handle, text)
  fsyncSync(handle)
  closeSync(handle)
  chmodSync(part, mode)
  renameSync(part, file)
}
export const readIfThere = (file) => (existsSync(file) ? readFileSync(file, 'utf8') : null)
/** What a file of JSON says; null where there is none, or none that can be read. */
export function readJson(file) {
  try {
    return JSON.parse(readIfThere(file) ?? 'null')
  } catch {
    return null
  }
}
