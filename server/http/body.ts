// A body read up to its limit, counted as it arrives: a length that lies does not help.
import { createWriteStream } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import type { H3Event } from 'h3'
import { LedgerError } from '../../core/errors/LedgerError'

const saySize = (bytes: number): string =>
  bytes >= 1e6 ? `${Math.floor(bytes / 1e6)} MB` : `${Math.floor(bytes / 1000)} kB`
async function* upTo(event: H3Event, limit: number): AsyncGenerator<Buffer> {
  const tooLarge = new LedgerError(
    'too_large',
    `This is larger than the ${saySize(limit)} that are taken here.`,
  )
  if (Number(event.node.req.headers['content-length'] ?? 0) > limit) throw tooLarge
  let size = 0
  for await (const chunk of event.node.req) {
    size += (chunk as Buffer).length
    if (size > limit) throw tooLarge
    yield chunk as Buffer
  }
}
export async function readBounded(event: H3Event, limit: number): Promise<Buffer> {
  const chunks: Buffer[] = []
  for await (const chunk of upTo(event, limit)) chunks.push(chunk)
  return Buffer.concat(chunks)
}
/** What is too long to be held goes into a file of its own, which is gone when the request is over. */
export async function readToFile(event: H3Event, limit: number): Promise<string> {
  const folder = await mkdtemp(join(tmpdir(), 'open-ledger-'))
  event.node.res.once('close', () => void rm(folder, { recursive: true, force: true }))
  const file = join(folder, 'sent')
  await pipeline(upTo(event, limit), createWriteStream(file, { mode: 0o600 }))
  return file
}
