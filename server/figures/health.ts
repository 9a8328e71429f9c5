// Whether the service and its database answer.
import { setResponseStatus, type H3Event } from 'h3'
import { getPool } from '../db/pool'
import { VERSION } from './version'

export async function health(event: H3Event): Promise<{ status: string, db: string, version: string }> {
  try {
    await getPool().query('SELECT 1')
    return { status: 'ok', db: 'ok', version: VERSION }
  }
  catch {
    setResponseStatus(event, 503)
    return { status: 'failing', db: 'does not answer', version: VERSION }
  }
}
