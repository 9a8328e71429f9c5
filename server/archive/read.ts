// An archive that comes back: opened at any place of it, and bounded, since what a file says of its size may be a lie.
import { createInterface } from 'node:readline'
import type { Readable } from 'node:stream'
import { openPromise, type Entry, type ZipFile } from 'yauzl'
import { invalid } from '../../core/errors/LedgerError'

/** So much of the file of one table, or of one picture, is taken at most. */
const LARGEST_ROWS = 4e9
const LARGEST_FILE = 64e6

export const refusal = (sentence: string) => invalid('file', sentence)
const broken = () => refusal('This file is damaged, or it is no archive. Nothing was taken in.')

export interface Opened {
  has(path: string): boolean
  text(path: string): Promise<string>
  bytes(path: string): Promise<Buffer>
  lines(path: string): AsyncIterable<string>
  close(): void
}
async function bounded(stream: Readable, most: number): Promise<Buffer> {
  const pieces: Buffer[] = []
  let size = 0
  for await (const piece of stream) {
    size += (piece as Buffer).length
    if (size > most) throw broken()
    pieces.push(piece as Buffer)
  }
  return Buffer.concat(pieces)
}
async function entriesOf(zip: ZipFile): Promise<Map<string, Entry>> {
  const entries = new Map<string, Entry>()
  for await (const entry of zip.eachEntry()) entries.set(entry.fileName, entry)
  return entries
}
/** Opens a file that says it is an archive. */
export async function openArchive(file: string): Promise<Opened> {
  const zip = await openPromise(file, { autoClose: false, lazyEntries: true }).catch(() => {
    throw broken()
  })
  try {
    const entries = await entriesOf(zip)
    const streamOf = (path: string, most: number) => {
      const entry = entries.get(path)
      if (!entry) throw refusal(`${path} is missing from this archive. Nothing was taken in.`)
      if (entry.uncompressedSize > most) throw broken()
      return zip.openReadStreamPromise(entry)
    }
    const bytes = async (path: string) => bounded(await streamOf(path, LARGEST_FILE), LARGEST_FILE)
    return {
      has: (path) => entries.has(path),
      bytes,
      text: async (path) => (await bytes(path)).toString('utf8'),
      async *lines(path) {
        const input = await streamOf(path, LARGEST_ROWS)
        yield* createInterface({ input, crlfDelay: Infinity })
      },
      close: () => zip.close(),
    }
  } catch (error) {
    zip.close()
    throw error
  }
}
