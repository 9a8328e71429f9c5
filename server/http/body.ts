// A body read up to its limit, counted as it arrives: a length that lies does not help.
import type { H3Event } from 'h3'
import { LedgerError } from '../../core/errors/LedgerError'

export async function readBounded(event: H3Event, limit: number): Promise<Buffer> {
  const tooLarge = new LedgerError(
    'too_large',
    `This is larger than the ${limit >= 1e6 ? `${Math.floor(limit / 1e6)} MB` : `${Math.floor(limit / 1000)} kB`} that are taken here.`,
  )
  if (Number(event.node.req.headers['content-length'] ?? 0) > limit) throw tooLarge
  const chunks: Buffer[] = []
  let size = 0
  for await (const chunk of event.node.req) {
    size += (chunk as Buffer).length
    if (size > limit) throw tooLarge
    chunks.push(chunk as Buffer)
  }
  return Buffer.concat(chunks)
}
