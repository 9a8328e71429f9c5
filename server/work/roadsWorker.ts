// Reads a road network in a thread of its own: a county's takes seconds, in which the server answers everybody else.
import { parentPort, workerData } from 'node:worker_threads'
import { gunzipSync, gzipSync } from 'node:zlib'
import { mapGround } from '../../core/dispatch/mapGround'
import { readRoads } from '../../core/dispatch/roads/readRoads'
import { invalid, LedgerError } from '../../core/errors/LedgerError'
import type { ReadRoads, RoadsFile } from './roadsThread'

function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    throw invalid('data', 'This file is not JSON.')
  }
}
function read(file: RoadsFile): ReadRoads {
  const data = parsed('text' in file ? file.text : gunzipSync(file.packed).toString('utf8'))
  const roads = readRoads(data)
  return {
    roads,
    ground: JSON.stringify(mapGround(data)),
    packed: 'text' in file ? gzipSync(JSON.stringify(data)) : file.packed,
  }
}
try {
  const made = read(workerData as RoadsFile)
  const { lat, lon, first, to, seconds, back, usable } = made.roads
  // Handed over, not copied.
  parentPort!.postMessage(
    { read: made },
    [lat, lon, first, to, seconds, back.first, back.to, back.seconds, usable].map(
      (a) => a.buffer as ArrayBuffer,
    ),
  )
} catch (error) {
  if (!(error instanceof LedgerError)) throw error
  const { code, message, errors } = error
  parentPort!.postMessage({ refused: { code, message, errors } })
}
