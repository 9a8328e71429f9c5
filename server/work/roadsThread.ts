// A road network, read beside everything else.
import type { Roads } from '../../core/dispatch/roads/network'
import { LedgerError } from '../../core/errors/LedgerError'
import { startThread } from './thread'

/** A file as it was chosen, or as it is kept. */
export type RoadsFile = { text: string } | { packed: Uint8Array }
export interface ReadRoads {
  roads: Roads
  ground: string
  packed: Uint8Array
}
type Said = { read: ReadRoads } | { refused: Pick<LedgerError, 'code' | 'message' | 'errors'> }

export function roadsIn(file: RoadsFile): Promise<ReadRoads> {
  const worker = startThread('roadsWorker', file)
  return new Promise((done, fail) => {
    worker.once('message', (said: Said) => {
      if ('read' in said) done(said.read)
      else fail(new LedgerError(said.refused.code, said.refused.message, said.refused))
    })
    worker.once('error', fail)
    worker.once('exit', (code) => fail(new Error(`the reader of roads ended by itself (${code})`)))
  })
}
