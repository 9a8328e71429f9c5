// JSON lines with a request id; no personal data and no secrets.
import pino from 'pino'

export const log = pino({ level: process.env.LOG_LEVEL ?? 'warn', base: null })
