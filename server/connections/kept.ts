// The outside services that the firm named itself, as this process knows them: read when it starts, and again and again.
import { SECOND } from '../../core/time/units'
import { unseal } from '../access/sealed'
import { connectTo, type Connected, type ConnectionKind } from '../config'
import { transaction } from '../db/pool'
import { log } from '../http/log'
import { connectionRows, type ConnectionRow } from './queries'

/** Another process learns of a change within that. */
const AGAIN_MS = 5 * SECOND
export const SEALED_FOR = 'connection'
/** A secret that this installation did not seal opens nothing: it has to be written again. */
function opened({ kind, sealed }: ConnectionRow): string {
  try {
    return sealed && unseal(sealed, `${SEALED_FOR} ${kind}`)
  } catch {
    log.warn({ kind }, 'the secret of a connection cannot be opened')
    return ''
  }
}
/** A mail server is named with its user and secret in one address. */
function addressOf(row: ConnectionRow, secret: string): string {
  if (row.kind !== 'mail' || !row.user) return row.address
  const url = new URL(row.address)
  url.username = encodeURIComponent(row.user)
  url.password = encodeURIComponent(secret)
  return url.href
}
let read = ''
export async function readConnections(): Promise<void> {
  const rows = await transaction((tx) => connectionRows(tx))
  const now = JSON.stringify(rows)
  if (now === read) return
  read = now
  const named = rows.filter(({ address, sealed }) => address || sealed)
  connectTo(
    new Map(
      named.map((row): [ConnectionKind, Connected] => {
        const secret = opened(row)
        return [row.kind, { address: addressOf(row, secret), secret }]
      }),
    ),
  )
}
/** Reads them until it is stopped; where the database is away, what was read last holds. */
export function followConnections(): () => void {
  const look = () => void readConnections().catch(() => undefined)
  look()
  const timer = setInterval(look, AGAIN_MS)
  timer.unref()
  return () => clearInterval(timer)
}
