// Whether the service and its database answer.
import { setResponseStatus, type H3Event } from 'h3'
import { databaseAnswers } from '../db/pool'
import { VERSION } from './version'

const WITHIN_MS = 2_000

export async function health(
  event: H3Event,
): Promise<{ status: string; db: string; version: string }> {
  if (await databaseAnswers(WITHIN_MS)) return { status: 'ok', db: 'ok', version: VERSION }
  setResponseStatus(event, 503)
  return { status: 'failing', db: 'does not answer', version: VERSION }
}
