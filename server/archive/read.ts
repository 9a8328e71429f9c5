// An archive that comes back: opened at any place of it, and bounded, since what a file says of its size may be a lie.
import { createInterface } from 'node:readline'
import { Readable } from 'node:stream'
import { crc32 } from 'node:zlib'
import { openPromise, type Entry, type ZipFile } from 'yauzl'
import { invalid, LedgerError } from '../../core/errors/LedgerError'

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
/** What a file of the archive holds, no longer than `most`, and as it was put in: a disk that is ill loses bits. */
async function* sound(
  stream: Readable,
  { crc32: sum }: Entry,
  most: number,
): AsyncGenerator<Buffer> {
  let [size, found] = [0, 0]
  for await (const piece of stream) {
    size += (piece as Buffer).length
    if (size > most) throw broken()
    found = crc32(piece as Buffer, found)
    yield piece as Buffer
  }
  if (found !== sum) throw broken()
}
async function whole(pieces: AsyncIterable<Buffer>): Promise<Buffer> {
  const all: Buffer[] = []
  for await (const piece of pieces) all.push(piece)
  return Buffer.concat(all)
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
    async function* piecesOf(path: string, most: number): AsyncGenerator<Buffer> {
      const entry = entries.get(path)
      if (!entry) throw refusal(`${path} is missing from this archive. Nothing was taken in.`)
      if (entry.uncompressedSize > most) throw broken()
      const stream = await zip.openReadStreamPromise(entry)
      try {
        yield* sound(stream, entry, most)
      } catch (error) {
        // What cannot be unpacked is damaged, whatever the library calls it.
        throw error instanceof LedgerError ? error : broken()
      }
    }
    const bytes = (path: string) => whole(piecesOf(path, LARGEST_FILE))
    return {
      has: (path) => entries.has(path),
      bytes,
      text: async (path) => (await bytes(path)).toString('utf8'),
      async *lines(path) {
        const input = Readable.from(piecesOf(path, LARGEST_ROWS), { objectMode: false })
        const lines = createInterface({ input, crlfDelay: Infinity })
        let fault: Error | null = null
        input.once('error', (error) => {
          fault = error
          lines.close()
        })
        yield* lines
        if (fault) throw fault as Error
      },
      close: () => zip.close(),
    }
  } catch (error) {
    zip.close()
    throw error
  }
}
